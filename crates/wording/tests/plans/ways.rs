//! Alternatives, preferences, conventions, pace and what automatics would do.

use super::*;
use tolva_planner::setup::Pace;

#[test]
fn alternatives_are_different_and_say_what_they_cost() {
    let (setup, kit) = example();
    let found = alternatives(&setup, &kit, Show::default()).expect("good");
    assert!(
        (4..=9).contains(&found.options.len()),
        "{:?}",
        found.options.iter().map(|way| &way.name).collect::<Vec<_>>()
    );
    assert_eq!(found.options.iter().filter(|way| way.current).count(), 1);
    for (index, way) in found.options.iter().enumerate() {
        let same = |other: &&Alternative| {
            other.settings == way.settings && other.setup.read().filter_ids == way.setup.read().filter_ids
        };
        assert_eq!(found.options.iter().filter(same).count(), 1, "{}", way.name);
        assert!(way.current || !way.costs.is_empty(), "{index} {}", way.name);
        assert_eq!(solved(&way.setup.read(), &kit).possible, way.possible);
    }
    let names: String = found.options.iter().map(|way| way.name.as_str()).collect::<Vec<_>>().join("; ");
    assert!(names.contains("high-speed sync") && names.contains("filter"), "{names}");
    assert!(found.why.contains("comes first: "), "{}", found.why);
    assert!(found.active_limit.as_deref().is_some_and(|binds| binds.contains("1/200")), "{:?}", found.active_limit);
}

#[test]
fn the_order_of_preference_decides_which_is_first() {
    let (mut setup, kit) = example();
    let first = |setup: &Setup| alternatives(setup, &kit, Show::default()).expect("good").options[0].clone();
    let usual = first(&setup);
    setup.preferences = Some(vec![Preference::LowPower, Preference::Pace]);
    let sparing = first(&setup);
    let power = |way: &Alternative| solved(&way.setup.read(), &kit).dial_card.lights[0].power_stops.expect("on");
    assert!(power(&sparing) < power(&usual), "{} {}", sparing.name, usual.name);
    assert!(alternatives(&setup, &kit, Show::default()).expect("good").why.contains("“Low power” comes first"));
}

#[test]
fn four_lights_have_alternatives_too() {
    let (mut setup, kit) = example();
    setup.lights.push(Light {
        wish: LightWish::Place { stops: 0.0 },
        aimed_at: Some("behind".to_owned()),
        ..Light::new("B", "large")
    });
    assert!(alternatives(&setup, &kit, Show::default()).expect("good").options.len() > 2);
}

#[test]
fn every_school_is_solved_and_one_of_each_is_chosen() {
    let (mut setup, kit) = example();
    setup.blend = Blend::Fill { ambient_stops: 0.0, fill_stops: -2.0 };
    let matters = conventions_of(&setup, &kit, Show::default()).expect("good");
    assert_eq!(matters.len(), 7);
    for matter in &matters {
        assert_eq!(matter.conventions.iter().filter(|school| school.chosen).count(), 1, "{}", matter.matter);
        assert!(
            matter.conventions.len() >= 2 && matter.conventions.iter().all(|school| school.settings.contains("ISO"))
        );
    }
}

/// A third more; and a bright sky kept two stops over mid grey.
#[test]
fn schools_of_exposure() {
    let (mut setup, kit) = example();
    read(&mut setup, [13.0, 11.0, 10.0]);
    setup.blend = Blend::AmbientOnly { subject_stops: 0.0 };
    let mut background = |school| {
        setup.exposure = school;
        let plan = solved(&setup, &kit);
        assert!(plan.possible, "{}", plan.says);
        at(&plan.rail[0].ambient)
    };
    let (plain, little) = (background(ExposureConvention::TrustTheMeter), background(ExposureConvention::AddALittle));
    assert!((little - plain - 1.0 / 3.0).abs() < 0.01);
    setup.regions[0].ambient = Ambient::read(Reading::Ev(EvReading { ev100: 16.0 }));
    let mut sky = |school| {
        setup.exposure = school;
        at(&solved(&setup, &kit).rail[0].ambient)
    };
    assert!(sky(ExposureConvention::TrustTheMeter) > 4.0);
    assert!((sky(ExposureConvention::ProtectHighlights) - 2.0).abs() < 0.17);
}

#[test]
fn automatics_are_told_apart_from_fixed_settings() {
    let (mut setup, kit) = example();
    let plan = solved(&setup, &kit);
    let facts: Vec<&str> = plan.automatic.iter().map(|fact| fact.about.as_str()).collect();
    assert_eq!(facts, ["Automatic exposure", "Automatic flash", "Automatic white balance", "Fixed settings"]);
    setup.automatic_exposure = AutomaticConvention::Iso;
    assert!(solved(&setup, &kit).cautions.iter().any(|caution| caution.heading == "Automatic ISO"));
}

