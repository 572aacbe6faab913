//! Names that stand in what is sent as they stand in the format.

use serde::{Deserialize, Serialize};
use utoipa::ToSchema;
use utoipa::openapi::{Ref, RefOr, Schema};

/// A type here from the one of the same name in the rules, or each from the other.
macro_rules! wire {
    ($($at:ident)::+ : enum $name:ident { $($variants:tt)* }) => {
        wire!(@from $($at)::+::$name, $name, { $($variants)* });
    };
    ($($at:ident)::+ : both ways enum $name:ident { $($variants:tt)* }) => {
        wire!(@from $($at)::+::$name, $name, { $($variants)* });
        wire!(@from $name, $($at)::+::$name, { $($variants)* });
    };
    (@from $from:path, $to:path, { $($variant:ident $({ $($field:ident),* })?),* }) => {
        impl From<$from> for $to {
            fn from(one: $from) -> Self {
                type From = $from;
                match one {
                    $(From::$variant $({ $($field),* })? => Self::$variant $({ $($field: $field.into()),* })?),*
                }
            }
        }
    };
}

/// What stands in the format by the same name is described there, ranges and all.
macro_rules! described_by_the_format {
    ($($name:ident),*) => {
        $(
            impl utoipa::PartialSchema for $name {
                fn schema() -> RefOr<Schema> {
                    RefOr::Ref(Ref::from_schema_name(stringify!($name)))
                }
            }

            impl ToSchema for $name {}
        )*
    };
}

described_by_the_format!(Role, Control, Sync, LightWish, FallingOrder);

/// How distances are shown.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LengthUnit {
    /// `1.56 m`
    #[default]
    Metres,
    /// `5 ft 1 in`
    FeetAndInches,
}

/// How power is shown.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PowerNotation {
    /// `1/4 +⅓`
    #[default]
    Fraction,
    /// `−1⅔`
    Stops,
}

/// What part a region has in the picture.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
#[serde(rename_all = "snake_case")]
pub enum Role {
    /// What lies behind the subject.
    Background,
    /// The side of the subject the ambient lights more.
    LitSide,
    /// The side it lights less.
    ShadowSide,
    /// Anything else that gets its own exposure: a second row, hair, a product's face. The ambient falls on it as on
    /// the lit side.
    Part,
}

/// How a flash is controlled.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
#[serde(rename_all = "snake_case")]
pub enum Control {
    /// Power set by hand.
    Manual,
    /// The camera meters the flash; the compensation is set by hand.
    Ttl,
}

/// How flash and shutter go together.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
#[serde(rename_all = "snake_case")]
pub enum Sync {
    /// Up to the safe sync of the mechanical shutter.
    Ordinary,
    /// A train of pulses: any shutter, for less light.
    HighSpeed,
    /// The electronic shutter with its own, slower sync.
    Electronic,
}

/// What a light is there for.
#[derive(Clone, Copy, Debug, PartialEq, Serialize)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case")]
pub enum LightWish {
    /// It brings the lit side to where the blend wants it.
    Key,
    /// It leaves its region so far under the lit side.
    Fill {
        /// Lit side over its region, 0 to 6 stops.
        ratio_stops: f64,
    },
    /// It brings its region so far over the lit side.
    Rim {
        /// Its region over the lit side, −3 to 4 stops.
        over_stops: f64,
    },
    /// It brings its region to a place of its own: a background, a row, a product's face.
    Place {
        /// Stops from mid grey.
        stops: f64,
    },
}

/// What gives way first as the light falls.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize)]
#[serde(rename_all = "snake_case")]
pub enum FallingOrder {
    /// The shutter down to its floor; then ISO up and the flash down by as much.
    ShutterFirst,
    /// ISO up and the flash down by as much; then the shutter down to its floor. For what moves.
    IsoFirst,
    /// The aperture open and the flash down by as much; then the shutter, then ISO. For one head, or a tripod in wind.
    ApertureFirst,
}

/// Which mark of a region is moved.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Grip {
    /// The ring: what the ambient gives.
    Ambient,
    /// The lozenge: what the flash gives.
    Flash,
    /// The bar: what they give together.
    Together,
}

