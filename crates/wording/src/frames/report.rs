//! A frame against its plan.

use tolva_core::exposure::{CameraSettings, MeteringMethod};
use tolva_core::scale::Stops;
use tolva_planner::frames::{Came, OffBy, off_by};
use tolva_planner::lighting::Prepared;
use tolva_planner::refused::Refused;
use tolva_planner::setup::{Kit, Setup};
use tolva_planner::solver::Outcome;

use super::fired;
use super::types::{CameOf, FrameRegion, FrameReport, MarkMeasured, SurfaceSaid};
use crate::words::in_a_row;

/// So little off is as planned: a third of a click of the dials.
const AS_PLANNED: f64 = 0.12;

/// What of each region came, by its mark; nothing where it has none, or cannot be told.
pub(super) fn came(setup: &Setup, marks: &[MarkMeasured]) -> Vec<Option<Came>> {
    let mut all = vec![None; setup.regions.len()];
    for mark in marks {
        if let Some(one) = all.get_mut(mark.region) {
            *one = Came::of(&mark.measured, mark.surface);
        }
    }
    all
}

/// A frame against the plan of the setup as it stood then.
///
/// # Errors
/// A setup that refers to what is no longer there.
pub fn frame_report(setup: &Setup, kit: &Kit, of: CameOf<'_>) -> Result<FrameReport, Refused> {
    let prepared = Prepared::new(setup, kit)?;
    let all = came(setup, of.marks);
    let offs = of.settings.map(|settings| off_by(&prepared, &fired(Outcome::of(&prepared), of.flash), settings, &all));
    let regions: Vec<FrameRegion> = (setup.regions.iter().enumerate())
        .map(|(index, region)| {
            let mark = of.marks.iter().find(|mark| mark.region == index);
            let off = offs.as_ref().map(|all| &all[index]);
            described(region.id.clone(), region.name.clone(), mark, off)
        })
        .collect();
    let told = setup.regions.iter().enumerate().map(|(index, region)| {
        let off = offs.as_ref().and_then(|all| all[index].off);
        (region.name.as_str(), off)
    });
    let teaches = of.settings.is_some() && all.iter().any(Option::is_some);
    Ok(FrameReport {
        says: frame_says(of.settings.is_some(), told),
        settings: frame_settings(of.settings, of.flash),
        lacking: lacking(of),
        notes: notes(setup, of),
        regions,
        teaches,
        surfaces: surfaces(),
    })
}

fn described(region_id: String, name: String, mark: Option<&MarkMeasured>, off: Option<&OffBy>) -> FrameRegion {
    let measured = mark.map(|mark| mark.measured);
    let says = match (measured, off.and_then(|off| off.off)) {
        (None, _) => "not marked".to_owned(),
        (Some(measured), _) if measured.is_clipped() => "clipped: too bright to tell how bright".to_owned(),
        (Some(measured), _) if measured.is_dark() => "too dark to tell how dark".to_owned(),
        (Some(_), None) => "measured; what it was to be needs the settings".to_owned(),
        (Some(_), Some(off)) => off_in_words(off),
    };
    let ratios = measured.and_then(|one| Some((one.red_over_green()?, one.blue_over_green()?)));
    let came = mark.and_then(|mark| Came::of(&mark.measured, mark.surface));
    FrameRegion {
        region_id,
        name,
        planned: off.map(|off| off.planned.into()),
        came: came.map(|came| came.stops.into()),
        off: off.and_then(|off| off.off).map(Into::into),
        expected: off.map(|off| format!("±{:.2}", off.expected.0)),
        expected_stops: off.map(|off| off.expected.0),
        says,
        shows: measured.and_then(|one| one.stops()).map(Into::into),
        clipped_percent: measured.map(|one| one.clipped * 100.0),
        balance: ratios.map(|(red, blue)| format!("red {red:.2}, blue {blue:.2} of green")),
    }
}

