//! The slowest shutter: from the hand and from what moves, weighed by how much of the subject the ambient makes, since
//! the flash freezes its part (common practice, no source).

use super::plan::Fact;
use super::wish::FlashWish;
use crate::job::{CheckedSetup, Depth};
use tolva_core::exposure::CameraSettings;
use tolva_core::optics::{HandheldSchool, Movement, SWAYING, blur_px, magnification, shake_floor_s};
use tolva_core::scale::{Metres, Millimetres, Setting, Shutter, Stops};

/// However little of the subject the ambient makes, it counts for so much: what lies behind is the ambient's alone.
const LEAST_SHARE: f64 = 1.0 / 32.0;
/// A part of the ambient this large shows as a ghost when it blurs.
const GHOST_SHARE: f64 = 0.1;
/// Slower than this, rear curtain. Common practice, no source.
const REAR_CURTAIN_S: f64 = 1.0 / 60.0;

/// The floors of a setup, in seconds.
#[derive(Clone, Copy, Debug, PartialEq)]
pub(super) struct Floors {
    /// By the hand; none on a tripod.
    pub shake_s: Option<f64>,
    /// By what moves; none where nothing does.
    pub movement_s: Option<f64>,
    /// The part of the subject that is ambient, as it is wished: 0 to 1.
    pub share: f64,
}

impl Floors {
    pub fn of(setup: &CheckedSetup<'_>) -> Self {
        let speed = setup.setup.speed;
        let sensor = setup.camera.sensor;
        let focal = Millimetres(setup.setup.focal_length_mm);
        let stabilised = setup.camera.stabilisation_stops.max(setup.lens.stabilisation_stops);
        let at_a_second = blur_px(speed.movement, 1.0, on_sensor(setup), sensor);
        Self {
            shake_s: (!speed.tripod).then(|| shake_floor_s(focal, sensor, speed.school, stabilised)),
            movement_s: (at_a_second > 0.0).then(|| speed.blur_px / at_a_second),
            share: ambient_share(setup),
        }
    }

    /// The two together, slower by as much as the ambient is the smaller part. None where nothing asks for one.
    pub fn slowest_s(self) -> Option<f64> {
        let quickest = [self.shake_s, self.movement_s].into_iter().flatten().reduce(f64::min);
        quickest.map(|floor| floor / self.share)
    }
}

/// The magnification the setup works at.
fn on_sensor(setup: &CheckedSetup<'_>) -> f64 {
    match setup.setup.depth {
        Depth::CloseUp { magnification, .. } => magnification,
        _ => magnification(Millimetres(setup.setup.focal_length_mm), Metres(setup.setup.camera_distance_m)),
    }
}

/// The part of the lit side that the ambient makes where the camera is set as it is wished.
fn ambient_share(setup: &CheckedSetup<'_>) -> f64 {
    let blend = setup.setup.blend;
    if setup.lights.is_empty() {
        return 1.0;
    }
    let ambient = setup.ambient[setup.lit] - blend.camera_ev(setup);
    match blend.flash_wish(setup, setup.lit, ambient) {
        FlashWish::Wanted(flash) => (ambient - ambient.and(flash)).ratio().max(LEAST_SHARE),
        FlashWish::Unused | FlashWish::AmbientOver(_) => 1.0,
    }
}

/// The slowest shutter of a setup: as somebody said it, or as its floors say.
pub(crate) fn slowest_shutter(setup: &CheckedSetup<'_>) -> Setting<Shutter> {
    if let Some(said) = setup.setup.speed.slowest_shutter_s {
        return Setting::of(said);
    }
    let floor = Floors::of(setup).slowest_s().unwrap_or(f64::INFINITY);
    let end = setup.camera.shutter.slowest_s.max(setup.camera.shutter.fastest_s);
    setup.shutters.nearest(Stops(-floor.min(end).log2()))
}

fn one_over(seconds: f64) -> String {
    if seconds < 0.3 { format!("1/{:.0} s", 1.0 / seconds) } else { format!("{seconds:.1} s") }
}

/// The floors and what comes of them, in words.
pub(super) fn facts(setup: &CheckedSetup<'_>, settings: CameraSettings) -> Vec<Fact> {
    let floors = Floors::of(setup);
    let speed = setup.setup.speed;
    let shutter = settings.shutter;
    let mut all = vec![Fact::new(
        "Slowest shutter",
        match speed.slowest_shutter_s {
            Some(_) => format!("{}, as you said", setup.slowest.label()),
            None => format!("{}, from what follows", setup.slowest.label()),
        },
    )];
    match floors.shake_s {
        None => all.push(Fact::new("Shake", "none on a tripod")),
        Some(shake) => {
            let rule = match speed.school {
                HandheldSchool::OneOverFocal => "one over the focal length",
                HandheldSchool::OneOverTwiceFocal => "one over twice the focal length",
                HandheldSchool::Stabilised => "the focal length and the stops of stabilisation",
                HandheldSchool::DenseSensor => "the focal length on a dense sensor",
            };
            all.push(Fact::new("Shake", format!("{} by {rule}", one_over(shake))));
        }
    }
    if let Some(movement) = floors.movement_s {
        let name = speed.movement.name().to_lowercase();
        let fast = speed.movement.metres_per_s();
        all.push(Fact::new(
            "Movement",
            format!("{} for {name}, {fast} m/s, in {} pixels of blur", one_over(movement), speed.blur_px),
        ));
    }
    if floors.share < 0.999 && (floors.shake_s.is_some() || floors.movement_s.is_some()) {
        all.push(Fact::new(
            "Frozen by flash",
            format!(
                "the ambient makes {:.0} % of the subject, so both may be {} slower",
                floors.share * 100.0,
                Stops(-floors.share.log2()).amount()
            ),
        ));
    }
    let blur = blur_px(speed.movement, shutter.exact, on_sensor(setup), setup.camera.sensor);
    if speed.movement != Movement::Still {
        let ghosts = if blur <= speed.blur_px {
            "sharp".to_owned()
        } else if floors.share > GHOST_SHARE {
            format!("a ghost of {:.0} % of its light shows beside what the flash freezes", floors.share * 100.0)
        } else {
            "what little the ambient gives it blurs unseen".to_owned()
        };
        all.push(Fact::new("At this shutter", format!("{blur:.1} pixels: {ghosts}")));
        if shutter.exact > REAR_CURTAIN_S && blur > speed.blur_px && !setup.lights.is_empty() {
            all.push(Fact::new("Curtain", "rear: the trail then lies behind what moves"));
        }
        let least = |slow: f64| slow >= shutter.exact * 0.9 || (slow - SWAYING[0].0).abs() < 1e-9;
        let frames = SWAYING
            .iter()
            .filter(|(slow, _)| least(*slow))
            .map(|(slow, count)| format!("{count} at {}", Setting::<Shutter>::of(*slow).label()));
        all.push(Fact::new("While something sways", format!("take {}", frames.collect::<Vec<_>>().join(", "))));
    }
    if floors.shake_s.is_some_and(|shake| shutter.exact > shake * 1.13) && floors.share < 0.999 {
        all.push(Fact::new("Behind", "ambient alone: shake shows there at this shutter"));
    }
    all
}
