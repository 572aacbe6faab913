//! White balance, gels and mixed light, from a setup to what becomes of its colours.

use super::*;
use tolva_core::colour::{BalanceReason, NamedLight, Preset, StatedColour, WhiteBalance};
use tolva_core::modifier::{Bounce, BounceOff, SurfaceColour};

fn by_hand(kelvin: f64) -> StatedColour {
    StatedColour::Kelvin { kelvin, tint_duv: 0.0 }
}

fn dialled(kelvin: f64) -> WhiteBalance {
    WhiteBalance::Kelvin { kelvin, tint_duv: 0.0, reason: BalanceReason::ByHand }
}

/// A hall under lamps: everything at one temperature, the flash half of the light on the lit side.
fn hall(kelvin: f64) -> (Setup, Kit) {
    let (mut setup, kit) = example();
    read(&mut setup, [5.0, 5.0, 4.0]);
    setup.speed.slowest_shutter_s = Some(1.0 / 60.0);
    setup.blend = Blend::HalfAndHalf { subject_stops: 0.0 };
    // Nearer than this the lowest power is too strong for so dark a hall.
    setup.lights[0].distance_m = Some(4.0);
    for region in &mut setup.regions {
        region.ambient.colour = by_hand(kelvin);
    }
    (setup, kit)
}

fn heading<'a>(plan: &'a Plan, of: &str) -> Option<&'a str> {
    plan.cautions.iter().find(|caution| caution.heading == of).map(|caution| caution.says.as_str())
}

/// Half and half: each has half of the light, and the mixture lies between them.
#[test]
fn each_light_has_its_share() {
    let (setup, kit) = hall(2900.0);
    let plan = solved(&setup, &kit);
    let lit = &plan.colour.regions[1];
    assert!(lit.shares.starts_with("flash A 5") || lit.shares.starts_with("ambient 5"), "{}", lit.shares);
    assert!((40.0..140.0).contains(&lit.cast_mired), "{lit:?}");
    let background = &plan.colour.regions[0];
    assert_eq!((background.shares.as_str(), background.words.as_str()), ("ambient 100 %", "strongly warm"));
    assert!((background.cast_mired - (1e6 / 2900.0 - 1e6 / 5600.0)).abs() < 1.0);
}

/// Common practice: at 2500 K on the camera a house lamp is white and daylight strongly blue; at 5600 the lamp strongly
/// warm.
#[rstest]
#[case(2500.0, 2500.0, "neutral")]
#[case(2500.0, 5500.0, "strongly cool")]
#[case(5600.0, 2500.0, "strongly warm")]
fn lamp_and_daylight(#[case] balance: f64, #[case] light: f64, #[case] words: &str) {
    let (mut setup, kit) = example();
    setup.regions[0].ambient.colour = by_hand(light);
    setup.white_balance = dialled(balance);
    assert_eq!(solved(&setup, &kit).colour.regions[0].words, words);
}

/// physics.md §7: between 2500 and 5600 K by mired is 3457 K; half way in kelvin would be 4050.
#[test]
fn between_is_half_way_in_mired() {
    let (mut setup, kit) = hall(2500.0);
    setup.white_balance = WhiteBalance::Between;
    let balance = solved(&setup, &kit).colour.balance;
    assert_eq!((balance.label.as_str(), balance.kelvin), ("3500 K", 3500.0));
    let by_kelvin = balance.by_kelvin.expect("it makes a difference");
    assert!(by_kelvin.contains("4050 K") && by_kelvin.contains("3460 K"), "{by_kelvin}");
}

/// What a gel takes goes into the power, and its colour onto the line, at once.
#[test]
fn a_gel_goes_into_power_and_line() {
    let (mut setup, kit) = example();
    let before = solved(&setup, &kit);
    setup.lights[0].gel_ids = vec!["warm-half".to_owned(), "green-half".to_owned()];
    let after = solved(&setup, &kit);
    let exact =
        |plan: &Plan| plan.dial_card.lights[0].power_exact.clone().expect("on").replace('−', "-").parse::<f64>();
    let more = exact(&after).expect("a number") - exact(&before).expect("a number");
    assert!((more - 0.75).abs() < 0.011, "{more}");
    let mark = after.colour.marks.iter().find(|mark| mark.id == "A").expect("the flash");
    assert_eq!(mark.steps.len(), 2);
    assert!((mark.native_mired.expect("gelled") - 178.6).abs() < 0.1 && (mark.mired - 287.6).abs() < 0.1);
    assert_eq!(mark.tint.as_deref(), Some("slightly green"));
}

