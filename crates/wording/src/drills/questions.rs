//! Questions in words.

use tolva_core::exposure::{CameraSettings, MeteringMethod};
use tolva_core::modifier::BounceOff;
use tolva_core::optics::HandheldRule;
use tolva_core::scale::{Metres, Power, Stops};
use tolva_planner::drills::{Asked, Before, CameraDial, GuideAsks, Moved, PlateLine, Pointed, Which};

use super::answers::{mired, seconds};
use crate::names::Named;
use crate::shown::Show;
use crate::words::{in_a_row, lower_first, upper_first};

/// What stands, and what is asked.
pub(super) fn question(asked: &Asked, show: Show) -> (String, String) {
    let all = [of_exposure, of_flash, of_powers_and_colour, of_optics_and_meters, of_what_flash_takes, of_pictures];
    // Each knows its own: one of them answers.
    all.into_iter().find_map(|of| of(asked, show)).unwrap_or_default()
}

fn of_exposure(asked: &Asked, show: Show) -> Option<(String, String)> {
    Some(match asked {
        Asked::Equal { from, to, find } => equal(from, to, *find),
        Asked::Moves { moved, of } => (
            format!("{}.", upper_first(&in_a_row(moved.iter().map(|one| change(one, show))))),
            match of {
                Which::Ambient => "What becomes of the light that is there, in stops?",
                Which::Flash => "What becomes of the flash on the subject, in stops?",
            }
            .to_owned(),
        ),
        _ => return None,
    })
}

fn of_flash(asked: &Asked, show: Show) -> Option<(String, String)> {
    let far = |at: &Metres| at.label(show.metres());
    let at_power = |power: &Power| power.label(show.power());
    Some(match asked {
        Asked::Guide { guide_number_m, power, distance, aperture, iso, find } => {
            let unit = format!("Guide number {guide_number_m:.0} (metres, ISO 100), bare");
            let power = format!("at {}", at_power(power));
            let away = format!("{} away", far(distance));
            match find {
                GuideAsks::Aperture => {
                    (format!("{unit}, {power}, {away}, {}.", iso.label()), "Which aperture?".to_owned())
                }
                GuideAsks::Distance => {
                    (format!("{unit}, {power}, {}, {}.", aperture.label(), iso.label()), "How far away?".to_owned())
                }
                GuideAsks::Power => {
                    (format!("{unit}, {away}, {}, {}.", aperture.label(), iso.label()), "Which power?".to_owned())
                }
            }
        }
        Asked::Farther { from, to, find_distance: false } => (
            format!("A bare flash goes from {} to {} from the subject.", far(from), far(to)),
            "What becomes of its light, in stops?".to_owned(),
        ),
        Asked::Farther { from, to, .. } => {
            let by = Stops(2.0 * (from.0 / to.0).log2());
            (
                format!("A bare flash stands {} from the subject and is to give {}.", far(from), more_or_less(by)),
                "How far away must it stand?".to_owned(),
            )
        }
        Asked::Together { lights } => {
            let each = lights.iter().map(|one| one.as_given()).collect::<Vec<_>>().join(" and at ");
            (
                format!("On the same spot lights come, each by itself, at {each} from mid grey."),
                "Where do they come together?".to_owned(),
            )
        }
        Asked::Ratio { key, fill } => (
            format!(
                "The key alone puts the lit side at {}; the fill alone puts both sides at {}.",
                key.as_given(),
                fill.as_given()
            ),
            "How many stops lie between lit and shadow side?".to_owned(),
        ),
        Asked::Missing { ambient, wish } => (
            format!(
                "The light that is there puts the subject at {}. It is to come at {}.",
                ambient.as_given(),
                wish.as_given()
            ),
            "What must the flash give by itself?".to_owned(),
        ),
        _ => return None,
    })
}

fn of_powers_and_colour(asked: &Asked, show: Show) -> Option<(String, String)> {
    let at_power = |power: &Power| power.label(show.power());
    Some(match asked {
        Asked::PowerBy { from, by } => (
            format!("The flash stands at {} and is to give {}.", at_power(from), more_or_less(*by)),
            "Which power?".to_owned(),
        ),
        Asked::PowerBetween { from, to } => {
            (format!("The power goes from {} to {}.", at_power(from), at_power(to)), "By how many stops?".to_owned())
        }
        Asked::Gelled { light, by } => (
            format!("A light of {} goes through a gel of {}.", light.label(), mired(*by)),
            "What is it then?".to_owned(),
        ),
        Asked::Shift { from, to } => {
            (format!("A light of {} is to become one of {}.", from.label(), to.label()), "By what shift?".to_owned())
        }
        Asked::WhichGel { from, to, .. } => (
            format!("A flash of {} is to match a light of {}.", from.label(), to.label()),
            "Which of these gels comes nearest?".to_owned(),
        ),
        _ => return None,
    })
}

