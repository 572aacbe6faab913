//! Plans as they are sent: worked examples, laws, and the answers to wishes that cannot be had.

mod brute_force;
mod cautions;
mod colour;
mod coming;
mod days;
mod dragging;
mod events;
mod every_plan;
mod falling;
mod fixed;
mod frames;
mod glass;
mod laws;
mod many;
mod run;
mod set;
mod sharp;
mod sun_report;
mod too_strong;
mod walkthroughs;
mod ways;
mod workings;

use proptest::prelude::*;
use rstest::rstest;

use tolva_core::ambient::Role;
use tolva_core::exposure::{Ambient, EvReading, Reading};
use tolva_format::{Problems, check};
use tolva_planner::colour::{ColourGrip, Colouring, NoLook, colour_to};
use tolva_planner::lighting::Prepared;
use tolva_planner::place::{Grip, Placing, place};
use tolva_planner::refused::Refused;
use tolva_planner::setup::{
    AutomaticConvention, Blend, Control, Depth, ExposureConvention, FallingOrder, FlashOutput, GuideNumberMetres, Kit,
    Light, LightWish, Preference, Setup, Spill, Sync,
};
use tolva_planner::shortfall::TOLERATED;
use tolva_wording::{
    Alternative, AlternativeKind, Alternatives, BalanceWay, Change, ColourOptions, ConventionMatter, Document, Fact,
    FallingStep, LengthUnit, Limit, Mark, MarkKind, OneLook, Plan, PowerNotation, RegionOnRail, Show, Timetable,
    falling as timetable,
};

/// A setup as a document, as the server writes it.
fn write(setup: &Setup) -> Document {
    Document::of(&tolva_format::Setup::from(setup.clone()))
}

/// A document read back.
trait Read {
    fn read(&self) -> Setup;
}

impl Read for Document {
    fn read(&self) -> Setup {
        serde_json::from_str::<tolva_format::Setup>(self.json()).expect("a setup").into()
    }
}

/// What is wrong with a setup and its kit as documents.
fn checked(setup: &Setup, kit: &Kit) -> Result<(), Problems> {
    check(&setup.clone().into(), &kit.clone().into())
}

/// The plan of a setup whose documents are good.
fn plan(setup: &Setup, kit: &Kit, show: Show) -> Result<Plan, Problems> {
    checked(setup, kit)?;
    Ok(tolva_wording::plan(setup, kit, show, &write).expect("what is checked can be planned"))
}

fn alternatives(setup: &Setup, kit: &Kit, show: Show) -> Result<Alternatives, Refused> {
    tolva_wording::alternatives(setup, kit, show, &write)
}

fn conventions_of(setup: &Setup, kit: &Kit, show: Show) -> Result<Vec<ConventionMatter>, Refused> {
    tolva_wording::conventions_of(setup, kit, show, &write)
}

fn colour_options(setup: &Setup, kit: &Kit, show: Show) -> Result<ColourOptions, Refused> {
    tolva_wording::colour_options(setup, kit, show, &write)
}

fn one_look(setups: &[Setup], kit: &Kit, of: &str) -> Result<OneLook, NoLook> {
    tolva_wording::one_look(setups, kit, of, &write)
}

/// The first slice's worked example: behind EV 13, lit side 11, shadow side 10, guide number 60, octagon at 1.5 m.
fn example() -> (Setup, Kit) {
    let kit = Kit::starter();
    let mut setup = Setup::new("example", &kit);
    read(&mut setup, [13.0, 11.0, 10.0]);
    (setup, kit)
}

fn read(setup: &mut Setup, evs: [f64; 3]) {
    for (region, ev100) in setup.regions.iter_mut().zip(evs) {
        region.ambient = Ambient::read(Reading::Ev(EvReading { ev100 }));
    }
}

/// What a line of an answer says; nothing where there is none.
fn says<'a>(facts: &'a [Fact], about: &str) -> &'a str {
    facts.iter().find(|fact| fact.about == about).map_or("", |fact| fact.says.as_str())
}

