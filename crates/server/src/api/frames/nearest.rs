//! What worked: of each setup of a job the frame that came nearest to its plan.

use actix_web::web::{Data, Path};
use actix_web::{HttpResponse, get};
use serde::Serialize;
use tolva_format::{FrameSummary, Setup};
use tolva_store::{FrameListing, Store};
use utoipa::ToSchema;

use super::FrameLine;
use crate::api::problem::ApiError;

/// The frame of a setup that came nearest to its plan.
#[derive(Debug, Serialize, ToSchema)]
pub struct WorkedFrame {
    /// The frame.
    frame: FrameLine,
    /// How far the region is off that is off most, in stops.
    most_off_stops: f64,
    /// Of how many frames of the setup in which something could be told.
    of: usize,
    /// The setup as it stood then.
    setup: Setup,
}

/// What worked in a job.
#[derive(Debug, Serialize, ToSchema)]
pub struct Worked {
    /// In the order of the setups; those without a frame that tells are left out.
    setups: Vec<WorkedFrame>,
}

/// Of each setup of a job the frame that came nearest to its plan, with the setup as it stood then.
#[utoipa::path(
    operation_id = "frames_that_worked",
    responses((status = OK, description = "What worked", body = Worked)),
    extensions(("x-rights" = json!("look"))),
)]
#[get("/api/v1/jobs/{id}/frames/worked")]
pub async fn that_worked(id: Path<String>, store: Data<Store>) -> Result<HttpResponse, ApiError> {
    let job = store.job(&id).await?.document;
    let found = store.frame_list(&id, &FrameListing::default()).await?;
    let frames = found.frames;
    let nearest = |setup: &Setup| {
        let told: Vec<(&FrameSummary, f64)> = (frames.iter().filter(|frame| frame.setup_id == setup.id))
            // A frame without flash, taken to see what is there, is not what the setup is for.
            .filter(|frame| frame.settings.flash != Some(false) || frame.lights == 0)
            .filter_map(|frame| Some((frame, frame.most_off_stops()?)))
            .collect();
        // Of two that are as near, the later one.
        let (frame, most_off_stops) = *told.iter().rev().min_by(|a, b| a.1.total_cmp(&b.1))?;
        Some((frame, most_off_stops, told.len()))
    };
    let mut setups = Vec::new();
    for (frame, most_off_stops, of) in job.setups.iter().filter_map(nearest) {
        let setup = store.frame(&frame.id).await?.frame.setup;
        setups.push(WorkedFrame { frame: FrameLine::of(frame.clone(), &store), most_off_stops, of, setup });
    }
    Ok(HttpResponse::Ok().json(Worked { setups }))
}
