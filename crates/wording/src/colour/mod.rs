//! Colour in a plan, in words: the camera's balance, the lights on the colour line, what becomes of each region.

mod conventions;
mod look;
mod types;

pub use conventions::{BalanceWay, ColourOptions, GelOffer, colour_options};
pub use look::{LookLine, OneLook, one_look};
pub use types::{BalanceSaid, ColourMark, ColourPlan, GelStep, MarkKind, RegionColour, StripGrey, Swatch};

use std::sync::LazyLock;

use tolva_core::colour::{BalanceReason, Balanced, Illuminant, Kelvin, LinearRgb, Mired, WhiteBalance, Xyz, white};
use tolva_core::scale::signed;
use tolva_planner::colour::{Balance, Colours, InColour, Mix, OnDial, PartKind};
use tolva_planner::lighting::Prepared;
use tolva_planner::setup::Gel;
use tolva_planner::solver::Outcome;

use crate::casts::{cast_words, light_words, tint_words};
use crate::names::Named;
use crate::shown::Fact;

/// A balance that is so far from the half way in kelvin is told (chosen).
const TOLD_MIRED: f64 = 10.0;

/// The colour of a plan.
pub(crate) fn colour_plan(setup: &Prepared<'_>, outcome: &Outcome, in_colour: &InColour) -> ColourPlan {
    let InColour { colours, balance } = in_colour;
    ColourPlan {
        balance: balance_said(setup, outcome, colours, balance),
        marks: marks(setup, colours),
        strip: strip(&balance.renders),
        regions: regions(setup, colours, balance),
        automatic: automatic(setup, colours),
    }
}

/// What stands on the camera for white: `5600 K`, `Shade`, `Measured`.
pub(crate) fn balance_label(balance: &Balance) -> String {
    match balance.on_dial {
        OnDial::Measured => "Measured".to_owned(),
        OnDial::Preset(preset) => preset.name().to_owned(),
        OnDial::Kelvin(kelvin) => kelvin.label(),
    }
}

fn swatch(name: &str, rgb: LinearRgb) -> Swatch {
    let painted = rgb.painted();
    Swatch { name: name.to_owned(), hex: painted.hex, shown_true: painted.shown_true }
}

/// What a convention of white balance is called.
pub(crate) fn convention_name(balance: WhiteBalance) -> &'static str {
    match balance {
        WhiteBalance::Flash => "The flash’s",
        WhiteBalance::Ambient => "The ambient’s, flash gelled to it",
        WhiteBalance::Between => "Between the two",
        WhiteBalance::Measured => "Measured with a target",
        WhiteBalance::Preset(_) => "A name on the menu",
        WhiteBalance::Kelvin { reason, .. } => reason.name(),
    }
}

/// What it does to the picture, in a sentence.
pub(crate) fn meaning_of(balance: WhiteBalance) -> &'static str {
    match balance {
        WhiteBalance::Flash => "What the flash lights is neutral; the ambient goes its own way.",
        WhiteBalance::Ambient => {
            "One colour of light everywhere: what lies behind is neutral too. The gel costs power."
        }
        WhiteBalance::Between => "Neither is neutral, neither is far off: half way in mired.",
        WhiteBalance::Measured => {
            "A grey or white target in the subject’s place: whatever falls there is neutral, tint too."
        }
        WhiteBalance::Preset(_) => "Quick, and the same tomorrow: makers differ a little.",
        WhiteBalance::Kelvin { reason: BalanceReason::ByHand, .. } => "Your own number.",
        WhiteBalance::Kelvin { reason: BalanceReason::Fixed, .. } => {
            "The same all day outdoors: the light’s changes stay in the picture."
        }
        WhiteBalance::Kelvin { reason: BalanceReason::Warm, .. } => "A shade setting against a sunset makes it glow.",
        WhiteBalance::Kelvin { reason: BalanceReason::Cool, .. } => {
            "Hard sunset light turns skin orange: 3500 to 4000 K saves it."
        }
        WhiteBalance::Kelvin { reason: BalanceReason::Night, .. } => {
            "Night with white lamps: 6000 to 7000 K keeps them from going blue."
        }
        WhiteBalance::Kelvin { reason: BalanceReason::Look, .. } => "Held over several setups.",
    }
}

