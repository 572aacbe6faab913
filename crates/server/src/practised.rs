//! What went wrong on the last job that frames came of: that is practised first.

use tolva_format::{Role, TakenFrame};
use tolva_planner::drills::{CameOff, Corrected, Skill, went_wrong};
use tolva_store::{Store, StoreError};

/// Skills to practise after the last job with frames, what weighs most first.
pub async fn went_wrong_lately(store: &Store) -> Result<Vec<Skill>, StoreError> {
    let frames = match store.last_job_with_frames().await? {
        Some(job) => store.frames(&job).await?,
        None => Vec::new(),
    };
    let came: Vec<CameOff> = frames.iter().flat_map(came).collect();
    let corrected: Vec<Corrected> =
        frames.iter().flat_map(|frame| &frame.changed).flat_map(|says| corrected(says)).collect();
    Ok(went_wrong(&came, &corrected))
}

fn came(frame: &TakenFrame) -> impl Iterator<Item = CameOff> + '_ {
    // What is aimed nowhere else is aimed at the lit side.
    let lit = frame.setup.regions.iter().find(|region| region.role == Role::LitSide).map(|region| region.id.as_str());
    frame.came.iter().filter_map(move |came| {
        let mut aims = frame.setup.lights.iter().map(|light| light.aimed_at.as_deref().or(lit));
        let aimed = aims.any(|at| at == Some(came.region_id.as_str()));
        let by_flash = aimed && frame.settings.flash != Some(false);
        came.off_stops.map(|off_stops| CameOff { off_stops, by_flash })
    })
}

/// Which dials a line of what was changed after a frame turned.
fn corrected(says: &str) -> Vec<Corrected> {
    let has = |words: &[&str]| words.iter().any(|word| says.contains(word));
    [
        (has(&["Shutter", "Aperture", "ISO", "shutter", "aperture"]), Corrected::Camera),
        (has(&["Power", "power"]), Corrected::Power),
        (has(&["Distance", "distance"]), Corrected::Distance),
    ]
    .into_iter()
    .filter_map(|(is, what)| is.then_some(what))
    .collect()
}

#[cfg(test)]
mod tests {
    use super::*;
    use rstest::rstest;

    #[rstest]
    #[case("Shutter 1/200 to 1/125", &[Corrected::Camera])]
    #[case("Power of A 1/8 to 1/4", &[Corrected::Power])]
    #[case("Distance of A 1.50 m to 1.20 m, power of A 1/8 to 1/16", &[Corrected::Power, Corrected::Distance])]
    #[case("Leave the dials as they are", &[])]
    fn what_was_turned_is_read(#[case] says: &str, #[case] dials: &[Corrected]) {
        assert_eq!(corrected(says), dials);
    }
}
