//! What is to be sharp, and what is, in words.

use tolva_core::exposure::CameraSettings;
use tolva_core::optics::{airy_diameter, depth_of_field};
use tolva_core::scale::{Aperture, LengthUnit, Metres, Millimetres, Setting, Stops};
use tolva_planner::depth::Sharp;
use tolva_planner::lighting::Prepared;
use tolva_planner::shots::stack;

use crate::shown::Fact;

fn f_label(position: Stops) -> String {
    Setting::<Aperture>::of((position.0 / 2.0).exp2()).label()
}

/// Depth, focus and diffraction, in words.
pub fn facts(setup: &Prepared<'_>, settings: CameraSettings, length: LengthUnit) -> Vec<Fact> {
    let sharp = Sharp::of(setup);
    let focal = Millimetres(setup.setup.focal_length_mm);
    let n = settings.aperture.exact;
    let mut all = Vec::new();
    if let Some(close) = setup.close_up {
        let (m, depth_mm) = (close.magnification, close.depth(n, setup.circle_of_confusion).0);
        all.push(
            Fact::new(
                "from_the_lens",
                "From the lens",
                format!("{} to the subject", close.working_distance().label(length)),
            )
            .with("distance_m", close.working_distance().0),
        );
        all.push(
            Fact::new(
                "effective_aperture",
                "Effective aperture",
                format!("f/{:.1} at {m} : 1, {} less light", close.effective_f_number(n), close.loss().amount()),
            )
            .with("f_number", close.effective_f_number(n))
            .with("loss_stops", close.loss().0),
        );
        all.push(
            Fact::new("depth_close_up", "Sharp", format!("{depth_mm:.2} mm deep at {}", settings.aperture.label()))
                .with("depth_mm", depth_mm),
        );
        if m > setup.lens.largest_magnification + 1e-9 {
            let most = setup.lens.largest_magnification;
            all.push(Fact::new(
                "beyond_the_lens",
                "The lens",
                format!("goes to {most} : 1 by itself: rings, bellows or another lens"),
            ));
        }
        if let Some(stack) = stack(setup, settings) {
            all.push(
                Fact::new("stack", "Stack", format!("{} frames, {:.2} mm apart", stack.frames, stack.step.0))
                    .with("frames", f64::from(stack.frames))
                    .with("step_mm", stack.step.0),
            );
        }
    } else {
        let found = depth_of_field(focal, n, sharp.focus, setup.circle_of_confusion);
        let far = found.far.map_or_else(|| "the horizon".to_owned(), |far| far.label(length));
        all.push(
            Fact::new("focus", "Focus", format!("at {}", sharp.focus.label(length))).with("focus_m", sharp.focus.0),
        );
        all.push(
            Fact::new("depth_of_field", "Sharp", format!("from {} to {far}", found.near.label(length)))
                .with("near_m", found.near.0)
                .with("far_m", found.far.map_or(f64::INFINITY, |far| far.0)),
        );
        if let Some((near, far)) = sharp.span {
            all.push(
                Fact::new("wished", "Wished", format!("from {} to {}", near.label(length), far.label(length)))
                    .with("near_m", near.0)
                    .with("far_m", far.0),
            );
        }
        if sharp.focus.0 < setup.lens.closest_focus_m {
            let nearest = Metres(setup.lens.closest_focus_m).label(length);
            all.push(Fact::new(
                "closest_focus",
                "The lens",
                format!("focuses no nearer than {nearest} from the sensor"),
            ));
        }
    }
    match (sharp.least, sharp.target) {
        (Some(least), _) => all.push(Fact::new("asks_for", "Asks for", format!("{} or smaller", f_label(least)))),
        (None, Some(target)) => all.push(Fact::new("asks_for", "Asks for", format!("about {}", f_label(target)))),
        (None, None) => {}
    }
    let airy = airy_diameter(setup.close_up.map_or(n, |close| close.effective_f_number(n)));
    all.push(
        Fact::new(
            "diffraction",
            "Diffraction",
            format!(
                "no gain beyond {}; at {} its disc is {:.0} µm, {:.0} µm count as sharp",
                f_label(sharp.ceiling),
                settings.aperture.label(),
                airy.0 * 1000.0,
                setup.circle_of_confusion.0 * 1000.0
            ),
        )
        .with("disc_mm", airy.0)
        .with("circle_mm", setup.circle_of_confusion.0),
    );
    all
}
