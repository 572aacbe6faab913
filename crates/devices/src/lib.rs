//! Outside devices and services behind traits, and the simulated stand-ins that ship with Tolva. What a stand-in gives
//! is marked as simulated wherever it shows.

mod camera;
mod forecast;
mod meter;
mod trigger;

pub use camera::{Camera, Scene, SimulatedCamera};
pub use forecast::{Forecast, SimulatedForecast};
pub use meter::{Meter, SimulatedMeter};
pub use trigger::{Heard, Sent, SimulatedTrigger, Trigger, UnitState};

use rand_chacha::ChaCha8Rng;
use rand_chacha::rand_core::SeedableRng as _;
use thiserror::Error;

/// Why a device or service gave nothing.
#[derive(Clone, Debug, PartialEq, Eq, Error)]
pub enum DeviceError {
    /// It does not answer.
    #[error("{0} does not answer")]
    Silent(String),
    /// What it was asked makes no sense.
    #[error("{0}")]
    Asked(String),
}

/// Randomness that is the same for the same words, on every machine: FNV-1a (Fowler, Noll, Vo) into `ChaCha8`.
fn dice(words: &[&str]) -> ChaCha8Rng {
    let mut seed: u64 = 0xcbf2_9ce4_8422_2325;
    for byte in words.join("\u{1f}").bytes() {
        seed = (seed ^ u64::from(byte)).wrapping_mul(0x0100_0000_01b3);
    }
    ChaCha8Rng::seed_from_u64(seed)
}
