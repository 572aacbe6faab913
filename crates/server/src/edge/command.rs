//! What a person does to a setup, as it is sent: the change is carried out here, so that no front end knows the rules.

use serde::Deserialize;
use tolva_format::{
    Edit, Kit, Light, LightWish, LocalTime, MeteringMethod, Obstacle, Problem, ProblemCode, Problems, Reading, Scene,
    Setup, Site, Spill, StatedColour, catalogue, edited,
};
use tolva_planner::hour::at_minute;
use tolva_planner::refused::Refused;
use tolva_planner::setup as domain;
use tolva_planner::{colour, edit, place};
use tolva_wording::{Grip, LengthUnit};
use utoipa::ToSchema;

use super::set_command::{SetCommand, is_of_the_set};
use super::{known, not_there, refused};

/// A mark on the rail put somewhere else, or nudged.
#[derive(Clone, Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Placing {
    /// The region.
    region_id: String,
    /// Which of its marks.
    grip: Grip,
    /// Where it is put, in stops from mid grey, held to −12 to 12 and taken to the nearest third. Left out, where it
    /// stands.
    #[serde(default)]
    stops: Option<f64>,
    /// So many thirds of a stop from where it stands; held to where marks may be put.
    #[serde(default)]
    by: Option<i32>,
    /// Which light's mark, by its letter; the first's where it is left out.
    #[serde(default)]
    light_id: Option<String>,
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

impl From<ColourGrip> for colour::ColourGrip {
    fn from(grip: ColourGrip) -> Self {
        match grip {
            ColourGrip::Balance => Self::Balance,
            ColourGrip::Light(id) => Self::Light(id),
            ColourGrip::Region(id) => Self::Region(id),
        }
    }
}

/// Something put somewhere else on the colour line, or nudged; held to the line.
#[derive(Clone, Debug, Deserialize, ToSchema)]
#[serde(deny_unknown_fields)]
pub struct Colouring {
    /// What.
    what: ColourGrip,
    /// Where to, in mired. Left out, from where it stands.
    #[serde(default)]
    mired: Option<f64>,
    /// How green, in Duv. Left out, as it was.
    #[serde(default)]
    tint_duv: Option<f64>,
    /// So many steps along the line from where it stands: five mired each.
    #[serde(default)]
    by: i32,
    /// So many steps across it: a thousandth of a Duv each, positive towards green.
    #[serde(default)]
    tint_by: i32,
}

/// What a light is there for, without its numbers.
#[derive(Clone, Copy, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum WishKind {
    /// It brings the lit side to where the blend wants it.
    Key,
    /// It opens a shadow.
    Fill,
    /// It draws an edge.
    Rim,
    /// It lights a region of its own.
    Place,
}

/// How the colour of the light on a region is said.
#[derive(Clone, Copy, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum ColourKind {
    /// From place and hour.
    FromPlace,
    /// A light by its name.
    Named,
    /// By hand.
    Kelvin,
    /// Read by a colour meter.
    Meter,
    /// Read off a grey patch.
    GreyPatch,
}

