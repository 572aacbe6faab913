//! Several lights: every one reaches every region it is said to, and their powers are found together.
//!
//! In linear light a region gets a + A·p, with p the powers (0 to 1) and A what each light gives it at full power. The
//! powers are the bounded least squares of what each region lands off its wish in stops, each with its weight: first as a
//! part of the wish in linear light, then by Gauss and Newton's steps in the logarithm, each of them a bounded least
//! squares again. A light is off, or between its lowest and full power: where the least lies between, both are tried.

use super::clicks::rounding;
use super::least_squares::{MOST, Squares};
use super::weights;
use crate::lighting::{FlashWish, Prepared, PreparedLight};
use crate::setup::{FlashIndex, indexed};
use tolva_core::exposure::CameraSettings;
use tolva_core::scale::{Metres, Power, Stops};

/// A light with its power on the dial.
#[derive(Clone, Copy, Debug, PartialEq)]
pub struct DialledLight {
    /// How far it stands.
    pub distance: Metres,
    /// What would give exactly what is wanted.
    pub exact: Power,
    /// What stands on the dial.
    pub power: Power,
}

indexed!(FlashIndex: Option<DialledLight>);

/// What a flash must give (on the scale of [`tolva_core::flash::FlashStrength`]) to stand at so many stops in the frame.
pub fn flash_needed(stops: Stops, settings: CameraSettings, filter: Stops) -> Stops {
    stops + settings.aperture.position() - settings.iso.position() + filter
}

/// Where a light stands in the frame, in the region it is aimed at.
pub fn in_frame(
    setup: &Prepared<'_>,
    light: &PreparedLight<'_>,
    at: (Metres, Power),
    settings: CameraSettings,
) -> Stops {
    let gives = light.gives(at.0, at.1) - light.shutter_loss(setup, at.1, settings.shutter);
    gives - settings.aperture.position() + settings.iso.position() - setup.filter
}

/// What a light can do, as the least squares see it: in parts of full power.
#[derive(Clone, Copy, Debug)]
pub struct Bounds {
    pub low: f64,
    pub high: f64,
    /// Whether it may be off instead.
    pub may_be_off: bool,
}

impl Bounds {
    pub const OFF: Self = Self { low: 0.0, high: 0.0, may_be_off: false };
}

/// Steps after which nothing more is to be gained on a dial.
const STEPS: u32 = 6;

/// A region in the frame: what it gets, and where it is to end, in linear light.
#[derive(Clone, Copy, Debug)]
pub struct Landing {
    pub weight: f64,
    pub ambient: f64,
    pub target: f64,
    /// What each light gives it at full power.
    pub given: [f64; MOST],
}

impl Landing {
    /// How far it lands from its target with the lights at some powers, in stops.
    pub fn off(&self, powers: &[f64; MOST]) -> f64 {
        let given: f64 = self.given.iter().zip(powers).map(|(given, power)| given * power).sum();
        ((self.ambient + given) / self.target).log2()
    }
}

/// All regions with a wish, and the sum of squares that their powers are found by.
#[derive(Clone, Debug)]
pub struct Landings {
    squares: Squares,
    regions: Vec<Landing>,
}

impl Landings {
    pub fn new(lights: usize) -> Self {
        Self { squares: Squares::new(lights), regions: Vec::new() }
    }

    pub fn add(&mut self, landing: Landing) {
        // Where next to nothing is wished, an error counts as on a deep shadow.
        let scale = landing.weight.sqrt() / landing.target.max(1.0 / 256.0);
        self.squares.row(&landing.given.map(|one| one * scale), (landing.target - landing.ambient) * scale);
        self.regions.push(landing);
    }

    /// The same regions with lights that give so much more.
    pub fn with(&self, full: &[f64; MOST]) -> Self {
        let mut landings = Self::new(self.squares.unknowns());
        for region in &self.regions {
            let given = std::array::from_fn(|light| region.given[light] * full[light]);
            landings.add(Landing { given, ..*region });
        }
        landings
    }

    pub fn regions(&self) -> &[Landing] {
        &self.regions
    }

    /// The sum of squares of all misses, in weighted stops.
    fn squared(&self, powers: &[f64; MOST]) -> f64 {
        self.regions.iter().map(|region| region.weight * region.off(powers).powi(2)).sum()
    }

