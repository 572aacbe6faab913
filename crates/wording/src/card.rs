//! The field card: one sheet with everything that is needed on the set, as one self-contained HTML file. Printed it is a
//! page, black on white without large grey faces; on a phone it is read without a connection.

use std::fmt::Write as _;

use tolva_core::time::LocalTime;
use tolva_planner::day::JobDays;
use tolva_planner::refused::Refused;
use tolva_planner::setup::Setup;

use crate::document::Document;
use crate::plan::Plan;
use crate::present::plan;
use crate::run::{RunSheet, RunStep, run_sheet};
use crate::set::{DrawnAs, escaped, set_drawing};
use crate::shots::ShotSaid;
use crate::shown::Show;

/// What it is printed on.
#[derive(Clone, Copy, Debug, Default, PartialEq, Eq)]
pub enum Paper {
    /// 148 × 210 mm.
    #[default]
    A5,
    /// 210 × 297 mm.
    A4,
}

impl Paper {
    /// How large the letters are, in points; how many changes, shots and cautions there is room for.
    fn room(self) -> (f64, usize, usize, usize) {
        match self {
            Self::A5 => (7.6, 7, 7, 5),
            Self::A4 => (9.6, 12, 14, 8),
        }
    }

    /// Its CSS name, and how high what is printed on it is, in millimetres.
    fn size(self) -> (&'static str, u32) {
        match self {
            Self::A5 => ("A5", 194),
            Self::A4 => ("A4", 279),
        }
    }
}

/// The card of a setup. `job` is what the job is called, `place` where it is in words.
///
/// # Errors
/// A setup that is not there, or cannot be planned.
pub fn field_card(
    of: JobDays<'_>,
    (job, place): (&str, &str),
    setup_id: &str,
    show: Show,
    paper: Paper,
) -> Result<String, Refused> {
    let write = |setup: &Setup| Document::of(&setup.id);
    // A card is of the setup's own hour: what clocks show while it is made has no part in it.
    let sheet = run_sheet(of, setup_id, jiff::Timestamp::UNIX_EPOCH, show, &write)?;
    let setup = of.setups.iter().find(|setup| setup.id == setup_id);
    let setup = setup.ok_or_else(|| Refused::NoSuchSetup(setup_id.to_owned()))?;
    let plan = plan(setup, of.kit, show, &write)?;
    let card = Card { setup, sheet: &sheet, plan: &plan, paper };
    let drawing = set_drawing(setup, of.kit, show, DrawnAs::Part)?;
    let mut html = String::new();
    card.begin(&mut html, job, place);
    card.settings(&mut html);
    let _ = writeln!(html, "<div class=\"two\"><figure>{drawing}</figure><div>");
    card.light(&mut html);
    card.changes(&mut html);
    html.push_str("</div></div>\n");
    card.shots(&mut html);
    card.cautions(&mut html);
    html.push_str("<section class=\"room\"><h2>Notes</h2></section>\n</main></body></html>\n");
    Ok(html)
}

struct Card<'a> {
    setup: &'a Setup,
    sheet: &'a RunSheet,
    plan: &'a Plan,
    paper: Paper,
}

/// Where it is, in words: without what is said of it twice.
fn spot<'a>(setup: &'a Setup, place: &'a str) -> &'a str {
    let site = setup.scene.as_ref().map_or("", |scene| scene.site.name.as_str());
    if place.is_empty() { site } else { place }
}