fn solved(setup: &Setup, kit: &Kit) -> Plan {
    plan(setup, kit, Show::default()).expect("a good setup")
}

fn settings(plan: &Plan) -> [&str; 3] {
    let card = &plan.dial_card;
    [&card.shutter.label, &card.aperture.label, &card.iso.label]
}

fn at(mark: &Mark) -> f64 {
    mark.at.stops.expect("some light")
}

fn limits(plan: &Plan) -> Vec<Limit> {
    plan.shortfalls.iter().map(|gap| gap.limit).collect()
}

/// The check values of the first slice, computed by hand from physics.md §3 to §5.
#[test]
fn the_worked_example() {
    let (setup, kit) = example();
    let plan = solved(&setup, &kit);
    assert!(plan.possible, "{}", plan.says);
    assert_eq!(settings(&plan), ["1/200", "f/9", "ISO 100"]);
    let [background, lit, shadow] = plan.rail.as_slice() else { panic!("three lanes") };
    assert!((at(&background.ambient) - -1.0).abs() < 1e-9);
    assert!((at(&lit.ambient) - -3.0).abs() < 1e-9);
    assert!((at(&shadow.ambient) - -4.0).abs() < 1e-9);
    let light = &plan.dial_card.lights[0];
    assert!((light.compensation.as_ref().and_then(|c| c.stops).expect("wanted") - -0.193).abs() < 0.0005);
    assert_eq!(light.near_field.as_deref(), Some("−0.12"));
    assert_eq!(light.power_exact.as_deref(), Some("−2.88"));
    assert_eq!(light.power.as_deref(), Some("1/8"));
    assert!((at(&lit.together) - -0.105).abs() < 0.0005);
}

/// physics.md §5: fill two stops under an ambient at 0 ends at +0.322; equal to it, at +1.
#[rstest]
#[case(-2.0, 0.322)]
#[case(0.0, 1.0)]
fn fill(#[case] fill_stops: f64, #[case] ends: f64) {
    let (mut setup, kit) = example();
    setup.blend = Blend::Fill { ambient_stops: 0.0, fill_stops };
    let plan = solved(&setup, &kit);
    let lit = &plan.rail[1];
    assert!(at(&lit.ambient).abs() < 1e-9);
    assert!((lit.wish.as_ref().and_then(|w| w.stops).expect("a wish") - ends).abs() < 0.0005);
    assert!((at(&lit.together) - ends).abs() < 1.0 / 6.0, "to within a sixth of a stop");
}

#[test]
fn half_and_half_is_a_stop_under_each() {
    let (mut setup, kit) = example();
    setup.blend = Blend::HalfAndHalf { subject_stops: 0.0 };
    let plan = solved(&setup, &kit);
    assert!((at(&plan.rail[1].ambient) - -1.0).abs() < 1e-9);
    assert!((at(&plan.rail[1].flashes[0].mark) - -1.0).abs() < 1.0 / 6.0 + 1e-9);
    assert_eq!(plan.dial_card.lights[0].compensation.as_ref().map(|c| c.label.as_str()), Some("−1"));
}

/// Common practice, no source: full sun and the subject's back to it, compensation 0; cloud or open shade, −2.
#[rstest]
#[case(0.0, "0")]
#[case(-2.0, "−2")]
fn compensation_of_automatic_flash(#[case] fill_stops: f64, #[case] label: &str) {
    let (mut setup, kit) = example();
    setup.blend = Blend::Fill { ambient_stops: 0.0, fill_stops };
    setup.lights[0].control = Control::Ttl;
    let plan = solved(&setup, &kit);
    assert_eq!(plan.dial_card.lights[0].compensation.as_ref().map(|c| c.label.as_str()), Some(label));
    assert!(plan.cautions.iter().any(|caution| caution.heading == "Clothes move it"));
}

