//! What a front end needs once, at its start.

use actix_web::{HttpResponse, get};
use serde::Serialize;
use tolva_core::colour::{FULL_WHITE, Kelvin, step_wedge};
use tolva_core::{ambient, colour, exposure, modifier, optics};
use tolva_format::{
    Blend, FallingOrder, HandheldRule, Job, LocalTime, MeteringMethod, Movement, NamedLight, Preference, Preset, Role,
    Scene, ShotKind, Site, SurfaceColour, TypicalLight,
};
use tolva_planner::colour::Colouring;
use tolva_planner::place::Placing;
use tolva_planner::setup;
use tolva_wording::{Meant as _, Named as _, instruction, number_name};
use utoipa::ToSchema;

/// What a front end needs once.
#[derive(Debug, Serialize, ToSchema)]
pub struct Start {
    /// The wedge of greys over the rail.
    step_wedge: Vec<Grey>,
    /// Where white clips, in stops over mid grey.
    full_white_stops: f64,
    /// Between where a mark on the rail may be put, in stops.
    marks_stops: [f64; 2],
    /// Between where something on the colour line may be put, in mired.
    colours_mired: [f64; 2],
    /// The blends, in the order they are offered.
    blends: Vec<BlendOffer>,
    /// The ways to take a reading.
    metering_methods: Vec<MeteringMethodOffer>,
    /// Typical lights indoors and at night, the brightest first.
    typical_lights: Vec<LightOffer>,
    /// What may give way first as the light falls.
    falling_orders: Vec<OrderOffer>,
    /// What the subject may do, the slowest first.
    movements: Vec<MovementOffer>,
    /// The rules for the slowest shutter by hand.
    handheld_rules: Vec<HandheldRuleOffer>,
    /// What may be kept first, in the usual order.
    preferences: Vec<PreferenceOffer>,
    /// Lights everybody has a name for, the warmest first.
    named_lights: Vec<NamedLightOffer>,
    /// What a camera's menu of white balance says.
    presets: Vec<PresetOffer>,
    /// Colours of ceilings and walls.
    surface_colours: Vec<SurfaceColourOffer>,
    /// How a shot may be taken.
    shot_kinds: Vec<ShotKindOffer>,
    /// The temperatures that are written on the colour line, the warmest first.
    colour_line: Vec<LineMark>,
    /// A scene as it is first offered; its place and hour are to be put in.
    new_scene: Scene,
    /// A new job, with the starter kit and one setup.
    new_job: Job,
}

/// One step of the wedge.
#[derive(Debug, Serialize, ToSchema)]
pub struct Grey {
    /// From mid grey, in stops.
    stops: f64,
    /// The level it renders to in 8-bit sRGB, 0 to 255.
    level: u8,
}

/// Where a meter is held and which way it is pointed: it is drawn so.
#[derive(Debug, Serialize, ToSchema)]
#[serde(rename_all = "snake_case")]
pub enum Pointing {
    /// At the subject's face, level, towards the horizon under the sun.
    UnderTheSun,
    /// At the subject's face, towards the camera.
    TowardsTheCamera,
    /// At the shadow cheek, turned away from the light.
    AwayFromTheLight,
    /// At what lies behind, towards the camera.
    BehindTheSubject,
    /// From the camera at the surface.
    AtTheSurface,
    /// From the camera past the subject.
    AtWhatLiesBehind,
}

impl From<ambient::Pointing> for Pointing {
    fn from(pointing: ambient::Pointing) -> Self {
        match pointing {
            ambient::Pointing::UnderTheSun => Self::UnderTheSun,
            ambient::Pointing::TowardsTheCamera => Self::TowardsTheCamera,
            ambient::Pointing::AwayFromTheLight => Self::AwayFromTheLight,
            ambient::Pointing::BehindTheSubject => Self::BehindTheSubject,
            ambient::Pointing::AtTheSurface => Self::AtTheSurface,
            ambient::Pointing::AtWhatLiesBehind => Self::AtWhatLiesBehind,
        }
    }
}

