//! The JSON API: everything the screen does. Stateless but for the stored jobs.

mod answer;
mod backups;
mod begin;
mod body;
mod calculators;
mod coming;
mod described;
mod devices;
mod drills;
#[cfg(feature = "echo")]
mod echo;
mod events;
mod falling;
mod frames;
mod job_body;
mod job_day;
mod jobs;
pub mod join;
mod kit;
mod live;
mod log;
mod phones;
mod places;
mod plans;
mod preferences;
mod problem;
mod proof;
mod reading;
mod run;
mod start;
mod unknown;
mod work;

pub use devices::Receivers;
pub use problem::ProblemDocument;
pub use unknown::{not_allowed, unknown, wrong_path, wrong_query};

use actix_web::{App, HttpResponse, get};
use utoipa::OpenApi as _;
use utoipa_actix_web::AppExt as _;
use utoipa_actix_web::service_config::ServiceConfig;

#[derive(utoipa::OpenApi)]
#[openapi(
    components(schemas(ProblemDocument, proof::FileKind)),
    info(
        title = "Tolva",
        description = "Blends flash with the light that is already there. Errors are problem documents (RFC 9457) with a \
                   JSON pointer to each wrong field."
    )
)]
struct Described;

/// All routes.
pub fn routes(config: &mut ServiceConfig<'_>) {
    config
        .service(start::start)
        .service(plans::solve)
        .service(plans::dials)
        .service(plans::ways)
        .service(plans::set_on_paper)
        .service(plans::all_conventions)
        .service(plans::colours)
        .service(plans::look)
        .service(plans::day)
        .service(proof::render)
        .service(proof::progress)
        .service(proof::stop)
        .service(proof::fetch)
        .service(proof::clipped_parts)
        .service(proof::file)
        .service(proof::reading)
        .service(proof::small)
        .service(job_day::planned)
        .service(job_day::hour)
        .service(job_day::calendar)
        .service(job_day::table)
        .service(job_day::pack)
        .service(job_day::pack_table)
        .service(run::sheet)
        .service(run::looked)
        .service(run::shots)
        .service(run::card)
        .service(log::list)
        .service(log::as_table)
        .service(log::as_json)
        .service(log::note)
        .service(log::again)
        .service(falling::timetable)
        .service(falling::calendar)
        .service(falling::table)
        .service(phones::list)
        .service(phones::reach)
        .service(phones::code)
        .service(phones::change)
        .service(phones::put_out)
        .service(phones::me)
        .service(live::events)
        .service(places::find)
        .service(places::of_file)
        .service(places::moment)
        .service(devices::forecast)
        .service(devices::meter)
        .service(devices::trigger)
        .service(calculators::position)
        .service(calculators::times)
        .service(frames::target_in_picture)
        .service(calculators::list)
        .service(calculators::any)
        .service(reading::read)
        .service(reading::say)
        .service(begin::new_job)
        .service(begin::new_setup)
        .service(backups::list)
        .service(backups::compare)
        .service(backups::restore)
        .service(kit::get)
        .service(kit::save)
        .service(kit::edit)
        .service(kit::undo_kit)
        .service(kit::redo_kit)
        .service(kit::export)
        .service(kit::import)
        .service(preferences::get)
        .service(preferences::set)
        .service(document);
    of_jobs(config);
    of_frames(config);
    of_drills(config);
    #[cfg(feature = "echo")]
    config.service(echo::echo);
}

/// Jobs as they are kept.
fn of_jobs(config: &mut ServiceConfig<'_>) {
    config
        .service(jobs::list)
        .service(coming::next_job)
        .service(jobs::add)
        .service(jobs::upgrade)
        .service(jobs::edit)
        .service(jobs::get)
        .service(jobs::save)
        .service(jobs::bin)
        .service(jobs::restore)
        .service(jobs::undo_job)
        .service(jobs::redo_job)
        .service(jobs::file)
        .service(jobs::raw)
        .service(jobs::revisions)
        .service(jobs::set_back)
        .service(jobs::name_point);
}

/// Drills.
fn of_drills(config: &mut ServiceConfig<'_>) {
    config
        .service(drills::next)
        .service(drills::answer)
        .service(drills::how_known)
        .service(drills::of_drill)
        .service(drills::results)
        .service(drills::give_class)
        .service(drills::open_class)
        .service(drills::practise)
        .service(drills::frame_of_set)
        .service(drills::measure_frame)
        .service(drills::judge_task)
        .service(drills::on_paper);
}

/// Frames that came.
fn of_frames(config: &mut ServiceConfig<'_>) {
    config
        .service(frames::list)
        .service(frames::events)
        .service(frames::table)
        .service(frames::that_worked)
        .service(frames::lines)
        .service(frames::whole)
        .service(frames::add_whole)
        .service(frames::stand_in)
        .service(frames::add)
        .service(frames::curve)
        .service(frames::sunset)
        .service(frames::one)
        .service(frames::edit)
        .service(frames::bin)
        .service(frames::restore)
        .service(frames::picture)
        .service(frames::small)
        .service(frames::lesson_of)
        .service(frames::target)
        .service(frames::take_apart)
        .service(frames::map)
        .service(frames::mix)
        .service(frames::use_mix)
        .service(frames::believed)
        .service(frames::reveal)
        .service(frames::watched)
        .service(frames::watch)
        .service(frames::unwatch);
}

/// The OpenAPI document, from the code.
pub fn openapi() -> serde_json::Value {
    let made = App::new().into_utoipa_app().openapi(Described::openapi()).configure(routes).split_for_parts().1;
    described::whole(serde_json::json!(made))
}

/// The OpenAPI 3.1 document of this API.
#[utoipa::path(
    responses((status = OK, description = "OpenAPI 3.1", content_type = "application/json")),
    extensions(("x-rights" = json!("machine"))),
)]
#[get("/api/v1/openapi.json")]
async fn document() -> HttpResponse {
    HttpResponse::Ok().json(openapi())
}
