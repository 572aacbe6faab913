//! The arithmetic of a drill, line by line, from its own quantities.

use tolva_core::exposure::CameraSettings;
use tolva_core::optics::{blur_px, group_depth, magnification, shake_floor_s};
use tolva_core::scale::{Metres, Stops};
use tolva_planner::drills::{Asked, CameraDial, Drill, Misset, Moved, PictureScene, Value, Which};

use super::answers::{mired, misset, seconds};
use crate::shown::Show;
use crate::words::{lower_first, upper_first};

fn signed(stops: Stops) -> String {
    stops.as_given()
}

/// The lines.
pub(super) fn workings(drill: &Drill, show: Show) -> Vec<String> {
    let all = [of_exposure_and_distance, of_sums_and_powers, of_colour_and_optics, of_meters_and_flash, of_pictures];
    // Each knows its own: one of them answers.
    all.into_iter().find_map(|of| of(drill, show)).unwrap_or_default()
}

fn of_exposure_and_distance(drill: &Drill, show: Show) -> Option<Vec<String>> {
    Some(match &drill.asked {
        Asked::Equal { from, to, find } => equal(from, to, *find),
        Asked::Moves { moved, of } => moved.iter().map(|one| moves(one, *of)).collect(),
        Asked::Guide { guide_number_m, power, distance, aperture, iso, .. } => {
            let reach = guide_number_m * (iso.exact / 100.0).sqrt() * (power.0.0 / 2.0).exp2();
            vec![
                format!(
                    "Guide number × √(ISO/100) × √power = {guide_number_m:.0} × {:.2} × {:.3} = {reach:.1} m.",
                    (iso.exact / 100.0).sqrt(),
                    (power.0.0 / 2.0).exp2()
                ),
                format!("It is distance times f-number: {} and {}.", distance.label(show.metres()), aperture.label()),
            ]
        }
        Asked::Farther { from, to, .. } => {
            let (near, far) = (from.label(show.metres()), to.label(show.metres()));
            let change = Stops(2.0 * (from.0 / to.0).log2());
            vec![format!(
                "The square of {near} to {far} is {:.2}: {} stops.",
                (from.0 / to.0).powi(2),
                change.decimals()
            )]
        }
        _ => return None,
    })
}

fn of_sums_and_powers(drill: &Drill, show: Show) -> Option<Vec<String>> {
    Some(match &drill.asked {
        Asked::Together { lights } => {
            let each: Vec<String> = lights.iter().map(|one| format!("{:.2}", one.ratio())).collect();
            let sum: f64 = lights.iter().map(|one| one.ratio()).sum();
            vec![format!(
                "As light: {} = {sum:.2} of mid grey, {} stops.",
                each.join(" + "),
                Stops::of_ratio(sum).decimals()
            )]
        }
        Asked::Ratio { key, fill } => vec![
            format!(
                "The lit side has both: {:.2} + {:.2} = {:.2}.",
                key.ratio(),
                fill.ratio(),
                key.ratio() + fill.ratio()
            ),
            format!(
                "The shadow side has the fill: {:.2}. The ratio is {:.2}, {} stops.",
                fill.ratio(),
                key.and(*fill).ratio() / fill.ratio(),
                (key.and(*fill) - *fill).decimals()
            ),
        ],
        Asked::Missing { ambient, wish } => {
            let left = wish.ratio() - ambient.ratio();
            vec![format!(
                "As light: {:.2} wished less {:.2} there is {left:.2} of mid grey, {} stops.",
                wish.ratio(),
                ambient.ratio(),
                Stops::of_ratio(left).decimals()
            )]
        }
        Asked::PowerBy { from, by } => {
            vec![format!("{} and {} stops: each stop is half or twice.", from.label(show.power()), signed(*by))]
        }
        Asked::PowerBetween { from, to } => {
            vec![format!(
                "{} is {:.3} of full, {} is {:.3}: each halving is a stop.",
                from.label(show.power()),
                from.0.ratio(),
                to.label(show.power()),
                to.0.ratio()
            )]
        }
        _ => return None,
    })
}