/// One number of a blend.
#[derive(Debug, Serialize, ToSchema)]
pub struct BlendField {
    /// Its name in the format.
    field: &'static str,
    /// What it is called.
    name: &'static str,
    /// Its value, in stops.
    value: f64,
}

/// How a shot may be taken.
#[derive(Debug, Serialize, ToSchema)]
pub struct ShotKindOffer {
    /// Its name in the format.
    id: ShotKind,
    /// What it is called.
    name: &'static str,
}

/// One way to take a reading.
#[derive(Debug, Serialize, ToSchema)]
pub struct MeteringMethodOffer {
    /// Its name in the format.
    method: MeteringMethod,
    /// What it is called.
    name: String,
    /// How far its usual surface lies over mid grey, in stops.
    surface_stops: f64,
    /// How to take it of each part of the picture, while the sun shows and otherwise.
    instructions: Vec<Instruction>,
}

/// How a reading is taken.
#[derive(Debug, Serialize, ToSchema)]
pub struct Instruction {
    /// Of which part of the picture.
    part: Role,
    /// Whether the sun shows.
    sun_shows: bool,
    /// Which way to point: it is drawn so.
    pointing: Pointing,
    /// In words.
    says: String,
}

/// One typical light.
#[derive(Debug, Serialize, ToSchema)]
pub struct LightOffer {
    /// Its name in the format.
    light: TypicalLight,
    /// What it is called, with its exposure values: `Stage, EV 5 to 7`.
    name: String,
}

/// One way a subject moves.
#[derive(Debug, Serialize, ToSchema)]
pub struct MovementOffer {
    /// As in the format.
    movement: Movement,
    /// What it is called, with its speed: `Walking, 1.4 m/s`.
    name: String,
}

/// One rule for the slowest shutter by hand.
#[derive(Debug, Serialize, ToSchema)]
pub struct HandheldRuleOffer {
    /// Its name in the format.
    rule: HandheldRule,
    /// What it is called.
    name: String,
}

/// Something that may be kept first.
#[derive(Debug, Serialize, ToSchema)]
pub struct PreferenceOffer {
    /// Its name in the format.
    preference: Preference,
    /// What it is called.
    name: String,
}

/// A light by its name.
#[derive(Debug, Serialize, ToSchema)]
pub struct NamedLightOffer {
    /// Its name in the format.
    light: NamedLight,
    /// What it is called, with its temperatures: `House lamps, 2500 to 3200 K`.
    name: String,
}

/// A name on the camera's menu.
#[derive(Debug, Serialize, ToSchema)]
pub struct PresetOffer {
    /// Its name in the format.
    preset: Preset,
    /// What the menu says, with the temperature it stands for: `Shade, 7500 K`.
    name: String,
}

/// The colour of a ceiling or wall.
#[derive(Debug, Serialize, ToSchema)]
pub struct SurfaceColourOffer {
    /// Its name in the format.
    colour: SurfaceColour,
    /// What it is called.
    name: String,
}

/// A temperature on the colour line.
#[derive(Debug, Serialize, ToSchema)]
pub struct LineMark {
    /// Where it stands.
    mired: f64,
    /// `3200`, in kelvin.
    label: String,
}

/// What is written on the colour line, in kelvin.
const LINE_K: [f64; 8] = [2000.0, 2500.0, 3200.0, 4000.0, 5000.0, 6500.0, 8000.0, 12_000.0];

/// One order of what gives way.
#[derive(Debug, Serialize, ToSchema)]
pub struct OrderOffer {
    /// Its name in the format.
    order: FallingOrder,
    /// What it is called.
    name: String,
    /// What it does.
    meaning: String,
}

/// One blend.
#[derive(Debug, Serialize, ToSchema)]
pub struct BlendOffer {
    /// Its name in the format.
    kind: String,
    /// What it is called.
    name: String,
    /// What it does.
    meaning: String,
    /// The blend as it is first offered.
    blend: Blend,
    /// Its numbers.
    fields: Vec<BlendField>,
}