fn off_in_words(off: Stops) -> String {
    if off.0.abs() <= AS_PLANNED {
        return "as planned".to_owned();
    }
    let much = Stops(off.0.abs()).thirds();
    let much = if much == "0" { format!("{:.1}", off.0.abs()) } else { much.trim_start_matches('+').to_owned() };
    let which = if off.0 > 0.0 { "brighter" } else { "darker" };
    format!("{much} {which} than planned")
}

/// What came against the plan, in a sentence: each region by its name with how much brighter it came. Regions that cannot be
/// told are left out.
pub fn frame_says<'a>(settings_known: bool, regions: impl IntoIterator<Item = (&'a str, Option<Stops>)>) -> String {
    if !settings_known {
        return "What it was taken with is not known yet.".to_owned();
    }
    let told = regions.into_iter().filter_map(|(name, off)| off.map(|off| format!("{name} {}", off_in_words(off))));
    match in_a_row(told) {
        nothing if nothing.is_empty() => "Nothing can be told yet: mark where the regions are.".to_owned(),
        told => format!("{told}."),
    }
}

/// What a frame was taken with, in a line: `1/125 s · f/4 · ISO 100 · flash`.
pub fn frame_settings(settings: Option<CameraSettings>, flash: Option<bool>) -> String {
    let mut line = Vec::new();
    if let Some(CameraSettings { shutter, aperture, iso }) = settings {
        let shutter = shutter.label();
        let seconds = if shutter.ends_with('s') { "" } else { " s" };
        line.extend([format!("{shutter}{seconds}"), aperture.label(), iso.label()]);
    }
    line.extend(flash.map(|fired| if fired { "flash" } else { "no flash" }.to_owned()));
    line.join(" · ")
}

fn lacking(of: CameOf<'_>) -> Vec<&'static str> {
    let mut all = Vec::new();
    if of.settings.is_none() {
        all.push("settings");
    }
    if of.flash.is_none() {
        all.push("flash");
    }
    all
}

/// What may lie under a mark: the surfaces a spot meter is pointed at.
fn surfaces() -> Vec<SurfaceSaid> {
    [
        ("grey", "A grey card", MeteringMethod::SpotGrey),
        ("white", "White cloth or paper", MeteringMethod::SpotWhite),
        ("pale", "Pale skin", MeteringMethod::SpotSkinPale),
        ("medium", "Medium skin", MeteringMethod::SpotSkinMedium),
        ("dark", "Dark skin", MeteringMethod::SpotSkinDark),
    ]
    .into_iter()
    .map(|(code, name, method)| SurfaceSaid { code, name, stops: method.surface().0 })
    .collect()
}

/// What one frame cannot tell.
fn notes(setup: &Setup, of: CameOf<'_>) -> Vec<String> {
    let mut all = Vec::new();
    let name = |mark: &MarkMeasured| setup.regions[mark.region].name.clone();
    let named =
        |is: fn(&MarkMeasured) -> bool| -> Vec<String> { of.marks.iter().filter(|mark| is(mark)).map(name).collect() };
    let clipped = named(|mark| mark.measured.is_clipped());
    if !clipped.is_empty() {
        let names = clipped.join(", ");
        all.push(format!("{names}: clipped. Take a frame a stop or two darker, and it can be told by how much."));
    }
    let dark = named(|mark| !mark.measured.is_clipped() && mark.measured.is_dark());
    if !dark.is_empty() {
        let names = dark.join(", ");
        all.push(format!("{names}: too dark to tell. Take a frame two stops brighter, or leave it."));
    }
    // An even patch is one thing; a patch of two things is the mean of neither.
    let uneven = named(|mark| mark.measured.varies > 0.6 && !mark.measured.is_clipped());
    if !uneven.is_empty() {
        all.push(format!("{}: uneven. Put the mark onto one surface.", uneven.join(", ")));
    }
    if of.flash == Some(false) {
        all.push("Taken without flash: it tells of the light that is there, and nothing of the flash.".to_owned());
    }
    if of.flash.is_none() && of.settings.is_some() {
        all.push("Its file does not say whether the flash fired: it is taken to have.".to_owned());
    }
    all
}