/// Something done to a setup.
#[derive(Clone, Debug, Deserialize, ToSchema)]
#[serde(rename_all = "snake_case", rename_all_fields = "snake_case", deny_unknown_fields)]
pub enum Command {
    /// A text was typed into a number, or it was stepped.
    Edit(Edit),
    /// A mark on the rail is moved.
    Mark(Placing),
    /// A mark on the colour line is moved.
    ColourMark(Colouring),
    /// The hour is moved along its day.
    Minute {
        /// To this minute from midnight, held to the day. Left out, from where it stands.
        #[serde(default)]
        to: Option<f64>,
        /// By so many minutes.
        #[serde(default)]
        by: f64,
    },
    /// A day and an hour by the clocks of the place.
    Hour(LocalTime),
    /// Which way the subject faces, round the compass.
    Face {
        /// To this bearing, in degrees. Left out, from where it stands.
        #[serde(default)]
        to_deg: Option<f64>,
        /// By so many degrees.
        #[serde(default)]
        by_deg: f64,
    },
    /// Another lens, at the nearest focal length it has.
    Lens {
        /// Its id.
        lens_id: String,
    },
    /// What a light is there for: it is aimed where that usually is.
    Wish {
        /// Which light.
        light_id: String,
        /// What for.
        kind: WishKind,
    },
    /// Another unit for a light; a power that was fixed is Tolva's again.
    Unit {
        /// Which light.
        light_id: String,
        /// The unit, from the kit.
        flash_id: String,
    },
    /// How much of a light reaches a region it is not aimed at, typed for the first time.
    Reach {
        /// Which light.
        light_id: String,
        /// Which region.
        region_id: String,
        /// In stops, in any usual notation.
        #[schema(max_length = 200)]
        text: String,
    },
    /// One more light.
    AddLight,
    /// One more part of the picture.
    AddRegion,
    /// A part of the picture less, with what was aimed at it.
    RemoveRegion {
        /// Which.
        region_id: String,
    },
    /// One more thing in the way of the sun.
    AddObstacle,
    /// The cloud by hand, as it is at the setup's hour.
    CloudByHand,
    /// How the colour of a region's light is said; it begins as it is taken to be now.
    Colour {
        /// Which region.
        region_id: String,
        /// How.
        kind: ColourKind,
    },
    /// A reading was typed.
    Reading {
        /// Of which region.
        region_id: String,
        /// In any usual notation.
        #[schema(max_length = 200)]
        text: String,
        /// Whether it comes after the last one, instead of in its place.
        #[serde(default)]
        again: bool,
    },
    /// How the last reading of a region was taken, with the surface that is usual for it.
    Method {
        /// Which region.
        region_id: String,
        /// How.
        method: MeteringMethod,
    },
    /// Something done to the set.
    Set(SetCommand),
    /// Where it is. The first place needs an hour too.
    Place {
        /// The place.
        site: Site,
        /// The day and the hour, where there was no place yet.
        #[serde(default)]
        at: Option<LocalTime>,
    },
}

/// A change the rules make.
type Change<'a> = dyn Fn(&mut domain::Setup, &domain::Kit) -> Result<(), Refused> + 'a;

