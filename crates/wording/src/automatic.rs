//! What automatics would do as clothes change, in words.

use tolva_core::scale::Stops;
use tolva_planner::automatic::{Clothes, DARK, PALE, exposure_spread};
use tolva_planner::lighting::Prepared;
use tolva_planner::solver::Outcome;

use crate::shown::Fact;

/// What each automatic would do, in words.
pub fn facts(setup: &Prepared<'_>, outcome: &Outcome) -> Vec<Fact> {
    let both = |of: &dyn Fn(Clothes) -> Stops| {
        format!("{} for a dark suit, {} for a pale dress", of(DARK).decimals(), of(PALE).decimals())
    };
    let mut all = vec![
        Fact::new(
            "automatic_exposure",
            "Automatic exposure",
            format!("{} stops: the same face {} apart", both(&Clothes::exposure), exposure_spread().amount()),
        )
        .with("spread_stops", exposure_spread().0),
    ];
    let lit = &outcome.regions[setup.lit];
    if lit.flash.0.is_finite() {
        // Only the flash moves with the clothes; the ambient stays where the dials put it.
        let face = |clothes: Clothes| lit.ambient.and(lit.flash + clothes.exposure()) - lit.together;
        all.push(Fact::new(
            "automatic_flash",
            "Automatic flash",
            format!("{} stops on the face, the ambient held", both(&face)),
        ));
    }
    all.push(Fact::new(
        "automatic_white_balance",
        "Automatic white balance",
        format!("{} stops of blue against red: skin turns with every coat", both(&Clothes::balance)),
    ));
    all.push(Fact::new(
        "fixed_settings",
        "Fixed settings",
        "the same face in every frame: one correction fits the whole series",
    ));
    all
}
