//! Where documents become quantities and what comes of them is worded: the one place that knows the format, the planner
//! and the wording. What the planner refuses becomes a problem with a pointer into what was sent.

use serde::Deserialize;
use tolva_format::{Kit, ProblemCode, Problems, Setup, check};
use tolva_planner::refused::Refused;
use tolva_planner::{colour, place, setup as domain};
use tolva_wording::{Document, Grip};
use utoipa::ToSchema;

/// A setup and its kit as quantities, where every value is good.
///
/// # Errors
/// All that is wrong; pointers begin with `/kit` and `/setup`.
pub fn known(setup: Setup, kit: Kit) -> Result<(domain::Setup, domain::Kit), Problems> {
    check(&setup, &kit)?;
    Ok((setup.into(), kit.into()))
}

/// A setup as a document inside what is sent.
pub fn write(setup: &domain::Setup) -> Document {
    Document::of(&Setup::from(setup.clone()))
}

/// What was refused, with a pointer to what it is about.
#[expect(clippy::needless_pass_by_value, reason = "it maps errors")]
pub fn refused(refused: Refused) -> Problems {
    let pointer = match &refused {
        Refused::NoScene => return Problems::one("/setup/scene", "this needs a place and an hour: give them first"),
        Refused::OutOfRange { what: "stops", .. } => "/place/stops",
        Refused::OutOfRange { what: "mired", .. } => "/colour/mired",
        Refused::OutOfRange { what: "tint_duv", .. } => "/colour/tint_duv",
        Refused::OutOfRange { what: "minute", .. } => "/minute",
        Refused::OutOfRange { what: "step_min", .. } => "/step_min",
        Refused::NoSuchSetup(_) => "/of",
        Refused::Time(wrong) => return Problems::one(format!("/setup/scene/at/{}", wrong.field()), wrong.to_string()),
        _ => "/setup",
    };
    let code = match refused {
        Refused::OutOfRange { .. } => ProblemCode::OutOfRange,
        Refused::NoSuchSetup(_) | Refused::NoSuchRegion(_) | Refused::NoSuchLight(_) => ProblemCode::NotThere,
        _ => ProblemCode::NotAllowed,
    };
    Problems::one(pointer, refused.to_string()).coded(code)
}

/// What is asked of a region or a light that is not there; anything else as it is.
fn not_there(what: Refused, region: &str, light: &str) -> Problems {
    let pointer = match what {
        Refused::NoSuchRegion(_) => region,
        Refused::NoSuchLight(_) => light,
        other => return refused(other),
    };
    Problems::one(pointer, what.to_string()).coded(ProblemCode::NotThere)
}

/// A mark on the rail put somewhere else.
#[derive(Clone, Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Placing {
    /// The region.
    region_id: String,
    /// The mark.
    grip: Grip,
    /// Where it is put, in stops from mid grey; taken to the nearest third.
    #[schema(minimum = -12, maximum = 12)]
    stops: f64,
    /// Which light's mark; left out, the first's.
    #[serde(default)]
    light_id: Option<String>,
}

impl Placing {
    /// The setup with the mark moved.
    ///
    /// # Errors
    /// What cannot be moved, with a pointer that begins with `/place`.
    pub fn carried_out(self, setup: &domain::Setup, kit: &domain::Kit) -> Result<domain::Setup, Problems> {
        let Self { region_id, grip, stops, light_id } = self;
        let placing = place::Placing { region_id, grip: grip.into(), stops, light_id };
        place::place(setup, kit, &placing).map_err(|what| not_there(what, "/place/region_id", "/place/light_id"))
    }
}

/// What is moved on the colour line.
#[derive(Clone, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", deny_unknown_fields)]
pub enum ColourGrip {
    /// The camera's white balance.
    Balance,
    /// A flash or a lamp, by its letter: gels are chosen.
    Light(String),
    /// The light that is there on a region, by its id.
    Region(String),
}

/// Something put somewhere else on the colour line.
#[derive(Clone, Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Colouring {
    /// What.
    what: ColourGrip,
    /// Where to, in mired: 25 to 1000.
    #[schema(minimum = 25, maximum = 1000)]
    mired: f64,
    /// How green, in Duv: −0.05 to 0.05. Left out, as it was.
    #[serde(default)]
    #[schema(minimum = -0.05, maximum = 0.05)]
    tint_duv: Option<f64>,
}

impl Colouring {
    /// The setup with the mark moved.
    ///
    /// # Errors
    /// What cannot be moved, with a pointer that begins with `/colour`.
    pub fn carried_out(self, setup: &domain::Setup, kit: &domain::Kit) -> Result<domain::Setup, Problems> {
        let what = match self.what {
            ColourGrip::Balance => colour::ColourGrip::Balance,
            ColourGrip::Light(id) => colour::ColourGrip::Light(id),
            ColourGrip::Region(id) => colour::ColourGrip::Region(id),
        };
        let to = colour::Colouring { what, mired: self.mired, tint_duv: self.tint_duv };
        colour::colour_to(setup, kit, &to).map_err(|what| not_there(what, "/colour/what/region", "/colour/what/light"))
    }
}
