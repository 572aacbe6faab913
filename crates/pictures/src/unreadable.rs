//! Why a file gives no frame, in words.

use tolva_core::frame::NoRaster;

/// A file of at most so many bytes is read.
pub const MOST_BYTES: usize = 200_000_000;

/// Why a file gives no frame.
#[derive(Clone, Debug, PartialEq, Eq, thiserror::Error)]
pub enum Unreadable {
    /// Nothing in it.
    #[error("the file is empty")]
    Empty,
    /// Too long.
    #[error("the file has {} MB, and at most {} MB are read", .0 / 1_000_000, MOST_BYTES / 1_000_000)]
    TooLong(usize),
    /// None of the formats.
    #[error("it is no JPEG, PNG or TIFF, and no raw file with a preview in it")]
    NoPicture,
    /// Too many pixels.
    #[error("it says it is {width} × {height} pixels; at most {} million are read", most / 1_000_000)]
    TooLarge {
        /// From left to right.
        width: u64,
        /// From top to bottom.
        height: u64,
        /// How many would be read.
        most: u64,
    },
    /// Colours for print.
    #[error("it is in CMYK, the colours of print: give it out as sRGB")]
    Cmyk,
    /// More than one picture.
    #[error("it is an animation: a frame is one picture")]
    Animated,
    /// A profile that is odd.
    #[error("its colour profile cannot be used ({0}): give it out as sRGB, Adobe RGB or Display P3")]
    Profile(String),
    /// It breaks off, or is damaged.
    #[error("it breaks off or is damaged: {0}")]
    Damaged(String),
}

impl From<NoRaster> for Unreadable {
    fn from(wrong: NoRaster) -> Self {
        Self::Damaged(wrong.to_string())
    }
}
