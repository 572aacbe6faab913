//! Answers as they are said.

use tolva_core::colour::Mired;
use tolva_core::scale::{Metres, Stops};
use tolva_planner::drills::{Asked, Drill, MIRED_A_STOP, Misset, PictureDial, Value};
use tolva_planner::shots::Kept;

use crate::shown::Show;
use crate::words::upper_first;

/// So many mired, with their sign.
pub(super) fn mired(of: Mired) -> String {
    let sign = if of.0 < -0.5 { "−" } else { "+" };
    format!("{sign}{:.0} mired", of.0.abs())
}

/// So many stops, in figures: `+1⅓`, `0`.
pub(super) fn stops(of: Stops) -> String {
    of.thirds()
}

/// So many in half stops, without a sign: `2½ stops`.
pub(super) fn halves(of: Stops) -> String {
    let (whole, half) = (of.0.trunc(), of.0.fract().abs() > 0.25);
    match (whole == 0.0, half) {
        (true, true) => "½ stop".to_owned(),
        (_, true) => format!("{whole:.0}½ stops"),
        (_, false) if (whole - 1.0).abs() < 1e-9 => "1 stop".to_owned(),
        (_, false) => format!("{whole:.0} stops"),
    }
}

/// A time as it is counted: `0.4 s`, `3 s`.
pub(super) fn seconds(of: f64) -> String {
    if of < 0.995 { format!("{of:.2} s") } else { format!("{of:.1} s").replace(".0 s", " s") }
}

fn aside(at: Metres, show: Show) -> String {
    match at.0 {
        at if at.abs() < 0.01 => "straight before the lens".to_owned(),
        at if at < 0.0 => format!("{} to the left", Metres(-at).label(show.metres())),
        _ => format!("{} to the right", at.label(show.metres())),
    }
}

/// An answer by itself.
pub(super) fn label(value: &Value, asked: &Asked, show: Show) -> String {
    match value {
        Value::Shutter(one) => one.label(),
        Value::Aperture(one) => one.label(),
        Value::Iso(one) => one.label(),
        Value::Power(one) => one.label(show.power()),
        Value::Stops(one) => match asked {
            Asked::Bounced { .. } => halves(*one),
            Asked::FilterFor { .. } | Asked::HighSpeed { .. } => one.amount(),
            _ => stops(*one),
        },
        Value::Metres(one) => one.label(show.metres()),
        Value::Aside(one) => aside(*one, show),
        Value::Kelvin(one) => one.label(),
        Value::Mired(one) => mired(*one),
        Value::Seconds(one) => seconds(*one),
        Value::Gel(at) => match asked {
            Asked::WhichGel { gels, .. } => gels.get(*at).map_or_else(String::new, |gel| mired(*gel)),
            _ => String::new(),
        },
        Value::Turned(what) => upper_first(match what {
            None => "nothing: it is as the picture",
            Some(Kept::Shutter) => "the shutter",
            Some(Kept::Aperture) => "the aperture",
            Some(Kept::Iso) => "the ISO",
            Some(Kept::FocalLength) => "the focal length",
            Some(Kept::Flash) => "the flash",
            Some(Kept::Size) => "the size",
        }),
        Value::Way(at) => match asked {
            Asked::Misset { ways, .. } => ways.get(*at).map_or_else(String::new, |way| misset(way)),
            _ => format!("Picture {}", at + 1),
        },
        Value::Yes(true) => "Yes".to_owned(),
        Value::Yes(false) => "No".to_owned(),
    }
}

/// What stands wrong: `Shutter 2 stops too slow`.
pub(super) fn misset(way: &[Misset]) -> String {
    let one = |one: &Misset| {
        let (dial, bright, dark) = match one.dial {
            PictureDial::Shutter => ("shutter", "slow", "fast"),
            PictureDial::Power => ("flash", "strong", "weak"),
            PictureDial::Aperture => ("aperture", "wide", "small"),
        };
        format!("{dial} {} too {}", one.by.amount(), if one.by.0 > 0.0 { bright } else { dark })
    };
    match way {
        [] => "As it was wished".to_owned(),
        some => upper_first(&some.iter().map(one).collect::<Vec<_>>().join(", ")),
    }
}

/// An answer judged, in a sentence.
pub(super) fn says(drill: &Drill, answer: usize, show: Show) -> String {
    let right = label(&drill.offered[drill.right], &drill.asked, show);
    if drill.is_right(answer) {
        return format!("{right}: right.");
    }
    let off = drill.off(answer).map(|off| by_how_much(&drill.exact, off));
    match off {
        Some(off) => format!("{right}. Yours was {off}."),
        None => format!("{right}."),
    }
}

fn by_how_much(exact: &Value, off: Stops) -> String {
    let (more, less) = match exact {
        Value::Metres(_) => ("too far: the flash would be darker by", "too near: the flash would be brighter by"),
        Value::Seconds(_) => ("too long by", "too short by"),
        Value::Kelvin(_) | Value::Mired(_) => ("too warm by a shift of", "too cool by a shift of"),
        Value::Shutter(_) | Value::Aperture(_) | Value::Iso(_) | Value::Power(_) => ("too bright by", "too dark by"),
        _ => ("too much by", "too little by"),
    };
    let word = if off.0 > 0.0 { more } else { less };
    match exact {
        // They were made stops of, and are said as mired again.
        Value::Kelvin(_) | Value::Mired(_) => format!("{word} {:.0} mired", off.0.abs() * MIRED_A_STOP),
        _ => format!("{word} {}", Stops(off.0.abs()).amount()),
    }
}
