//! Glass as it is sent.

use serde::Serialize;
use utoipa::ToSchema;

use crate::document::Document;
use crate::set::OnSet;
use crate::shown::{Fact, Said};

/// What shows in the glass of a set.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct GlassReport {
    /// Whether there is any glass.
    pub any: bool,
    /// The answer in a sentence: the strongest, or that nothing shows.
    pub says: String,
    /// What stands in a glass as the lens sees it, the strongest first; also what is too dim to be seen.
    pub findings: Vec<GlassFinding>,
    /// What there is to do about each thing that shows; nothing where that was not asked for.
    pub remedies: Option<Vec<GlassRemedies>>,
    /// Panes between the lens and the subject: what they take, which lights stand on the wrong side, what helps.
    pub shot_through: Vec<Fact>,
    /// Shiny products: what they mirror, and the card that fills them.
    pub gloss: Vec<GlossSaid>,
}

/// Something that stands in a glass.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct GlassFinding {
    /// Unique in the report.
    pub id: String,
    /// What stands there: a light, the camera for the photographer, a wall.
    pub what: OnSet,
    /// What it is called: `A`, `You`, `Wall behind the camera`.
    pub name: String,
    /// The pane that is looked at, or the person whose spectacles.
    pub glass: OnSet,
    /// What that is called.
    pub glass_name: String,
    /// Its outlines in the frame, in frame widths and heights from its middle; what lies within two of them is cut out.
    pub outlines: Vec<Vec<[f64; 2]>>,
    /// Where its middle is, in frame widths and heights from the middle of the frame.
    pub centre: Option<[f64; 2]>,
    /// Whether it is bright enough to be seen.
    pub shows: bool,
    /// Over what lies behind the glass there, under the plan: `+2⅓`.
    pub over: Said,
    /// The same if the frame were exposed for the light that is there.
    pub over_before: Said,
    /// The part of it that shows, in percent.
    pub share_percent: f64,
    /// How far from straight on the glass is looked at there, in degrees.
    pub incidence_deg: f64,
    /// What the glass gives back there, in percent.
    pub reflectance_percent: f64,
    /// Where, how strong and by what, in words.
    pub says: String,
}

/// What there is to do about one thing that shows.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct GlassRemedies {
    /// What shows.
    pub what: OnSet,
    /// What it is called.
    pub name: String,
    /// What it comes to: that the first does it, or that nothing clears it.
    pub says: String,
    /// The least moves that clear it, the cheapest first.
    pub offers: Vec<GlassOffer>,
    /// What else there is to do, outside Tolva.
    pub outside: Vec<String>,
    /// The lights that a clean plate is taken without.
    pub plate_lights_off: Vec<String>,
    /// Whether people leave the frame for it.
    pub plate_people_out: bool,
    /// The clean plate, in words.
    pub plate_says: String,
}

/// A move that clears something.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct GlassOffer {
    /// The kinds of its moves: stable.
    pub codes: Vec<&'static str>,
    /// What to do: `Raise A by 0.35 m`.
    pub does: String,
    /// What it costs: `⅓ stop more power, 12° steeper`.
    pub costs: String,
    /// The setup with it.
    pub setup: Document,
}

/// A shiny product.
#[derive(Clone, Debug, PartialEq, Serialize, ToSchema)]
pub struct GlossSaid {
    /// Which.
    pub product_id: String,
    /// What it is called.
    pub name: String,
    /// What its middle shows, and the card it takes.
    pub says: String,
    /// Whether a card can be put there by a press.
    pub card: bool,
}