#[rstest]
#[case::overpower(Blend::Overpower { subject_stops: 0.0, ambient_stops: -3.0 }, -3.0)]
#[case::ambient_only(Blend::AmbientOnly { subject_stops: 1.0 / 3.0 }, 1.0 / 3.0)]
fn the_ambient_is_placed(#[case] blend: Blend, #[case] ambient: f64) {
    let (mut setup, kit) = example();
    setup.blend = blend;
    let plan = solved(&setup, &kit);
    assert!((at(&plan.rail[1].ambient) - ambient).abs() < 1e-6, "{:?}", plan.rail[1]);
    assert_eq!(plan.dial_card.lights[0].power.is_some(), blend.uses_flash());
}

#[test]
fn a_silhouette_needs_three_stops() {
    let (mut setup, kit) = example();
    setup.blend = Blend::Silhouette { background_stops: 0.0 };
    let plan = solved(&setup, &kit);
    assert_eq!(limits(&plan), [Limit::NotASilhouette]);
    assert_eq!(plan.shortfalls[0].missing, "1 stop");
    read(&mut setup, [13.0, 10.0, 9.0]);
    assert!(solved(&setup, &kit).possible);
}

#[test]
fn what_is_fixed_stays_fixed() {
    let (mut setup, kit) = example();
    setup.fixed.iso = Some(400.0);
    setup.fixed.f_number = Some(11.0);
    setup.fixed.shutter_s = Some(1.0 / 200.0);
    let plan = solved(&setup, &kit);
    assert_eq!(settings(&plan), ["1/200", "f/11", "ISO 400"]);
    assert_eq!(limits(&plan), [Limit::CameraTooBright]);
    setup.fixed.shutter_s = None;
    let freer = solved(&setup, &kit);
    assert!(freer.fixes.iter().any(|r| r.closes && r.does.contains("3-stop filter")), "{:?}", freer.fixes);
    assert!(plan.fixes.iter().any(|r| r.closes && r.does == "Leave the ISO to Tolva"));
}

#[test]
fn fixed_power_leaves_the_distance_to_tolva() {
    let (mut setup, kit) = example();
    setup.lights[0].power_stops = Some(-4.0);
    setup.lights[0].distance_m = None;
    let plan = solved(&setup, &kit);
    assert!(plan.possible, "{}", plan.says);
    let light = &plan.dial_card.lights[0];
    assert_eq!(light.power.as_deref(), Some("1/16"));
    assert!(light.power_fixed && !light.distance_fixed);
    assert!((at(&plan.rail[1].together)).abs() < 0.02, "to the centimetre: {:?}", plan.rail[1]);
}

#[test]
fn with_nothing_fixed_the_light_stands_where_it_usually_does() {
    let (mut setup, kit) = example();
    setup.lights[0].distance_m = None;
    let plan = solved(&setup, &kit);
    assert_eq!(plan.dial_card.lights[0].distance.as_deref(), Some("1.35 m"));
    assert!(plan.possible);
}

/// With power and distance both fixed the flash decides aperture and ISO, and the shutter places the ambient.
#[test]
fn fixed_power_and_distance_move_the_camera() {
    let (mut setup, kit) = example();
    setup.lights[0].power_stops = Some(-2.0);
    let plan = solved(&setup, &kit);
    assert!(plan.possible, "{}", plan.says);
    assert_eq!(settings(&plan), ["1/100", "f/13", "ISO 100"]);
}

#[test]
fn indoors_the_iso_rises_only_when_the_shutter_is_at_its_floor() {
    let (mut setup, kit) = example();
    read(&mut setup, [5.0, 4.0, 3.0]);
    setup.speed.slowest_shutter_s = Some(1.0 / 60.0);
    setup.lights[0].flash_id = "small".to_owned();
    setup.lights[0].distance_m = Some(2.5);
    let plan = solved(&setup, &kit);
    assert!(plan.possible, "{}", plan.says);
    assert_eq!(settings(&plan), ["1/60", "f/2.8", "ISO 800"]);
}

