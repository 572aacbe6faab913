//! What is done on one screen shows on the others: who looks at a job, that it was saved, that frames of it came.

use std::sync::{Arc, Mutex, PoisonError};

use tokio::sync::broadcast;

/// So many tellings wait for a screen that is slow; it reads everything again then.
const WAITING: usize = 64;

/// What is told.
#[derive(Clone, Debug)]
pub enum What {
    /// It was saved.
    Saved,
    /// Others came or went.
    Present,
    /// Its frames are others now.
    Frames,
    /// What went wrong with a frame, in words.
    Wrong(String),
    /// Devices were put out.
    PutOut,
    /// The server stops.
    Over,
}

/// What is told to the screens that look at a job.
#[derive(Clone, Debug)]
pub struct Told {
    /// The job; empty where it is about all of them.
    pub job_id: String,
    /// What.
    pub what: What,
}

/// Somebody who looks at a job.
#[derive(Clone, Debug)]
struct Here {
    number: u64,
    job_id: String,
    who: String,
    /// The window it is seen in: what was seen there before is seen no longer.
    window: String,
}

#[derive(Debug, Default)]
struct Present {
    last: u64,
    here: Vec<Here>,
}

/// What all screens know of each other.
#[derive(Clone, Debug)]
pub struct Live {
    told: broadcast::Sender<Told>,
    present: Arc<Mutex<Present>>,
}

impl Default for Live {
    fn default() -> Self {
        Self { told: broadcast::channel(WAITING).0, present: Arc::default() }
    }
}

impl Live {
    fn tell(&self, job_id: &str, what: What) {
        // Nobody may be looking.
        let _ = self.told.send(Told { job_id: job_id.to_owned(), what });
    }

    /// Tells that a job was saved.
    pub fn saved(&self, job_id: &str) {
        self.tell(job_id, What::Saved);
    }

    /// Tells that a job's frames are others now.
    pub fn frames(&self, job_id: &str) {
        self.tell(job_id, What::Frames);
    }

    /// Tells what went wrong with a frame of a job, in words.
    pub fn wrong(&self, job_id: &str, says: String) {
        self.tell(job_id, What::Wrong(says));
    }

    /// What is told from now on.
    pub fn listen(&self) -> broadcast::Receiver<Told> {
        self.told.subscribe()
    }

    /// Tells that devices were put out: what is told to them ends.
    pub fn put_out(&self) {
        self.tell("", What::PutOut);
    }

    /// Ends what is told: the server stops.
    pub fn close(&self) {
        self.tell("", What::Over);
    }

    /// Somebody looks at a job in a window, for as long as what comes back is kept, or until the same window looks elsewhere: a
    /// line that was left is noticed late.
    pub fn come(&self, job_id: &str, who: &str, window: &str) -> Looking {
        let number = {
            let mut present = self.present.lock().unwrap_or_else(PoisonError::into_inner);
            present.last += 1;
            present.here.retain(|one| window.is_empty() || one.window != window);
            let (job_id, who, window) = (job_id.to_owned(), who.to_owned(), window.to_owned());
            let here = Here { number: present.last, job_id, who, window };
            present.here.push(here);
            present.last
        };
        self.tell(job_id, What::Present);
        Looking { live: self.clone(), number, job_id: job_id.to_owned() }
    }
}

/// Somebody who looks at a job.
pub struct Looking {
    live: Live,
    number: u64,
    job_id: String,
}

impl Looking {
    /// The names of the others who look at it; an empty one is the machine itself.
    pub fn others(&self) -> Vec<String> {
        let present = self.live.present.lock().unwrap_or_else(PoisonError::into_inner);
        let others = present.here.iter().filter(|one| one.job_id == self.job_id && one.number != self.number);
        others.map(|one| one.who.clone()).collect()
    }
}

impl Drop for Looking {
    fn drop(&mut self) {
        let mut present = self.live.present.lock().unwrap_or_else(PoisonError::into_inner);
        present.here.retain(|one| one.number != self.number);
        drop(present);
        self.live.tell(&self.job_id, What::Present);
    }
}

#[cfg(test)]
mod tests {
    use super::*;

    #[test]
    fn who_looks_is_known_to_the_others_until_they_go() {
        let live = Live::default();
        let desk = live.come("job", "", "");
        let phone = live.come("job", "Helper's phone", "one");
        let elsewhere = live.come("another", "Tablet", "two");
        assert_eq!((desk.others(), phone.others()), (vec!["Helper's phone".to_owned()], vec![String::new()]));
        assert!(elsewhere.others().is_empty());
        // The same window again, before the line it left is noticed.
        let again = live.come("job", "Helper's phone", "one");
        assert_eq!(desk.others().len(), 1);
        drop((phone, again));
        assert!(desk.others().is_empty());
    }
}