/// The nearest match from the gels owned, and what is left over.
#[test]
fn gels_are_chosen_to_match_the_ambient() {
    let (setup, kit) = hall(2900.0);
    let ways = colour_options(&setup, &kit, Show::default()).expect("ways");
    let offer = &ways.gels[0];
    assert_eq!((offer.gels.as_str(), offer.chosen), ("Warm full", false));
    assert!(offer.says.contains("7 mired cooler than the ambient"), "{}", offer.says);
    let ambient = ways
        .conventions
        .iter()
        .find(|way| way.setup.read().white_balance == WhiteBalance::Ambient)
        .expect("the school");
    assert_eq!(ambient.setup.read().lights[0].gel_ids, ["warm-full"]);
    assert!(ambient.settings.is_some(), "the gel asks for power");
    assert!(ambient.regions.iter().all(|region| region.words == "neutral"), "{:?}", ambient.regions);
    let again = colour_options(&ambient.setup.read(), &kit, Show::default()).expect("ways");
    assert!(again.gels[0].chosen && again.conventions.iter().any(|way| way.chosen && way.name == ambient.name));
}

/// Every school is offered once, one of them is chosen, and each says what becomes of every region.
#[rstest]
#[case(WhiteBalance::Flash)]
#[case(WhiteBalance::Measured)]
#[case(WhiteBalance::Preset(Preset::Shade))]
#[case(WhiteBalance::Kelvin { kelvin: 4800.0, tint_duv: 0.002, reason: BalanceReason::ByHand })]
#[case(WhiteBalance::Kelvin { kelvin: 7000.0, tint_duv: 0.0, reason: BalanceReason::Warm })]
fn all_schools_side_by_side(#[case] balance: WhiteBalance) {
    let (mut setup, kit) = hall(2900.0);
    setup.white_balance = balance;
    let ways = colour_options(&setup, &kit, Show::default()).expect("options").conventions;
    let chosen: Vec<&BalanceWay> = ways.iter().filter(|way| way.chosen).collect();
    assert_eq!(chosen.len(), 1, "{:?}", ways.iter().map(|way| &way.name).collect::<Vec<_>>());
    assert_eq!(chosen[0].setup, write(&setup));
    assert!(ways.len() >= 9 && ways.iter().all(|way| way.regions.len() == 3 && way.regions[0].swatches.len() == 5));
    let plan = solved(&setup, &kit);
    let painted = |way: &BalanceWay| way.regions.iter().map(|region| region.swatches.clone()).collect::<Vec<_>>();
    assert_eq!(painted(chosen[0]), plan.colour.regions.iter().map(|one| one.swatches.clone()).collect::<Vec<_>>());
}

#[test]
fn what_mixes_on_a_face_is_warned_of() {
    let (mut setup, kit) = hall(2900.0);
    let says = |setup: &Setup, of: &str| heading(&solved(setup, &kit), of).map(str::to_owned);
    let warned = says(&setup, "No gel among lamps").expect("a warning");
    assert!(warned.contains("166 mired apart") && warned.contains("Warm full"), "{warned}");
    setup.lights[0].gel_ids = vec!["warm-quarter".to_owned()];
    let warned = says(&setup, "Mixed light on one face").expect("another");
    assert!(warned.contains("102 mired apart"), "{warned}");
    setup.lights[0].gel_ids = vec!["warm-full".to_owned()];
    assert_eq!(says(&setup, "Mixed light on one face").or(says(&setup, "No gel among lamps")), None);
    // A window on the shadow side, lamps on the lit one, no flash.
    setup.blend = Blend::AmbientOnly { subject_stops: 0.0 };
    setup.regions[2].ambient.colour = by_hand(6500.0);
    assert!(says(&setup, "Mixed light on one face").expect("a warning").contains("191 mired apart"));
}

#[test]
fn lamps_walls_and_leaves_are_warned_of() {
    let (mut setup, kit) = hall(4000.0);
    setup.regions[1].ambient.colour = StatedColour::Named(NamedLight::Fluorescent);
    setup.fixed.shutter_s = Some(1.0 / 200.0);
    setup.lights[0].bounce =
        Some(Bounce { off: BounceOff::SideWall, away_m: 1.5, reflectance: 0.5, colour: SurfaceColour::Green });
    let plan = solved(&setup, &kit);
    assert!(heading(&plan, "Poor rendering").expect("a warning").contains("75 of 100"));
    assert!(heading(&plan, "Flicker").expect("a warning").contains("1/100 or slower"));
    let bounce = heading(&plan, "Colour of the bounce").expect("a warning");
    assert!(bounce.contains("green") && bounce.contains("strongly green"), "{bounce}");
    let mark = plan.colour.marks.iter().find(|mark| mark.id == "A").expect("the flash");
    assert_eq!(mark.tint.as_deref(), Some("strongly green"));
}

