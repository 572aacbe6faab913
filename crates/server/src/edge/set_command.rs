//! What a person does to the set, as it is sent.

use serde::Deserialize;
use tolva_format::{CardKind, HazardKind, Kit, Meant, Problem, ProblemCode, Problems, Setup, Side};
use tolva_planner::glass::{best_place, clean_plate};
use tolva_planner::refused::Refused;
use tolva_planner::set::{self as domain, Arrangement, To};
use tolva_planner::setup as planner;
use tolva_planner::staging;
use tolva_wording::{LengthUnit, OnSet, plate_names};
use utoipa::ToSchema;

use super::{known, not_there};

/// What may be added.
#[derive(Clone, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Addition {
    /// A person beside the others.
    Person,
    /// A product.
    Product,
    /// A backdrop behind everybody.
    Backdrop,
    /// A wall to the camera's left.
    WallLeft,
    /// A wall to its right.
    WallRight,
    /// A wall behind the camera.
    WallBehindCamera,
    /// A ceiling.
    Ceiling,
    /// The floor as a surface.
    Floor,
    /// A window to the camera's left.
    Window,
    /// A doorway behind the camera.
    Doorway,
    /// A card of a kind.
    Card(CardKind),
    /// A card of the kit, by its id.
    Board(String),
    /// A backdrop of the kit, by its id.
    FromRoll(String),
    /// A pane or mirror of a usual size.
    Pane(PaneUse),
    /// Something that can hurt.
    Hazard(HazardKind),
}

/// What a pane is there for.
#[derive(Clone, Copy, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum PaneUse {
    /// A window behind the subject.
    Window,
    /// A shop window behind it.
    ShopWindow,
    /// A glazed door, which turns.
    GlazedDoor,
    /// A pane between the camera and the subject.
    ShotThrough,
    /// A mirror behind it.
    Mirror,
    /// A wall of mirrors at the side.
    MirrorWall,
    /// A picture under glass.
    Picture,
    /// A table of glass.
    Table,
    /// The side of a car.
    CarSide,
}

impl From<PaneUse> for domain::PaneUse {
    fn from(of: PaneUse) -> Self {
        match of {
            PaneUse::Window => Self::Window,
            PaneUse::ShopWindow => Self::ShopWindow,
            PaneUse::GlazedDoor => Self::GlazedDoor,
            PaneUse::ShotThrough => Self::ShotThrough,
            PaneUse::Mirror => Self::Mirror,
            PaneUse::MirrorWall => Self::MirrorWall,
            PaneUse::Picture => Self::Picture,
            PaneUse::Table => Self::Table,
            PaneUse::CarSide => Self::CarSide,
        }
    }
}

impl From<Addition> for domain::Addition {
    fn from(what: Addition) -> Self {
        match what {
            Addition::Person => Self::Person,
            Addition::Product => Self::Product,
            Addition::Backdrop => Self::Backdrop,
            Addition::WallLeft => Self::WallLeft,
            Addition::WallRight => Self::WallRight,
            Addition::WallBehindCamera => Self::WallBehindCamera,
            Addition::Ceiling => Self::Ceiling,
            Addition::Floor => Self::Floor,
            Addition::Window => Self::Window,
            Addition::Doorway => Self::Doorway,
            Addition::Card(kind) => Self::Card(kind.into()),
            Addition::Board(id) => Self::Board(id),
            Addition::FromRoll(id) => Self::FromRoll(id),
            Addition::Pane(of) => Self::Pane(of.into()),
            Addition::Hazard(kind) => Self::Hazard(kind.into()),
        }
    }
}

/// How people stand.
#[derive(Clone, Copy, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
pub enum Standing {
    /// One.
    One,
    /// Two side by side.
    Couple,
    /// Rows of so many each.
    Rows {
        /// How many rows, held to 1 to 6.
        rows: u8,
        /// How many in each, held to 1 to 10.
        in_each: u8,
    },
    /// A circle that looks out.
    Circle {
        /// How many, held to 2 to 30.
        count: u8,
    },
}

/// What a number typed about a light is.
#[derive(Clone, Copy, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum TypedOfLight {
    /// Over what it is aimed at, as a length; negative under it.
    Over,
    /// Round what it is aimed at, in degrees to its right; negative to its left.
    Round,
}

