//! What to mind on the set, as codes with their numbers. Local rules and the makers' instructions come first; what is not
//! sourced here is common practice.

use tolva_core::ambient::{
    BackgroundKind, LensAndSun, SUNLIT_STILL_SHADE, SunSide, Surroundings, flicker_shows, sun_side,
};
use tolva_core::colour::{FULL_WHITE, Kelvin, NamedLight, Shift, StatedColour};
use tolva_core::scale::{Setting, Shutter, Stops};

use crate::automatic::exposure_spread;
use crate::colour::{InColour, gels_to};
use crate::lighting::{AmbientSource, Prepared, PreparedScene};
use crate::plan::Plan;
use crate::setup::{AutomaticConvention, Blend, Control, FlashIndex, Kit, Sync};
use crate::solver::Outcome;
use tolva_core::ambient::Role;

/// Something to mind.
#[derive(Clone, Debug, PartialEq)]
pub enum Caution {
    /// Nobody has read the light on these regions, by their places in the setup.
    NotRead {
        /// The regions.
        regions: Vec<usize>,
        /// Whether place and hour say something of them; otherwise they are guesses.
        modelled: bool,
    },
    /// The light on these regions has moved more than a stop since it was read.
    ReadAgain(Vec<usize>),
    /// A region ends so bright that it is white: by its place in the setup, and where it ends.
    Clips {
        /// The region.
        region: usize,
        /// Where it ends, from mid grey.
        at: Stops,
    },
    /// The sun is behind the subject: so much of the background is taken to be lit by it, 0 to 1.
    Backlit(f64),
    /// The shutter is within the rated sync but faster than the safe one.
    NearSyncLimit,
    /// The shutter is slower than is safe.
    SlowerThanAllowed,
    /// A flash stands very near the eyes.
    NearEyes,
    /// Automatic flash follows the clothes, by so much from dark ones to pale ones.
    AutomaticFlash(Stops),
    /// With an automatic shutter the camera stops here.
    SlowSyncFloor(Setting<Shutter>),
    /// The camera cannot meter this light: its place among the flashes.
    NotMetered(FlashIndex),
    /// A flash sits on the camera and points straight.
    FlashOnCamera,
    /// The camera sets something by itself, which moves the exposure by so much from dark clothes to pale ones.
    AutomaticExposure(Stops),
    /// The filter makes the finder dark.
    DarkFinder,
    /// The sun shines on the glass.
    SunAndLens {
        /// How far to turn the camera, in degrees; positive is to the right.
        turn_deg: f64,
        /// How far off the lens's axis it stands, in degrees.
        off_axis_deg: f64,
        /// Whether it stands in the frame.
        in_frame: bool,
    },
    /// The subject faces the sun.
    SunInTheEyes,
    /// The sun is on the camera's screen.
    ScreenInSun,
    /// Heads that go dark must stand against the sky, over the horizon.
    HeadsOverHorizon,
    /// What lies behind is sky: from low down heads stand clear against it.
    CleanSky,
    /// So much of the sky overhead is no open shade, in percent.
    NotOpenShade(f64),
    /// Leaves or cloth colour the light.
    ColourMustBeMeasured,
    /// Lamps flicker in so short a time.
    MainsFlicker {
        /// The frequency of the mains.
        mains_hz: f64,
        /// The time that is safe, as the dial has it.
        safe: Setting<Shutter>,
    },
    /// So much of the frame behind is sunlit that it may count as shade or as sun, in percent.
    OnTheEdge(f64),
    /// The cloud is made up by a stand-in.
    SimulatedWeather,
    /// A flash without a gel in a room that lamps light.
    NoGelAmongLamps {
        /// The room.
        room: Kelvin,
        /// The light: its place among the flashes.
        light: FlashIndex,
        /// Its colour.
        flash: Kelvin,
        /// How far they are apart, in mired.
        apart_mired: f64,
        /// The gels of the kit that bring them together, by name; none where there are none.
        gels: Vec<String>,
    },
    /// Two lights of different colour meet on a region.
    MixedOnFace {
        /// The region.
        region: usize,
        /// The warmest.
        warm: Kelvin,
        /// The coolest.
        cool: Kelvin,
        /// How far they are apart, in mired.
        apart_mired: f64,
    },
    /// Lit side and shadow side come out so far apart, in mired.
    SidesApart(f64),
    /// What is bounced takes on the colour of where it comes back from: the light's place among the flashes, and what it
    /// does to the light.
    BounceColour {
        /// The light.
        light: FlashIndex,
        /// The shift that is reckoned with; none for white.
        shift: Shift,
    },
    /// Lamps leave colours out.
    PoorRendering {
        /// Which lamps.
        lamps: Lamps,
        /// How well they render (Ra).
        rendering: f64,
    },
    /// Lamps of this kind may flicker in so short a time.
    LampFlicker(NamedLight),
}

