//! Work that takes a while: how far it has come, and a way to stop it.

use std::sync::atomic::{AtomicBool, AtomicUsize, Ordering};

/// Work on a proof, shared between who works and who waits.
#[derive(Debug, Default)]
pub struct Work {
    stopped: AtomicBool,
    done: AtomicUsize,
}

impl Work {
    /// Asks it to stop; what it had begun is thrown away.
    pub fn stop(&self) {
        self.stopped.store(true, Ordering::Relaxed);
    }

    /// Whether it was asked to stop.
    pub fn is_stopped(&self) -> bool {
        self.stopped.load(Ordering::Relaxed)
    }

    /// How many spots were worked out, of all layers together.
    pub fn done(&self) -> usize {
        self.done.load(Ordering::Relaxed)
    }

    /// Whether to go on; nothing where it was stopped.
    pub(super) fn go_on(&self) -> Option<()> {
        (!self.is_stopped()).then_some(())
    }

    /// One spot more; nothing where it was stopped.
    pub(super) fn one_more(&self) -> Option<()> {
        self.go_on()?;
        self.done.fetch_add(1, Ordering::Relaxed);
        Some(())
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn what_is_stopped_goes_no_farther() {
        let work = Work::default();
        assert!(work.one_more().is_some() && work.one_more().is_some());
        work.stop();
        assert!(work.one_more().is_none() && work.is_stopped());
        assert_eq!(work.done(), 2);
    }
}