    /// The powers within bounds that leave the least sum of squares.
    fn least(&self, low: &[f64; MOST], high: &[f64; MOST]) -> [f64; MOST] {
        let mut best = self.squares.least(low, high);
        let mut sum = self.squared(&best);
        for _ in 0..STEPS {
            // A few hundredths of a stop on the region that counts least are nothing to go on for.
            if sum < 0.1 {
                break;
            }
            let mut step = Squares::new(self.squares.unknowns());
            for region in &self.regions {
                let given: f64 = region.given.iter().zip(&best).map(|(given, power)| given * power).sum();
                // off(p) ≈ off(p₀) + A·(p − p₀)/(whole·ln 2)
                let root = region.weight.sqrt();
                let scale = root / ((region.ambient + given) * std::f64::consts::LN_2);
                let row = region.given.map(|one| one * scale);
                step.row(&row, given * scale - root * region.off(&best));
            }
            let next = step.least_from(&best, low, high);
            let next_sum = self.squared(&next);
            // Nor is a thousandth of what is missed.
            if next_sum >= sum * (1.0 - 1e-3) {
                break;
            }
            (best, sum) = (next, next_sum);
        }
        best
    }

    /// All misses together, in weighted stops.
    fn miss(&self, powers: &[f64; MOST]) -> f64 {
        self.regions.iter().map(|region| region.weight * region.off(powers).abs()).sum()
    }

    /// The powers that land nearest, each light off or within its bounds.
    pub fn powers(&self, bounds: &[Bounds]) -> [f64; MOST] {
        let mut low = [0.0; MOST];
        let mut high = [0.0; MOST];
        let mut undecided = [false; MOST];
        for (index, light) in bounds.iter().enumerate().take(MOST) {
            (low[index], high[index]) = (if light.may_be_off { 0.0 } else { light.low }, light.high);
            undecided[index] = light.may_be_off && light.low > 0.0;
        }
        self.decided(bounds, low, high, undecided)
    }

    /// A light that would have to give less than its lowest power is tried at that and off: the frame that lands nearer
    /// in stops is taken, since far from the wish squares of linear light no longer tell.
    fn decided(&self, bounds: &[Bounds], low: [f64; MOST], high: [f64; MOST], undecided: [bool; MOST]) -> [f64; MOST] {
        let found = self.least(&low, &high);
        // The light that lies deepest between off and its lowest power is decided first.
        let between = (0..bounds.len().min(MOST))
            .filter(|i| undecided[*i] && found[*i] > 0.0 && found[*i] < bounds[*i].low * (1.0 - 1e-9))
            .min_by(|a, b| (found[*a] / bounds[*a].low).total_cmp(&(found[*b] / bounds[*b].low)));
        let Some(light) = between else { return found };
        let mut undecided = undecided;
        undecided[light] = false;
        let (mut on_low, mut off_high) = (low, high);
        (on_low[light], off_high[light]) = (bounds[light].low, 0.0);
        let on = self.decided(bounds, on_low, high, undecided);
        let off = self.decided(bounds, low, off_high, undecided);
        if self.miss(&on) <= self.miss(&off) { on } else { off }
    }
}

/// Whether the face comes before a background, or an ambient, that ends too dark: where a flash lights it.
pub fn face_first(setup: &Prepared<'_>) -> bool {
    setup.lights.iter().any(|light| light.aimed_at == setup.lit && setup.fires(light))
}

/// The weight of a region's landing, by where the ambient alone puts it.
pub fn weight(setup: &Prepared<'_>, placed: usize, region: usize, ambient_over: Stops) -> f64 {
    if region == placed {
        // What is too dark already is no flash's to mend where that costs the face.
        let is_dark = ambient_over.0 < -rounding(setup);
        if is_dark && face_first(setup) { weights::PLACED_DARK } else { weights::PLACED }
    } else if region == setup.lit {
        if ambient_over.0 > 0.0 { weights::LIT_BY_AMBIENT } else { weights::LIT }
    } else {
        weights::OTHER
    }
}

