//! What a front end needs once, at its start.

use actix_web::{HttpResponse, get};
use serde::Serialize;
use tolva_core::ambient::{LocalTime, TypicalLight};
use tolva_core::blend::{FULL_WHITE, FallingOrder, Grey, wedge};
use tolva_core::exposure::{How, Pointing};
use tolva_core::job::{Blend, BlendField, Job, Scene, Site};
use utoipa::ToSchema;

/// What a front end needs once.
#[derive(Debug, Serialize, ToSchema)]
pub struct Start {
    /// The wedge of greys over the rail.
    wedge: Vec<Grey>,
    /// Where white clips, in stops over mid grey.
    full_white_stops: f64,
    /// The blends, in the order they are offered.
    blends: Vec<BlendOffer>,
    /// The ways to take a reading.
    hows: Vec<HowOffer>,
    /// Typical lights indoors and at night, the brightest first.
    typical_lights: Vec<LightOffer>,
    /// What may give way first as the light falls.
    falling_orders: Vec<OrderOffer>,
    /// A scene as it is first offered; its place and hour are to be put in.
    new_scene: Scene,
    /// A new job, with the starter kit and one setup.
    new_job: Job,
}

/// One way to take a reading.
#[derive(Debug, Serialize, ToSchema)]
pub struct HowOffer {
    /// Its name in the format.
    how: How,
    /// What it is called.
    name: String,
    /// How far its usual surface lies over mid grey, in stops.
    surface_stops: f64,
    /// How to take it while the sun shows.
    in_sun: Instruction,
    /// How to take it otherwise.
    in_shade: Instruction,
}

/// How a reading is taken.
#[derive(Debug, Serialize, ToSchema)]
pub struct Instruction {
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
#[utoipa::path(responses((status = OK, description = "The start", body = Start)))]
#[get("/api/start")]
pub async fn start() -> HttpResponse {
    let offer = |blend: Blend| BlendOffer {
        kind: blend.kind().to_owned(),
        name: blend.name().to_owned(),
        meaning: blend.meaning().to_owned(),
        blend,
        fields: blend.fields(),
    };
    let instruction = |how: How, sun: bool| Instruction { pointing: how.pointing(sun), says: how.instruction(sun) };
    let hows = How::OFFERED.map(|how| HowOffer {
        how,
        name: how.name().to_owned(),
        surface_stops: how.surface().0,
        in_sun: instruction(how, true),
        in_shade: instruction(how, false),
    });
    let typical = TypicalLight::ALL.map(|light| {
        let (low, high) = light.ev_range();
        LightOffer { light, name: format!("{}, EV {:.0} to {:.0}", light.name(), low.0, high.0) }
    });
    let orders = FallingOrder::OFFERED.map(|order| OrderOffer {
        order,
        name: order.name().to_owned(),
        meaning: order.meaning().to_owned(),
    });
    HttpResponse::Ok().json(Start {
        hows: hows.into(),
        typical_lights: typical.into(),
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
        wedge: wedge(),
        full_white_stops: FULL_WHITE.0,
        blends: Blend::OFFERED.into_iter().map(offer).collect(),
        new_job: Job::new("New job"),
    })
}
