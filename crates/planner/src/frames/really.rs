//! What would really come of a frame where more is there than the figures say: for tests, for practice.

use tolva_core::scale::Stops;

use crate::lighting::Prepared;
use crate::setup::Unknown;
use crate::solver::Outcome;

/// What comes in each region, in stops from mid grey, where there is so much more of each unknown than the figures of a setup
/// say. The setup is as its figures have it: nothing was learnt of it.
pub fn really(plain: &Prepared<'_>, outcome: &Outcome, more: &[(Unknown, Stops)]) -> Vec<Stops> {
    let of =
        |is: &dyn Fn(&Unknown) -> bool| more.iter().find(|(what, _)| is(what)).map_or(Stops::ZERO, |(_, more)| *more);
    let camera = of(&|what| matches!(what, Unknown::Camera { .. }));
    (outcome.taken_at(plain, outcome.settings).regions.iter().zip(&plain.setup.regions))
        .map(|(given, region)| {
            let there = of(&|what| matches!(what, Unknown::Ambient { region_id } if *region_id == region.id));
            let read_with = region.ambient.last().and_then(|taken| taken.meter_id.as_ref());
            let meter = of(&|what| matches!(what, Unknown::Meter { meter_id } if Some(meter_id) == read_with));
            let each = given.each.iter().zip(&plain.lights).map(|(gives, light)| {
                let id = &light.light.id;
                let own = of(&|what| matches!(what, Unknown::Light { light_id, .. } if light_id == id));
                let spills = of(&|what| {
                    matches!(what, Unknown::Spill { light_id, region_id }
                        if light_id == id && *region_id == region.id)
                });
                *gives + own + spills
            });
            each.fold(given.ambient + there + meter, Stops::and) + camera
        })
        .collect()
}