fn of_optics_and_meters(asked: &Asked, show: Show) -> Option<(String, String)> {
    let far = |at: &Metres| at.label(show.metres());
    Some(match asked {
        Asked::Group { focal, nearest, farthest, circle } => (
            format!(
                "{:.0} mm; the nearest face {} away, the farthest {}. Sharp is what blurs by no more than {:.3} mm.",
                focal.0,
                far(nearest),
                far(farthest),
                circle.0
            ),
            "The widest aperture at which all are sharp?".to_owned(),
        ),
        Asked::ByHand { focal, stabilisation, sensor, .. } => {
            let steady = if stabilisation.0 > 0.0 {
                format!(", stabilised by {}", stabilisation.amount())
            } else {
                String::new()
            };
            (
                format!("{:.0} mm by hand on a sensor {:.0} mm wide{steady}.", focal.0, sensor.width_mm),
                "The slowest shutter on the dial?".to_owned(),
            )
        }
        Asked::Frozen { movement, focal, distance, pixels, sensor } => (
            format!(
                "{}, {:.1} m/s across the view, {} away, {:.0} mm, {:.0} pixels over {:.0} mm.",
                movement.name(),
                movement.metres_per_s(),
                far(distance),
                focal.0,
                sensor.width_px,
                sensor.width_mm
            ),
            format!("The slowest shutter that blurs by no more than {pixels:.0} pixels?"),
        ),
        Asked::Spot { on, says } => (
            format!("A spot meter on {} says {}.", surface(*on), says.label()),
            "Which shutter puts that where it belongs?".to_owned(),
        ),
        Asked::Turned { pointed, by_deg, straight } => {
            let receptor = match pointed {
                Pointed::Flat => "flat receptor",
                Pointed::Dome => "dome",
            };
            (
                format!(
                    "One lamp, and a meter with its {receptor} straight at it says {}. It is turned {by_deg:.0}° away.",
                    straight.label()
                ),
                "What does it say then?".to_owned(),
            )
        }
        _ => return None,
    })
}

fn of_what_flash_takes(asked: &Asked, show: Show) -> Option<(String, String)> {
    let far = |at: &Metres| at.label(show.metres());
    let at_power = |power: &Power| power.label(show.power());
    Some(match asked {
        Asked::FilterFor { sync, needs } => (
            format!("The wide aperture asks for {}. The flash syncs up to {}.", needs.label(), sync.label()),
            "A filter of how many stops?".to_owned(),
        ),
        Asked::HighSpeed { sync, shutter, fixed } => (
            format!(
                "High-speed sync at {}. The flash syncs up to {}, and high-speed sync takes {} there already.",
                shutter.label(),
                sync.label(),
                fixed.amount()
            ),
            "How much of the flash is lost?".to_owned(),
        ),
        Asked::Bounced { bounce, subject } => {
            let off = match bounce.off {
                BounceOff::Ceiling => "a ceiling",
                BounceOff::SideWall => "a wall beside the camera",
                BounceOff::BackWall => "a wall behind the camera",
            };
            (
                format!(
                    "On the camera, bounced off {off} {} from the head that gives back {:.0} %; the subject {} away.",
                    far(&Metres(bounce.away_m)),
                    bounce.reflectance * 100.0,
                    far(subject)
                ),
                "What does it take against the head aimed straight?".to_owned(),
            )
        }
        Asked::Ready { full_s, power } => (
            format!("Ready {} after a full pop. It fires at {}.", seconds(*full_s), at_power(power)),
            "When is it ready again?".to_owned(),
        ),
        Asked::ReadyEvery { full_s, every_s } => (
            format!("Ready {} after a full pop. A frame every {}.", seconds(*full_s), seconds(*every_s)),
            "The most power it keeps up?".to_owned(),
        ),
        _ => return None,
    })
}