/// Walk-through 8: noon, f/2.8, a big umbrella at 4 m, no filter. No, by how many stops, and the ways out.
#[test]
fn the_wish_that_cannot_be_had() {
    let (mut setup, kit) = example();
    read(&mut setup, [15.0, 14.0, 12.0]);
    setup.fixed.f_number = Some(2.8);
    setup.lights[0].modifier_id = Some("umbrella-white-100".to_owned());
    setup.lights[0].distance_m = Some(4.0);
    let plan = solved(&setup, &kit);
    assert!(!plan.possible);
    // The first sentence says what to change.
    let first = plan.fixes.iter().find(|r| r.closes).expect("a way");
    assert!(plan.says.starts_with(&format!("{}. Not as wished:", first.does)), "{}", plan.says);
    // EV 16 is wanted; 1/200 and f/2.8 at ISO 100 is 10⅔: 5⅓ over.
    assert_eq!(plan.shortfalls[0].limit, Limit::CameraTooBright);
    assert_eq!(plan.shortfalls[0].missing, "5⅓ stops");
    assert!(plan.fixes.iter().any(|r| r.does.contains("filter on the lens")));
    assert!(plan.fixes.iter().any(|r| r.does.contains("aperture")));
    // One step is not enough: the filter takes the flash away as well, so the light must come nearer too.
    let closing = plan.fixes.iter().find(|r| r.closes).expect("a way in two steps");
    assert!(closing.does.starts_with("Put the 6-stop") && closing.does.contains("and bring A to"), "{}", closing.does);
}

#[test]
fn a_weak_flash_is_told_what_would_do() {
    let (mut setup, kit) = example();
    read(&mut setup, [15.0, 12.0, 11.0]);
    setup.lights[0].flash_id = "small".to_owned();
    setup.lights[0].distance_m = Some(2.5);
    let plan = solved(&setup, &kit);
    assert_eq!(limits(&plan), [Limit::FlashTooWeak]);
    let does: Vec<&str> = plan.fixes.iter().map(|r| r.does.as_str()).collect();
    assert!(does.iter().any(|d| d.starts_with("Bring A to")), "{does:?}");
    assert!(does.contains(&"Use the large head, 600 Ws"), "{does:?}");
    assert!(does.iter().any(|d| d.contains("more power")), "{does:?}");
    assert_eq!(plan.dial_card.lights[0].power.as_deref(), Some("1/1"));

    // A unit of the guide number it names does close the gap.
    let named = plan.fixes.iter().find(|r| r.does.contains("more power")).expect("more power");
    let metres: f64 = named
        .says
        .split("number ")
        .nth(1)
        .and_then(|rest| rest.split(' ').next())
        .expect("a number")
        .parse()
        .expect("metres");
    let mut stronger = kit.clone();
    let output = GuideNumberMetres { guide_number_m: metres, holds_for: String::new() };
    stronger.flashes[0].output = FlashOutput::GuideNumberMetres(output);
    assert!(solved(&setup, &stronger).possible);
}

#[test]
fn a_strong_flash_goes_farther_away() {
    let (mut setup, kit) = example();
    read(&mut setup, [9.0, 8.0, 7.0]);
    setup.blend = Blend::Fill { ambient_stops: -1.0, fill_stops: -2.0 };
    setup.lights[0].flash_id = "small".to_owned();
    setup.lights[0].modifier_id = None;
    setup.lights[0].distance_m = Some(0.8);
    let plan = solved(&setup, &kit);
    assert_eq!(limits(&plan), [Limit::FlashTooStrong]);
    assert!(plan.fixes.iter().any(|r| r.closes && r.does.starts_with("Move A to")), "{:?}", plan.fixes);
}

