//! The aperture: from what is to be sharp, up to where diffraction takes more than depth gives.

use super::plan::Fact;
use crate::job::{CheckedSetup, Depth};
use tolva_core::exposure::CameraSettings;
use tolva_core::optics::{airy_diameter, depth_of_field, diffraction_f_number, group_depth};
use tolva_core::scale::{Aperture, LengthUnit, Metres, Millimetres, Setting, Stops};

/// One head: this wide, or as wide as the lens goes. Common practice, no source.
const ONE_HEAD_F_NUMBER: f64 = 2.8;
/// A row of heads is so deep. Common practice, no source.
const HEAD_M: f64 = 0.25;

/// What the aperture is to be. Positions are on the aperture dial's scale: 0 is f/1.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Sharp {
    /// At least so small; none where no depth is asked for.
    pub least: Option<Stops>,
    /// As near to this as can be; none where any will do.
    pub target: Option<Stops>,
    /// Beyond it diffraction takes more than depth gives.
    pub ceiling: Stops,
    /// Where to focus.
    pub focus: Metres,
    /// From where to where it is to be sharp.
    pub span: Option<(Metres, Metres)>,
}

impl Sharp {
    pub fn of(setup: &CheckedSetup<'_>) -> Self {
        let near = Metres(setup.setup.camera_distance_m);
        let position = |f_number: f64| Stops(2.0 * f_number.log2());
        // Close up the light sees a smaller opening than is set.
        let extension = setup.close_up.map_or(1.0, |close| close.effective_f_number(1.0));
        let ceiling = position(diffraction_f_number(setup.circle) / extension);
        let sharp = Self { least: None, target: None, ceiling, focus: near, span: None };
        let span = match setup.setup.depth {
            Depth::Free => return sharp,
            Depth::OneHead => {
                return Self { target: Some(position(ONE_HEAD_F_NUMBER.max(setup.lens.widest_f_number))), ..sharp };
            }
            Depth::CloseUp { depth_mm, stacked, .. } => {
                let focus = setup.close_up.map_or(near, tolva_core::optics::CloseUp::working_distance);
                let wanted =
                    setup.close_up.map_or(8.0, |close| close.f_number_for(Millimetres(depth_mm), setup.circle));
                // A stack is taken where the lens is sharpest: short of the ceiling.
                let (least, target) = if stacked { (None, Some(ceiling)) } else { (Some(position(wanted)), None) };
                return Self { least, target, focus, ..sharp };
            }
            Depth::Rows { rows, apart_m } => HEAD_M + f64::from(rows.max(1) - 1) * apart_m,
            Depth::Deep { depth_m } => depth_m,
        };
        let far = Metres(near.0 + span);
        let group = group_depth(Millimetres(setup.setup.focal_length_mm), near, far, setup.circle);
        // With a short lens near its subject the thin lens gives no answer: nothing is deep enough.
        let f_number = if group.f_number > 0.0 { group.f_number.max(1.0) } else { 128.0 };
        Self { least: Some(position(f_number)), focus: group.focus, span: Some((near, far)), ..sharp }
    }

    /// How many stops of aperture are missing from the depth; 0 where it is there to within a sixth.
    pub fn missing(self, aperture: Setting<Aperture>) -> Stops {
        let short = self.least.map_or(0.0, |least| (least - aperture.position()).0);
        if short > 1.0 / 6.0 + 1e-6 { Stops(short) } else { Stops::ZERO }
    }
}

fn f_label(position: Stops) -> String {
    Setting::<Aperture>::of((position.0 / 2.0).exp2()).label()
}

/// Depth, focus and diffraction, in words.
pub(super) fn facts(setup: &CheckedSetup<'_>, settings: CameraSettings, length: LengthUnit) -> Vec<Fact> {
    let sharp = Sharp::of(setup);
    let focal = Millimetres(setup.setup.focal_length_mm);
    let n = settings.aperture.exact;
    let mut all = Vec::new();
    if let Some(close) = setup.close_up {
        let (m, depth_mm) = (close.magnification, close.depth(n, setup.circle).0);
        all.push(Fact::new("From the lens", format!("{} to the subject", close.working_distance().label(length))));
        all.push(Fact::new(
            "Effective aperture",
            format!("f/{:.1} at {m} : 1, {} less light", close.effective_f_number(n), close.loss().amount()),
        ));
        all.push(Fact::new("Sharp", format!("{depth_mm:.2} mm deep at {}", settings.aperture.label())));
        if m > setup.lens.largest_magnification + 1e-9 {
            let most = setup.lens.largest_magnification;
            all.push(Fact::new("The lens", format!("goes to {most} : 1 by itself: rings, bellows or another lens")));
        }
        if let Depth::CloseUp { depth_mm, stacked: true, overlap, .. } = setup.setup.depth {
            let stack = close.stack(Millimetres(depth_mm), n, setup.circle, overlap);
            all.push(Fact::new("Stack", format!("{} frames, {:.2} mm apart", stack.frames, stack.step.0)));
        }
    } else {
        let found = depth_of_field(focal, n, sharp.focus, setup.circle);
        let far = found.far.map_or_else(|| "the horizon".to_owned(), |far| far.label(length));
        all.push(Fact::new("Focus", format!("at {}", sharp.focus.label(length))));
        all.push(Fact::new("Sharp", format!("from {} to {far}", found.near.label(length))));
        if let Some((near, far)) = sharp.span {
            all.push(Fact::new("Wished", format!("from {} to {}", near.label(length), far.label(length))));
        }
        if sharp.focus.0 < setup.lens.closest_focus_m {
            let nearest = Metres(setup.lens.closest_focus_m).label(length);
            all.push(Fact::new("The lens", format!("focuses no nearer than {nearest}")));
        }
    }
    match (sharp.least, sharp.target) {
        (Some(least), _) => all.push(Fact::new("Asks for", format!("{} or smaller", f_label(least)))),
        (None, Some(target)) => all.push(Fact::new("Asks for", format!("about {}", f_label(target)))),
        (None, None) => {}
    }
    let airy = airy_diameter(setup.close_up.map_or(n, |close| close.effective_f_number(n)));
    all.push(Fact::new(
        "Diffraction",
        format!(
            "no gain beyond {}; at {} its disc is {:.0} µm, {:.0} µm count as sharp",
            f_label(sharp.ceiling),
            settings.aperture.label(),
            airy.0 * 1000.0,
            setup.circle.0 * 1000.0
        ),
    ));
    all
}