/// Lamps, by what is known of them.
#[derive(Clone, Debug, PartialEq)]
pub enum Lamps {
    /// By a name everybody has for them.
    Named(NamedLight),
    /// A lamp of the kit, by its name.
    OfTheKit(String),
}

impl Caution {
    /// Its code: stable, for whoever reads plans by machine.
    pub fn code(&self) -> &'static str {
        match self {
            Self::NotRead { .. } => "not_read",
            Self::ReadAgain(_) => "read_again",
            Self::Clips { .. } => "clips",
            Self::Backlit(_) => "backlit",
            Self::NearSyncLimit => "near_sync_limit",
            Self::SlowerThanAllowed => "slower_than_allowed",
            Self::NearEyes => "near_eyes",
            Self::AutomaticFlash(_) => "automatic_flash",
            Self::SlowSyncFloor(_) => "slow_sync_floor",
            Self::NotMetered(_) => "not_metered",
            Self::FlashOnCamera => "flash_on_camera",
            Self::AutomaticExposure(_) => "automatic_exposure",
            Self::DarkFinder => "dark_finder",
            Self::SunAndLens { .. } => "sun_and_lens",
            Self::SunInTheEyes => "sun_in_the_eyes",
            Self::ScreenInSun => "screen_in_sun",
            Self::HeadsOverHorizon => "heads_over_horizon",
            Self::CleanSky => "clean_sky",
            Self::NotOpenShade(_) => "not_open_shade",
            Self::ColourMustBeMeasured => "colour_must_be_measured",
            Self::MainsFlicker { .. } => "mains_flicker",
            Self::OnTheEdge(_) => "on_the_edge",
            Self::SimulatedWeather => "simulated_weather",
            Self::NoGelAmongLamps { .. } => "no_gel_among_lamps",
            Self::MixedOnFace { .. } => "mixed_on_face",
            Self::SidesApart(_) => "sides_apart",
            Self::BounceColour { .. } => "bounce_colour",
            Self::PoorRendering { .. } => "poor_rendering",
            Self::LampFlicker(_) => "lamp_flicker",
        }
    }
}

/// A reading that was followed this far is to be taken again. Common practice, no source.
pub const READ_AGAIN: f64 = 1.0;
/// Less of the sky overhead than this is no open shade. Common practice, no source.
const OPEN_SHADE_PERCENT: f64 = 50.0;
/// From so much of the background on it is said that it is taken as lit from behind. Chosen.
const BACKLIT_SHOWS: f64 = 0.2;
/// In so much light nobody judges a camera's screen, EV at ISO 100. Common practice, no source.
const SCREEN_EV: f64 = 13.0;
/// A flash nearer than this is unpleasant to look at, in metres. Common practice, no source; makers' distances come first.
const NEAR_EYES_M: f64 = 0.5;
/// A filter of so many stops makes a finder dark. Common practice, no source.
const DARK_FINDER: f64 = 4.0;
/// Two lights on a face that are farther apart than this show, in mired. Common practice, no source.
const MIXED_MIRED: f64 = 40.0;
/// A light with less of a share than this does not show its colour. Common practice, no source.
const SHOWS: f64 = 0.15;
/// Lamps are warmer than this. Common practice, no source.
const LAMP: Kelvin = Kelvin(4000.0);
/// Lamps that render worse than this leave colours out (Ra). Common practice, no source.
const POOR_RENDERING: f64 = 85.0;

