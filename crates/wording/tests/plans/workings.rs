//! The arithmetic that a plan shows is done again, from its own words, by an expression evaluator from the registry.

use std::fmt::Write as _;

use super::every_plan::any_setup;
use super::*;

/// An expression of the workings as the evaluator reads it; nothing where it is words.
fn sum(written: &str) -> Option<f64> {
    let plain = [("−", "-"), ("·", "*"), ("log₂", "log2"), ("²", "^2"), (" s)", ")"), (" of filter and extension", "")];
    let plain = plain.into_iter().chain([(" of filter", ""), (" of high speed", ""), (" of its tail", "")]);
    let text = plain.fold(written.to_owned(), |text, (from, to)| text.replace(from, to));
    // A signed exponent stands in brackets for the evaluator: 2^-1.20 is 2^(-1.20).
    let mut bracketed = String::new();
    let mut rest = text.as_str();
    while let Some((before, after)) = rest.split_once('^') {
        let long = after.find(|c: char| !(c.is_ascii_digit() || "+-.".contains(c))).unwrap_or(after.len());
        let _ = write!(bracketed, "{before}^({})", &after[..long]);
        rest = &after[long..];
    }
    exmex::eval_str::<f64>(&(bracketed + rest)).ok()
}

/// What a line says comes out: `−1.32`, `EV 14.00`.
fn comes_out(gives: &str) -> Option<f64> {
    gives.trim_start_matches("EV ").replace('−', "-").parse().ok()
}

#[rstest]
#[case("13.00 − (−1.00)", Some(14.0))]
#[case("log₂(2^−1.00 + 2^−1.00)", Some(0.0))]
#[case("log₂(8.00² / (1/64.0 s)) − log₂(200 / 100) + 3.00 of filter", Some(14.0))]
#[case("−0.19 −0.02", Some(-0.21))]
#[case("2·log₂(60.0 / 1.50)", Some(10.643_856))]
#[case("form factor", None)]
#[case("no flash here", None)]
fn sums_are_read(#[case] written: &str, #[case] is: Option<f64>) {
    match (sum(written), is) {
        (Some(found), Some(wanted)) => assert!((found - wanted).abs() < 1e-6, "{written}: {found}"),
        (found, wanted) => assert_eq!(found, wanted, "{written}"),
    }
}

/// The lines that could be worked out again, and those that come to something else.
fn again(plan: &Plan) -> (usize, Vec<String>) {
    let mut done = 0;
    let mut wrong = Vec::new();
    for line in &plan.workings {
        let (Some(here), Some(said)) = (sum(&line.sum), comes_out(&line.gives)) else { continue };
        // Where most of a light is taken away, the two figures shown decide little of what is left.
        let whole = line.sum.split_once(" − 2^").and_then(|(whole, _)| sum(&(whole.to_owned() + ")")));
        if !here.is_finite() || whole.is_some_and(|whole| here < whole - 2.0) {
            continue;
        }
        done += 1;
        // Terms are shown to a thousandth of a stop, what comes out to a hundredth.
        if (here - said).abs() > 0.02 {
            wrong.push(format!("{}: {} = {}, by hand {here:.3}", line.says, line.sum, line.gives));
        }
    }
    (done, wrong)
}

#[test]
fn the_worked_example_adds_up() {
    let (setup, kit) = example();
    let (done, wrong) = again(&solved(&setup, &kit));
    assert!(done >= 12, "only {done} lines");
    assert_eq!(wrong, Vec::<String>::new());
}

/// With a filter, in high-speed sync, close up, by the lux, with a gel and a turned head.
#[rstest]
#[case::filter(|s: &mut Setup| { s.filter_ids = vec!["nd-3".to_owned()]; s.fixed.f_number = Some(2.8); })]
#[case::high_speed(|s: &mut Setup| { s.sync = Sync::HighSpeed; s.fixed.f_number = Some(2.8); })]
#[case::close_up(|s: &mut Setup| {
    s.depth = Depth::CloseUp { magnification: 1.0, depth_mm: 10.0, stacked: false, overlap: 0.3 };
})]
#[case::gel(|s: &mut Setup| s.lights[0].gel_ids = vec!["warm-full".to_owned()])]
#[case::turned(|s: &mut Setup| s.lights[0].feather_deg = 30.0)]
#[case::two_units(|s: &mut Setup| s.lights[0].units = 2)]
#[case::lux(|s: &mut Setup| {
    s.regions[1].ambient = Ambient::read(tolva_core::exposure::parse_reading("5000 lx").expect("lux"));
})]
#[case::fill(|s: &mut Setup| s.blend = Blend::Fill { ambient_stops: -0.5, fill_stops: -2.0 })]
#[case::no_flash(|s: &mut Setup| s.blend = Blend::AmbientOnly { subject_stops: 0.0 })]
fn every_kind_of_line_adds_up(#[case] change: impl Fn(&mut Setup)) {
    let (mut setup, kit) = example();
    change(&mut setup);
    let (done, wrong) = again(&solved(&setup, &kit));
    assert!(done >= 5, "only {done} lines");
    assert_eq!(wrong, Vec::<String>::new());
}

proptest! {
    #[test]
    fn the_workings_of_any_plan_add_up(setup in any_setup()) {
        let (done, wrong) = again(&solved(&setup, &Kit::starter()));
        prop_assert!(done >= 5, "only {} lines", done);
        prop_assert_eq!(wrong, Vec::<String>::new());
    }
}