/// What a front end needs once, at its start.
#[utoipa::path(
    responses((status = OK, description = "The start", body = Start)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/start")]
pub async fn start() -> HttpResponse {
    let field = |blend: setup::Blend, number: setup::BlendNumber| BlendField {
        field: number.field,
        name: number_name(blend, number.field),
        value: number.value,
    };
    let offer = |blend: setup::Blend| BlendOffer {
        kind: blend.kind().to_owned(),
        name: blend.name().to_owned(),
        meaning: blend.meaning().to_owned(),
        blend: blend.into(),
        fields: blend.numbers().into_iter().map(|number| field(blend, number)).collect(),
    };
    let instructions = |how: exposure::MeteringMethod| {
        let parts = ambient::Role::ALL.into_iter().flat_map(|part| [(part, true), (part, false)]);
        let of = |(part, sun_shows): (ambient::Role, bool)| Instruction {
            part: part.into(),
            sun_shows,
            pointing: ambient::pointing(how, part, sun_shows).into(),
            says: instruction(how, part, sun_shows),
        };
        parts.map(of).collect()
    };
    let hows = exposure::MeteringMethod::OFFERED.map(|how| MeteringMethodOffer {
        method: how.into(),
        name: how.name().to_owned(),
        surface_stops: how.surface().0,
        instructions: instructions(how),
    });
    let typical = ambient::TypicalLight::ALL.map(|light| {
        let (low, high) = light.ev_range();
        LightOffer { light: light.into(), name: format!("{}, EV {:.0} to {:.0}", light.name(), low.0, high.0) }
    });
    let orders = setup::FallingOrder::OFFERED.map(|order| OrderOffer {
        order: order.into(),
        name: order.name().to_owned(),
        meaning: order.meaning().to_owned(),
    });
    let movements = optics::Movement::OFFERED.map(|movement| MovementOffer {
        movement: movement.into(),
        name: match movement {
            optics::Movement::Still => movement.name().to_owned(),
            _ => format!("{}, {} m/s", movement.name(), movement.metres_per_s()),
        },
    });
    HttpResponse::Ok().json(Start {
        metering_methods: hows.into(),
        typical_lights: typical.into(),
        movements: movements.into(),
        handheld_rules: optics::HandheldRule::OFFERED
            .map(|school| HandheldRuleOffer { rule: school.into(), name: school.name().to_owned() })
            .into(),
        preferences: setup::Preference::USUAL
            .map(|preference| PreferenceOffer { preference: preference.into(), name: preference.name().to_owned() })
            .into(),
        named_lights: colour::NamedLight::ALL
            .map(|light| {
                let (low, high) = light.range();
                NamedLightOffer {
                    light: light.into(),
                    name: format!("{}, {:.0} to {}", light.name(), low.0, high.label()),
                }
            })
            .into(),
        presets: colour::Preset::ALL
            .map(|preset| PresetOffer {
                preset: preset.into(),
                name: format!("{}, {}", preset.name(), preset.kelvin().label()),
            })
            .into(),
        surface_colours: modifier::SurfaceColour::ALL
            .map(|colour| SurfaceColourOffer { colour: colour.into(), name: colour.name().to_owned() })
            .into(),
        shot_kinds: setup::ShotKind::OFFERED.map(|kind| ShotKindOffer { id: kind.into(), name: kind.name() }).into(),
        colour_line: LINE_K
            .map(|kelvin| LineMark { mired: Kelvin(kelvin).mired().0, label: format!("{kelvin:.0}") })
            .into(),
        falling_orders: orders.into(),
        new_scene: Scene::new(
            Site {
                name: String::new(),
                latitude_deg: 0.0,
                longitude_deg: 0.0,
                elevation_m: 0.0,
                time_zone: "UTC".to_owned(),
            },
            LocalTime { date: "2026-06-21".to_owned(), time: "12:00".to_owned(), second_time: false },
        ),
        step_wedge: step_wedge().map(|(stops, level)| Grey { stops: stops.0, level }).collect(),
        full_white_stops: FULL_WHITE.0,
        marks_stops: Placing::STOPS.into(),
        colours_mired: Colouring::MIRED.into(),
        blends: setup::Blend::OFFERED.into_iter().map(offer).collect(),
        new_job: Job::new("New job"),
    })
}