/// What to mind about a plan.
pub fn cautions(setup: &Prepared<'_>, plan: &Plan, colour: &InColour, kit: &Kit) -> Vec<Caution> {
    let outcome = &plan.outcome;
    let mut all = of_readings(setup);
    all.extend(of_white(outcome));
    all.extend(of_shutter(setup, outcome));
    all.extend(of_lights(setup, outcome));
    if setup.setup.automatic_exposure != AutomaticConvention::Nothing {
        all.push(Caution::AutomaticExposure(exposure_spread()));
    }
    if setup.density.0 >= DARK_FINDER {
        all.push(Caution::DarkFinder);
    }
    if let Some(scene) = &setup.scene {
        let lens_mm = setup.setup.focal_length_mm * setup.camera.sensor.crop();
        all.extend(of_scene(scene, outcome.settings.shutter, lens_mm));
        all.extend(of_practice(setup, scene));
    }
    all.extend(ungelled(setup, outcome, colour, kit).or_else(|| mixed(setup, colour)));
    all.extend(bounced(setup, outcome));
    all.extend(of_lamps(setup, outcome));
    all
}

fn of_readings(setup: &Prepared<'_>) -> Vec<Caution> {
    let which = |of: &dyn Fn(AmbientSource) -> bool| -> Vec<usize> {
        (0..setup.known.len()).filter(|region| of(setup.known[*region])).collect()
    };
    let guessed = which(&|known| known == AmbientSource::Guess);
    let modelled = which(&|known| known == AmbientSource::Model);
    let moved = which(&|known| matches!(known, AmbientSource::Read { moved, .. } if moved.0.abs() > READ_AGAIN));
    let told = [
        (!guessed.is_empty()).then_some(Caution::NotRead { regions: guessed, modelled: false }),
        (!modelled.is_empty()).then_some(Caution::NotRead { regions: modelled, modelled: true }),
        (!moved.is_empty()).then_some(Caution::ReadAgain(moved)),
    ];
    told.into_iter().flatten().collect()
}

/// Regions that end white and whose target is not white.
fn of_white(outcome: &Outcome) -> Vec<Caution> {
    let white = |region: &usize| {
        let is_target = outcome.targets[*region].is_some_and(|target| target >= FULL_WHITE);
        outcome.regions[*region].together >= FULL_WHITE && !is_target
    };
    let regions = (0..outcome.regions.len()).filter(white);
    regions.map(|region| Caution::Clips { region, at: outcome.regions[region].together }).collect()
}

fn of_shutter(setup: &Prepared<'_>, outcome: &Outcome) -> Vec<Caution> {
    let shutter = outcome.settings.shutter.position().0;
    let faster_than = |limit: Setting<Shutter>| shutter > limit.position().0 + 1e-6;
    let near_sync = outcome.flashes()
        && setup.setup.sync == Sync::Ordinary
        && faster_than(setup.sync_safe)
        && !faster_than(setup.sync_rated);
    let slow = shutter < setup.slowest.position().0 - 1e-6;
    let told = [near_sync.then_some(Caution::NearSyncLimit), slow.then_some(Caution::SlowerThanAllowed)];
    told.into_iter().flatten().collect()
}

/// What to mind about the flashes that are on.
fn of_lights(setup: &Prepared<'_>, outcome: &Outcome) -> Vec<Caution> {
    let mut all = Vec::new();
    let on: Vec<_> = (setup.lights.iter().zip(&outcome.lights).enumerate())
        .filter_map(|(index, (light, at))| at.map(|at| (index, light, at)))
        .collect();
    if on.iter().any(|(_, light, at)| at.distance.0 < NEAR_EYES_M && light.bounced.is_none()) {
        all.push(Caution::NearEyes);
    }
    let mut automatic = on.iter().filter(|(_, light, _)| light.light.control == Control::Ttl).peekable();
    if automatic.peek().is_some() {
        all.push(Caution::AutomaticFlash(exposure_spread()));
        let floor = Setting::<Shutter>::of(setup.camera.slow_sync_floor_s);
        if floor.position().0 > outcome.settings.shutter.position().0 + 1e-6 {
            all.push(Caution::SlowSyncFloor(floor));
        }
    }
    all.extend(
        automatic.find(|(_, light, _)| !light.flash.ttl).map(|(index, ..)| Caution::NotMetered(FlashIndex(*index))),
    );
    if on.iter().any(|(_, light, _)| light.light.on_camera && light.bounced.is_none()) {
        all.push(Caution::FlashOnCamera);
    }
    all
}

