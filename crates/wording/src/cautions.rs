//! What to mind, in words. Local rules and the makers' instructions come first.

use std::collections::BTreeMap;
use tolva_planner::setup::FlashIndex;

use tolva_core::ambient::Role;
use tolva_core::exposure::CameraSettings;
use tolva_core::scale::{Setting, Shutter, Stops};
use tolva_planner::cautions::{Caution as Code, Lamps};
use tolva_planner::lighting::Prepared;

use crate::casts::cast_words;
use crate::names::Named;
use crate::plan::Caution;

/// A caution as it is sent.
pub(crate) fn caution(code: &Code, setup: &Prepared<'_>, settings: CameraSettings) -> Caution {
    let (heading, says) = words(code, setup, settings);
    Caution { code: code.code(), numbers: numbers(code), heading: heading.to_owned(), says }
}

/// Its numbers, by name.
fn numbers(code: &Code) -> BTreeMap<&'static str, f64> {
    match *code {
        Code::AutomaticFlash(Stops(spread_stops)) | Code::AutomaticExposure(Stops(spread_stops)) => {
            BTreeMap::from([("spread_stops", spread_stops)])
        }
        Code::SlowSyncFloor(floor) => BTreeMap::from([("floor_s", floor.exact)]),
        Code::SunAndLens { turn_deg, off_axis_deg, .. } => {
            BTreeMap::from([("turn_deg", turn_deg), ("off_axis_deg", off_axis_deg)])
        }
        Code::NotOpenShade(sky_percent) => BTreeMap::from([("sky_percent", sky_percent)]),
        Code::MainsFlicker { mains_hz, safe } => BTreeMap::from([("mains_hz", mains_hz), ("safe_s", safe.exact)]),
        Code::OnTheEdge(sunlit_percent) => BTreeMap::from([("sunlit_percent", sunlit_percent)]),
        Code::NoGelAmongLamps { room, flash, apart_mired, .. } => {
            BTreeMap::from([("room_kelvin", room.0), ("flash_kelvin", flash.0), ("apart_mired", apart_mired)])
        }
        Code::MixedOnFace { warm, cool, apart_mired, .. } => {
            BTreeMap::from([("warm_kelvin", warm.0), ("cool_kelvin", cool.0), ("apart_mired", apart_mired)])
        }
        Code::SidesApart(apart_mired) => BTreeMap::from([("apart_mired", apart_mired)]),
        Code::BounceColour { shift, .. } => {
            BTreeMap::from([("shift_mired", shift.mired), ("shift_duv", shift.tint_duv)])
        }
        Code::PoorRendering { rendering, .. } => BTreeMap::from([("rendering_ra", rendering)]),
        _ => BTreeMap::new(),
    }
}

