//! The order against brute force, and what days ask.

use super::*;
use rand::{Rng as _, SeedableRng as _};
use rand_chacha::ChaCha8Rng;

fn stretch((from, to): (u32, u32)) -> Stretch {
    Stretch { from: DayMinute(from), to: DayMinute(to) }
}

fn stop(build: u32, shoot: u32, windows: &[(u32, u32)]) -> Stop {
    Stop { build, shoot, windows: windows.iter().copied().map(stretch).collect(), ..Stop::default() }
}

fn day(stops: Vec<Stop>, way: u32) -> Day {
    let count = stops.len();
    let ways = (0..count).map(|from| (0..count).map(|to| if from == to { 0 } else { way }).collect()).collect();
    Day { stops, ways, begin: DayMinute(8 * 60), end: DayMinute(22 * 60) }
}

fn in_turn(of: &Ordered) -> Vec<usize> {
    of.slots.iter().map(|slot| slot.stop).collect()
}

/// Three setups whose light leaves one order only: the courtyard at noon, the window before, the quay at dusk.
#[test]
fn the_only_order_is_found() {
    let it = day(
        vec![
            stop(20, 30, &[(19 * 60, 20 * 60)]),
            stop(20, 40, &[(9 * 60, 10 * 60 + 30)]),
            stop(20, 40, &[(11 * 60, 13 * 60)]),
        ],
        10,
    );
    let found = it.ordered();
    assert_eq!((in_turn(&found), found.proved), (vec![1, 2, 0], true));
    assert_eq!(found.slots[2].shoots, DayMinute(19 * 60));
    // Nobody comes at eight for what leads to the evening; half an hour of the window's light is left to spare.
    assert_eq!((found.slots[0].builds.0, found.slots[0].shoots.0), (9 * 60, 9 * 60 + 20));
}

#[test]
fn people_and_pins_are_waited_for() {
    let mut it = day(vec![stop(10, 20, &[(0, 1440)]), stop(10, 20, &[(0, 1440)])], 5);
    it.stops[0].ready = DayMinute(11 * 60);
    it.stops[1].pinned = Some(DayMinute(9 * 60));
    let found = it.ordered();
    assert_eq!(in_turn(&found), [1, 0]);
    assert_eq!(found.slots.iter().map(|slot| slot.shoots.0).collect::<Vec<_>>(), [9 * 60, 11 * 60]);
    // A pin holds though there is no light then.
    it.stops[1].windows.clear();
    assert_eq!(in_turn(&it.ordered()), [1, 0]);
    it.stops[1].pinned = None;
    assert_eq!((in_turn(&it.ordered()), it.ordered().left_out), (vec![0], vec![1]));
}

#[test]
fn nothing_to_do_is_an_order() {
    assert_eq!(Day::default().ordered(), Ordered { proved: true, ..Ordered::default() });
}

#[test]
fn more_than_are_exact_come_in_a_good_order() {
    let stops = (0..20).map(|at| stop(5, 10, &[(0, 23 * 60 - 60 * (at % 3))])).collect();
    let found = day(stops, 2).ordered();
    assert_eq!((found.slots.len(), found.left_out.len(), found.proved), (20, 0, false));
}

/// A made-up day of up to six setups, tight enough that about half do not fit.
fn made_up(dice: &mut ChaCha8Rng) -> Day {
    let count = dice.random_range(2..=6);
    let stops = (0..count).map(|_| {
        let mut windows = Vec::new();
        for _ in 0..dice.random_range(1..=2) {
            let opens = dice.random_range(8 * 60..18 * 60);
            windows.push(stretch((opens, opens + dice.random_range(15..180))));
        }
        Stop {
            build: dice.random_range(0..30),
            shoot: dice.random_range(5..50),
            windows: Stretch::joined(windows),
            ready: DayMinute(if dice.random_bool(0.2) { dice.random_range(8 * 60..14 * 60) } else { 0 }),
            pinned: dice.random_bool(0.1).then(|| DayMinute(dice.random_range(9 * 60..17 * 60))),
        }
    });
    let stops: Vec<Stop> = stops.collect();
    let ways = (0..count).map(|_| (0..count).map(|_| dice.random_range(0..20)).collect()).collect();
    Day {
        stops,
        ways,
        begin: DayMinute(dice.random_range(8 * 60..10 * 60)),
        end: DayMinute(dice.random_range(17 * 60..20 * 60)),
    }
}

fn orders(of: &[usize]) -> Vec<Vec<usize>> {
    if of.is_empty() {
        return vec![Vec::new()];
    }
    let first = |at: usize| {
        let mut rest = of.to_vec();
        let one = rest.remove(at);
        orders(&rest).into_iter().map(move |rest| [vec![one], rest].concat()).collect::<Vec<_>>()
    };
    (0..of.len()).flat_map(first).collect()
}

/// By trying every order: when all of a day is done at the earliest.
fn tried(day: &Day, of: &[usize]) -> Option<DayMinute> {
    orders(of).iter().filter_map(|order| Some(day.in_order(order)?.last()?.done)).min()
}

/// Brute force over all orders, 200 seeded days: the same end where everything fits; where it does not, as many as can
/// be, and no change of fewer minutes by trying each of them.
#[test]
fn no_order_is_better_than_the_one_found() {
    let (mut fitted, mut mended) = (0, 0);
    for seed in 0..200 {
        let it = made_up(&mut ChaCha8Rng::seed_from_u64(seed));
        let all: Vec<usize> = (0..it.stops.len()).collect();
        let found = it.ordered();
        if let Some(done) = tried(&it, &all) {
            fitted += 1;
            assert_eq!(found.slots.len(), all.len(), "seed {seed}");
            assert_eq!(found.slots.last().map(|slot| slot.done), Some(done), "seed {seed}");
            assert!(found.changes.is_empty());
            let opens = found.slots[0].leaves;
            assert!(it.begin <= opens && opens.later(it.stops[found.slots[0].stop].build) <= found.slots[0].shoots);
            continue;
        }
        let parts = (1usize..1 << all.len())
            .map(|part| all.iter().copied().filter(|stop| part & (1 << stop) != 0).collect::<Vec<_>>());
        let most = parts.filter(|part| tried(&it, part).is_some()).map(|part| part.len()).max().unwrap_or(0);
        assert_eq!(found.slots.len(), most, "seed {seed}");
        if let Some(least) = found.changes.first() {
            mended += 1;
            assert!(tried(&it.with(*least), &all).is_some(), "seed {seed}: {least:?}");
            // What helps by some minutes helps by more: one minute less is enough to try.
            for by in (1..least.minutes()).rev().take(1) {
                let mut lesser = vec![Change::BeginEarlier(by), Change::EndLater(by)];
                lesser.extend(all.iter().flat_map(|at| [Change::Quicker(*at, by), Change::OutsideItsLight(*at, by)]));
                let enough = lesser.into_iter().find(|change| {
                    let spare = |at: &usize| it.stops[*at].build + it.stops[*at].shoot;
                    !matches!(change, Change::Quicker(at, by) if *by >= spare(at))
                        && tried(&it.with(*change), &all).is_some()
                });
                assert_eq!(enough, None, "seed {seed}: less than {least:?}");
            }
        }
    }
    assert!(fitted > 40 && mended > 40, "{fitted} fitted, {mended} mended: the days say nothing");
}