fn balance_said(setup: &Prepared<'_>, outcome: &Outcome, colours: &Colours, balance: &Balance) -> BalanceSaid {
    let wished = setup.setup.white_balance;
    let by_kelvin = match (wished, outcome.key(setup)) {
        (WhiteBalance::Between, Some(key)) => {
            let (a, b) = (colours.flashes[key.0], colours.ambient_on(setup.lit));
            let halved = Kelvin(f64::midpoint(a.kelvin().0, b.kelvin().0));
            let off = halved.mired().0 - balance.exact.mired().0;
            (off.abs() > TOLD_MIRED).then(|| {
                format!(
                    "Half way in kelvin is {}: {} from half way to the eye, which is {}.",
                    halved.label(),
                    mired_label(off),
                    balance.exact.kelvin().label()
                )
            })
        }
        _ => None,
    };
    BalanceSaid {
        label: balance_label(balance),
        kelvin_label: balance.dial.kelvin().label(),
        kelvin_number: format!("{:.0}", balance.dial.kelvin().0),
        tint_number: tint_number(balance.dial.tint_duv()),
        kelvin: balance.dial.kelvin().0,
        mired: balance.dial.mired().0,
        tint_duv: balance.dial.tint_duv(),
        convention: convention_name(wished).to_owned(),
        says: meaning_of(wished).to_owned(),
        by_kelvin,
    }
}

/// A tint as it is typed, to a ten thousandth.
fn tint_number(duv: f64) -> String {
    let text = format!("{duv:.4}");
    let text = text.trim_end_matches('0').trim_end_matches('.').replace('-', "−");
    if text == "−0" { "0".to_owned() } else { text }
}

/// The colour line runs from here to here, in mired: 14 000 to 1900 K.
const LINE: std::ops::RangeInclusive<f64> = 70.0..=526.0;
/// From one grey of the strip to the next: between them it is drawn evenly.
const LINE_STEP: f64 = 24.0;
/// The grey of the strip: light enough to show its colour.
const STRIP_GREY: f64 = 0.42;

/// The lights along the line, each with the grey under it: always the same.
static STRIP: LazyLock<Vec<(f64, Xyz)>> = LazyLock::new(|| {
    std::iter::successors(Some(*LINE.start()), |mired| Some(mired + LINE_STEP).filter(|mired| LINE.contains(mired)))
        .map(|mired| (mired, white(Mired(mired).kelvin()).xyz().times(STRIP_GREY)))
        .collect()
});

fn strip(renders: &Balanced) -> Vec<StripGrey> {
    STRIP.iter().map(|(mired, grey)| StripGrey { mired: *mired, hex: renders.renders(*grey).painted().hex }).collect()
}

/// `+34 mired`.
pub(crate) fn mired_label(mired: f64) -> String {
    format!("{} mired", signed(mired, 0))
}

fn mark(id: &str, kind: MarkKind, name: String, source: String, light: Illuminant) -> ColourMark {
    ColourMark {
        id: id.to_owned(),
        kind,
        name,
        source,
        label: light.kelvin().label(),
        mired: light.mired().0,
        tint_duv: light.tint_duv(),
        tint: tint_words(light.tint_duv()),
        native_mired: None,
        steps: Vec::new(),
    }
}

fn marks(setup: &Prepared<'_>, colours: &Colours) -> Vec<ColourMark> {
    let regions = setup.setup.regions.iter().zip(&colours.ambient);
    let ambient = regions.map(|(region, &light)| {
        let source = source(setup, &region.ambient);
        mark(&region.id, MarkKind::Ambient, region.name.clone(), source, light)
    });
    let lamps = setup.lamps.iter().zip(&colours.lamps).map(|(lamp, &light)| {
        let id = &setup.setup.lights[lamp.index].id;
        let name = format!("{id}, {}", lamp.flash.name);
        gelled(mark(id, MarkKind::Lamp, name, gel_names(&lamp.gels), light), lamp.bounced_native(), &lamp.gels)
    });
    let flashes = setup.lights.iter().zip(colours.flashes.iter().zip(&colours.flashes_bare));
    let flashes = flashes.map(|(of, (&light, &bare))| {
        let id = &of.light.id;
        let name = format!("{id}, {}", of.flash.name);
        gelled(mark(id, MarkKind::Flash, name, gel_names(&of.gels), light), bare, &of.gels)
    });
    ambient.chain(lamps).chain(flashes).collect()
}

fn gel_names(gels: &[&Gel]) -> String {
    if gels.is_empty() {
        return "no gel".to_owned();
    }
    gels.iter().map(|gel| gel.name.as_str()).collect::<Vec<_>>().join(" and ")
}

