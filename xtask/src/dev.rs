//! `cargo dev`: the server, and Vite's own before it with hot reload, in one terminal; both follow the files.

use std::path::{Path, PathBuf};
use std::process::{Child, Command};
use std::thread::sleep;
use std::time::{Duration, SystemTime};

use crate::{Done, cargo, install, root, run};

/// Where the page is while somebody works on it.
const PAGE: &str = "localhost:5173";
/// Where the server is that it asks.
const PORT: &str = "8465";
/// How often the files are looked at.
const GLANCE: Duration = Duration::from_millis(700);

/// Runs until it is stopped. Vite reloads the front end by itself; the server is built and started anew when a file of it
/// changes. Its data lies in `target/dev.sqlite`, at first the demo's.
pub fn dev() -> Done {
    install::front_end_packages()?;
    let data = root().join("target/dev.sqlite");
    println!("The server is built; the first time that takes some minutes.");
    run(cargo(&["build", "--package", "tolva-server"]))?;
    if !data.exists() {
        let mut import = tolva();
        run(import.arg("import").arg("--data").arg(&data).args(demo_files()?))?;
    }
    let mut vite = Command::new("npm");
    let vite = vite.args(["--silent", "run", "dev", "--", "--port", "5173", "--strictPort"]);
    let _vite = Running(vite.current_dir(root().join("web")).spawn().map_err(|error| format!("vite: {error}"))?);
    println!("\nThe page: http://{PAGE}/ (stop with Ctrl C)\n");
    loop {
        let newest = changed_at(&root().join("crates"))?;
        let _server = serve(&data)?;
        while changed_at(&root().join("crates"))? == newest {
            sleep(GLANCE);
        }
        println!("\nSomething of the server changed: it is built anew.");
        // What does not build is told; it is tried again when it has changed once more.
        if run(cargo(&["build", "--package", "tolva-server"])).is_err() {
            let broken = changed_at(&root().join("crates"))?;
            while changed_at(&root().join("crates"))? == broken {
                sleep(GLANCE);
            }
        }
    }
}

fn tolva() -> Command {
    Command::new(root().join("target/debug/tolva"))
}

fn serve(data: &Path) -> Result<Running, String> {
    let mut server = tolva();
    server.args(["serve", "--no-backups", "--port", PORT, "--allow-host", PAGE, "--data"]).arg(data);
    server.spawn().map(Running).map_err(|error| format!("tolva serve: {error}"))
}

fn demo_files() -> Result<Vec<PathBuf>, String> {
    let folder = std::fs::read_dir(root().join("demo")).map_err(|error| format!("demo: {error}"))?;
    let files = folder.filter_map(|entry| Some(entry.ok()?.path()));
    Ok(files.filter(|file| file.extension().is_some_and(|ending| ending == "json")).collect())
}

/// When a file under a folder was last changed.
fn changed_at(folder: &Path) -> Result<SystemTime, String> {
    let mut newest = SystemTime::UNIX_EPOCH;
    for entry in std::fs::read_dir(folder).map_err(|error| format!("{}: {error}", folder.display()))? {
        let path = entry.map_err(|error| error.to_string())?.path();
        let at = if path.is_dir() {
            changed_at(&path)?
        } else {
            // An editor may have taken it away in the meantime.
            path.metadata().and_then(|data| data.modified()).unwrap_or(SystemTime::UNIX_EPOCH)
        };
        newest = newest.max(at);
    }
    Ok(newest)
}

/// A program that ends with this one.
struct Running(Child);

impl Drop for Running {
    fn drop(&mut self) {
        let _ = self.0.kill();
        let _ = self.0.wait();
    }
}