/// Something done to the set. The first of them has the set used: what lights reach follows from it then.
#[derive(Clone, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
pub enum SetCommand {
    /// The set is used from now on, as it is laid out.
    Use,
    /// The set is put aside: what lights reach is as it was typed.
    PutAside,
    /// A thing goes somewhere on the floor plan.
    Move {
        /// What.
        thing: OnSet,
        /// To this place: to the right and forwards, in metres. Left out, from where it stands.
        #[serde(default)]
        to: Option<[f64; 2]>,
        /// By so many steps of 5 cm, or of 2 in.
        #[serde(default)]
        steps: [i32; 2],
        /// Whether it is taken into line with others, to equal angles, to the grid.
        #[serde(default)]
        snap: bool,
    },
    /// A thing is raised or lowered.
    Raise {
        /// What.
        thing: OnSet,
        /// To this height over the floor, in metres. Left out, from where it is.
        #[serde(default)]
        to_m: Option<f64>,
        /// By so many steps of 5 cm, or of 2 in.
        #[serde(default)]
        steps: i32,
    },
    /// A thing is turned about the upright; a light off its aim.
    Turn {
        /// What.
        thing: OnSet,
        /// To this azimuth, clockwise from straight ahead. Left out, from where it looks.
        #[serde(default)]
        to_deg: Option<f64>,
        /// By so many degrees.
        #[serde(default)]
        by_deg: f64,
    },
    /// A light looks at a region, a wall, the ceiling or a card; it stays where it stands.
    Aim {
        /// Which light.
        light_id: String,
        /// At what.
        at: OnSet,
    },
    /// A number about where a light stands was typed.
    Typed {
        /// Which light.
        light_id: String,
        /// Which number.
        what: TypedOfLight,
        /// In any usual notation.
        #[schema(max_length = 200)]
        text: String,
    },
    /// Something more.
    Add(Addition),
    /// A flag where it keeps a light, or the sun, off the front glass.
    AddFlag {
        /// Which light; left out, the sun.
        #[serde(default)]
        light_id: Option<String>,
    },
    /// Something less.
    Remove(OnSet),
    /// How people stand, in place of those who are there.
    People(Standing),
    /// A side of a person or product gets its own exposure.
    Region {
        /// Whose.
        thing: OnSet,
        /// Which side.
        side: Side,
        /// What it is called on the rail; made up where it is empty.
        #[serde(default)]
        #[schema(max_length = 120)]
        name: String,
    },
    /// The other side of the main subject is the lit one.
    OtherSide,
    /// A card stands where it fills a shiny product from end to end.
    CardForGloss {
        /// The product.
        product_id: String,
        /// Of what.
        #[serde(default)]
        kind: CardKind,
    },
    /// A clean plate joins the frames that are taken.
    Plate {
        /// The lights that are off for it, by their letters.
        #[schema(max_items = 8)]
        lights_off: Vec<String>,
        /// Whether people leave the frame.
        #[serde(default)]
        people_out: bool,
    },
    /// Camera and first light stand where they show in no glass, or least.
    BestPlace,
    /// A light, or two, stand where all are evenly lit, or as evenly as can be.
    Even {
        /// Which: one or two.
        #[schema(max_items = 2)]
        light_ids: Vec<String>,
    },
}

/// Whether a pointer leads into the set.
pub fn is_of_the_set(at: &str) -> bool {
    at.starts_with("/set/") || at.contains("/place/")
}

/// A setup whose set is used, as it is laid out where nobody has drawn it.
pub fn used(setup: Setup, kit: &Kit) -> Result<Setup, Problems> {
    SetCommand::Use.carried_out(setup, kit, LengthUnit::default())
}

/// What may be typed of where a light stands.
const OVER_M: (f64, f64) = (-20.0, 20.0);
const ROUND_DEG: (f64, f64) = (-180.0, 180.0);

impl SetCommand {
    /// The setup with the command carried out.
    ///
    /// # Errors
    /// What cannot be done; pointers begin with `/command/set`, or `/setup` and `/kit` where these are wrong.
    pub fn carried_out(self, setup: Setup, kit: &Kit, length: LengthUnit) -> Result<Setup, Problems> {
        let typed = match &self {
            Self::Typed { what, text, .. } => Some(typed(*what, text, length)?),
            _ => None,
        };
        let (mut setup, kit) = known(setup, kit.clone())?;
        let done = self.done(&mut setup, &kit, (length, typed));
        done.map_err(|what| not_there(what, "/command/set/aim/at", "/command/set/light_id"))?;
        Ok(setup.into())
    }