#[test]
fn ambient_that_is_already_too_bright() {
    let (mut setup, kit) = example();
    read(&mut setup, [12.0, 14.0, 12.0]);
    let plan = solved(&setup, &kit);
    assert_eq!(limits(&plan), [Limit::AmbientTooBright]);
    assert_eq!(plan.shortfalls[0].missing, "1 stop");
    assert_eq!(plan.dial_card.lights[0].power, None);
    let shade = plan.fixes.iter().find(|r| r.setup.is_none()).expect("something outside Tolva");
    assert_eq!(shade.does, "Take 1 stop of ambient off the subject");
    // And that does it.
    read(&mut setup, [12.0, 13.0 - 1.0 / 6.0, 12.0]);
    assert!(solved(&setup, &kit).possible);
}

#[test]
fn a_shutter_over_the_sync_darkens_a_band() {
    let (mut setup, kit) = example();
    setup.fixed.shutter_s = Some(1.0 / 500.0);
    let plan = solved(&setup, &kit);
    assert_eq!(limits(&plan), [Limit::ShutterOverSync]);
    assert!(plan.shortfalls[0].says.contains("50 %"), "{}", plan.shortfalls[0].says);
    // What is fixed is kept where it can be, and let go last.
    let does: Vec<&str> = plan.fixes.iter().filter(|fix| fix.closes).map(|fix| fix.does.as_str()).collect();
    assert_eq!(does, ["Use high-speed sync", "Leave the shutter to Tolva"]);
    setup.fixed.shutter_s = Some(1.0 / 250.0);
    let near = solved(&setup, &kit);
    assert!(near.possible);
    assert!(near.cautions.iter().any(|caution| caution.heading == "Near the sync limit"));
}

#[test]
fn too_dark_for_the_kit() {
    let (mut setup, kit) = example();
    read(&mut setup, [3.0, 2.0, 1.0]);
    setup.blend = Blend::AmbientOnly { subject_stops: 0.0 };
    let plan = solved(&setup, &kit);
    assert_eq!(limits(&plan), [Limit::CameraTooDark]);
    assert!(plan.fixes.iter().any(|r| r.closes && r.does.contains("tripod")), "{:?}", plan.fixes);
    assert!(plan.fixes.iter().any(|r| r.does.starts_with("Accept ISO")));
}

#[test]
fn no_light_in_the_setup() {
    let (mut setup, kit) = example();
    setup.lights.clear();
    let plan = solved(&setup, &kit);
    assert_eq!(limits(&plan), [Limit::NoFlash]);
    assert!(plan.fixes.iter().any(|r| r.closes && r.does == "Add a flash"));
}

#[test]
fn shown_in_feet_and_stops() {
    let (setup, kit) = example();
    let show = Show { length: LengthUnit::FeetAndInches, power: PowerNotation::Stops };
    let light = &plan(&setup, &kit, show).expect("good").dial_card.lights[0];
    assert_eq!((light.distance.as_deref(), light.power.as_deref()), (Some("4 ft 11 in"), Some("−3")));
}

#[test]
fn workings_lead_from_the_reading_to_the_power() {
    let (setup, kit) = example();
    let gives: Vec<(String, String)> =
        solved(&setup, &kit).workings.into_iter().map(|line| (line.about, line.gives)).collect();
    for wanted in [
        ("Reading", "EV 13.00"),
        ("Camera", "EV 14.00"),
        ("Ambient", "−3.00"),
        ("Flash", "−0.19"),
        ("Flash", "−0.12"),
        ("Flash", "−2.88"),
        ("Flash", "1/8"),
        ("Together", "−0.11"),
    ] {
        assert!(
            gives.iter().any(|(about, gives)| (about.as_str(), gives.as_str()) == wanted),
            "{wanted:?} in {gives:?}"
        );
    }
}

#[test]
fn mixed_readings_are_named() {
    let (mut setup, kit) = example();
    setup.regions[0].ambient = Ambient::read(tolva_core::exposure::parse_reading("20000 lx").expect("lux"));
    setup.regions[1].ambient =
        Ambient::read(tolva_core::exposure::parse_reading("1/125 f/4 ISO 100").expect("a camera"));
    let plan = solved(&setup, &kit);
    assert!(plan.workings.iter().any(|line| line.says.starts_with("Mixed") && line.gives == "+0.20"));
}
