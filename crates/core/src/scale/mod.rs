//! The scales everything is measured on: stops, and the dials of cameras and flashes.

mod dial;
mod interpolation;
mod length;
mod nominal;
pub mod parsing;
mod power;
mod setting;
mod stops;

pub use dial::{Dial, DialEnd};
pub use interpolation::interpolated;
pub use length::{LengthUnit, Metres, Millimetres};
pub use parsing::{ParseError, parse_aperture, parse_iso, parse_length, parse_number, parse_shutter, parse_stops};
pub use power::{Power, PowerNotation, PowerStep};
pub use setting::{Aperture, Engraved, Iso, Notch, Setting, Shutter, Step};
pub use stops::Stops;
pub use stops::signed;