impl Card<'_> {
    fn begin(&self, html: &mut String, job: &str, place: &str) {
        let (points, ..) = self.paper.room();
        let (page, high_mm) = self.paper.size();
        let name = escaped(&self.setup.name);
        let _ = write!(
            html,
            "<!doctype html>\n<html lang=\"en\"><head><meta charset=\"utf-8\"><meta name=\"viewport\" \
             content=\"width=device-width, initial-scale=1\"><title>{name}, {}</title>\n<style>\n{STYLE}\n@page {{ size: {page} \
             portrait; margin: 8mm; }}\n@media print {{ html {{ font-size: {points}pt; }} main {{ height: {high_mm}mm; }} \
             }}\n</style></head>\n<body><main>\n<header><h1>{name}</h1><p>{}",
            escaped(job),
            escaped(job),
        );
        let spot = spot(self.setup, place);
        if !spot.is_empty() {
            let _ = write!(html, " · {}", escaped(spot));
        }
        if let Some(LocalTime { date, time, .. }) = self.setup.scene.as_ref().map(|scene| &scene.at) {
            let _ = write!(html, " · {date}, {time}");
        }
        html.push_str("</p>");
        if let Some(slot) = &self.sheet.slot {
            let _ = write!(html, "<p>{}</p>", escaped(&slot.says));
        }
        html.push_str("</header>\n");
    }

    fn settings(&self, html: &mut String) {
        let RunSheet { stands, white_balance, filter, .. } = self.sheet;
        let _ = write!(
            html,
            "<section class=\"dials\" aria-label=\"What to set\"><b>{}</b><b>{}</b><b>{}</b><b>{}</b>",
            escaped(&stands.shutter),
            escaped(&stands.aperture),
            escaped(&stands.iso),
            escaped(white_balance)
        );
        if let Some(filter) = filter {
            let _ = write!(html, "<b>{}</b>", escaped(filter));
        }
        html.push_str("</section>\n");
        if !self.plan.dial_card.lights.is_empty() {
            html.push_str(
                "<table><thead><tr><th>Light</th><th>Power</th><th>Away</th><th>What</th><th>Aimed at</th></tr></thead><tbody>\n",
            );
            for light in &self.plan.dial_card.lights {
                let power = match (&light.power, light.continuous) {
                    (Some(power), _) => power.as_str(),
                    (None, true) => "burns on",
                    (None, false) => "off",
                };
                let gels = self.gels(&light.light_id);
                let _ = writeln!(
                    html,
                    "<tr><th>{}</th><td><b>{}</b></td><td>{}</td><td>{}, {}{gels}</td><td>{}</td></tr>",
                    escaped(&light.light_id),
                    escaped(power),
                    escaped(light.distance.as_deref().unwrap_or("—")),
                    escaped(&light.flash),
                    escaped(&light.modifier),
                    escaped(&light.aimed_at)
                );
            }
            html.push_str("</tbody></table>\n");
        }
        if !self.plan.possible {
            let _ = writeln!(html, "<p><b>{}</b></p>", escaped(&self.plan.says));
        }
    }

    fn gels(&self, light_id: &str) -> String {
        let light = self.setup.lights.iter().find(|light| light.id == light_id);
        let count = light.map_or(0, |light| light.gel_ids.len());
        match count {
            0 => String::new(),
            1 => ", 1 gel".to_owned(),
            more => format!(", {more} gels"),
        }
    }

    /// Each region: how bright, and how much of it is flash; then the sun.
    fn light(&self, html: &mut String) {
        html.push_str("<section><h2>Light</h2><ul>");
        for region in &self.plan.rail {
            let _ = write!(
                html,
                "<li>{}: {}, {} flash, {}</li>",
                escaped(&region.name),
                region.together.at.label,
                region.flash_share,
                escaped(&region.ev)
            );
        }
        if let Some(sun) = &self.plan.sun_report {
            let _ = write!(html, "<li>{}</li><li>{}</li>", escaped(&sun.says), escaped(&sun.side));
        }
        html.push_str("</ul></section>\n");
    }

    fn changes(&self, html: &mut String) {
        let (_, most, ..) = self.paper.room();
        let changes: Vec<&RunStep> = self.sheet.steps.iter().skip(1).filter(|step| !step.does.is_empty()).collect();
        if changes.is_empty() && self.sheet.last.is_none() {
            return;
        }
        html.push_str("<section><h2>As the light falls</h2><ul>");
        for step in changes.iter().take(most) {
            let _ = write!(html, "<li><b>{}</b> {}</li>", escaped(&step.clock), escaped(&step.does.join(", ")));
        }
        if changes.len() > most {
            let _ = write!(html, "<li>and {} more: see the timetable</li>", changes.len() - most);
        }
        if let Some(last) = &self.sheet.last {
            let _ = write!(html, "<li><b>{}</b> is the last usable minute</li>", escaped(&last.clock));
        }
        html.push_str("</ul></section>\n");
    }

    fn shots(&self, html: &mut String) {
        let (_, _, most, _) = self.paper.room();
        let shots: &[ShotSaid] = &self.sheet.shots.shots;
        if shots.is_empty() {
            return;
        }
        html.push_str("<section><h2>Shots</h2><ul class=\"ticks\">");
        for shot in shots.iter().take(most) {
            let who = if shot.who.is_empty() { String::new() } else { format!(", {}", shot.who) };
            let frames = if shot.frames == 1 { String::new() } else { format!(", {} frames", shot.frames) };
            let kind = if shot.kind == "Picture" { String::new() } else { format!(" ({})", shot.kind.to_lowercase()) };
            let _ = write!(html, "<li>{}{kind}{}{frames}</li>", escaped(&shot.name), escaped(&who));
        }
        if shots.len() > most {
            let _ = write!(html, "<li>and {} more</li>", shots.len() - most);
        }
        html.push_str("</ul></section>\n");
    }

    fn cautions(&self, html: &mut String) {
        let (_, _, _, most) = self.paper.room();
        // What can hurt somebody comes first.
        let hazards = self.sheet.hazards.iter().map(|note| (&note.heading, &note.says));
        let all: Vec<_> = hazards.chain(self.plan.cautions.iter().map(|one| (&one.heading, &one.says))).collect();
        if all.is_empty() {
            return;
        }
        html.push_str("<section><h2>Mind</h2><ul>");
        for (heading, says) in all.iter().take(most) {
            let _ = write!(html, "<li><b>{}.</b> {}</li>", escaped(heading), escaped(says));
        }
        html.push_str("</ul><p class=\"small\">Local rules and licensed practice come first.</p></section>\n");
    }
}

