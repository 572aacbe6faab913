//! What another convention would have set: each is solved, and stands beside the setup as it is.

use tolva_core::colour::{Preset, WhiteBalance};
use tolva_core::exposure::CameraSettings;
use tolva_core::optics::HandheldRule;
use tolva_core::scale::Power;

use crate::colour::{Balance, Colours, balance_code, every_balance};
use crate::lighting::Prepared;
use crate::plan::Plan;
use crate::refused::Refused;
use crate::setup::{AutomaticConvention, Blend, Control, Depth, ExposureConvention, Kit, Setup};
use crate::shortfall::Shortfall;

/// A matter on which practitioners differ.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Hash)]
pub enum Matter {
    /// How much flash.
    Blend,
    /// How a flash is controlled.
    FlashControl,
    /// The slowest shutter by hand.
    Handheld,
    /// What the camera is balanced for.
    WhiteBalance,
    /// How an exposure is judged.
    Exposure,
    /// What the camera may set by itself.
    Automatic,
    /// How the aperture is found.
    Aperture,
}

impl Matter {
    /// Its code: stable, for whoever reads plans by machine.
    pub fn code(self) -> &'static str {
        match self {
            Self::Blend => "blend",
            Self::FlashControl => "flash_control",
            Self::Handheld => "handheld",
            Self::WhiteBalance => "white_balance",
            Self::Exposure => "exposure",
            Self::Automatic => "automatic",
            Self::Aperture => "aperture",
        }
    }
}

/// A convention.
#[derive(Clone, Copy, Debug, PartialEq)]
pub enum Convention {
    /// Flash equal to the ambient, in contrasty light.
    EqualFill,
    /// Flash two stops under, in flat light.
    FillTwoUnder,
    /// Flash three stops under: just a touch.
    FillThreeUnder,
    /// Half and half.
    HalfAndHalf,
    /// What lies behind placed, the subject lifted.
    Lift,
    /// The ambient well under, flash as the key.
    Overpower,
    /// How the flashes are controlled.
    Control(Control),
    /// The rule for the hand.
    Handheld(HandheldRule),
    /// What the camera is balanced for.
    WhiteBalance(WhiteBalance),
    /// How an exposure is judged.
    Exposure(ExposureConvention),
    /// What the camera may set by itself.
    Automatic(AutomaticConvention),
    /// Whatever aperture the light gives.
    FreeAperture,
    /// Wide, for one head.
    OneHead,
    /// From the depth of a group.
    Group,
}

impl Convention {
    /// Its code: stable, for whoever reads plans by machine.
    pub fn code(self) -> &'static str {
        match self {
            Self::EqualFill => "equal_fill",
            Self::FillTwoUnder => "fill_two_under",
            Self::FillThreeUnder => "fill_three_under",
            Self::HalfAndHalf => "half_and_half",
            Self::Lift => "lift",
            Self::Overpower => "overpower",
            Self::Control(Control::Manual) => "manual",
            Self::Control(Control::Ttl) => "automatic",
            Self::Handheld(HandheldRule::OneOverFocal) => "one_over_focal",
            Self::Handheld(HandheldRule::OneOverTwiceFocal) => "one_over_twice_focal",
            Self::Handheld(HandheldRule::Stabilised) => "stabilised",
            Self::Handheld(HandheldRule::DenseSensor) => "dense_sensor",
            Self::WhiteBalance(balance) => balance_code(balance),
            Self::Exposure(ExposureConvention::TrustTheMeter) => "trust_the_meter",
            Self::Exposure(ExposureConvention::ProtectHighlights) => "protect_highlights",
            Self::Exposure(ExposureConvention::AddALittle) => "add_a_little",
            Self::Automatic(AutomaticConvention::Nothing) => "nothing_automatic",
            Self::Automatic(AutomaticConvention::Shutter) => "automatic_shutter",
            Self::Automatic(AutomaticConvention::Aperture) => "automatic_aperture",
            Self::Automatic(AutomaticConvention::Iso) => "automatic_iso",
            Self::FreeAperture => "free_aperture",
            Self::OneHead => "one_head",
            Self::Group => "group",
        }
    }

    /// The matter it is about.
    pub fn matter(self) -> Matter {
        match self {
            Self::EqualFill
            | Self::FillTwoUnder
            | Self::FillThreeUnder
            | Self::HalfAndHalf
            | Self::Lift
            | Self::Overpower => Matter::Blend,
            Self::Control(_) => Matter::FlashControl,
            Self::Handheld(_) => Matter::Handheld,
            Self::WhiteBalance(_) => Matter::WhiteBalance,
            Self::Exposure(_) => Matter::Exposure,
            Self::Automatic(_) => Matter::Automatic,
            Self::FreeAperture | Self::OneHead | Self::Group => Matter::Aperture,
        }
    }
}

