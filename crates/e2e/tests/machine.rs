//! The session by itself: events in, states and what is to be done out. Each case is a small script that runs the machine's
//! own bundle in the browser; nothing else is there, no page, no server, no clock.

use rstest::rstest;
use serde_json::{Value, json};
use tolva_e2e::Browser;

/// What the scripts are written with: a session of a small document, and answers to what it wants done.
const WITH: &str = r"
const M = Machine;
let s = M.begun(), wanted = [], n = 0;
const send = (event) => {
  const out = M.step(s, { at: 1000, key: `k${++n}`, ...event });
  s = out.state; wanted.push(...out.effects);
};
const body = (revision, document, more = {}) => ({ revision, saved_at: '', undo: null, redo: null, document, ...more });
const first = { setups: [{ id: 'a', lights: [{ id: 'A', distance: 1.5 }, { id: 'B', distance: 3 }], place: 60 }, { id: 'b', lights: [], place: 60 }] };
const open = (more = {}) => send({ type: 'opened', body: body(1, first, { undo: 'Before' }), ...more });
const last = (what) => wanted.filter((one) => what.includes(one.do)).at(-1);
/** The server saves what it was sent; after undo and redo the document is what is given. */
const saved = (document, more = {}) => {
  const sent = last(['save', 'step']);
  send({ type: 'saved', turn: sent.turn, body: body(sent.based_on + 1, document ?? sent.document, { undo: sent.says ?? null, ...more }) });
};
const unsaved = (failure) => send({ type: 'unsaved', turn: last(['save', 'step']).turn, failure });
/** The server answers what it was asked: with so many metres for a light of setup a. */
const at = (light) => ['setups', { id: 'a' }, 'lights', { id: light }, 'distance'];
const answered = (...changes) => {
  const asked = last(['ask']);
  send({ type: 'answered', turn: asked.turn, document: M.applied(asked.document, changes), plan: { of: asked.command ?? null } });
};
const refused = (message) => send({ type: 'unanswered', turn: last(['ask']).turn, failure: { kind: 'wrong', message } });
const lost = { kind: 'lost', message: 'Tolva does not answer.' };
const gone = () => send({ type: 'unanswered', turn: last(['ask']).turn, failure: lost });
const edit = (light, to, says = `${light} at ${to}`) => send({ type: 'edit', says, changes: [{ at: at(light), to }] });
const hold = (target, command, more = {}) => send({ type: 'hold', target, says: `Held ${target}`, scope: ['setups', { id: 'a' }], command, ...more });
const look = () => send({ type: 'look', view: { scope: ['setups', { id: 'a' }], context: 1 } });
const distances = (document) => document.setups[0].lights.map((one) => one.distance);
const acts = () => s.queue.map((act) => act.says ?? act.kind);
";

async fn run(script: &str) -> Value {
    let b = Browser::open().await;
    let bundle = concat!(env!("CARGO_MANIFEST_DIR"), "/../../web/dist-machine/machine.js");
    let machine = std::fs::read_to_string(bundle).expect("the machine's bundle: npm run build makes it");
    let found = b.script(&format!("{machine}\n{WITH}\n{script}")).await;
    b.close().await;
    found
}