fn of_colour_and_optics(drill: &Drill, show: Show) -> Option<Vec<String>> {
    Some(match &drill.asked {
        Asked::Gelled { light, by } => {
            let (before, after) = (light.mired().0, light.mired().0 + by.0);
            vec![format!(
                "10⁶ / {:.0} K = {before:.0} mired; {} makes {after:.0}; 10⁶ / {after:.0} = {:.0} K.",
                light.0,
                mired(*by),
                1e6 / after
            )]
        }
        Asked::Shift { from, to } => shift(from.0, to.0),
        Asked::WhichGel { from, to, gels } => {
            let wanted = 1e6 / to.0 - 1e6 / from.0;
            let mut lines = shift(from.0, to.0);
            lines.extend(
                gels.iter().map(|gel| format!("{}: {:.0} mired are left.", mired(*gel), (wanted - gel.0).abs())),
            );
            lines
        }
        Asked::Group { focal, nearest, farthest, circle } => {
            let found = group_depth(*focal, *nearest, *farthest, *circle);
            vec![
                format!(
                    "Both ends are just sharp at f/{:.1}, focused at {}.",
                    found.f_number,
                    found.focus.label(show.metres())
                ),
                "The next click that is small enough holds.".to_owned(),
            ]
        }
        Asked::ByHand { focal, school, stabilisation, sensor } => {
            let floor = shake_floor_s(*focal, *sensor, *school, stabilisation.0);
            let crop = if (sensor.crop() - 1.0).abs() > 0.02 {
                format!(" It counts as {:.0} mm on a full frame.", focal.0 * sensor.crop())
            } else {
                String::new()
            };
            vec![
                format!("The rule says {}.{crop}", one_over(floor)),
                "The slowest click that is quick enough. Common practice, no source.".to_owned(),
            ]
        }
        Asked::Frozen { movement, focal, distance, pixels, sensor } => {
            let size = magnification(*focal, *distance);
            let a_second = blur_px(*movement, 1.0, size, *sensor);
            vec![
                format!("{:.2} times as large on the sensor: {a_second:.0} pixels a second.", size),
                format!("{pixels:.0} pixels are done in {}.", one_over(pixels / a_second)),
            ]
        }
        _ => return None,
    })
}

fn of_meters_and_flash(drill: &Drill, _show: Show) -> Option<Vec<String>> {
    Some(match &drill.asked {
        Asked::Spot { on, says } => vec![
            format!("The meter makes what it looks at mid grey; that lies at {}.", signed(on.surface())),
            format!("So {} stops on the shutter, from {}.", signed(on.surface()), says.shutter.label()),
        ],
        Asked::Turned { pointed, by_deg, straight } => {
            let left = pointed.collects(*by_deg);
            vec![format!(
                "Of a lamp {by_deg:.0}° away it collects {left:.2}: {} stops from {}.",
                Stops::of_ratio(left).decimals(),
                straight.label()
            )]
        }
        Asked::FilterFor { sync, needs } => {
            vec![format!(
                "From {} to {}: {} stops.",
                needs.label(),
                sync.label(),
                (needs.position() - sync.position()).as_given().trim_start_matches('+')
            )]
        }
        Asked::HighSpeed { sync, shutter, fixed } => {
            let faster = shutter.position() - sync.position();
            vec![format!(
                "{} at the sync speed, and {} from {} to {}.",
                fixed.amount(),
                faster.amount(),
                sync.label(),
                shutter.label()
            )]
        }
        Asked::Bounced { bounce, subject } => {
            let found = bounce.at(*subject);
            vec![
                format!(
                    "What the patch gives back reaches the subject with {:.2} stops less than the head straight at it.",
                    found.loss.0
                ),
                format!("Seen from there the patch fills {:.0}°.", found.angle_deg),
            ]
        }
        Asked::Ready { full_s, power } => vec![format!(
            "A pop takes {:.3} of a full one, which comes back steadily: {} × {:.3} = {}.",
            power.0.ratio(),
            seconds(*full_s),
            power.0.ratio(),
            seconds(full_s * power.0.ratio())
        )],
        Asked::ReadyEvery { full_s, every_s } => vec![format!(
            "In {} comes back {:.2} of a full pop: {} stops under full, and the next click down.",
            seconds(*every_s),
            every_s / full_s,
            Stops::of_ratio(every_s / full_s).decimals()
        )],
        _ => return None,
    })
}