/// What the automatic setting would do as the background changes: a demonstration.
#[test]
fn the_automatic_setting_changes_its_mind() {
    let (setup, kit) = example();
    let facts = solved(&setup, &kit).colour.automatic;
    assert!(facts[0].says.contains("magenta"), "{facts:?}");
    assert!(facts[1].says.contains("cool") || facts[1].says.contains("gives up"), "{facts:?}");
}

#[test]
fn marks_are_moved_along_the_line() {
    let (setup, kit) = hall(2900.0);
    let to = |what, mired| colour_to(&setup, &kit, &Colouring { what, mired, tint_duv: None }).expect("moved");
    let balanced = to(ColourGrip::Balance, 1e6 / 4140.0);
    assert_eq!(balanced.white_balance, dialled(4140.0));
    let region = to(ColourGrip::Region("behind".to_owned()), 200.0);
    assert_eq!(region.regions[0].ambient.colour, by_hand(5000.0));
    assert_eq!(region.regions[1], setup.regions[1]);
    let gelled = to(ColourGrip::Light("A".to_owned()), 1e6 / 3480.0);
    assert_eq!(gelled.lights[0].gel_ids, ["warm-half"]);
    let bare =
        colour_to(&gelled, &kit, &Colouring { what: ColourGrip::Light("A".to_owned()), mired: 178.6, tint_duv: None });
    assert!(bare.expect("moved").lights[0].gel_ids.is_empty(), "back where it was, it needs none");
}

#[rstest]
#[case(ColourGrip::Balance, 5.0, None, "mired")]
#[case(ColourGrip::Balance, f64::NAN, None, "mired")]
#[case(ColourGrip::Balance, 200.0, Some(0.2), "tint_duv")]
#[case(ColourGrip::Light("Z".to_owned()), 200.0, None, "light")]
#[case(ColourGrip::Region("moon".to_owned()), 200.0, None, "region")]
fn what_cannot_be_moved(
    #[case] what: ColourGrip,
    #[case] mired: f64,
    #[case] tint_duv: Option<f64>,
    #[case] about: &str,
) {
    let (setup, kit) = example();
    let refused = colour_to(&setup, &kit, &Colouring { what, mired, tint_duv }).expect_err("wrong");
    let found = match refused {
        Refused::OutOfRange { what, .. } => what,
        Refused::NoSuchLight(_) => "light",
        Refused::NoSuchRegion(_) => "region",
        _ => "something else",
    };
    assert_eq!(found, about);
}

#[test]
fn one_look_over_several_setups() {
    let (first, kit) = hall(2900.0);
    let second = Setup { id: "second".to_owned(), white_balance: dialled(3200.0), ..first.clone() };
    let third = Setup { id: "third".to_owned(), white_balance: WhiteBalance::Preset(Preset::Flash), ..first.clone() };
    let look = one_look(&[first, second, third], &kit, "example").expect("a look");
    assert_eq!(look.says, "One of 3 setups stands at another white balance.");
    assert_eq!(look.lines.iter().map(|line| line.same).collect::<Vec<_>>(), [true, false, true]);
    assert_eq!(look.lines[1].differs, "134 mired cooler");
    assert_eq!(look.lines[2].balance, "Flash, 5600 K");
    let held = look.lines[1].held.as_ref().expect("another").read();
    assert_eq!(held.white_balance, WhiteBalance::Kelvin { kelvin: 5600.0, tint_duv: 0.0, reason: BalanceReason::Look });
    assert!(one_look(std::slice::from_ref(&held), &kit, "moon").is_err());
}

/// Film on a window takes its light and warms it; a gel on a lamp does the same to the lamp.
#[test]
fn film_and_lamps() {
    let (mut setup, kit) = example();
    setup.regions[0].ambient.colour = by_hand(6500.0);
    let before = solved(&setup, &kit);
    setup.regions[0].ambient.film_ids = vec!["film-full".to_owned()];
    let after = solved(&setup, &kit);
    assert_eq!((before.rail[0].ev.as_str(), after.rail[0].ev.as_str()), ("EV 13.0", "EV 12.3"));
    assert!((after.colour.marks[0].mired - before.colour.marks[0].mired - 131.0).abs() < 0.1);
    assert!(after.colour.marks[0].source.contains("through film"));

    setup.lights.push(Light { gel_ids: vec!["warm-half".to_owned()], ..Light::new("B", "lamp") });
    let plan = solved(&setup, &kit);
    let lamp = plan.colour.marks.iter().find(|mark| mark.id == "B").expect("the lamp");
    assert_eq!((lamp.kind, lamp.steps.len()), (MarkKind::Lamp, 1));
    assert!(plan.colour.regions[1].shares.contains("lamp B"), "{}", plan.colour.regions[1].shares);
}