#[rstest]
#[case::edits_go_one_after_the_other(
    "open(); edit('A', 2); edit('B', 4);
     const one = [wanted.length, distances(s.shown), acts()];
     saved(); const two = [distances(last(['save']).document), acts()]; saved();
     return [one, two, acts(), s.saved.revision];",
    json!([[1, [2, 4], ["A at 2", "B at 4"]], [[2, 4], ["B at 4"]], [], 3])
)]
#[case::what_was_done_elsewhere_and_here_both_stays(
    "open(); edit('A', 2); edit('A', 2.5);
     const theirs = M.applied(first, [{ at: at('B'), to: 9 }, { at: ['setups', { id: 'b' }, 'place'], to: 61 }]);
     unsaved({ kind: 'overtaken', message: '', theirs: body(7, theirs) });
     const sent = last(['save']);
     return [s.conflict ?? null, sent.based_on, distances(sent.document), sent.document.setups[1].place, distances(s.shown), acts()];",
    json!([null, 7, [2, 9], 61, [2.5, 9], ["A at 2", "A at 2.5"]])
)]
#[case::the_same_field_changed_twice_is_never_merged(
    "open(); edit('A', 2);
     unsaved({ kind: 'overtaken', message: '', theirs: body(7, M.applied(first, [{ at: at('A'), to: 9 }])) });
     return [s.conflict.revision, distances(s.conflict.document), distances(s.kept), wanted.length];",
    json!([7, [9, 3], [2, 3], 1])
)]
#[case::what_is_in_what_went_elsewhere_is_never_merged(
    "open(); edit('A', 2);
     unsaved({ kind: 'overtaken', message: '', theirs: body(7, M.applied(first, [{ at: ['setups', { id: 'a' }, 'lights', { id: 'A' }] }])) });
     return s.conflict !== undefined;",
    json!(true)
)]
#[case::what_changes_nothing_is_no_change("open(); edit('A', 1.5); return [acts(), wanted.length];", json!([[], 0]))]
#[case::only_what_differs_is_changed(
    "open(); edit('B', 9);
     send({ type: 'edit', says: 'Whole', changes: [{ at: ['setups', { id: 'a' }], to: { ...first.setups[0], place: 61, lights: [{ id: 'A', distance: 1.5 }, { id: 'B', distance: 9 }] } }] });
     return s.queue[1].changes;",
    json!([{ "at": ["setups", { "id": "a" }, "place"], "to": 61 }])
)]
#[case::two_quick_undos_undo_twice(
    "open(); send({ type: 'undo' }); send({ type: 'undo' });
     const one = [wanted.length, last(['step']).based_on];
     saved(first, { undo: 'Earlier' }); const two = [wanted.length, last(['step']).based_on];
     saved(first); return [one, two, acts()];",
    json!([[1, 1], [2, 2], []])
)]
#[case::an_edit_during_an_undo_is_made_on_what_comes_back(
    "open(); send({ type: 'undo' }); edit('B', 4);
     const before = M.applied(first, [{ at: at('A'), to: 1.2 }]);
     saved(before); const sent = last(['save']);
     return [distances(s.shown), distances(sent.document), sent.based_on];",
    json!([[1.2, 4], [1.2, 4], 2])
)]
#[case::what_is_held_during_an_undo_is_asked_of_what_comes_back(
    "open(); look(); answered(); send({ type: 'undo' }); hold('A', { to: 2 });
     const asks = () => wanted.filter((one) => one.do === 'ask').length, waits = asks();
     saved(M.applied(first, [{ at: at('B'), to: 9 }])); return [waits, asks(), distances(last(['ask']).document)];",
    json!([1, 2, [1.5, 9]])
)]
#[case::an_undo_of_what_is_not_saved_yet_shows_at_once(
    "open(); edit('A', 2); edit('A', 2.5); send({ type: 'undo' });
     const names = M.namesOf(s);
     return [distances(s.shown), names.undoes, names.redoes];",
    json!([[2, 3], "A at 2", "A at 2.5"])
)]
#[case::undo_takes_back_a_nudge_that_is_still_open(
    "open(); hold('A', { by: 1 }, { rests: 400 }); answered({ at: at('A'), to: 1.6 });
     const open_ = [distances(s.shown), acts()];
     send({ type: 'undo' });
     return [open_, acts(), distances(s.shown)];",
    json!([[[1.6, 3], []], ["Held A", "undo"], [1.5, 3]])
)]
#[case::the_next_mark_lets_the_first_one_go(
    "open(); hold('A', { by: 1 }, { rests: 400 }); answered({ at: at('A'), to: 1.6 });
     hold('B', { by: 1 }, { rests: 400 }); answered({ at: at('B'), to: 3.1 });
     return [acts(), distances(s.shown), s.held.target];",
    json!([["Held A"], [1.6, 3.1], "B"])
)]
#[case::two_drags_on_a_slow_link_both_stay(
    "open(); hold('A', { to: 2 }); send({ type: 'letGo' }); hold('B', { to: 5 }); send({ type: 'letGo' });
     const one = [acts(), wanted.filter((e) => e.do === 'ask').length];
     answered({ at: at('A'), to: 2 }); const two = last(['ask']).command; answered({ at: at('B'), to: 5 });
     saved(); saved(); return [one, two, distances(s.saved.document)];",
    json!([[["Held A", "Held B"], 1], { "to": 5 }, [2, 5]])
)]
#[case::nothing_flashes_up_when_a_drag_is_let_go(
    "open(); look(); answered(); hold('A', { to: 2 }); answered({ at: at('A'), to: 2 });
     const asked = wanted.length, plan = s.plan; send({ type: 'letGo' });
     return [s.plan === plan, distances(s.shown), s.settled === plan, wanted.slice(asked).map((e) => e.do)];",
    json!([true, [2, 3], true, ["save"]])
)]
#[case::a_drag_let_go_before_its_last_answer_stays_where_it_was_seen(
    "open(); look(); answered(); hold('A', { to: 2 }); answered({ at: at('A'), to: 2 });
     hold('A', { to: 3 }); send({ type: 'letGo' }); const seen = distances(s.shown);
     answered({ at: at('A'), to: 3 }); return [seen, distances(s.shown), acts()];",
    json!([[2, 3], [3, 3], ["Held A"]])
)]
#[case::an_older_answer_does_not_take_the_place_of_a_newer_wish(
    "open(); hold('A', { to: 2 }); hold('A', { to: 3 }); answered({ at: at('A'), to: 2 });
     const shown = distances(s.shown); send({ type: 'letGo' });
     answered({ at: at('A'), to: 3 }); return [shown, distances(s.shown), acts()];",
    json!([[2, 3], [3, 3], ["Held A"]])
)]
#[case::an_answer_to_what_was_let_go_of_is_not_taken_for_another(
    "open(); hold('A', { text: '2' }, { text: '2' }); send({ type: 'cancel', target: 'A' });
     hold('B', { text: '5' }, { text: '5' }); answered({ at: at('A'), to: 2 });
     return [distances(s.shown), s.held.target];",
    json!([[1.5, 3], "B"])
)]
#[case::a_number_that_is_typed_is_one_change(
    "open(); hold('A', '8', { text: '8' }); answered({ at: at('A'), to: 8 });
     const half = [distances(s.shown), acts()];
     hold('A', '80', { text: '80' }); refused('too far'); const shown = distances(s.shown);
     hold('A', '8.5', { text: '8.5' }); answered({ at: at('A'), to: 8.5 }); send({ type: 'letGo', target: 'A' });
     return [half, shown, acts(), distances(s.kept), s.texts];",
    json!([[[8, 3], []], [1.5, 3], ["Held A"], [8.5, 3], {}])
)]
#[case::escape_brings_back_what_was_there(
    "open(); hold('A', '8', { text: '8' }); answered({ at: at('A'), to: 8 }); send({ type: 'cancel', target: 'A' });
     return [distances(s.shown), acts(), s.texts];",
    json!([[1.5, 3], [], {}])
)]
#[case::a_text_that_is_wrong_stays_with_what_is_wrong(
    "open(); hold('A', '80', { text: '80' }); refused('too far'); send({ type: 'letGo', target: 'A' });
     return [s.texts, acts(), distances(s.shown)];",
    json!([{ "A": { "text": "80", "state": "wrong", "message": "too far" } }, [], [1.5, 3]])
)]
#[case::what_is_typed_without_a_server_waits_and_goes_in_in_order(
    "open(); look(); answered(); hold('A', '2.5', { text: '2.5' }); gone();
     const plan = s.plan; send({ type: 'letGo', target: 'A' }); edit('B', 4);
     const waiting = [s.texts.A.state, acts(), s.lost.since, s.plan === plan, M.isFresh(s)];
     const before = wanted.length; send({ type: 'retry' });
     const asked = wanted.slice(before).map((e) => e.do);
     answered({ at: at('A'), to: 2.5 }); saved(); saved();
     return [waiting, asked, s.texts, distances(s.saved.document), s.lost ?? null];",
    json!([["waiting", ["Held A", "B at 4"], 1000, true, false], ["ask"], {}, [2.5, 4], null])
)]
#[case::a_server_that_is_gone_is_asked_again_by_itself(
    "open(); edit('A', 2); unsaved(lost); const one = last(['wait']);
     send({ type: 'retry' }); unsaved(lost); const two = last(['wait']);
     send({ type: 'retry', at: 9000 }); const sent = last(['save']); saved();
     return [one.then, one.milliseconds, two.milliseconds, sent.key === wanted.find((e) => e.do === 'save').key, s.lost ?? null, acts()];",
    json!(["retry", 1000, 2000, true, null, []])
)]
#[case::while_it_is_gone_nothing_is_sent(
    "open(); edit('A', 2); unsaved(lost); const before = wanted.length; edit('B', 4); look();
     return [wanted.length - before, acts()];",
    json!([0, ["A at 2", "B at 4"]])
)]
#[case::a_full_disk_is_tried_again(
    "open(); edit('A', 2); unsaved({ kind: 'full', message: 'full' }); const full = s.full;
     send({ type: 'retry' }); saved(); return [full, s.full, acts()];",
    json!([true, false, []])
)]
#[case::what_is_not_taken_goes_again_with_what_mends_it(
    "open(); edit('A', -1); unsaved({ kind: 'wrong', message: 'too near' }); const wrong = s.refused;
     edit('A', 2); return [wrong, acts(), distances(last(['save']).document), s.refused ?? null];",
    json!(["too near", ["A at 2"], [2, 3], null])
)]
#[case::what_is_not_taken_is_taken_back_here(
    "open(); edit('A', -1); unsaved({ kind: 'wrong', message: 'too near' }); send({ type: 'undo' });
     return [acts(), distances(s.shown), s.refused ?? null];",
    json!([[], [1.5, 3], null])
)]
#[case::of_two_versions_mine_goes_on_top(
    "open(); edit('A', 2); const theirs = body(5, M.applied(first, [{ at: at('A'), to: 9 }]));
     unsaved({ kind: 'overtaken', message: '', theirs }); const stuck = s.conflict.revision;
     send({ type: 'keep', which: 'mine' }); const sent = last(['save']);
     return [stuck, sent.based_on, distances(sent.document), acts()];",
    json!([5, 5, [2, 3], ["A at 2"]])
)]
#[case::of_two_versions_theirs_is_taken_and_mine_comes_back_by_redo(
    "open(); edit('A', 2); const theirs = body(5, M.applied(first, [{ at: at('A'), to: 9 }]));
     unsaved({ kind: 'overtaken', message: '', theirs }); send({ type: 'keep', which: 'theirs' });
     return [acts(), distances(s.shown), M.namesOf(s).redoes];",
    json!([["A at 2", "undo"], [9, 3], "A at 2"])
)]
#[case::a_closed_window_goes_on_where_it_was(
    "open(); edit('A', 2); edit('B', 4); const draft = { based_on: 1, base: first, queue: s.queue };
     const key = last(['save']).key; s = M.begun(); wanted = [];
     send({ type: 'opened', body: body(2, M.applied(first, [{ at: at('A'), to: 2 }])), draft, texts: { A: { text: '9', state: 'waiting' } } });
     const again = last(['save']);
     return [again.key === key, again.based_on, distances(s.shown), s.texts.A.state];",
    json!([true, 1, [2, 4], "typing"])
)]
#[case::what_somebody_else_saved_is_seen_where_nothing_is_in_the_way(
    "open(); const other = body(2, M.applied(first, [{ at: at('B'), to: 9 }]));
     edit('A', 2); send({ type: 'seen', since: 1, body: other }); const busy = distances(s.shown);
     saved(); send({ type: 'seen', since: 2, body: body(7, other.document) }); return [busy, distances(s.shown)];",
    json!([[2, 3], [1.5, 9]])
)]
#[case::what_comes_late_is_not_seen(
    "open(); edit('A', 2); saved(); const since = s.saved.revision, late = body(since, s.saved.document);
     edit('B', 4); saved(); send({ type: 'seen', since, body: late });
     send({ type: 'undo' }); return [last(['step']).based_on, distances(s.saved.document)];",
    json!([3, [2, 4]])
)]
#[case::texts_belong_to_their_own_field(
    "open(); send({ type: 'write', target: 'setups/a/place', text: '61' });
     hold('setups/b/place', '70', { text: '70' });
     return [s.texts['setups/a/place'].text, s.texts['setups/b/place'].text, s.kept.setups.map((one) => one.place)];",
    json!(["61", "70", [60, 60]])
)]
#[case::a_plan_that_cannot_be_made_leaves_the_last_one(
    "open(); look(); answered(); const plan = s.plan; edit('A', 2); refused('wrong field');
     const before = wanted.length; edit('B', 4);
     return [s.plan === plan, s.unplanned.problem ?? null, wanted.slice(before).map((e) => e.do)];",
    json!([true, null, ["ask"]])
)]
#[tokio::test]
async fn a_session(#[case] script: &str, #[case] expected: Value) {
    assert_eq!(run(script).await, expected);
}