/// The same for paper and phone; sizes are in rem, so that paper sets them all at once.
const STYLE: &str = "\
html { font-size: 16px; color: #000; background: #fff; }
body { margin: 0; font: 1rem/1.3 system-ui, sans-serif; }
main { box-sizing: border-box; max-width: 60rem; margin: 0 auto; padding: 1rem; display: flex; flex-direction: column; gap: .6rem; }
header h1 { font-size: 1.6rem; margin: 0; line-height: 1.15; }
p, ul, figure { margin: 0; }
ul { padding-left: 1.1em; }
h2 { font-size: 1rem; margin: 0 0 .1rem; border-bottom: 1px solid #000; }
.dials { display: flex; flex-wrap: wrap; gap: .2rem 1.6rem; border: 2px solid #000; padding: .35rem .7rem; }
.dials b { font-size: 1.9rem; line-height: 1.2; font-variant-numeric: tabular-nums; white-space: nowrap; }
table { border-collapse: collapse; width: 100%; }
th, td { text-align: left; vertical-align: top; padding: .1rem .5rem .1rem 0; border-bottom: 1px solid #999; }
td b { font-size: 1.25rem; white-space: nowrap; }
td:nth-child(3) { white-space: nowrap; }
.two { display: grid; grid-template-columns: repeat(auto-fit, minmax(17rem, 1fr)); gap: .8rem; }
.two > div { display: flex; flex-direction: column; gap: .6rem; }
figure svg { width: 100%; height: auto; max-height: 22rem; border: 1px solid #999; box-sizing: border-box; }
.ticks { list-style: none; padding: 0; columns: 2; column-gap: 1.5rem; }
.ticks li::before { content: ''; display: inline-block; width: .8em; height: .8em; border: 1px solid #000; margin-right: .5em; vertical-align: -.05em; }
.small { font-size: .9em; }
.room { flex: 1 1 4rem; min-height: 4rem; }
@media (max-width: 40rem) { .ticks { columns: 1; } .dials b { font-size: 1.6rem; } }
@media print { main { padding: 0; gap: .4rem; max-width: none; } .two { grid-template-columns: 1fr 1fr; } figure svg { max-height: 19rem; } }";
