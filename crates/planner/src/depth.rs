//! The aperture: from what is to be sharp, up to where diffraction takes more than depth gives.

use crate::lighting::Prepared;
use crate::setup::Depth;
use tolva_core::optics::{diffraction_f_number, group_depth};
use tolva_core::scale::{Aperture, Metres, Millimetres, Setting, Stops};

/// One head: this wide, or as wide as the lens goes. Common practice, no source.
const ONE_HEAD_F_NUMBER: f64 = 2.8;
/// A row of heads is so deep. Common practice, no source.
pub const HEAD_M: f64 = 0.25;

/// What the aperture is to be. Positions are on the aperture dial's scale: 0 is f/1.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct Sharp {
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
    /// What a setup asks of the aperture.
    pub fn of(setup: &Prepared<'_>) -> Self {
        let near = Metres(setup.setup.camera_distance_m);
        let position = |f_number: f64| Stops(2.0 * f_number.log2());
        // Close up the light sees a smaller opening than is set.
        let extension = setup.close_up.map_or(1.0, |close| close.effective_f_number(1.0));
        let ceiling = position(diffraction_f_number(setup.circle_of_confusion) / extension);
        let sharp = Self { least: None, target: None, ceiling, focus: near, span: None };
        let span = match setup.setup.depth {
            Depth::Free => return sharp,
            Depth::OneHead => {
                return Self { target: Some(position(ONE_HEAD_F_NUMBER.max(setup.lens.widest_f_number))), ..sharp };
            }
            Depth::CloseUp { depth_mm, stacked, .. } => {
                let focus = setup.close_up.map_or(near, tolva_core::optics::CloseUp::working_distance);
                let wanted = setup
                    .close_up
                    .map_or(8.0, |close| close.f_number_for(Millimetres(depth_mm), setup.circle_of_confusion));
                // A stack is taken where the lens is sharpest: short of the ceiling.
                let (least, target) = if stacked { (None, Some(ceiling)) } else { (Some(position(wanted)), None) };
                return Self { least, target, focus, ..sharp };
            }
            Depth::Rows { rows, apart_m } => HEAD_M + f64::from(rows.max(1) - 1) * apart_m,
            Depth::Deep { depth_m } => depth_m,
        };
        let far = Metres(near.0 + span);
        let group = group_depth(Millimetres(setup.setup.focal_length_mm), near, far, setup.circle_of_confusion);
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