/// What to mind where the sun is, and about the surroundings.
fn of_scene(scene: &PreparedScene<'_>, shutter: Setting<Shutter>, lens_mm: f64) -> Vec<Caution> {
    let mut all = Vec::new();
    let looks = (scene.scene.facing_deg + 180.0).rem_euclid(360.0);
    let lens = LensAndSun::new(scene.now.sun, looks, lens_mm);
    if scene.now.sun_shows && scene.light.is_daylight() {
        if let Some(turn_deg) = lens.turn_deg {
            let (off_axis_deg, in_frame) = (lens.off_axis_deg, lens.in_frame());
            all.push(Caution::SunAndLens { turn_deg, off_axis_deg, in_frame });
        } else if sun_side(scene.now.sun, scene.scene.facing_deg) == SunSide::InFront {
            all.push(Caution::SunInTheEyes);
        }
    }
    match scene.scene.surroundings {
        Surroundings::OpenShade(shade) if shade.sky_percent < OPEN_SHADE_PERCENT => {
            all.push(Caution::NotOpenShade(shade.sky_percent));
        }
        Surroundings::Trees | Surroundings::Awning => all.push(Caution::ColourMustBeMeasured),
        Surroundings::Artificial(lamps) if lamps.light.flickers() && flicker_shows(shutter, lamps.mains_hz) => {
            // The dial's setting at half a period: 1/100 at 50 Hz, 1/125 at 60 Hz.
            let safe = Setting::of(if lamps.mains_hz < 55.0 { 0.01 } else { 0.008 });
            all.push(Caution::MainsFlicker { mains_hz: lamps.mains_hz, safe });
        }
        _ => {}
    }
    let sunlit_percent = scene.scene.background.sunlit_percent;
    if scene.light.subject_in_shade() && SUNLIT_STILL_SHADE.contains(&sunlit_percent) {
        all.push(Caution::OnTheEdge(sunlit_percent));
    }
    if scene.scene.weather.is_simulated() {
        all.push(Caution::SimulatedWeather);
    }
    all
}

/// What experienced people tell each other of such a light. Common practice, no source.
fn of_practice(setup: &Prepared<'_>, scene: &PreparedScene<'_>) -> Vec<Caution> {
    let mut all = Vec::new();
    let daylight = scene.light.is_daylight();
    let brightest = setup.ambient.iter().fold(f64::NEG_INFINITY, |most, ev| most.max(ev.0));
    if daylight && scene.now.sun_shows && brightest >= SCREEN_EV {
        all.push(Caution::ScreenInSun);
    }
    let backlit = scene.light.backlit_part(scene.now.sun);
    if daylight && scene.now.sun_shows && backlit >= BACKLIT_SHOWS && !scene.light.subject_in_shade() {
        all.push(Caution::Backlit(backlit));
    }
    let sky = scene.scene.background.what == BackgroundKind::Sky;
    match setup.setup.blend {
        Blend::Silhouette { .. } if daylight => all.push(Caution::HeadsOverHorizon),
        Blend::Lift { .. } if daylight && sky => all.push(Caution::CleanSky),
        _ => {}
    }
    all
}

