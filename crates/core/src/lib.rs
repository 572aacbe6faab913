//! The rules of photography that flash and the light that is already there keep to: quantities in, quantities out.
//!
//! Everything here is computed from what is passed in: no files, no clock, no randomness. The same input gives the
//! same answer, bit for bit. Stops are base-2 logarithms and positive is brighter; a *setting* lies on a dial, a *value*
//! is exact. Each formula names its source; "common practice, no source" marks a rule of the trade, and "from memory"
//! a figure that was not looked up.
//!
//! | module | what it holds |
//! |---|---|
//! | [`scale`] | stops, the dials with their nominal and exact values, printing and parsing |
//! | [`ambient`] | sun, sky, horizon and typical lights: the light that is there, over the day |
//! | [`exposure`] | exposure values, meters, readings |
//! | [`flash`] | guide numbers, power, sync, high speed, duration, recycling |
//! | [`modifier`] | glowing surfaces, what they lose, how they fall off close by, bounce and cards |
//! | [`optics`] | depth, diffraction, shake, movement, close up |
//! | [`colour`] | colour temperature and mired |
//! | [`time`] | hours as clocks show them, time zones, and the instants they stand for |
//! | [`frame`] | what came: levels into light, patches, two frames taken apart, targets, curves, what they teach |
//! | [`glass`] | panes and mirrors: what shows in them, how strongly, gloss, spectacles |
//! | [`proof`] | the picture before it is taken: figures, shadows, one bounce, a layer a light |
//! | [`set`] | where things stand, what lights give them, one bounce, the frame, shadows of the sun, wind |

pub mod ambient;
pub mod colour;
pub mod exposure;
pub mod flash;
pub mod frame;
pub mod glass;
pub mod modifier;
pub mod optics;
pub mod proof;
pub mod scale;
pub mod set;
pub mod time;
