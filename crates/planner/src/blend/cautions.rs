//! What to mind on the set. Local rules and the makers' instructions come first.

use super::automatic::{AutomaticSchool, exposure_spread};
use super::outcome::Outcome;
use super::plan::Caution;
use crate::job::{CheckedScene, CheckedSetup, Control, Known, Surroundings, Sync};
use tolva_core::ambient::{LensAndSun, SUNLIT_STILL_SHADE, SunSide, flicker_shows, sun_side};
use tolva_core::scale::{Setting, Shutter};

/// A reading that was followed this far is to be taken again. Common practice, no source.
const READ_AGAIN: f64 = 1.0;
/// Less of the sky overhead than this is no open shade. Common practice, no source.
const OPEN_SHADE_PERCENT: f64 = 50.0;

pub(super) fn cautions(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Vec<Caution> {
    let mut all = Vec::new();
    let mut add = |heading: &str, says: String| all.push(Caution { heading: heading.to_owned(), says });
    let settings = outcome.settings;
    let names = |of: &dyn Fn(Known) -> bool| {
        let regions = setup.setup.regions.iter().zip(&setup.known).filter(|(_, known)| of(**known));
        regions.map(|(region, _)| region.name.as_str()).collect::<Vec<_>>().join(", ")
    };
    let guessed = names(&|known| known == Known::Guess);
    if !guessed.is_empty() {
        add("Not read yet", format!("{guessed}: estimates. Read the light with the flash off."));
    }
    let modelled = names(&|known| known == Known::Model);
    if !modelled.is_empty() {
        add("Not read yet", format!("{modelled}: estimated from place and hour. Read the light with the flash off."));
    }
    let moved = names(&|known| matches!(known, Known::Read { moved, .. } if moved.0.abs() > READ_AGAIN));
    if !moved.is_empty() {
        add("Read it again", format!("{moved}: the light has moved more than a stop since it was read."));
    }
    let faster_than = |limit: tolva_core::scale::Setting<tolva_core::scale::Shutter>| {
        settings.shutter.position().0 > limit.position().0 + 1e-6
    };
    if outcome.flashes()
        && setup.setup.sync == Sync::Ordinary
        && faster_than(setup.sync_safe)
        && !faster_than(setup.sync_rated)
    {
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
                "{} is slower than {}, the slowest that is safe: shake and movement may show in what the ambient lights.",
                settings.shutter.label(),
                setup.slowest.label()
            ),
        );
    }
    all.extend(of_lights(setup, outcome));
    if setup.setup.automatic != AutomaticSchool::Nothing {
        let heading = setup.setup.automatic.name().to_owned();
        let apart = exposure_spread().amount();
        let says = format!(
            "It moves {apart} from dark clothes to pale ones, and with flash the share of each light moves too."
        );
        all.push(Caution { heading, says });
    }
    if setup.density.0 >= 4.0 {
        all.push(Caution {
            heading: "Dark finder".to_owned(),
            says: "Focus and frame before the filter goes on, and never look at the sun through an optical finder."
                .to_owned(),
        });
    }
    if let Some(scene) = &setup.scene {
        let lens_mm = setup.setup.focal_length_mm * setup.camera.sensor.crop();
        all.extend(of_scene(scene, settings.shutter, lens_mm));
    }
    all
}