fn of_pictures(asked: &Asked, show: Show) -> Option<(String, String)> {
    Some(match asked {
        Asked::Plate { picture, plate, without_flash } => {
            let kind = if *without_flash { "Its plate, to be without flash" } else { "Its plate" };
            (
                format!("The picture: {}. {kind}: {}.", line(picture), line(plate)),
                "What is not as it should be?".to_owned(),
            )
        }
        Asked::Misset { scene, beside, .. } => (
            format!(
                "Wished was {} behind and 0 on the lit side of the face.{}",
                scene.background.as_given(),
                if *beside { " First as it was wished, then as it came." } else { " So it came." }
            ),
            "What stands wrong?".to_owned(),
        ),
        Asked::WhichPicture { rail, .. } => {
            let names = ["behind", "face, lit side", "face, shadow side"];
            let each = rail.iter().zip(names).map(|(at, name)| format!("{name} at {}", at.thirds()));
            (format!("{}.", upper_first(&each.collect::<Vec<_>>().join("; "))), "Which picture is that?".to_owned())
        }
        Asked::Shows(before) => (pane(before, show), "Does the light show in it?".to_owned()),
        Asked::ShowsAt(before) => (pane(before, show), "Where in the glass does the light show?".to_owned()),
        _ => return None,
    })
}

fn equal(from: &CameraSettings, to: &CameraSettings, find: CameraDial) -> (String, String) {
    let (shutter, aperture, iso) = (to.shutter.label(), to.aperture.label(), to.iso.label());
    let (then, asks) = match find {
        CameraDial::Shutter => (format!("{aperture}, {iso}"), "Which shutter?"),
        CameraDial::Aperture => (format!("{shutter}, {iso}"), "Which aperture?"),
        CameraDial::Iso => (format!("{shutter}, {aperture}"), "Which ISO?"),
    };
    (format!("Right at {}. Now {then}.", from.label()), asks.to_owned())
}

fn change(moved: &Moved, show: Show) -> String {
    match moved {
        Moved::Shutter(from, to) => format!("the shutter goes from {} to {}", from.label(), to.label()),
        Moved::Aperture(from, to) => format!("the aperture goes from {} to {}", from.label(), to.label()),
        Moved::Iso(from, to) => format!("the sensitivity goes from {} to {}", from.label(), to.label()),
        Moved::Power(from, to) => {
            format!("the power of the flash goes from {} to {}", from.label(show.power()), to.label(show.power()))
        }
        Moved::Distance(from, to) => {
            format!("the flash goes from {} to {} from the subject", from.label(show.metres()), to.label(show.metres()))
        }
        Moved::Filter(density) => format!("a filter of {} goes onto the lens", density.amount()),
    }
}

/// `2 stops more`.
fn more_or_less(by: Stops) -> String {
    format!("{} {}", by.amount(), if by.0 > 0.0 { "more" } else { "less" })
}

fn surface(on: MeteringMethod) -> String {
    lower_first(on.name()).replace("spot on ", "")
}

fn line(of: &PlateLine) -> String {
    let flash = if of.flash { "flash" } else { "no flash" };
    format!("{}, {:.0} mm, {flash}", of.settings.label(), of.focal.0)
}

fn pane(of: &Before, show: Show) -> String {
    let far = |at: Metres| at.label(show.metres());
    let side = if of.aside.0 > 0.0 { "right" } else { "left" };
    let end = |at: Metres, side: &str| {
        if at.0 == 0.0 { "straight before the lens".to_owned() } else { format!("{} to the {side}", far(at)) }
    };
    format!(
        "A pane from {} to {}. The lens stands {} before it; a light stands {} before it, \
         {} to the {side} of the lens.",
        end(of.left, "left of the lens"),
        end(of.right, "right of it"),
        far(of.lens),
        far(of.light),
        far(Metres(of.aside.0.abs()))
    )
}

/// Which school is asked for, where practitioners differ.
pub(super) fn school(asked: &Asked) -> Option<&'static str> {
    match asked {
        Asked::ByHand { school, .. } => Some(match school {
            HandheldRule::OneOverFocal => "By the school of one over the focal length.",
            HandheldRule::OneOverTwiceFocal => "By the school of one over twice the focal length.",
            HandheldRule::Stabilised => {
                "By the school of one over the focal length, slower by what stabilisation is good for."
            }
            HandheldRule::DenseSensor => "By the school that is stricter on dense sensors.",
        }),
        Asked::Spot { .. } => {
            Some("Skin lies where common practice puts it: pale +1, medium +⅓, dark −⅔; a palm +1, white +2⅓.")
        }
        Asked::HighSpeed { .. } => {
            Some("By the school that counts a fixed loss at the sync speed and a stop for each stop faster.")
        }
        _ => None,
    }
}