/// Changes are found by ids, and a path outlives what is done beside it.
#[rstest]
#[case::added("return M.changesBetween({ l: [{ id: 'A' }] }, { l: [{ id: 'A' }, { id: 'B', n: 1 }] });", json!([{ "at": ["l", { "id": "B" }], "to": { "id": "B", "n": 1 } }]))]
#[case::removed("return M.applied({ l: [{ id: 'A' }, { id: 'B' }] }, M.changesBetween({ l: [{ id: 'A' }, { id: 'B' }] }, { l: [{ id: 'B' }] }));", json!({ "l": [{ "id": "B" }] }))]
#[case::reordered("return M.applied({ l: [{ id: 'A' }, { id: 'B' }] }, M.changesBetween({ l: [{ id: 'A' }, { id: 'B' }] }, { l: [{ id: 'B' }, { id: 'A' }] }));", json!({ "l": [{ "id": "B" }, { "id": "A" }] }))]
#[case::another_kind("return M.changesBetween({ blend: { lift: { s: 0 } } }, { blend: { fill: { f: 1 } } });", json!([{ "at": ["blend"], "to": { "fill": { "f": 1 } } }]))]
#[case::nothing_and_null("return M.changesBetween({ a: null, b: 1 }, { b: 1 });", json!([]))]
#[case::gone("return M.applied({ l: [{ id: 'A', n: 1 }] }, [{ at: ['l', { id: 'B' }, 'n'], to: 2 }]);", json!({ "l": [{ "id": "A", "n": 1 }] }))]
#[case::pointer("return M.pointerTo({ l: [{ id: 'A' }, { id: 'B', 'a/b': 1 }] }, ['l', { id: 'B' }, 'a/b']);", json!("/l/1/a~1b"))]
#[tokio::test]
async fn changes(#[case] script: &str, #[case] expected: Value) {
    assert_eq!(run(script).await, expected);
}

