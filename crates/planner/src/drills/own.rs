//! The dials of one's own camera and flash.

use tolva_core::optics::Sensor;
use tolva_core::scale::{Aperture, Dial, Iso, Power, PowerStep, Setting, Shutter, Stops};

use crate::setup::Kit;

/// What drills are made for: the dials of one's own camera and flash.
#[derive(Clone, Debug)]
pub struct Own {
    pub(super) shutters: Vec<Setting<Shutter>>,
    pub(super) apertures: Vec<Setting<Aperture>>,
    pub(super) isos: Vec<Setting<Iso>>,
    pub(super) powers: Vec<Power>,
    pub(super) sync: Setting<Shutter>,
    pub(super) sensor: Sensor,
}

impl Own {
    /// The first camera, lens and flash of a kit; where one is missing, the starter's.
    pub fn of(kit: &Kit) -> Self {
        let starter = Kit::starter();
        let camera = kit.cameras.first().unwrap_or(&starter.cameras[0]);
        let lens = kit.lenses.first().unwrap_or(&starter.lenses[0]);
        let range =
            kit.flashes.iter().find(|flash| !flash.burns_on()).map_or(&starter.flashes[0].power, |one| &one.power);
        // What lies between the clicks, as a lens's widest aperture may, is asked of nobody.
        let on_thirds = |position: Stops| (position.0 * 3.0 - (position.0 * 3.0).round()).abs() < 1e-6;
        // A dial of halves is practised in whole stops: thirds are not on it.
        let sync = Setting::of(camera.sync_safe_s);
        let step = if range.step == PowerStep::Half || range.step == PowerStep::Whole { 1.0 } else { 3.0 };
        #[expect(clippy::cast_possible_truncation, reason = "a few dozen clicks")]
        let clicks = (-range.lowest_stops * step).round() as i32;
        Self {
            shutters: Dial::new(camera.shutter.step, camera.shutter.slowest_s, camera.shutter.fastest_s)
                .settings()
                .filter(|one| on_thirds(one.position()) && one.exact <= 2.0)
                .collect(),
            apertures: Dial::new(camera.aperture_step, lens.widest_f_number, lens.smallest_f_number)
                .settings()
                .filter(|one| on_thirds(one.position()))
                .collect(),
            isos: Dial::new(camera.iso.step, camera.iso.base_iso, camera.iso.highest_iso)
                .settings()
                .filter(|one| on_thirds(one.position()) && one.exact < 30_000.0)
                .collect(),
            powers: (0..=clicks).rev().map(|click| Power(Stops(-f64::from(click) / step))).collect(),
            sync,
            sensor: camera.sensor,
        }
    }

    /// The strongest so many powers that lie whole stops under full, the lowest of them first.
    pub(super) fn whole_powers(&self, most: usize) -> Vec<Power> {
        let mut whole: Vec<Power> = self.powers.iter().copied().filter(|one| one.0.0.fract() == 0.0).collect();
        whole.split_off(whole.len().saturating_sub(most))
    }
}