/// All lights of a setup on their dials, for what is wished of the flashes in each region. A light that has nothing to
/// do is off. Distances that are given are kept. `targets` is where each region is to end, where anything says so.
pub fn dialled(
    setup: &Prepared<'_>,
    settings: CameraSettings,
    (ambient, wishes, targets): (&[Stops], &[FlashWish], &[Option<Stops>]),
    distances: Option<&[Metres]>,
) -> Vec<Option<DialledLight>> {
    if !setup.with_flash() {
        return vec![None; setup.lights.len()];
    }
    let placed = setup.setup.blend.placed(setup);
    let stands: Vec<Metres> = (setup.lights.iter().enumerate())
        .map(|(index, light)| match (distances, wishes[light.aimed_at]) {
            (Some(given), _) => given[index],
            (None, FlashWish::Wanted(stops)) => {
                let through = flash_needed(stops, settings, setup.filter)
                    + light.shutter_loss(setup, light.power.unwrap_or(light.lowest), settings.shutter);
                light.distance_for(through)
            }
            (None, _) => light.distance.unwrap_or_else(|| light.usual_distance()),
        })
        .collect();
    // Where nothing is asked of a light, it is off, whatever its power was fixed at.
    // So is one of which nothing arrives where it is aimed.
    let asked = |light: &PreparedLight<'_>| {
        setup.fires(light) && matches!(wishes[light.aimed_at], FlashWish::Wanted(_)) && light.reaches(light.aimed_at)
    };
    let bounds: Vec<Bounds> = (setup.lights.iter())
        .map(|light| match light.power {
            _ if !asked(light) => Bounds::OFF,
            Some(fixed) => Bounds { low: fixed.0.ratio(), high: fixed.0.ratio(), may_be_off: false },
            None => Bounds { low: light.lowest.0.ratio(), high: 1.0, may_be_off: true },
        })
        .collect();
    // How long a flash burns hangs on its power, so what the shutter cuts off is found again with what came out.
    let mut found = [0.0; MOST];
    let mut full = [0.0; MOST];
    for round in 0..3 {
        for (index, light) in setup.lights.iter().enumerate().take(MOST) {
            let free = Power(Stops::of_ratio(if round == 0 { 1.0 } else { found[index] }));
            let free = if free.0.0.is_finite() { free } else { light.lowest };
            let power = light.power.unwrap_or(free);
            full[index] = (in_frame(setup, light, (stands[index], power), settings) - power.0).ratio();
        }
        let mut landings = Landings::new(setup.lights.len());
        for (region, target) in targets.iter().enumerate() {
            let Some(target) = target else { continue };
            let given = std::array::from_fn(|i| {
                setup.lights.get(i).map_or(0.0, |light| full[i] * light.spill(region, stands[i]).ratio())
            });
            // What the camera is set for by its ambient alone is no matter of the flashes.
            let placed = if placed.ambient_alone { usize::MAX } else { placed.region };
            let weight = weight(setup, placed, region, ambient[region] - *target);
            landings.add(Landing { weight, ambient: ambient[region].ratio(), target: target.ratio(), given });
        }
        let before = found;
        found = landings.powers(&bounds);
        if round > 0 && (0..MOST).all(|i| (found[i] - before[i]).abs() < 1e-6) {
            break;
        }
    }
    let on: Vec<bool> = (setup.lights.iter().enumerate()).map(|(i, light)| asked(light) && found[i] > 0.0).collect();
    (setup.lights.iter().enumerate())
        .map(|(index, light)| {
            if !on[index] {
                return None;
            }
            let at_end =
                found[index] >= bounds[index].high * (1.0 - 1e-9) || found[index] <= bounds[index].low * (1.0 + 1e-9);
            // At an end of its dial a light is measured against what its region still wants of it.
            let exact = if at_end {
                let others: f64 = (0..setup.lights.len())
                    .filter(|other| *other != index)
                    .map(|other| {
                        found[other] * full[other] * setup.lights[other].spill(light.aimed_at, stands[other]).ratio()
                    })
                    .sum();
                let target = targets[light.aimed_at].map_or(0.0, Stops::ratio);
                let left = target - ambient[light.aimed_at].ratio() - others;
                Power(Stops::of_ratio((left / full[index]).max(1e-6)))
            } else {
                Power(Stops::of_ratio(found[index]))
            };
            Some(DialledLight {
                distance: stands[index],
                exact,
                power: light.on_dial(Power(Stops::of_ratio(found[index]))),
            })
        })
        .collect()
}