/// What kind of alternative it is.
// Of each kind the best is shown, and of fixes all.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum AlternativeKind {
    /// The setup as it is.
    AsItIs,
    /// At the sync speed, with nothing on the lens.
    AtSync,
    /// Wide, through a filter.
    Filter,
    /// Wide, in high-speed sync.
    HighSpeed,
    /// The light nearer.
    Nearer,
    /// A stronger unit, or more of them.
    MoreLight,
    /// A higher ISO.
    HigherIso,
    /// More is sharp.
    MoreDepth,
    /// Less is sharp.
    LessDepth,
    /// What closes a shortfall.
    Fix,
}

/// One change, with what it needs to be carried out.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
#[serde(tag = "code", rename_all = "snake_case", rename_all_fields = "snake_case")]
pub enum Change {
    /// A light stands somewhere else.
    MoveLight {
        /// Its letter.
        light_id: String,
        /// How far from what it is aimed at, in metres.
        distance_m: f64,
        /// Whether that is nearer.
        nearer: bool,
    },
    /// Tolva chooses how far a light stands.
    FreeDistance {
        /// Its letter.
        light_id: String,
    },
    /// Tolva chooses a light's power.
    FreePower {
        /// Its letter.
        light_id: String,
    },
    /// Another unit of the kit.
    ChangeUnit {
        /// The light's letter.
        light_id: String,
        /// The unit.
        flash_id: String,
    },
    /// So many units side by side as one.
    ManyUnits {
        /// The light's letter.
        light_id: String,
        /// How many.
        units: u8,
    },
    /// Another modifier of the kit.
    ChangeModifier {
        /// The light's letter.
        light_id: String,
        /// The modifier.
        modifier_id: String,
    },
    /// The gels come off.
    RemoveGels {
        /// The light's letter.
        light_id: String,
    },
    /// Neutral gel goes on the head.
    AddNeutralGel {
        /// The light's letter.
        light_id: String,
        /// The gels, from the kit.
        gel_ids: Vec<String>,
    },
    /// The light is turned aside, so that its edge lights what it is aimed at.
    FeatherLight {
        /// Its letter.
        light_id: String,
        /// How far from what it is aimed at, in degrees.
        feather_deg: f64,
    },
    /// The light is turned straight at what it is aimed at.
    RemoveBounce {
        /// Its letter.
        light_id: String,
    },
    /// A flash more.
    AddFlash,
    /// What lies behind gets another place.
    PlaceBackground {
        /// In stops from mid grey.
        stops: f64,
    },
    /// The subject gets another place.
    PlaceSubject {
        /// In stops from mid grey.
        stops: f64,
    },
    /// The ambient on the subject gets another place.
    PlaceAmbient {
        /// In stops from mid grey.
        stops: f64,
    },
    /// A region's wish becomes what it comes to.
    AcceptRegion {
        /// The region.
        region_id: String,
        /// The light whose wish it is.
        light_id: String,
        /// What the wish becomes.
        wish: LightWish,
        /// Where the region ends, in stops from mid grey.
        stops: f64,
    },
    /// Filters go on the lens.
    AddFilters {
        /// The filters, from the kit.
        filter_ids: Vec<String>,
    },
    /// All filters come off.
    RemoveFilters,
    /// Flash and shutter go together in another way.
    ChangeSync {
        /// How.
        sync: Sync,
    },
    /// The aperture is fixed.
    FixAperture {
        /// The f-number.
        f_number: f64,
    },
    /// The ISO is fixed.
    FixIso {
        /// ISO.
        iso: f64,
    },
    /// Tolva chooses the shutter.
    FreeShutter,
    /// Tolva chooses the aperture.
    FreeAperture,
    /// Tolva chooses the ISO.
    FreeIso,
    /// A slower shutter is allowed.
    AllowSlowerShutter {
        /// In seconds.
        shutter_s: f64,
    },
    /// The camera goes back.
    StepBack {
        /// How far from the subject, in metres.
        distance_m: f64,
    },
    /// A stack of frames instead of one.
    TakeStack,
    /// The depth is what the aperture gives.
    FreeDepth {
        /// The f-number that is set.
        f_number: f64,
    },
}

