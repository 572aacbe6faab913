//! Pictures as files: frames read into linear light with what they were taken with, and pictures of the core written.
//!
//! What is hostile is refused in words before it costs anything: sizes are looked at before a picture is unpacked.

mod profile;
mod raw;
mod read;
mod room;
mod settings;
mod unreadable;
mod write;

pub use read::{Frame, Levels, MOST_PIXELS, levels, read, read_two};
pub use settings::{Lacking, Taken};
pub use unreadable::{MOST_BYTES, Unreadable};
pub use write::{clipped, jpeg, png, share_map, small_jpeg};