fn of_pictures(drill: &Drill, show: Show) -> Option<Vec<String>> {
    Some(match &drill.asked {
        Asked::Plate { .. } => vec![match drill.exact {
            Value::Turned(None) => {
                "Shutter, aperture, ISO and focal length agree, and the flash is as it should be.".to_owned()
            }
            _ => {
                "A plate has all of the picture but who and what is in it: otherwise the two do not fit on each other."
                    .to_owned()
            }
        }],
        Asked::Misset { scene, misset: wrong, .. } => {
            vec![
                came(scene, &[], "As it was wished"),
                came(scene, wrong, "As it came"),
                "The shutter moves the light that is there alone, the power the flash alone, the aperture both."
                    .to_owned(),
            ]
        }
        Asked::WhichPicture { scene, ways, .. } => {
            ways.iter().enumerate().map(|(at, way)| came(scene, way, &format!("Picture {}", at + 1))).collect()
        }
        Asked::Shows(before) | Asked::ShowsAt(before) => {
            let at = before.shows_at();
            vec![
                "A light is seen in a pane as if it stood as far behind it.".to_owned(),
                format!(
                    "The way from the lens to that image meets the pane {} of the way over: {}.",
                    part(before.lens.0 / (before.lens.0 + before.light.0)),
                    aside(at, show)
                ),
            ]
        }
        _ => return None,
    })
}

fn shift(from: f64, to: f64) -> Vec<String> {
    vec![
        format!(
            "10⁶ / {to:.0} − 10⁶ / {from:.0} = {:.0} − {:.0} = {:.0} mired.",
            1e6 / to,
            1e6 / from,
            1e6 / to - 1e6 / from
        )
        .replace("= -", "= −"),
    ]
}

/// Where the regions of a picture come out, in a line.
fn came(scene: &PictureScene, way: &[Misset], name: &str) -> String {
    let all = scene.comes_out(way).unwrap_or_default();
    let each: Vec<String> = all
        .iter()
        .zip(["behind", "lit side", "shadow side"])
        .map(|(at, name)| format!("{name} {}", at.thirds()))
        .collect();
    format!("{name} ({}): {}.", lower_first(&misset(way)), each.join(", "))
}

fn part(of: f64) -> String {
    format!("{:.0} %", of * 100.0)
}

fn aside(at: Metres, show: Show) -> String {
    let side = if at.0 < 0.0 { "to the left" } else { "to the right" };
    format!("{} {side}", Metres(at.0.abs()).label(show.metres()))
}

fn one_over(seconds: f64) -> String {
    if seconds < 0.3 { format!("1/{:.0} s", 1.0 / seconds) } else { format!("{seconds:.1} s") }
}

fn equal(from: &CameraSettings, to: &CameraSettings, find: CameraDial) -> Vec<String> {
    let mut lines = Vec::new();
    let mut sum = Stops::ZERO;
    let mut tell = |name: &str, from: String, to: String, more: Stops, is_asked: bool| {
        if !is_asked && more.0.abs() > 1e-6 {
            sum += more;
            lines.push(format!("{name} {from} to {to}: {} stops.", signed(more)));
        }
    };
    let (shutter, aperture, iso) = (
        from.shutter.position() - to.shutter.position(),
        from.aperture.position() - to.aperture.position(),
        to.iso.position() - from.iso.position(),
    );
    tell("Shutter", from.shutter.label(), to.shutter.label(), shutter, find == CameraDial::Shutter);
    tell("Aperture", from.aperture.label(), to.aperture.label(), aperture, find == CameraDial::Aperture);
    tell("Sensitivity", from.iso.label(), to.iso.label(), iso, find == CameraDial::Iso);
    let dial = match find {
        CameraDial::Shutter => "shutter",
        CameraDial::Aperture => "aperture",
        CameraDial::Iso => "ISO",
    };
    let (much, which) = (sum.amount(), if sum.0 < 0.0 { "more" } else { "less" });
    lines.push(format!("So the {dial} must give {much} {which}."));
    lines
}

fn moves(moved: &Moved, of: Which) -> String {
    let by = moved.of(of);
    let what = match moved {
        Moved::Shutter(..) => "The shutter moves the light that is there alone",
        Moved::Aperture(..) => "The aperture moves both",
        Moved::Iso(..) => "The sensitivity moves both",
        Moved::Power(..) => "The power moves the flash alone",
        Moved::Distance(..) => "The distance moves the flash alone, by its square",
        Moved::Filter(..) => "A filter on the lens moves both",
    };
    let light = if of == Which::Ambient { "the light that is there" } else { "the flash" };
    format!(
        "{}: {light} {} stops.",
        upper_first(&lower_first(what)),
        if by.0 == 0.0 { "0".to_owned() } else { signed(by) }
    )
}