#[rstest]
#[case(StatedColour::Kelvin { kelvin: 300.0, tint_duv: 0.0 }, "/setup/regions/0/ambient/colour/kelvin/kelvin", "from 1000 to 40000 K")]
#[case(StatedColour::Meter { kelvin: 5000.0, duv: 0.3 }, "/setup/regions/0/ambient/colour/meter/duv", "from -0.05 to 0.05")]
#[case(StatedColour::GreyPatch { red: 255.0, green: 240.0, blue: 200.0, kelvin: 5600.0, tint_duv: 0.0 }, "/setup/regions/0/ambient/colour/grey_patch", "clipped")]
#[case(StatedColour::GreyPatch { red: 20.0, green: 220.0, blue: 20.0, kelvin: 5600.0, tint_duv: 0.0 }, "/setup/regions/0/ambient/colour/grey_patch", "not a grey")]
#[case(StatedColour::GreyPatch { red: 300.0, green: 220.0, blue: 20.0, kelvin: 5600.0, tint_duv: 0.0 }, "/setup/regions/0/ambient/colour/grey_patch/red", "from 0 to 255")]
fn colours_that_make_no_sense(#[case] colour: StatedColour, #[case] pointer: &str, #[case] says: &str) {
    let (mut setup, kit) = example();
    setup.regions[0].ambient.colour = colour;
    let wrong = plan(&setup, &kit, Show::default()).expect_err("wrong");
    assert_eq!(wrong.0[0].pointer, pointer);
    assert!(wrong.0[0].message.contains(says), "{wrong}");
}

#[test]
fn a_gel_that_does_nothing_is_none() {
    let (setup, mut kit) = example();
    (kit.gels[0].shift_mired, kit.gels[0].loss_stops) = (0.0, 0.0);
    let wrong = plan(&setup, &kit, Show::default()).expect_err("wrong");
    assert_eq!(wrong.0[0].pointer, "/kit/gels/0/shift_mired");
}

proptest! {
    /// A target on the lit side makes whatever mixture falls there neutral.
    #[test]
    fn a_measured_balance_is_neutral(lamps in 2200.0..9000.0_f64, gel in 0usize..8, tint in -0.01..0.01_f64) {
        let (mut setup, kit) = hall(lamps);
        setup.regions[1].ambient.colour = StatedColour::Kelvin { kelvin: lamps, tint_duv: tint };
        setup.lights[0].gel_ids = vec![kit.gels[gel].id.clone()];
        setup.white_balance = WhiteBalance::Measured;
        let lit = &solved(&setup, &kit).colour.regions[1];
        prop_assert_eq!(lit.words.as_str(), "neutral");
        prop_assert!(lit.off_grey_uv < 1e-4 && lit.cast_mired.abs() < 0.01, "{:?}", lit);
    }

    /// The warmer the camera is told the light is, the cooler everything comes out.
    #[test]
    fn warmer_balance_cooler_picture(kelvin in 2500.0..8000.0_f64) {
        let (mut setup, kit) = hall(3500.0);
        let cast = |setup: &Setup| solved(setup, &kit).colour.regions[0].cast_mired;
        setup.white_balance = dialled(kelvin);
        let cool = cast(&setup);
        setup.white_balance = dialled(kelvin * 1.1);
        prop_assert!(cast(&setup) > cool);
    }

    /// The shares of a region are a whole.
    #[test]
    fn shares_are_a_whole(ev in 4.0..14.0_f64, fill in -3.0..1.0_f64) {
        let (mut setup, kit) = example();
        read(&mut setup, [ev, ev, ev - 1.0]);
        setup.blend = Blend::Fill { ambient_stops: 0.0, fill_stops: fill };
        let sum: f64 = solved(&setup, &kit).colour.regions[1].shares.split(' ').filter_map(|word| word.parse::<f64>().ok()).sum();
        prop_assert!((sum - 100.0).abs() <= 1.0, "{}", sum);
    }
}