/// The heading and the sentences.
#[expect(clippy::too_many_lines, reason = "an arm for every caution")]
fn words(code: &Code, setup: &Prepared<'_>, settings: CameraSettings) -> (&'static str, String) {
    let shutter = settings.shutter.label();
    let letter = |light: FlashIndex| &setup.lights[light].light.id;
    match code {
        Code::NotRead { regions, modelled } => {
            let by = if *modelled { "estimated from place and hour" } else { "estimates" };
            ("Not read yet", format!("{}: {by}. Read the light with the flash off.", names(setup, regions)))
        }
        Code::ReadAgain(regions) => (
            "Read it again",
            format!("{}: the light has moved more than a stop since it was read.", names(setup, regions)),
        ),
        Code::Clips { region, at } => {
            let name = &setup.setup.regions[*region].name;
            let lift = if setup.setup.regions[*region].role == Role::Background && setup.with_flash() {
                " To keep it, use Lift: the camera for the background, flash for the face."
            } else {
                ""
            };
            ("White", format!("“{name}” ends {} over mid grey: white without detail.{lift}", at.amount()))
        }
        Code::Backlit(part) => (
            "Sun from behind",
            format!(
                "Estimate: {:.0}% of the background is taken as lit by the sun, and the face as in its own shade. Hair \
                 and shoulders get a bright rim. Meter all three.",
                part * 100.0
            ),
        ),
        Code::NearSyncLimit => (
            "Near the sync limit",
            format!(
                "{shutter} is within the rated {} but faster than the safe {}: with radio triggers a dark edge is \
                 possible.",
                setup.sync_rated.label(),
                setup.sync_safe.label()
            ),
        ),
        Code::SlowerThanAllowed => (
            "Slower than allowed",
            format!(
                "{shutter} is slower than {}, the slowest that is safe: shake and movement may show in what the ambient \
                 lights.",
                setup.slowest.label()
            ),
        ),
        Code::AutomaticExposure(apart) => (
            setup.setup.automatic_exposure.name(),
            format!(
                "It moves {} from dark clothes to pale ones, and with flash the share of each light moves too.",
                apart.amount()
            ),
        ),
        Code::DarkFinder => (
            "Dark finder",
            "Focus and frame before the filter goes on, and never look at the sun through an optical finder.".to_owned(),
        ),
        Code::NearEyes => (
            "Very near the eyes",
            "A flash this near is unpleasant and can be harmful: keep the power low, warn the person, mind the makers' \
             distances and local rules."
                .to_owned(),
        ),
        Code::AutomaticFlash(apart) => (
            "Clothes move it",
            format!(
                "Automatic flash gives dark clothes more and pale clothes less: {} from one to the other. Check one \
                 frame, or set the power by hand and keep it.",
                apart.amount()
            ),
        ),
        Code::SlowSyncFloor(floor) => (
            "Slow-sync floor",
            format!(
                "With an automatic shutter this camera stops at {}, and the room goes dark: set {shutter} by hand.",
                floor.label()
            ),
        ),
        Code::NotMetered(light) => (
            "Not automatic",
            format!("{} cannot be metered by the camera: set it by hand.", setup.lights[*light].flash.name),
        ),
        Code::FlashOnCamera => (
            "Flash on the camera",
            "Straight from the camera it is flat and red in the eyes: keep it a touch, well under the room.".to_owned(),
        ),
        Code::SunAndLens { turn_deg, off_axis_deg, in_frame } => {
            ("Sun and lens", sun_and_lens(*turn_deg, *off_axis_deg, *in_frame))
        }
        Code::SunInTheEyes => {
            let says = "The subject faces the sun: nobody should have to look into it. Eyes stay closed until the count of \
                        three, and the frame is taken as they open (common practice)."
                .to_owned();
            ("Sun in the eyes", says)
        }
        Code::ScreenInSun => (
            "The screen in the sun",
            "In this light the camera’s screen shows frames darker than they are: shade it, use a viewing aid, or trust \
             histogram and numbers (common practice)."
                .to_owned(),
        ),
        Code::HeadsOverHorizon => (
            "Heads over the horizon",
            "A head that goes dark is read only against the sky: camera low enough that no head is cut by the horizon or \
             by what stands on it (common practice). Mind where you kneel: no edge, road or water behind you."
                .to_owned(),
        ),
        Code::CleanSky => (
            "A clean sky behind",
            "From lower down heads stand against plain sky instead of the horizon, and a low sun can hide behind one \
             (common practice). Never look for it through an optical finder."
                .to_owned(),
        ),
        Code::NotOpenShade(sky_percent) => (
            "Not open shade",
            format!(
                "{sky_percent:.0} % of the sky overhead is less than half: light and colour come from what stands \
                 around. Read both."
            ),
        ),
        Code::ColourMustBeMeasured => {
            ("Colour must be measured", "Leaves and cloth colour the light: measure it there.".to_owned())
        }
        Code::MainsFlicker { mains_hz, safe } => ("Flicker", mains_flicker(&shutter, *mains_hz, *safe)),
        Code::OnTheEdge(sunlit_percent) => (
            "On the edge",
            format!(
                "{sunlit_percent:.0} % of the frame behind is sunlit: up to 15 to 20 % is treated as shade, more as \
                 sun. Look again."
            ),
        ),
        Code::SimulatedWeather => {
            ("Simulated weather", "The cloud is made up by a stand-in. Look at the sky.".to_owned())
        }
        Code::NoGelAmongLamps { room, light, flash, apart_mired, gels } => {
            let gels = if gels.is_empty() { "A warm gel".to_owned() } else { gels.join(" with ") };
            let (room, letter, flash) = (room.label(), letter(*light), flash.label());
            let says = format!(
                "The room is {room}, {letter} is {flash}: {apart_mired:.0} mired apart. {gels} brings them together."
            );
            ("No gel among lamps", says)
        }
        Code::MixedOnFace { region, warm, cool, apart_mired } => (
            "Mixed light on one face",
            format!(
                "On “{}” light of {} and of {} meet, {apart_mired:.0} mired apart: no one balance mends both. Gel one to \
                 the other, or give one of them the face.",
                setup.setup.regions[*region].name,
                warm.label(),
                cool.label()
            ),
        ),
        Code::SidesApart(apart) => (
            "Mixed light on one face",
            format!("Lit side and shadow side come out {apart:.0} mired apart: no one balance mends both."),
        ),
        Code::BounceColour { light, .. } => ("Colour of the bounce", bounce_colour(code, letter(*light), setup)),
        Code::PoorRendering { lamps, rendering } => {
            let name = match lamps {
                Lamps::Named(named) => named.name(),
                Lamps::OfTheKit(name) => name,
            };
            let says = format!(
                "{name}: about {rendering:.0} of 100. Some colours are not in their light, and no balance puts them \
                 back; skin suffers first. More flash on the face helps."
            );
            ("Poor rendering", says)
        }
        Code::LampFlicker(lamp) => (
            "Flicker",
            format!(
                "{} at {shutter}: shorter than half a period of 50 Hz mains, so colour and brightness may change from \
                 frame to frame. 1/100 or slower is safe (1/125 at 60 Hz).",
                lamp.name()
            ),
        ),
    }
}