#[test]
fn pace_and_stamina_are_held_against_the_job() {
    let (mut setup, kit) = example();
    setup.lights[0].flash_id = "small".to_owned();
    setup.lights[0].power_stops = Some(-1.0);
    setup.pace = Some(Pace { every_s: 1.0, burst_frames: 5, frames: 2000 });
    let says = |setup: &Setup| {
        let plan = solved(setup, &kit);
        plan.pace.iter().map(|fact| format!("{}: {}", fact.about, fact.says)).collect::<Vec<_>>().join("\n")
    };
    // Half power of 2.5 s is 1.25 s; 220 full pops are 440 halves.
    let slow = says(&setup);
    assert!(slow.contains("after 1.2 s, too slow for a picture every 1 s"), "{slow}");
    assert!(slow.contains("440 frames of 2000: bring 5"), "{slow}");
    assert!(slow.contains("the head rests 10 min"), "{slow}");
    assert!(slow.contains("5 are asked"), "{slow}");
    setup.lights[0].power_stops = Some(-6.0);
    let quick = says(&setup);
    assert!(quick.contains("follows 10 frames a second") && quick.contains("good for 14080 frames"), "{quick}");
    setup.sync = Sync::HighSpeed;
    assert!(says(&setup).contains("none in high-speed sync"));
}

#[test]
fn what_would_narrow_it_is_said() {
    let (setup, kit) = example();
    let plan = solved(&setup, &kit);
    assert_eq!(plan.certainty.len(), 3);
    assert!(plan.certainty[1].says.starts_with('±') && plan.certainty[1].says.contains(": ±"), "{:?}", plan.certainty);
}

/// What each way costs stands beside it, by what it changes.
#[rstest]
#[case(AlternativeKind::HighSpeed, "in high-speed sync", "High speed", "no bursts")]
#[case(AlternativeKind::Filter, "with the 3-stop filter", "Filter", "darker finder")]
#[case(AlternativeKind::Nearer, "Bring A to 1.05 m", "Power", "less")]
#[case(AlternativeKind::MoreLight, "Use the large head", "To carry", "stronger unit")]
#[case(AlternativeKind::MoreDepth, "More depth", "Depth", "smaller: more is sharp")]
#[case(AlternativeKind::HigherIso, "At ISO 200", "Noise", "more ISO")]
fn a_way_says_what_it_costs(
    #[case] kind: AlternativeKind,
    #[case] name: &str,
    #[case] about: &str,
    #[case] says: &str,
) {
    let (setup, kit) = example();
    let found = alternatives(&setup, &kit, Show::default()).expect("good").options;
    let way = found.iter().find(|way| way.kind == kind).expect("one of that kind");
    assert!(way.name.contains(name), "{}", way.name);
    let fact = way.costs.iter().find(|fact| fact.about == about);
    assert!(fact.is_some_and(|fact| fact.says.contains(says)), "{:?}", way.costs);
}

/// Ways that were taken lead back: from a filter and from high speed to the bare sync. What was fixed for them is let go
/// of only where the name says so.
#[rstest]
#[case(Sync::Ordinary, &["nd-3"])]
#[case(Sync::HighSpeed, &[])]
fn the_bare_sync_is_always_a_way(#[case] sync: Sync, #[case] filters: &[&str]) {
    let (mut setup, kit) = example();
    setup.sync = sync;
    setup.filter_ids = filters.iter().map(|id| (*id).to_owned()).collect();
    setup.fixed.f_number = Some(2.8);
    let found = alternatives(&setup, &kit, Show::default()).expect("good").options;
    let bare = found.iter().find(|way| way.kind == AlternativeKind::AtSync).expect("a way back");
    assert!(bare.setup.read().filter_ids.is_empty() && bare.setup.read().sync == Sync::Ordinary);
    assert!(bare.setup.read().fixed.f_number.is_none());
    assert_eq!(bare.name, "At the sync speed, nothing on the lens, the aperture left to Tolva");
}

/// What is fixed stays fixed, whatever it is.
#[rstest]
#[case::aperture(|s: &mut Setup| s.fixed.f_number = Some(2.8))]
#[case::shutter(|s: &mut Setup| s.fixed.shutter_s = Some(1.0 / 160.0))]
#[case::iso(|s: &mut Setup| s.fixed.iso = Some(200.0))]
#[case::power(|s: &mut Setup| s.lights[0].power_stops = Some(-3.0))]
fn alternatives_turn_no_fixed_dial(#[case] fix: impl Fn(&mut Setup)) {
    let (mut setup, kit) = example();
    fix(&mut setup);
    for way in alternatives(&setup, &kit, Show::default()).expect("good").options {
        let kept = |was: Option<f64>, is: Option<f64>| was.is_none() || was == is;
        let fixed = (&setup.fixed, &way.setup.read().fixed);
        let all_kept = kept(fixed.0.f_number, fixed.1.f_number)
            && kept(fixed.0.shutter_s, fixed.1.shutter_s)
            && kept(fixed.0.iso, fixed.1.iso)
            && kept(setup.lights[0].power_stops, way.setup.read().lights[0].power_stops);
        assert!(all_kept || way.name.contains("Tolva"), "{}: {:?}", way.name, way.changes);
    }
}