    fn done(
        self,
        setup: &mut planner::Setup,
        kit: &planner::Kit,
        (length, typed): (LengthUnit, Option<f64>),
    ) -> Result<(), Refused> {
        match self {
            Self::Use => {
                setup.use_set();
                Ok(())
            }
            Self::PutAside => {
                setup.put_set_aside();
                Ok(())
            }
            Self::Move { thing, to, steps: [right, forwards], snap } => {
                let to = to.map(|[x, y]| (x, y));
                setup.move_on_set(kit, &thing.into(), to, (right, forwards), (snap, length.into()))
            }
            Self::Raise { thing, to_m, steps } => {
                setup.raise_on_set(kit, &thing.into(), To { to: to_m, by: f64::from(steps) }, length.into())
            }
            Self::Turn { thing, to_deg, by_deg } => {
                setup.turn_on_set(kit, &thing.into(), To { to: to_deg, by: by_deg })
            }
            Self::Aim { light_id, at } => setup.aim_on_set(kit, &light_id, &at.into()),
            Self::Typed { light_id, what, .. } => {
                let to = typed.unwrap_or_default();
                match what {
                    TypedOfLight::Over => setup.light_over(kit, &light_id, to),
                    TypedOfLight::Round => setup.light_round(kit, &light_id, to),
                }
            }
            Self::Add(what) => setup.add_to_set(kit, &what.into()),
            Self::AddFlag { light_id } => setup.add_flag(kit, light_id.as_deref()),
            Self::Remove(thing) => setup.remove_from_set(kit, &thing.into()),
            Self::People(how) => setup.arrange(
                kit,
                match how {
                    Standing::One => Arrangement::One,
                    Standing::Couple => Arrangement::Couple,
                    Standing::Rows { rows, in_each } => Arrangement::Rows { rows, in_each },
                    Standing::Circle { count } => Arrangement::Circle { count },
                },
            ),
            Self::Region { thing, side, name } => {
                if setup.regions.len() >= MOST_REGIONS {
                    return Err(Refused::Full(MOST_REGIONS));
                }
                let thing = thing.into();
                let name = if name.trim().is_empty() { side_name(setup, &thing, side) } else { name };
                setup.region_on(&thing, side.into(), &name)
            }
            Self::OtherSide => setup.other_side_is_lit(kit),
            Self::CardForGloss { product_id, kind } => setup.card_for_gloss(kit, &product_id, kind.into()),
            Self::Plate { lights_off, people_out } => {
                let (picture, plate) = plate_names(&lights_off, people_out);
                clean_plate(setup, (&picture, &plate), lights_off, people_out)
            }
            Self::BestPlace => {
                *setup = best_place(setup, kit)?.setup;
                Ok(())
            }
            Self::Even { light_ids } => setup.light_evenly(kit, &light_ids),
        }
    }
}

/// A setup has so many regions at most.
const MOST_REGIONS: usize = 12;

/// What a side of a person or product is called on the rail.
fn side_name(setup: &planner::Setup, thing: &staging::Thing, side: Side) -> String {
    let laid = staging::Laid::of(setup);
    let name = match thing {
        staging::Thing::Person(id) => laid.set.people.iter().find(|one| &one.id == id).map(|one| one.name.clone()),
        staging::Thing::Product(id) => laid.set.products.iter().find(|one| &one.id == id).map(|one| one.name.clone()),
        staging::Thing::Wall(id) => {
            return laid.set.walls.iter().find(|one| &one.id == id).map_or_else(String::new, |one| one.name.clone());
        }
        _ => None,
    };
    let side = match side {
        Side::Left => "its left",
        Side::Right => "its right",
        Side::Front => "front",
        Side::Top => "top",
    };
    format!("{}, {side}", name.unwrap_or_else(|| "Part".to_owned()))
}

/// A number about where a light stands, as it was typed.
fn typed(what: TypedOfLight, text: &str, length: LengthUnit) -> Result<f64, Problems> {
    let wrong = |message: String, code| Problems(vec![Problem::new("/command/set/typed/text", code, message)]);
    let (meant, (least, most), unit) = match what {
        TypedOfLight::Over => (Meant::Length, OVER_M, "m"),
        TypedOfLight::Round => (Meant::Number, ROUND_DEG, "degrees"),
    };
    // A length is never negative by itself: under what it is aimed at is said by a minus.
    let trimmed = text.trim();
    let under = trimmed.strip_prefix(['-', '−']);
    let read = meant.read(under.unwrap_or(trimmed), length.into());
    let value = read.map_err(|error| wrong(error.to_string(), ProblemCode::Unreadable))?.value;
    let value = if under.is_some() { -value } else { value };
    if (least..=most).contains(&value) {
        return Ok(value);
    }
    Err(wrong(
        format!("“{text}” is not allowed here: it must be from {least} to {most} {unit}"),
        ProblemCode::OutOfRange,
    ))
}
