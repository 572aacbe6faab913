//! Where the data file is.

use std::path::PathBuf;

use directories::ProjectDirs;
use thiserror::Error;

/// No folder to keep a data file in.
#[derive(Debug, Error)]
pub enum NoDataFolder {
    #[error("this system names no data folder: say where with --data FILE")]
    Unknown,
    #[error("the data folder {} cannot be made: {}", .0.display(), .1)]
    Cannot(PathBuf, std::io::Error),
}

/// The file that was named, or `tolva.sqlite` in the user's own data folder, which is made where it is missing.
pub fn of(named: Option<PathBuf>) -> Result<PathBuf, NoDataFolder> {
    if let Some(file) = named {
        return Ok(file);
    }
    let folders = ProjectDirs::from("", "", "tolva").ok_or(NoDataFolder::Unknown)?;
    let folder = folders.data_dir().to_owned();
    std::fs::create_dir_all(&folder).map_err(|error| NoDataFolder::Cannot(folder.clone(), error))?;
    Ok(folder.join("tolva.sqlite"))
}