/// A convention, and what it would set.
#[derive(Clone)]
pub struct ConventionOption {
    /// Which.
    pub convention: Convention,
    /// The camera.
    pub settings: CameraSettings,
    /// The flashes that are on, each with its power.
    pub lights: Vec<(String, Power)>,
    /// The first thing that is missing from the wish then.
    pub shortfall: Option<Shortfall>,
    /// What the camera is balanced for.
    pub balance: Balance,
    /// The setup with this convention.
    pub setup: Setup,
}

/// All conventions, matter by matter, each solved for a setup.
///
/// # Errors
/// A setup that cannot be planned.
pub fn conventions(setup: &Setup, kit: &Kit) -> Result<Vec<ConventionOption>, Refused> {
    Prepared::new(setup, kit)?;
    let every = [
        blends(setup),
        controls(setup),
        hands(setup),
        balances(setup),
        ExposureConvention::OFFERED.map(|one| (Convention::Exposure(one), with(setup, |s| s.exposure = one))).into(),
        AutomaticConvention::OFFERED
            .map(|one| (Convention::Automatic(one), with(setup, |s| s.automatic_exposure = one)))
            .into(),
        apertures(setup),
    ];
    Ok(every.into_iter().flatten().filter_map(|(convention, other)| option(convention, other, kit)).collect())
}

fn option(convention: Convention, setup: Setup, kit: &Kit) -> Option<ConventionOption> {
    let prepared = Prepared::new(&setup, kit).ok()?;
    let Plan { outcome, shortfalls } = Plan::of(&prepared);
    let balance = Balance::of(&prepared, &outcome, &Colours::of(&prepared, &outcome));
    let (settings, lights) = (outcome.settings, outcome.lights_on(&prepared));
    drop(prepared);
    Some(ConventionOption { convention, settings, lights, shortfall: shortfalls.into_iter().next(), balance, setup })
}

fn with(setup: &Setup, change: impl FnOnce(&mut Setup)) -> Setup {
    let mut other = setup.clone();
    change(&mut other);
    other
}

/// The blend as it is where it is of that kind, and otherwise as the convention has it.
fn blends(setup: &Setup) -> Vec<(Convention, Setup)> {
    let subject_stops = match setup.blend {
        Blend::HalfAndHalf { subject_stops }
        | Blend::Lift { subject_stops, .. }
        | Blend::Overpower { subject_stops, .. }
        | Blend::AmbientOnly { subject_stops } => subject_stops,
        Blend::Fill { .. } | Blend::Silhouette { .. } => 0.0,
    };
    let lift = match setup.blend {
        lift @ Blend::Lift { .. } => lift,
        _ => Blend::Lift { subject_stops, background_stops: -1.0 },
    };
    let over = match setup.blend {
        over @ Blend::Overpower { .. } => over,
        _ => Blend::Overpower { subject_stops, ambient_stops: -3.0 },
    };
    let fill = |fill_stops| Blend::Fill {
        ambient_stops: if let Blend::Fill { ambient_stops, .. } = setup.blend { ambient_stops } else { 0.0 },
        fill_stops,
    };
    [
        (Convention::EqualFill, fill(0.0)),
        (Convention::FillTwoUnder, fill(-2.0)),
        (Convention::FillThreeUnder, fill(-3.0)),
        (Convention::HalfAndHalf, Blend::HalfAndHalf { subject_stops }),
        (Convention::Lift, lift),
        (Convention::Overpower, over),
    ]
    .into_iter()
    .map(|(convention, blend)| (convention, with(setup, |s| s.blend = blend)))
    .collect()
}

fn controls(setup: &Setup) -> Vec<(Convention, Setup)> {
    if setup.lights.is_empty() {
        return Vec::new();
    }
    let all = |control| {
        let other = with(setup, |s| s.lights.iter_mut().for_each(|light| light.control = control));
        (Convention::Control(control), other)
    };
    vec![all(Control::Manual), all(Control::Ttl)]
}

fn hands(setup: &Setup) -> Vec<(Convention, Setup)> {
    let one = |school: HandheldRule| {
        let other = with(setup, |s| {
            s.speed.school = school;
            s.speed.slowest_shutter_s = None;
            s.speed.tripod = false;
        });
        (Convention::Handheld(school), other)
    };
    HandheldRule::OFFERED.map(one).into()
}

fn balances(setup: &Setup) -> Vec<(Convention, Setup)> {
    let all = every_balance(setup.white_balance, Preset::Shade);
    all.into_iter().map(|one| (Convention::WhiteBalance(one), with(setup, |s| s.white_balance = one))).collect()
}

fn apertures(setup: &Setup) -> Vec<(Convention, Setup)> {
    let depth = |convention, depth| (convention, with(setup, |s| s.depth = depth));
    let rows = match setup.depth {
        rows @ (Depth::Rows { .. } | Depth::Deep { .. }) => rows,
        _ => Depth::Rows { rows: 2, apart_m: 0.8 },
    };
    vec![
        depth(Convention::FreeAperture, Depth::Free),
        depth(Convention::OneHead, Depth::OneHead),
        depth(Convention::Group, rows),
    ]
}
