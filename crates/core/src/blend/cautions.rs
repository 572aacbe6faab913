//! What to mind on the set. Local rules and the makers' instructions come first.

use super::outcome::Outcome;
use super::plan::Caution;
use crate::job::{CheckedSetup, Control};

pub(super) fn cautions(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Vec<Caution> {
    let mut all = Vec::new();
    let mut add = |heading: &str, says: String| all.push(Caution { heading: heading.to_owned(), says });
    let settings = outcome.settings;
    let guessed: Vec<&str> = setup
        .setup
        .regions
        .iter()
        .filter(|region| region.ambient.estimated)
        .map(|region| region.name.as_str())
        .collect();
    if !guessed.is_empty() {
        add("Not read yet", format!("{}: estimates. Read the light with the flash off.", guessed.join(", ")));
    }
    let faster_than =
        |limit: crate::scale::Setting<crate::scale::Shutter>| settings.shutter.position().0 > limit.position().0 + 1e-6;
    if outcome.light.is_some() && faster_than(setup.sync_safe) && !faster_than(setup.sync_rated) {
        add(
            "Near the sync limit",
            format!(
                "{} is within the rated {} but faster than the safe {}: with radio triggers a dark edge is possible.",
                settings.shutter.label(),
                setup.sync_rated.label(),
                setup.sync_safe.label()
            ),
        );
    }
    if settings.shutter.position().0 < setup.slowest.position().0 - 1e-6 {
        add(
            "Slower than allowed",
            format!(
                "{} is slower than the {} you set as the slowest: shake and movement may show in what the ambient lights.",
                settings.shutter.label(),
                setup.slowest.label()
            ),
        );
    }
    if let (Some(light), Some(chosen)) = (&outcome.light, &setup.light) {
        if light.distance.0 < 0.5 {
            add(
                "Very near the eyes",
                "A flash this near is unpleasant and can be harmful: keep the power low, warn the person, mind the makers' \
                 distances and local rules."
                    .to_owned(),
            );
        }
        if chosen.light.control == Control::Automatic {
            add(
                "Clothes move it",
                "Automatic flash gives dark clothes more and pale clothes less: check one frame, or set the power by hand \
                 and keep it."
                    .to_owned(),
            );
        }
    }
    if setup.filter.0 >= 4.0 {
        add(
            "Dark finder",
            "Focus and frame before the filter goes on, and never look at the sun through an optical finder."
                .to_owned(),
        );
    }
    all
}
