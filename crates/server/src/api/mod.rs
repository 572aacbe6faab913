//! The JSON API: everything the screen does. Stateless but for the stored jobs.

mod body;
mod calculators;
mod devices;
mod echo;
mod falling;
mod job_body;
mod jobs;
mod kit;
mod places;
mod plans;
mod preferences;
mod problem;
mod reading;
mod start;

pub use devices::Receivers;
pub use problem::ProblemDocument;

use actix_web::{App, HttpResponse, get};
use utoipa::OpenApi as _;
use utoipa_actix_web::AppExt as _;
use utoipa_actix_web::service_config::ServiceConfig;

#[derive(utoipa::OpenApi)]
#[openapi(info(
    title = "Tolva",
    description = "Blends flash with the light that is already there. Errors are problem documents (RFC 9457) with a \
                   JSON pointer to each wrong field."
))]
struct Described;

/// All routes.
pub fn routes(config: &mut ServiceConfig<'_>) {
    config
        .service(start::start)
        .service(plans::solve)
        .service(plans::dials)
        .service(plans::ways)
        .service(plans::all_conventions)
        .service(plans::colours)
        .service(plans::look)
        .service(plans::day)
        .service(falling::timetable)
        .service(falling::calendar)
        .service(falling::table)
        .service(places::find)
        .service(places::of_file)
        .service(places::moment)
        .service(devices::forecast)
        .service(devices::meter)
        .service(devices::trigger)
        .service(calculators::position)
        .service(calculators::times)
        .service(calculators::list)
        .service(calculators::any)
        .service(reading::read)
        .service(reading::say)
        .service(jobs::list)
        .service(jobs::add)
        .service(jobs::upgrade)
        .service(jobs::get)
        .service(jobs::save)
        .service(jobs::bin)
        .service(jobs::restore)
        .service(jobs::undo_job)
        .service(jobs::redo_job)
        .service(jobs::file)
        .service(kit::get)
        .service(kit::save)
        .service(kit::undo_kit)
        .service(kit::redo_kit)
        .service(kit::export)
        .service(kit::import)
        .service(preferences::get)
        .service(preferences::set)
        .service(echo::echo)
        .service(document);
}

/// The OpenAPI document, from the code.
pub fn openapi() -> utoipa::openapi::OpenApi {
    App::new().into_utoipa_app().openapi(Described::openapi()).configure(routes).split_for_parts().1
}

/// The OpenAPI 3.1 document of this API.
#[utoipa::path(responses((status = OK, description = "OpenAPI 3.1", content_type = "application/json")))]
#[get("/api/openapi.json")]
async fn document() -> HttpResponse {
    HttpResponse::Ok().json(openapi())
}
