//! The set: what stands on it, and what the wind does to it.

mod wind;

pub use wind::{ballast_kg, wind_force_n};
