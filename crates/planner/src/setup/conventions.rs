//! The conventions a setup may follow where practitioners differ, and what is kept first.

/// What may be automatic on the camera: schools.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum AutomaticConvention {
    /// Nothing: with flash, all three by hand.
    #[default]
    Nothing,
    /// The shutter.
    Shutter,
    /// The aperture.
    Aperture,
    /// The ISO.
    Iso,
}

impl AutomaticConvention {
    /// All, in the order they are offered.
    pub const OFFERED: [Self; 4] = [Self::Nothing, Self::Shutter, Self::Aperture, Self::Iso];
}

/// How an exposure is judged. Common practice, no source.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum ExposureConvention {
    /// Set by meter or target, and trusted.
    #[default]
    TrustTheMeter,
    /// The brightest ambient is kept from clipping, whatever that does to the rest.
    ProtectHighlights,
    /// A third more than the meter says: quieter shadows.
    AddALittle,
}

impl ExposureConvention {
    /// All, in the order they are offered.
    pub const OFFERED: [Self; 3] = [Self::TrustTheMeter, Self::ProtectHighlights, Self::AddALittle];
}

/// What gives way first as the light falls.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum FallingOrder {
    /// The shutter down to its floor; then ISO up and the flash down by as much.
    #[default]
    ShutterFirst,
    /// ISO up and the flash down by as much; then the shutter down to its floor. For what moves.
    IsoFirst,
    /// The aperture open and the flash down by as much; then the shutter, then ISO. For one head, or a tripod in wind.
    ApertureFirst,
}

impl FallingOrder {
    /// All, in the order they are offered.
    pub const OFFERED: [Self; 3] = [Self::ShutterFirst, Self::IsoFirst, Self::ApertureFirst];
}

/// Something worth keeping.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Preference {
    /// A low ISO: little noise.
    LowIso,
    /// The depth that was wished.
    Depth,
    /// Quick recycling.
    Pace,
    /// Low power: a long-lived battery.
    LowPower,
    /// Nothing on the lens.
    NoFilter,
}

impl Preference {
    /// All, in the usual order.
    pub const USUAL: [Self; 5] = [Self::LowIso, Self::Depth, Self::Pace, Self::LowPower, Self::NoFilter];
}