fn names(setup: &Prepared<'_>, regions: &[usize]) -> String {
    let names = regions.iter().map(|region| setup.setup.regions[*region].name.as_str());
    names.collect::<Vec<_>>().join(", ")
}

fn sun_and_lens(turn_deg: f64, off_axis_deg: f64, in_frame: bool) -> String {
    let hand = if turn_deg > 0.0 { "right" } else { "left" };
    let stands = if in_frame {
        "stands in the frame".to_owned()
    } else {
        format!("stands {off_axis_deg:.0}° off the lens's axis and reaches its glass")
    };
    format!(
        "The sun {stands}: flare. Turn the camera {:.0}° to the {hand}, or hold a card just outside the frame so that its \
         shadow falls on the glass. Never look at the sun through an optical finder, and do not aim the lens at it for \
         long.",
        turn_deg.abs().ceil()
    )
}

fn mains_flicker(shutter: &str, mains_hz: f64, safe: Setting<Shutter>) -> String {
    format!(
        "{shutter} is shorter than half a period of {mains_hz:.0} Hz mains: lamps may band or change from frame to frame. \
         {} or slower is safe.",
        safe.label()
    )
}

fn bounce_colour(code: &Code, letter: &str, setup: &Prepared<'_>) -> String {
    let Code::BounceColour { light, shift } = code else { return String::new() };
    if shift.mired == 0.0 && shift.tint_duv == 0.0 {
        return format!(
            "{letter} takes on the colour of the ceiling or wall it comes back from: white paint is seldom white."
        );
    }
    // On the set several surfaces may send it back.
    let typed = setup.lights[*light].light.bounce.filter(|_| !setup.lights[*light].is_on_set());
    let off = typed.map_or("what it is turned to", |bounce| bounce.colour.name());
    let cast = cast_words(shift.mired, shift.tint_duv);
    format!("Off {off} {letter} comes back {cast}: estimated. Measure it there, or turn it elsewhere.")
}