/// Several lights on one face that no single balance can mend.
fn mixed(setup: &Prepared<'_>, colour: &InColour) -> Option<Caution> {
    let mixes = &colour.colours.mixes;
    let faces = (0..mixes.len()).filter(|region| setup.setup.regions[*region].role != Role::Background);
    let worst = faces
        .filter_map(|region| {
            let strong = || mixes[region].parts.iter().filter(|part| part.share >= SHOWS).map(|part| part.light);
            let warm = strong().max_by(|a, b| a.mired().0.total_cmp(&b.mired().0))?;
            let cool = strong().min_by(|a, b| a.mired().0.total_cmp(&b.mired().0))?;
            Some((warm.mired().0 - cool.mired().0, region, warm.kelvin(), cool.kelvin()))
        })
        .max_by(|a, b| a.0.total_cmp(&b.0));
    if let Some((apart_mired, region, warm, cool)) = worst.filter(|(apart, ..)| *apart > MIXED_MIRED) {
        return Some(Caution::MixedOnFace { region, warm, cool, apart_mired });
    }
    let (lit, shadow) = (mixes[setup.lit].light, mixes[setup.shadow?].light);
    let apart = (lit.mired().0 - shadow.mired().0).abs();
    (apart > MIXED_MIRED).then_some(Caution::SidesApart(apart))
}

/// A flash without a gel in a room that lamps light.
fn ungelled(setup: &Prepared<'_>, outcome: &Outcome, colour: &InColour, kit: &Kit) -> Option<Caution> {
    let key = outcome.key(setup)?;
    // A low sun is warm as well, and no room: there a gel is a choice of white balance.
    if setup.scene.as_ref().is_some_and(|scene| scene.light.is_daylight()) && setup.lamps.is_empty() {
        return None;
    }
    let colours = &colour.colours;
    let (light, flash) = (&setup.lights[key], colours.flashes[key.0]);
    let rooms = [colours.ambient_on(setup.lit), colours.ambient_on(setup.background)];
    let room = rooms.into_iter().max_by(|a, b| a.mired().0.total_cmp(&b.mired().0))?;
    let apart_mired = room.mired().0 - flash.mired().0;
    if !light.gels.is_empty() || room.kelvin() > LAMP || apart_mired < MIXED_MIRED {
        return None;
    }
    let gels = gels_to(flash, room, kit).0.into_iter().map(|gel| gel.name.clone()).collect();
    Some(Caution::NoGelAmongLamps { room: room.kelvin(), light: key, flash: flash.kelvin(), apart_mired, gels })
}

/// A flash that comes back from something coloured.
fn bounced(setup: &Prepared<'_>, outcome: &Outcome) -> Option<Caution> {
    let mut on = (0..setup.lights.len()).filter_map(|light| Some((light, outcome.lights[light]?)));
    on.find_map(|(light, at)| {
        let shift = setup.lights[light].way(at.distance);
        setup.lights[light].bounced.map(|_| Caution::BounceColour { light: FlashIndex(light), shift })
    })
}

/// Lamps that leave colours out, or flicker.
fn of_lamps(setup: &Prepared<'_>, outcome: &Outcome) -> Vec<Caution> {
    let mut all = Vec::new();
    let named: Vec<NamedLight> = (setup.setup.regions.iter())
        .filter_map(|region| if let StatedColour::Named(named) = region.ambient.colour { Some(named) } else { None })
        .collect();
    let of_regions = named.iter().filter_map(|named| named.rendering().map(|ra| (Lamps::Named(*named), ra)));
    let of_kit = setup
        .lamps
        .iter()
        .filter_map(|lamp| lamp.flash.rendering.map(|ra| (Lamps::OfTheKit(lamp.flash.name.clone()), ra)));
    let worst = of_regions.chain(of_kit).min_by(|a, b| a.1.total_cmp(&b.1));
    if let Some((lamps, rendering)) = worst.filter(|(_, ra)| *ra < POOR_RENDERING) {
        all.push(Caution::PoorRendering { lamps, rendering });
    }
    // A room full of lamps is warned of with its own mains.
    let in_lamp_light =
        setup.scene.as_ref().is_some_and(|scene| matches!(scene.scene.surroundings, Surroundings::Artificial(_)));
    if let Some(lamp) = named.iter().find(|named| named.flickers())
        && !in_lamp_light
        && flicker_shows(outcome.settings.shutter, 50.0)
    {
        all.push(Caution::LampFlicker(*lamp));
    }
    all
}