/// A server as it keeps one document, and devices whose line is cut now and then: before a request arrives, or after it was
/// carried out and before its answer came.
const SET: &str = r"
const random = (() => { let x = SEED; return () => { x = (x * 1664525 + 1013904223) % 4294967296; return x / 4294967296; }; })();
const field = (name) => ['fields', { id: name }, 'to'];
const server = { revision: 1, document: { fields: ['a', 'b', 'c', 'd'].map((id) => ({ id, to: 0 })) }, keys: new Map(), saves: 0 };
const here = () => ({ revision: server.revision, saved_at: '', undo: 'Before', redo: null, document: server.document });
const device = () => ({ s: M.begun(), out: [] });
const tell = (d, event) => { const out = M.step(d.s, { at: 1000, key: `k${++n}`, ...event }); d.s = out.state; d.out.push(...out.effects); };
/** What a device wants done, one after the other; its line may be cut on the way there, or on the way back. */
const carry = (d, cut) => {
  const effect = d.out.shift();
  if (!effect) return false;
  if (effect.do === 'wait') { tell(d, { type: 'retry' }); return true; }
  if (effect.do !== 'save') return true;
  const { turn, key, based_on, document } = effect;
  const lost = () => tell(d, { type: 'unsaved', turn, failure: { kind: 'lost', message: 'cut' } });
  if (random() < cut) { lost(); return true; }
  if (!server.keys.has(key)) {
    if (based_on !== server.revision) {
      const failure = { kind: 'overtaken', message: '', theirs: here() };
      if (random() < cut) lost(); else tell(d, { type: 'unsaved', turn, failure });
      return true;
    }
    server.keys.set(key, true); server.revision += 1; server.saves += 1; server.document = document;
  }
  if (random() < cut) lost(); else tell(d, { type: 'saved', turn, body: here() });
  return true;
};
";