/// The steps of the gels between where a light is and where it was.
fn gelled(mut mark: ColourMark, native: Illuminant, gels: &[&Gel]) -> ColourMark {
    if gels.is_empty() {
        return mark;
    }
    mark.native_mired = Some(native.mired().0);
    let mut light = native;
    for gel in gels {
        light = light.shifted(gel.shift());
        mark.steps.push(GelStep {
            name: gel.name.clone(),
            mired: light.mired().0,
            shift: mired_label(gel.shift_mired),
        });
    }
    mark
}

/// What an ambient colour rests on.
fn source(setup: &Prepared<'_>, ambient: &tolva_core::exposure::Ambient) -> String {
    use tolva_core::colour::StatedColour;
    let from = match ambient.colour {
        StatedColour::FromPlace => match &setup.scene {
            Some(scene) if scene.light.is_daylight() => "estimate from sun and sky",
            Some(_) => "typical of these lamps",
            None => "midday sun, until it is said",
        },
        StatedColour::Named(_) => "typical",
        StatedColour::Kelvin { .. } => "by hand",
        StatedColour::Meter { .. } => "read by a colour meter",
        StatedColour::GreyPatch { .. } => "read off a grey patch",
    };
    if ambient.film_ids.is_empty() { from.to_owned() } else { format!("{from}, through film") }
}

/// What becomes of each region under a balance.
pub(crate) fn regions(setup: &Prepared<'_>, colours: &Colours, balance: &Balance) -> Vec<RegionColour> {
    let regions = setup.setup.regions.iter().zip(&colours.mixes);
    regions
        .map(|(region, mix)| {
            let cast_mired = mix.light.mired().0 - balance.dial.mired().0;
            let cast_duv = mix.light.tint_duv() - balance.dial.tint_duv();
            let off_grey_uv = balance.renders.off_grey(mix.light.xy());
            RegionColour {
                region_id: region.id.clone(),
                name: region.name.clone(),
                light: light_words(mix.light),
                shares: shares(setup, mix),
                words: cast_words(cast_mired, cast_duv),
                cast: mired_label(cast_mired),
                cast_mired,
                cast_duv,
                off_grey: format!("{off_grey_uv:.3}"),
                off_grey_uv,
                swatches: mix
                    .samples()
                    .map(|(sample, xyz)| swatch(sample.name(), balance.renders.renders(xyz)))
                    .collect(),
            }
        })
        .collect()
}

/// Whose light a mix is: `flash A 75 %, ambient 25 %`, the most first.
fn shares(setup: &Prepared<'_>, mix: &Mix) -> String {
    let mut parts: Vec<_> = mix.parts.iter().filter(|part| part.share >= 0.005).collect();
    parts.sort_by(|a, b| b.share.total_cmp(&a.share));
    let said = parts.iter().map(|part| {
        let whose = match part.kind {
            PartKind::Ambient => "ambient".to_owned(),
            PartKind::Lamp(index) => format!("lamp {}", setup.setup.lights[index].id),
            PartKind::Flash(index) => format!("flash {}", setup.lights[index].light.id),
        };
        format!("{whose} {:.0} %", part.share * 100.0)
    });
    said.collect::<Vec<_>>().join(", ")
}

/// Backgrounds that fill half of the frame, by red, green and blue of what they give back (chosen).
const BACKGROUNDS: [(&str, &str, [f64; 3]); 2] = [
    ("green_behind", "Dark green behind", [0.03, 0.08, 0.02]),
    ("orange_behind", "Bright orange behind", [0.75, 0.30, 0.05]),
];

/// What an automatic balance that wants the mean of the frame grey would have done to the face. A demonstration: cameras
/// are cleverer, and none says how.
fn automatic(setup: &Prepared<'_>, colours: &Colours) -> Vec<Fact> {
    let face = &colours.mixes[setup.lit];
    let mut all = Vec::new();
    let mut casts = Vec::new();
    for (code, name, rgb) in BACKGROUNDS {
        let mean = rgb.map(|one| f64::midpoint(one, 0.18));
        let says = match Illuminant::of_xy(face.light.of_surface(mean).xy()) {
            Some(taken) => {
                let (mired, duv) = (face.light.mired().0 - taken.mired().0, face.light.tint_duv() - taken.tint_duv());
                casts.push(mired);
                format!("it takes {} for white: the face comes out {}", light_words(taken), cast_words(mired, duv))
            }
            None => "no white light is so coloured: it gives up".to_owned(),
        };
        all.push(Fact::new(code, name, says));
    }
    if let [a, b] = casts.as_slice() {
        let apart = format!("{:.0} mired from one background to the other, in the same light", (a - b).abs());
        all.push(Fact::new("apart", "Apart", apart));
    }
    all
}