/// Which limit a wish runs into.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Limit {
    /// The flash cannot give so much.
    FlashTooWeak,
    /// The flash cannot give so little.
    FlashTooStrong,
    /// The blend needs a flash and the setup has none.
    NoFlash,
    /// The ambient alone already puts the subject over its place.
    AmbientTooBright,
    /// The camera cannot be set dark enough.
    CameraTooBright,
    /// The camera cannot be set bright enough.
    CameraTooDark,
    /// The shutter is faster than the flash can follow.
    ShutterOverSync,
    /// The subject is not dark enough against what lies behind.
    NotASilhouette,
    /// The aperture is wider than the depth asks for.
    TooShallow,
    /// The unit has no high-speed sync.
    NoHighSpeed,
    /// A region ends over its place, and the light that is aimed at it cannot help that.
    RegionOver,
    /// A region ends under its place, and the light that is aimed at it cannot help that.
    RegionUnder,
}

/// A kind of light by the sun's height.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum LightPhase {
    /// No light of the sun.
    Night,
    /// The last trace of it.
    LastTrace,
    /// The sun 6° to 12° under the horizon.
    DeepTwilight,
    /// The sun up to 6° under the horizon.
    Twilight,
    /// A low sun.
    LowSun,
    /// The sun higher than that.
    SunUp,
}

/// What happens to the sun.
#[derive(Clone, Copy, Debug, PartialEq, Eq, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum SunEvent {
    /// It comes to 18° under the horizon: the first trace of light.
    AstronomicalDawn,
    /// 12° under.
    NauticalDawn,
    /// 6° under.
    CivilDawn,
    /// Its upper edge is on a level horizon.
    Sunrise,
    /// It comes out from behind what stands in the way.
    ComesOut,
    /// It passes the meridian.
    Transit,
    /// It goes behind what stands in the way.
    GoesBehind,
    /// Its upper edge leaves a level horizon.
    Sunset,
    /// 6° under.
    CivilDusk,
    /// 12° under.
    NauticalDusk,
    /// 18° under.
    AstronomicalDusk,
}

wire!(tolva_core::scale: both ways enum LengthUnit { Metres, FeetAndInches });
wire!(tolva_core::scale: both ways enum PowerNotation { Fraction, Stops });
wire!(tolva_core::ambient: enum Role { Background, LitSide, ShadowSide, Part });
wire!(tolva_planner::setup: enum Control { Manual, Ttl });
wire!(tolva_planner::setup: enum Sync { Ordinary, HighSpeed, Electronic });
wire!(tolva_planner::setup: enum LightWish { Key, Fill { ratio_stops }, Rim { over_stops }, Place { stops } });
wire!(tolva_planner::setup: enum FallingOrder { ShutterFirst, IsoFirst, ApertureFirst });
wire!(tolva_planner::place: both ways enum Grip { Ambient, Flash, Together });
wire!(tolva_planner::options: enum AlternativeKind { AsItIs, AtSync, Filter, HighSpeed, Nearer, MoreLight, HigherIso, MoreDepth, LessDepth, Fix });
wire!(tolva_planner::change: enum Change { MoveLight { light_id, distance_m, nearer }, FreeDistance { light_id }, FreePower { light_id }, ChangeUnit { light_id, flash_id }, ManyUnits { light_id, units }, ChangeModifier { light_id, modifier_id }, RemoveGels { light_id }, AddNeutralGel { light_id, gel_ids }, FeatherLight { light_id, feather_deg }, RemoveBounce { light_id }, AddFlash, PlaceBackground { stops }, PlaceSubject { stops }, PlaceAmbient { stops }, AcceptRegion { region_id, light_id, wish, stops }, AddFilters { filter_ids }, RemoveFilters, ChangeSync { sync }, FixAperture { f_number }, FixIso { iso }, FreeShutter, FreeAperture, FreeIso, AllowSlowerShutter { shutter_s }, StepBack { distance_m }, TakeStack, FreeDepth { f_number } });
wire!(tolva_planner::shortfall: enum Limit { FlashTooWeak, FlashTooStrong, NoFlash, AmbientTooBright, CameraTooBright, CameraTooDark, ShutterOverSync, NotASilhouette, TooShallow, NoHighSpeed, RegionOver, RegionUnder });
wire!(tolva_core::ambient: enum LightPhase { Night, LastTrace, DeepTwilight, Twilight, LowSun, SunUp });
wire!(tolva_core::ambient: enum SunEvent { AstronomicalDawn, NauticalDawn, CivilDawn, Sunrise, ComesOut, Transit, GoesBehind, Sunset, CivilDusk, NauticalDusk, AstronomicalDusk });