/// What to mind about the flashes. Common practice, no source.
fn of_lights(setup: &CheckedSetup<'_>, outcome: &Outcome) -> Vec<Caution> {
    let mut all = Vec::new();
    let mut add = |heading: &str, says: String| all.push(Caution { heading: heading.to_owned(), says });
    let on: Vec<_> =
        setup.lights.iter().zip(&outcome.lights).filter_map(|(light, at)| at.map(|at| (light, at))).collect();
    if on.iter().any(|(light, at)| at.distance.0 < 0.5 && light.bounced.is_none()) {
        add(
            "Very near the eyes",
            "A flash this near is unpleasant and can be harmful: keep the power low, warn the person, mind the makers' \
             distances and local rules."
                .to_owned(),
        );
    }
    if on.iter().any(|(light, _)| light.light.control == Control::Automatic) {
        add(
            "Clothes move it",
            format!(
                "Automatic flash gives dark clothes more and pale clothes less: {} from one to the other. Check one \
                 frame, or set the power by hand and keep it.",
                exposure_spread().amount()
            ),
        );
        let floor = Setting::<Shutter>::of(setup.camera.slow_sync_floor_s);
        if floor.position().0 > outcome.settings.shutter.position().0 + 1e-6 {
            add(
                "Slow-sync floor",
                format!(
                    "With an automatic shutter this camera stops at {}, and the room goes dark: set {} by hand.",
                    floor.label(),
                    outcome.settings.shutter.label()
                ),
            );
        }
    }
    if let Some((light, _)) =
        on.iter().find(|(light, _)| light.light.control == Control::Automatic && !light.flash.automatic)
    {
        add("Not automatic", format!("{} cannot be metered by the camera: set it by hand.", light.flash.name));
    }
    if on.iter().any(|(light, _)| light.light.on_camera && light.bounced.is_none()) {
        add(
            "Flash on the camera",
            "Straight from the camera it is flat and red in the eyes: keep it a touch, well under the room.".to_owned(),
        );
    }
    all
}

/// What to mind where the sun is, and about the surroundings. Common practice, no source.
fn of_scene(scene: &CheckedScene<'_>, shutter: Setting<Shutter>, lens_mm: f64) -> Vec<Caution> {
    let mut all = Vec::new();
    let mut add = |heading: &str, says: String| all.push(Caution { heading: heading.to_owned(), says });
    let looks = (scene.scene.facing_deg + 180.0).rem_euclid(360.0);
    let lens = LensAndSun::new(scene.now.sun, looks, lens_mm);
    if scene.now.sun_shows && scene.light.is_daylight() {
        if let Some(turn) = lens.turn_deg {
            let hand = if turn > 0.0 { "right" } else { "left" };
            let stands = if lens.in_frame() {
                "stands in the frame".to_owned()
            } else {
                format!("stands {:.0}° off the lens's axis and reaches its glass", lens.off_axis_deg)
            };
            add(
                "Sun and lens",
                format!(
                    "The sun {stands}: flare. Turn the camera {:.0}° to the {hand}, or hold a card just outside the \
                     frame so that its shadow falls on the glass. Never look at the sun through an optical finder, and \
                     do not aim the lens at it for long.",
                    turn.abs().ceil()
                ),
            );
        } else if sun_side(scene.now.sun, scene.scene.facing_deg) == SunSide::InFront {
            add("Sun in the eyes", "The subject faces the sun: nobody should have to look into it.".to_owned());
        }
    }
    match scene.scene.surroundings {
        Surroundings::OpenShade(shade) if shade.sky_percent < OPEN_SHADE_PERCENT => add(
            "Not open shade",
            format!(
                "{:.0} % of the sky overhead is less than half: light and colour come from what stands around. Read \
                 both.",
                shade.sky_percent
            ),
        ),
        Surroundings::Trees | Surroundings::Awning => {
            add("Colour must be measured", "Leaves and cloth colour the light: measure it there.".to_owned());
        }
        Surroundings::Artificial(lamps) if lamps.light.flickers() && flicker_shows(shutter, lamps.mains_hz) => add(
            "Flicker",
            format!(
                "{} is shorter than half a period of {:.0} Hz mains: lamps may band or change from frame to frame. 1/{:.0} \
                 or slower is safe.",
                shutter.label(),
                lamps.mains_hz,
                // The dial's setting at half a period: 1/100 at 50 Hz, 1/125 at 60 Hz.
                if lamps.mains_hz < 55.0 { 100.0 } else { 125.0 }
            ),
        ),
        _ => {}
    }
    if scene.light.subject_in_shade() && SUNLIT_STILL_SHADE.contains(&scene.scene.behind.sunlit_percent) {
        add(
            "On the edge",
            format!(
                "{:.0} % of the frame behind is sunlit: up to 15 to 20 % is treated as shade, more as sun. Look again.",
                scene.scene.behind.sunlit_percent
            ),
        );
    }
    if scene.scene.weather.is_simulated() {
        add("Simulated weather", "The cloud is made up by a stand-in. Look at the sky.".to_owned());
    }
    all
}