/// Where the wish cannot be had, what would close it stands among the alternatives, and comes before what does not.
#[test]
fn fixes_stand_among_the_alternatives() {
    let (mut setup, kit) = example();
    read(&mut setup, [15.0, 12.0, 11.0]);
    setup.lights[0].flash_id = "small".to_owned();
    setup.lights[0].distance_m = Some(2.5);
    let plan = solved(&setup, &kit);
    let found = alternatives(&setup, &kit, Show::default()).expect("good").options;
    assert!(found[0].possible && !found.iter().find(|way| way.current).expect("as it is").possible);
    for fix in plan.fixes.iter().filter(|fix| fix.closes && fix.setup.is_some()) {
        assert!(found.iter().any(|way| way.possible && Some(&way.setup) == fix.setup.as_ref()), "{}", fix.does);
    }
}

/// The one limit that binds, in a sentence.
#[rstest]
#[case::sync(|_: &mut Setup| {}, "The sync speed: 1/200")]
#[case::depth(|s: &mut Setup| s.depth = Depth::Rows { rows: 3, apart_m: 0.3 }, "The depth: ")]
#[case::full(|s: &mut Setup| { s.lights[0].power_stops = Some(0.0); s.lights[0].distance_m = None; }, "A stands at full")]
#[case::slow(|s: &mut Setup| { read(s, [6.0, 5.0, 4.0]); s.blend = Blend::AmbientOnly { subject_stops: 0.0 }; }, "The slowest shutter: 1/100")]
#[case::lens(|s: &mut Setup| {
    read(s, [12.0, 10.0, 9.0]);
    s.blend = Blend::AmbientOnly { subject_stops: 0.0 };
    s.depth = Depth::OneHead;
}, "The lens: f/2.8")]
fn what_binds_is_said(#[case] change: impl Fn(&mut Setup), #[case] begins: &str) {
    let (mut setup, kit) = example();
    change(&mut setup);
    let plan = solved(&setup, &kit);
    assert!(plan.possible, "{}", plan.says);
    let binds = plan.active_limit.as_deref().unwrap_or_default();
    assert!(binds.starts_with(begins), "{binds}");
}

/// Where something is missing, that is what binds.
#[test]
fn what_is_missing_binds() {
    let (mut setup, kit) = example();
    read(&mut setup, [15.0, 14.0, 12.0]);
    setup.fixed.f_number = Some(2.8);
    let plan = solved(&setup, &kit);
    assert!(!plan.possible);
    assert_eq!(plan.active_limit.as_deref(), Some(plan.shortfalls[0].says.as_str()));
}

/// Each school changes what it is about, and nothing else.
#[test]
fn a_school_changes_one_thing() {
    let (setup, kit) = example();
    for matter in conventions_of(&setup, &kit, Show::default()).expect("good") {
        for school in matter.conventions {
            let other = school.setup.read();
            let mut changed = Vec::new();
            let differs = [
                ("How much flash", other.blend != setup.blend),
                ("Flash control", other.lights.iter().zip(&setup.lights).any(|(a, b)| a.control != b.control)),
                ("Slowest shutter by hand", other.speed != setup.speed),
                ("White balance", other.white_balance != setup.white_balance),
                ("Exposure", other.exposure != setup.exposure),
                ("What may be automatic", other.automatic_exposure != setup.automatic_exposure),
                ("Finding the aperture", other.depth != setup.depth),
            ];
            changed.extend(differs.iter().filter(|(_, is)| *is).map(|(name, _)| *name));
            assert!(changed.iter().all(|name| *name == matter.matter), "{}: {changed:?}", school.name);
            assert_eq!(school.chosen, changed.is_empty(), "{}", school.name);
        }
    }
}

/// Removing what a remedy offers from the kit removes the remedy: it is never made of things nobody has.
#[test]
fn what_is_not_owned_is_not_offered_as_a_step() {
    let (mut setup, mut kit) = example();
    read(&mut setup, [15.0, 14.0, 12.0]);
    setup.fixed.f_number = Some(2.8);
    let steps = |kit: &Kit| {
        let plan = solved(&setup, kit);
        plan.fixes.iter().filter(|remedy| remedy.setup.is_some()).map(|remedy| remedy.does.clone()).collect::<Vec<_>>()
    };
    assert!(steps(&kit).iter().any(|does| does.contains("filter")), "{:?}", steps(&kit));
    kit.filters.clear();
    assert!(!steps(&kit).iter().any(|does| does.contains("-stop filter")), "{:?}", steps(&kit));
    let outside = solved(&setup, &kit);
    assert!(
        outside.fixes.iter().any(|remedy| remedy.setup.is_none() && remedy.says.contains("None in the kit is dense")),
        "{:?}",
        outside.fixes
    );
}