impl Command {
    /// The setup with the command carried out.
    ///
    /// # Errors
    /// What cannot be done; pointers begin with `/command`, or `/setup` and `/kit` where these are wrong.
    pub fn carried_out(self, setup: Setup, kit: &Kit, length: LengthUnit) -> Result<Setup, Problems> {
        let rules = |called: &str, change: &Change<'_>| {
            let (mut setup, kit) = known(setup.clone(), kit.clone())?;
            let (region, light) = (format!("/command/{called}/region_id"), format!("/command/{called}/light_id"));
            change(&mut setup, &kit).map_err(|what| not_there(what, &region, &light))?;
            Ok(setup.into())
        };
        match self {
            Self::Edit(change) => {
                let (Edit::Type { at, .. } | Edit::Nudge { at, .. }) = &change;
                let setup = if at.starts_with("/white_balance/kelvin") { by_hand(setup, kit)? } else { setup };
                let setup = if is_of_the_set(at) { super::set_command::used(setup, kit)? } else { setup };
                edited("Setup", &setup, &change, length.into()).map_err(|wrong| wrong.within("/command/edit"))
            }
            Self::Mark(Placing { region_id, grip, stops, by, light_id }) => rules("mark", &|setup, kit| {
                let (region_id, light_id) = (region_id.clone(), light_id.clone());
                let mark = place::Placing { region_id, grip: grip.into(), stops: stops.unwrap_or(0.0), light_id };
                let by = by.or(if stops.is_none() { Some(0) } else { None });
                let (least, most) = place::Placing::STOPS;
                let held = place::Placing { stops: mark.stops.clamp(least, most), ..mark.clone() };
                let mark = by.map_or(Ok(held), |by| edit::mark_by(setup, kit, &mark, by))?;
                *setup = place::place(setup, kit, &mark)?;
                Ok(())
            }),
            Self::ColourMark(to) => colour_mark_to(setup, kit, to),
            Self::Minute { to, by } => rules("minute", &|setup, kit| {
                *setup = at_minute(setup, kit, to, by)?;
                Ok(())
            }),
            Self::Face { to_deg, by_deg } => rules("face", &|setup, _| {
                let now = setup.scene.as_ref().map_or(0.0, |scene| scene.facing_deg);
                setup.face(to_deg.unwrap_or(now) + by_deg)
            }),
            Self::Lens { lens_id } => rules("lens", &|setup, kit| setup.take_lens(&lens_id, kit)),
            Self::Wish { light_id, kind } => {
                let wish = LightWish::begun(kind);
                rules("wish", &|setup, kit| setup.wish_on_set(kit, &light_id, wish.into()))
            }
            Self::Unit { light_id, flash_id } => {
                let mut setup = setup;
                let light = light_of(&mut setup, &light_id, "unit")?;
                (light.flash_id, light.power_stops) = (flash_id, None);
                Ok(setup)
            }
            Self::Reach { light_id, region_id, text } => {
                let mut setup = setup;
                let spill = &mut light_of(&mut setup, &light_id, "reach")?.spill;
                spill.retain(|reach| reach.region_id != region_id);
                let index = spill.len();
                spill.push(Spill { region_id, stops: 0.0 });
                let light = setup.lights.iter().position(|light| light.id == light_id).unwrap_or_default();
                let change = Edit::Type { at: format!("/lights/{light}/spill/{index}/stops"), text };
                edited("Setup", &setup, &change, length.into()).map_err(|wrong| wrong.within("/command/reach"))
            }
            Self::AddLight => rules("add_light", &|setup, kit| setup.add_light(kit)),
            Self::AddRegion => rules("add_region", &|setup, _| {
                setup.add_region("Another part");
                Ok(())
            }),
            Self::RemoveRegion { region_id } => rules("remove_region", &|setup, _| {
                setup.remove_region(&region_id);
                Ok(())
            }),
            Self::AddObstacle => {
                let begun = catalogue().begun_at("Scene", "/horizon/0");
                let mut begun: Option<Obstacle> = begun.and_then(|one| serde_json::from_value(one).ok());
                // A hill or a house is known by its size before anybody has measured an angle.
                let size = catalogue().kinds.get("ObstacleHeight").and_then(|kinds| kinds.get("size")).cloned();
                if let (Some(begun), Some(Ok(size))) = (&mut begun, size.map(serde_json::from_value)) {
                    begun.height = size;
                }
                rules("add_obstacle", &|setup, _| begun.clone().map_or(Ok(()), |one| setup.add_obstacle(one.into())))
            }
            Self::CloudByHand => rules("cloud_by_hand", &domain::Setup::cloud_by_hand),
            Self::Method { region_id, method } => rules("method", &|setup, _| setup.read_by(&region_id, method.into())),
            Self::Reading { region_id, text, again } => {
                let reading = read(&text, length)?;
                rules("reading", &|setup, _| setup.take_reading(&region_id, reading.clone().into(), again))
            }
            Self::Set(command) => command.carried_out(setup, kit, length),
            Self::Colour { region_id, kind } => coloured(setup, kit, &region_id, kind),
            Self::Hour(to) => {
                let mut setup = setup;
                let scene = setup.scene.as_mut().ok_or_else(no_scene)?;
                scene.at = to;
                Ok(setup)
            }
            Self::Place { site, at } => {
                let mut setup = setup;
                match (&mut setup.scene, at) {
                    (Some(scene), _) => scene.site = site,
                    (none, Some(at)) => *none = Some(Scene::new(site, at)),
                    (None, None) => {
                        return Err(Problems::one("/command/place/at", "the first place needs a day and an hour"));
                    }
                }
                Ok(setup)
            }
        }
    }
}

/// A light of a setup, for a command that is called so.
fn light_of<'a>(setup: &'a mut Setup, id: &str, called: &str) -> Result<&'a mut Light, Problems> {
    let missing = || not_there(Refused::NoSuchLight(id.to_owned()), "", &format!("/command/{called}/light_id"));
    setup.lights.iter_mut().find(|light| light.id == id).ok_or_else(missing)
}

