//! What keeps the shutter from being slower, in words.

use tolva_core::optics::{HandheldRule, Movement, SWAYING, blur_px};
use tolva_core::scale::{Setting, Shutter, Stops};
use tolva_planner::lighting::{Floors, GHOST_SHARE, Prepared, REAR_CURTAIN_S, on_sensor};
use tolva_planner::solver::Outcome;

use crate::names::Named;
use crate::shown::Fact;

fn one_over(seconds: f64) -> String {
    if seconds < 0.3 { format!("1/{:.0} s", 1.0 / seconds) } else { format!("{seconds:.1} s") }
}

/// The floors and what comes of them, in words.
pub fn facts(setup: &Prepared<'_>, outcome: &Outcome) -> Vec<Fact> {
    let floors = Floors::of(setup);
    let settings = outcome.settings;
    // What the plan comes to, not what was asked of it.
    let lit = &outcome.regions[setup.lit];
    let ambient_share = lit.share(lit.ambient);
    let speed = setup.setup.speed;
    let shutter = settings.shutter;
    let mut all = vec![
        Fact::new(
            "slowest_shutter",
            "Slowest shutter",
            match speed.slowest_shutter_s {
                Some(_) => format!("{}, as you said", setup.slowest.label()),
                None => format!("{}, from what follows", setup.slowest.label()),
            },
        )
        .with("slowest_s", setup.slowest.exact),
    ];
    match floors.shake_s {
        None => all.push(Fact::new("shake", "Shake", "none on a tripod")),
        Some(shake) => {
            let rule = match speed.school {
                HandheldRule::OneOverFocal => "one over the focal length",
                HandheldRule::OneOverTwiceFocal => "one over twice the focal length",
                HandheldRule::Stabilised => "the focal length and the stops of stabilisation",
                HandheldRule::DenseSensor => "the focal length on a dense sensor",
            };
            all.push(Fact::new("shake", "Shake", format!("{} by {rule}", one_over(shake))).with("floor_s", shake));
        }
    }
    if let Some(movement) = floors.movement_s {
        let name = speed.movement.name().to_lowercase();
        let fast = speed.movement.metres_per_s();
        all.push(
            Fact::new(
                "movement",
                "Movement",
                format!("{} for {name}, {fast} m/s, in {} pixels of blur", one_over(movement), speed.blur_px),
            )
            .with("floor_s", movement)
            .with("metres_per_s", fast),
        );
    }
    if floors.share < 0.999 && (floors.shake_s.is_some() || floors.movement_s.is_some()) {
        all.push(
            Fact::new(
                "frozen_by_flash",
                "Frozen by flash",
                format!(
                    "the ambient makes {:.0} % of the subject, so both may be {} slower",
                    floors.share * 100.0,
                    Stops(-floors.share.log2()).amount()
                ),
            )
            .with("ambient_share", floors.share),
        );
    }
    let blur = blur_px(speed.movement, shutter.exact, on_sensor(setup), setup.camera.sensor);
    if speed.movement != Movement::Still {
        let ghosts = if blur <= speed.blur_px {
            "sharp".to_owned()
        } else if !lit.flash.0.is_finite() {
            "blurred: no flash freezes it".to_owned()
        } else if ambient_share > GHOST_SHARE {
            format!("a ghost of {:.0}% of its light shows beside what the flash freezes", ambient_share * 100.0)
        } else {
            format!("frozen by the flash; the {:.0}% of ambient blurs unseen", ambient_share * 100.0)
        };
        all.push(
            Fact::new("at_this_shutter", "At this shutter", format!("{blur:.1} pixels: {ghosts}"))
                .with("blur_px", blur)
                .with("ambient_share", ambient_share),
        );
        if shutter.exact > REAR_CURTAIN_S && blur > speed.blur_px && !setup.lights.is_empty() {
            all.push(Fact::new("curtain", "Curtain", "rear: the trail then lies behind what moves"));
        }
        let least = |slow: f64| slow >= shutter.exact * 0.9 || (slow - SWAYING[0].0).abs() < 1e-9;
        let frames = SWAYING
            .iter()
            .filter(|(slow, _)| least(*slow))
            .map(|(slow, count)| format!("{count} at {}", Setting::<Shutter>::of(*slow).label()));
        all.push(Fact::new(
            "while_something_sways",
            "While something sways",
            format!("take {}", frames.collect::<Vec<_>>().join(", ")),
        ));
    }
    if floors.shake_s.is_some_and(|shake| shutter.exact > shake * 1.13) && floors.share < 0.999 {
        all.push(Fact::new("shake_behind", "Behind", "ambient alone: shake shows there at this shutter"));
    }
    all
}
