//! What counts how much, in one place: how far a frame may land from its wish against what it costs to get there. All in
//! points a stop. The figures are chosen (common practice, no source): each rank weighs more than everything under it
//! that could come together.

/// The region the camera is set for. It comes first: the blend is built on it, and no light can take away from it. Ten
/// times the face, so that it is not given up by a click where the flash is too weak anyway.
pub const PLACED: f64 = 10_000.0;
/// The same where it ends too dark although a flash lights the subject: there the face comes first.
pub const PLACED_DARK: f64 = 150.0;
/// The first [`A_BIT_DARK`] stops of that: for a click the face is not moved about.
pub const PLACED_A_BIT_DARK: f64 = 3000.0;
/// In stops beyond what rounding does.
pub const A_BIT_DARK: f64 = 0.25;
/// The lit side where the ambient alone is over its place: no light helps, and the background is not given up for it.
pub const LIT_BY_AMBIENT: f64 = 100.0;
/// The lit side. Where not all can be had, the face comes before every other region.
pub const LIT: f64 = 1000.0;
/// Any other region with a wish.
pub const OTHER: f64 = 100.0;
/// Depth that is missing gives way before the frame does, and after everything else.
pub const DEPTH_SHORT: f64 = 30.0;

/// Being off by less than a click: between two settings that both will do, the nearer one.
pub const ROUNDING: f64 = 0.5;
/// ISO over the lowest: noise.
pub const ISO: f64 = 1.0;
/// A shutter slower than the sync: a smaller aperture or more flash for the same ambient.
pub const SLOWER_THAN_SYNC: f64 = 0.35;
/// Apertures smaller than f/11, where no depth asks for one.
pub const SMALLER_THAN_F11: f64 = 0.3;
/// Power over a half: slow recycling, a hot head.
pub const OVER_HALF_POWER: f64 = 0.2;
/// Without flash: the lens is sharpest, and the depth usual, near f/5.6.
pub const AWAY_FROM_F5_6: f64 = 0.25;
/// Without flash: slower than 1/125 the hand and the subject show.
pub const SLOWER_THAN_125TH: f64 = 0.35;
/// More depth than is asked for.
pub const DEPTH_MORE: f64 = 0.4;
/// Away from the aperture that one head, or a stack, is taken at.
pub const AWAY_FROM_TARGET: f64 = 0.9;
/// Beyond the aperture where diffraction takes more than depth gives.
pub const DIFFRACTION: f64 = 1.5;
/// Over the sync in high-speed sync, beside the power that it costs anyway.
pub const HIGH_SPEED: f64 = 0.2;
/// Any power at all, where low power or pace come first in the person's order.
pub const POWER: f64 = 0.15;
/// Over the power that recycles in the time there is.
pub const OVER_PACE: f64 = 1.0;
