//! Frames that came: taken in, measured, held against their plan. What is read of a picture is kept for a while.

mod apart;
mod archive;
mod aside;
mod behind;
mod expected;
mod judged;
mod opened;
mod practice;
mod taking;
mod watch;

use std::sync::{Arc, Mutex};
use std::time::Duration;

use tolva_core::frame::{Photo, ToneCurve};
use tolva_format::{Kit, ProblemCode, Problems, TakenFrame};
use tolva_pictures::Unreadable;
use tolva_store::{Copied, Store, StoreError};

use crate::edge::refused;
use crate::live::Live;

pub use apart::{Apart, WithAndWithout, used};
pub use archive::{Archive, Go, MOST_WHOLE, packed};
pub use behind::photo_behind;
pub use expected::expected;
pub use judged::{came_of, dials, exposure_of, judge, mark_of, marks};
pub use practice::simulated;
pub use taking::{Arrived, Sent, take_in};
pub use watch::watch;

use opened::Opened;

/// Why a frame was not taken in, or cannot be shown.
#[derive(Debug)]
pub enum FrameError {
    /// The data file's.
    Store(StoreError),
    /// What came is no picture that can be measured.
    Unreadable(Unreadable),
    /// Something is not as it must be.
    Wrong(Problems),
    /// The copy of its picture is gone.
    Missing,
    /// It was stopped.
    Stopped,
    /// Measuring it took longer than this.
    TooLong(Duration),
}

impl FrameError {
    /// What is wrong, in words.
    pub fn says(&self) -> String {
        match self {
            Self::Store(error) => error.to_string(),
            Self::Unreadable(why) => why.to_string(),
            Self::Wrong(problems) => problems.0.iter().map(|one| one.message.clone()).collect::<Vec<_>>().join("; "),
            Self::Missing => "the copy of its picture is missing".to_owned(),
            Self::Stopped => "it was stopped".to_owned(),
            Self::TooLong(limit) => {
                format!("Not measured: it took over {} s. Export it smaller and add it again.", limit.as_secs())
            }
        }
    }
}

impl From<StoreError> for FrameError {
    fn from(error: StoreError) -> Self {
        Self::Store(error)
    }
}

impl From<Unreadable> for FrameError {
    fn from(error: Unreadable) -> Self {
        Self::Unreadable(error)
    }
}

impl From<Problems> for FrameError {
    fn from(problems: Problems) -> Self {
        Self::Wrong(problems)
    }
}

impl From<tolva_planner::refused::Refused> for FrameError {
    fn from(of: tolva_planner::refused::Refused) -> Self {
        Self::Wrong(refused(of))
    }
}

/// There is no such setup in the job.
pub fn no_such_setup(setup_id: &str) -> Problems {
    Problems::one("/setup", format!("there is no setup {setup_id} in this job")).coded(ProblemCode::NotThere)
}

/// What is kept of frames while the server runs.
#[derive(Debug)]
pub struct Frames {
    opened: Opened,
    apart: Mutex<Vec<(String, Arc<Apart>)>>,
    /// The screens that look.
    live: Arc<Live>,
    wake: tokio::sync::Notify,
    /// One frame is taken in at a time, so that what large pictures need is needed once.
    at_once: tokio::sync::Semaphore,
}

impl Frames {
    /// Nothing yet; what comes is told to the screens that look.
    pub fn new(live: Arc<Live>) -> Self {
        Self {
            opened: Opened::default(),
            apart: Mutex::default(),
            live,
            wake: tokio::sync::Notify::new(),
            at_once: tokio::sync::Semaphore::new(1),
        }
    }

    /// Waits until no other frame is taken in.
    pub async fn turn(&self) -> Option<tokio::sync::SemaphorePermit<'_>> {
        self.at_once.acquire().await.ok()
    }

    /// Tells that a job's frames are others now, or in words what went wrong with one.
    pub fn tell(&self, job_id: &str, wrong: Option<String>) {
        match wrong {
            Some(says) => self.live.wrong(job_id, says),
            None => self.live.frames(job_id),
        }
    }

    /// Has the watched folder looked at, now.
    pub fn look_again(&self) {
        self.wake.notify_one();
    }

    /// Waits until the watched folder is to be looked at.
    pub async fn woken(&self) {
        self.wake.notified().await;
    }

    /// The copy of a frame's picture in linear light, through its camera's curve.
    pub fn photo(&self, store: &Store, frame: &TakenFrame, kit: &Kit) -> Result<Arc<Photo>, FrameError> {
        let file = store.frame_picture(&frame.id, Copied::Measured);
        self.opened.photo(&frame.id, &file, curve_of(kit, &frame.setup.camera_id).as_ref())
    }
}

/// The curve a frame's camera has, by the kit: sRGB's unless it knows better.
fn curve_of(kit: &Kit, camera_id: &str) -> Option<ToneCurve> {
    let camera = kit.cameras.iter().find(|camera| camera.id == camera_id)?;
    ToneCurve::of_quarters(&camera.curve)
}