fn colour_mark_to(setup: Setup, kit: &Kit, to: Colouring) -> Result<Setup, Problems> {
    let (setup, kit) = known(setup, kit.clone())?;
    let moved = edit::colour_by(&setup, &kit, to.what.into(), to.by, to.tint_by).and_then(|now| {
        let (mired, tint_duv) = (to.mired.unwrap_or(now.mired), to.tint_duv.or(now.tint_duv));
        colour::colour_to(&setup, &kit, &colour::Colouring { mired, tint_duv, ..now }.held())
    });
    let (region, light) = ("/command/colour_mark/what/region", "/command/colour_mark/what/light");
    moved.map(Into::into).map_err(|what| not_there(what, region, light))
}

fn no_scene() -> Problems {
    refused(Refused::NoScene)
}

/// A reading as it was typed, within what a reading may be.
fn read(text: &str, length: LengthUnit) -> Result<Reading, Problems> {
    let wrong = |message: String, code| Problems(vec![Problem::new("/command/reading/text", code, message)]);
    let (_, field) = catalogue().at("EvReading", "/ev100").ok_or_else(no_scene)?;
    let understood = tolva_format::Meant::Light.read(text, length.into());
    let understood = understood.map_err(|error| wrong(error.to_string(), ProblemCode::Unreadable))?;
    if !(field.least..=field.most).contains(&understood.value) {
        let allowed = field.allowed(length.into());
        return Err(wrong(format!("“{text}” is not allowed here: it must be {allowed}"), ProblemCode::OutOfRange));
    }
    let hundredths = |ev100: f64| (ev100 * 100.0).round() / 100.0;
    Ok(match understood.reading {
        Some(Reading::Ev(ev)) => Reading::Ev(tolva_format::EvReading { ev100: hundredths(ev.ev100) }),
        Some(other) => other,
        None => Reading::Ev(tolva_format::EvReading { ev100: hundredths(understood.value) }),
    })
}

/// A setup whose white balance is a number, beginning with what stands on the camera now.
fn by_hand(setup: Setup, kit: &Kit) -> Result<Setup, Problems> {
    if matches!(setup.white_balance, tolva_format::WhiteBalance::Kelvin { .. }) {
        return Ok(setup);
    }
    let (setup, kit) = known(setup, kit.clone())?;
    let now = edit::colour_by(&setup, &kit, colour::ColourGrip::Balance, 0, 0).map_err(refused)?;
    Ok(colour::colour_to(&setup, &kit, &now).map_err(refused)?.into())
}

/// A setup where the colour of a region's light is said in another way.
fn coloured(setup: Setup, kit: &Kit, region_id: &str, kind: ColourKind) -> Result<Setup, Problems> {
    let (known_setup, known_kit) = known(setup.clone(), kit.clone())?;
    let now: StatedColour = edit::colour_now(&known_setup, &known_kit, region_id)
        .map_err(|what| not_there(what, "/command/colour/region_id", ""))?
        .into();
    let kelvin = if let StatedColour::Kelvin { kelvin, .. } = now { kelvin } else { 5600.0 };
    let grey = |of: &str| {
        let field = catalogue().fields.get(&format!("StatedColour.grey_patch.{of}"));
        field.and_then(|field| field.default).unwrap_or(118.0)
    };
    let begun = match kind {
        ColourKind::FromPlace => StatedColour::FromPlace,
        ColourKind::Named => StatedColour::Named(tolva_format::NamedLight::HouseLamp),
        ColourKind::Kelvin => now,
        ColourKind::Meter => StatedColour::Meter { kelvin, duv: 0.0 },
        ColourKind::GreyPatch => StatedColour::GreyPatch {
            red: grey("red"),
            green: grey("green"),
            blue: grey("blue"),
            kelvin,
            tint_duv: 0.0,
        },
    };
    let mut setup = setup;
    for region in setup.regions.iter_mut().filter(|region| region.id == region_id) {
        region.ambient.colour = begun;
    }
    Ok(setup)
}

/// What a wish begins with.
trait Begun {
    fn begun(kind: WishKind) -> Self;
}

impl Begun for LightWish {
    fn begun(kind: WishKind) -> Self {
        let name = match kind {
            WishKind::Key => "key",
            WishKind::Fill => "fill",
            WishKind::Rim => "rim",
            WishKind::Place => "place",
        };
        let begun = catalogue().kinds.get("LightWish").and_then(|kinds| kinds.get(name)).cloned();
        begun.and_then(|one| serde_json::from_value(one).ok()).unwrap_or_default()
    }
}
