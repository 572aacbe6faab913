//! The copies of pictures that were looked at last.

use std::path::Path;
use std::sync::{Arc, Mutex, PoisonError};

use tolva_core::frame::{Photo, ToneCurve};
use tolva_pictures::read;

use super::FrameError;

/// So many are kept: some 25 MB each.
const KEPT: usize = 4;

/// A picture that was opened: which, through which curve, and what was read.
type One = (String, Option<ToneCurve>, Arc<Photo>);

/// Pictures that were opened, the last one last.
#[derive(Debug, Default)]
pub(super) struct Opened(Mutex<Vec<One>>);

impl Opened {
    /// The copy of a frame in linear light.
    pub fn photo(&self, id: &str, file: &Path, curve: Option<&ToneCurve>) -> Result<Arc<Photo>, FrameError> {
        let held = || self.0.lock().unwrap_or_else(PoisonError::into_inner);
        let before = held().iter().find(|one| one.0 == id && one.1.as_ref() == curve).map(|one| Arc::clone(&one.2));
        if let Some(photo) = before {
            return Ok(photo);
        }
        let bytes = std::fs::read(file).map_err(|_| FrameError::Missing)?;
        let photo = Arc::new(read(&bytes, curve)?.photo);
        let mut all = held();
        all.push((id.to_owned(), curve.cloned(), Arc::clone(&photo)));
        if all.len() > KEPT {
            all.remove(0);
        }
        Ok(photo)
    }
}