/// Two devices, 200 random edits, each to fields of its own, with cuts of the line: both end the same, nothing is lost and
/// nothing is done twice. Where both change one field, a person is asked, and what was chosen is what stands.
#[rstest]
#[case::fields_of_their_own(1, false)]
#[case::other_draws(7, false)]
#[case::one_field_of_both(3, true)]
#[tokio::test]
async fn two_devices_end_the_same(#[case] seed: u32, #[case] both: bool) {
    let script = format!(
        "{} {}",
        SET.replace("SEED", &seed.to_string()),
        r"
const devices = [device(), device()], own = [['a', 'b'], BOTH ? ['c', 'a'] : ['c', 'd']], ended = {};
let asked = 0, edits = 0;
for (const d of devices) tell(d, { type: 'opened', body: here() });
const choose = (d) => {
  if (!d.s.conflict) return;
  asked += 1;
  tell(d, { type: 'keep', which: 'mine' });
};
while (edits < 200) {
  const which = random() < 0.5 ? 0 : 1, d = devices[which];
  if (random() < 0.4) {
    edits += 1;
    const name = own[which][random() < 0.5 ? 0 : 1];
    ended[name] = edits;
    tell(d, { type: 'edit', says: `${name} ${edits}`, changes: [{ at: field(name), to: edits }] });
  } else if (random() < 0.2) {
    // What was looked for is told at once, or late.
    const looked = d.looked ?? { type: 'seen', since: d.s.saved.revision, body: here() };
    d.looked = random() < 0.5 ? looked : undefined;
    if (d.looked === undefined) tell(d, looked);
  }
  else carry(d, 0.3);
  choose(d);
}
// The line holds: everything goes in.
for (let round = 0; round < 2000; round += 1) for (const d of devices) { carry(d, 0); choose(d); }
for (const d of devices) tell(d, { type: 'seen', since: d.s.saved.revision, body: here() });
const values = (document) => Object.fromEntries(document.fields.map(({ id, to }) => [id, to]));
const [one, two] = devices.map((d) => values(d.s.kept));
const same = JSON.stringify(one) === JSON.stringify(two) && JSON.stringify(one) === JSON.stringify(values(server.document));
const left = devices.map((d) => d.s.queue.length);
// A field that one device alone changes ends as that device left it.
const kept = Object.keys(ended).filter((name) => !(BOTH && name === 'a')).every((name) => one[name] === ended[name]);
return { same, left, kept, asked: asked > 0, twice: server.saves > edits + asked };"
            .replace("BOTH", &both.to_string())
    );
    let found = run(&script).await;
    let wanted = json!({ "same": true, "left": [0, 0], "kept": true, "asked": both, "twice": false });
    assert_eq!(found, wanted);
}
