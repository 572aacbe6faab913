import { applied, changesBetween, type Change, meet, same, valueAt } from './change';
import { before, inPlaceOf, replayed, saysOf } from './queue';
import type { Act, Asking, Effect, Failure, Held, Planned, Session, Stamped, Text, Wish } from './state';

/**
 * One open document: what the server has, what it does not have yet, what is still held, the plan, the connection. Pure:
 * no request, no page, no clock. An event goes in, the next state and what is to be done outside come out.
 *
 * Two lines run beside each other, one request at a time in each: saves, undo and redo in the order in which they were
 * done; and plans. An act whose outcome only the server knows (a mark that was dragged, a text that was typed) waits in the
 * queue for its answer, and everything after it waits behind it.
 */
export const begun = <T, C, P>(): Session<T, C, P> => ({
  saved: undefined,
  queue: [],
  held: undefined,
  texts: {},
  told: {},
  view: undefined,
  plan: undefined,
  settled: undefined,
  unplanned: undefined,
  asking: undefined,
  saving: undefined,
  turn: 0,
  lost: undefined,
  full: false,
  refused: undefined,
  conflict: undefined,
  closed: undefined,
  kept: undefined,
  shown: undefined,
});

type Out<T, C, P> = { state: Session<T, C, P>; effects: Effect<T, C>[] };

/** How long a server that does not answer is left alone: a second, then longer. */
const retryAfter = (times: number) => Math.min(4000, 1000 * (times + 1));
const retryFullAfter = 3000;

export function step<T, C, P>(before: Session<T, C, P>, event: Stamped<T, C, P>): Out<T, C, P> {
  const effects: Effect<T, C>[] = [];
  const handled = settled(before, handle(before, event, effects));
  const { state, effects: more } = advanced(handled);
  return { state: settled(handled, state), effects: [...effects, ...more] };
}

function handle<T, C, P>(state: Session<T, C, P>, event: Stamped<T, C, P>, effects: Effect<T, C>[]): Session<T, C, P> {
  switch (event.type) {
    case 'opened': {
      const { draft, body } = event;
      // A save whose answer never came is sent again as it was: the server knows it by its key.
      const base = draft ? { ...body, revision: draft.based_on, document: draft.base } : body;
      const queue = draft?.queue ?? [];
      return { ...state, saved: base, queue, texts: stillOpen(event.texts ?? state.texts, queue), closed: undefined };
    }
    case 'closed':
      return { ...state, closed: event.problem };
    case 'edit': {
      const open = closed(state, event.key, event.target);
      const target = event.target;
      const done = target === undefined ? open : without(open, target);
      return enqueued(done, { key: event.key, kind: 'edit', says: event.says, changes: event.changes });
    }
    case 'ask':
      return asked(without(closed(state, event.key), event.target), event, event.key);
    case 'hold': {
      const open = closed(state, event.key, event.target);
      const { target, says, scope, command, text } = event;
      const was = open.held;
      const wish = (was?.wish ?? open.turn) + 1;
      if (event.rests !== undefined) effects.push({ do: 'wait', milliseconds: event.rests, then: 'rested', wish });
      const held: Held<C> = {
        ...(text === undefined ? { target, says, scope, command } : { target, says, scope, command, text }),
        wish,
        answered: was?.answered,
        refused: undefined,
      };
      const cleared = without(open, target);
      const texts =
        text === undefined ? cleared.texts : { ...cleared.texts, [target]: { text, state: 'typing' as const } };
      return { ...cleared, held, texts, turn: Math.max(open.turn, wish) };
    }
    case 'write': {
      const open = state.held?.target === event.target ? { ...state, held: undefined } : closed(state, event.key);
      const { text, message } = event;
      const written: Text = message === undefined ? { text, state: 'typing' } : { text, state: 'wrong', message };
      return { ...open, texts: { ...open.texts, [event.target]: written } };
    }
    case 'letGo':
      return event.target !== undefined && state.held?.target !== event.target ? state : closed(state, event.key);
    case 'rested':
      return state.held?.wish === event.wish ? closed(state, event.key) : state;
    case 'cancel': {
      const held = state.held?.target === event.target ? undefined : state.held;
      const queue = state.queue.filter(
        (act) => act.kind !== 'ask' || act.target !== event.target || act.text === undefined,
      );
      return without({ ...state, held, queue }, event.target);
    }
    case 'undo':
    case 'redo': {
      const open = closed(state, event.key);
      // What the server does not take is taken back here.
      if (open.refused !== undefined && event.type === 'undo') {
        return { ...open, queue: open.queue.slice(1), refused: undefined };
      }
      const names = namesOf(open);
      const there = event.type === 'undo' ? names.undoes : names.redoes;
      return there ? { ...open, queue: [...open.queue, { key: event.key, kind: event.type }] } : open;
    }
    case 'saved': {
      if (state.saving?.turn !== event.turn) return state;
      const reached = { ...state, saving: undefined, lost: undefined, full: false };
      return { ...reached, saved: event.body, queue: state.queue.slice(1) };
    }
    case 'unsaved':
      return state.saving?.turn === event.turn
        ? unsaved({ ...state, saving: undefined }, event.failure, event.at, effects)
        : state;
    case 'answered':
      return answered(state, event);
    case 'unanswered':
      return unanswered(state, event.turn, event.failure, event.at, effects);
    case 'retry': {
      const lost = state.lost && { ...state.lost, trying: true };
      return { ...state, lost, full: false };
    }
    case 'keep': {
      const { conflict, kept } = state;
      if (!conflict || kept === undefined) return state;
      // What is here is kept as a revision either way: taking the other one is undoing it, and redo brings it back.
      const says = state.queue.map(saysOf).findLast((one) => one !== undefined);
      const mine: Act<C> = {
        key: `${event.key}-mine`,
        kind: 'edit',
        says: says ?? 'Kept',
        // What was done there and not here stays.
        changes: changesBetween(state.saved?.document, kept),
      };
      const queue: Act<C>[] = same(kept, conflict.document)
        ? []
        : event.which === 'mine'
          ? [mine]
          : [mine, { key: `${event.key}-theirs`, kind: 'undo' }];
      return { ...state, saved: conflict, conflict: undefined, queue };
    }
    case 'took':
      return { ...state, saved: event.body, queue: [], held: undefined, refused: undefined };
    case 'seen': {
      const busy = state.queue.length > 0 || state.held !== undefined || state.saving !== undefined;
      const same = event.body.revision === state.saved?.revision;
      // An answer that comes late tells how it was before something was saved from here.
      const late = event.since !== state.saved?.revision;
      return busy || same || late ? state : { ...state, saved: event.body };
    }
    case 'look': {
      const scope = event.view?.scope;
      const stays = scope && state.view && same(scope, state.view.scope);
      const open = stays ? state : closed(state, event.key);
      return stays
        ? { ...open, view: event.view }
        : { ...open, view: event.view, plan: undefined, settled: undefined, unplanned: undefined };
    }
    case 'remembered':
      return state.plan || !state.view || !same(state.view.scope, event.planned.scope)
        ? state
        : { ...state, plan: event.planned, settled: event.planned };
  }
}

/** Texts of another time: what waits for no answer any more is typed on. */
function stillOpen<C>(texts: { readonly [target: string]: Text }, queue: readonly Act<C>[]) {
  const waits = (target: string) => queue.some((act) => act.kind === 'ask' && act.target === target);
  return Object.fromEntries(
    Object.entries(texts).map(([target, one]) =>
      one.state === 'waiting' && !waits(target)
        ? [target, { text: one.text, state: 'typing' as const }]
        : [target, one],
    ),
  );
}

/** Nothing is typed into a field or told of it any more. */
function without<T, C, P>(state: Session<T, C, P>, target: string): Session<T, C, P> {
  const drop = <V>(all: { readonly [target: string]: V }) =>
    target in all ? Object.fromEntries(Object.entries(all).filter(([one]) => one !== target)) : all;
  return { ...state, texts: drop(state.texts), told: drop(state.told) };
}

/** Something is done: it joins the queue, unless it changes nothing. What the server refused goes again with it. */
function enqueued<T, C, P>(state: Session<T, C, P>, act: Act<C> & { kind: 'edit' }): Session<T, C, P> {
  const here = settled(undefined, state).kept;
  // Only what differs is changed, so that nothing that was done beside it is put back.
  const changes = changesBetween(here, applied(here, act.changes));
  if (here === undefined || changes.length === 0) return state;
  const [first, ...rest] = state.queue;
  if (state.refused !== undefined && first?.kind === 'edit') {
    const mended = { ...act, changes: [...first.changes, ...rest.flatMap(changesIn), ...changes] };
    return { ...state, queue: [mended], refused: undefined };
  }
  return { ...state, queue: [...state.queue, { ...act, changes }] };
}

const changesIn = <C>(act: Act<C>): readonly Change[] => (act.kind === 'edit' ? act.changes : []);

/** A command joins the queue, to be answered in its turn. */
function asked<T, C, P>(
  state: Session<T, C, P>,
  { target, says, scope, command, text }: Wish<C>,
  key: string,
  interim: readonly Change[] = [],
): Session<T, C, P> {
  const wish = text === undefined ? { target, says, scope, command } : { target, says, scope, command, text };
  const texts = text === undefined ? state.texts : { ...state.texts, [target]: { text, state: 'waiting' as const } };
  return { ...state, texts, queue: [...state.queue, { key, kind: 'ask', interim, ...wish }] };
}

/** What is held is done, unless it is held by the same target: as it was answered last, or as it will be. */
function closed<T, C, P>(state: Session<T, C, P>, key: string, by?: string): Session<T, C, P> {
  const { held } = state;
  if (!held || held.target === by) return state;
  const open = { ...state, held: undefined };
  const own = `${key}-${held.target}`;
  if (held.refused?.wish === held.wish && held.text !== undefined) {
    const wrong: Text = { text: held.text, state: 'wrong', message: held.refused.message };
    return { ...open, texts: { ...open.texts, [held.target]: wrong } };
  }
  const known = held.answered && (held.answered.wish === held.wish || held.refused?.wish === held.wish);
  if (held.answered && known) {
    const done = held.text === undefined ? open : without(open, held.target);
    return enqueued(done, { key: own, kind: 'edit', says: held.says, changes: held.answered.changes });
  }
  if (held.refused?.wish === held.wish) return open;
  // A mark stays where it was seen last; what half a text says is not shown.
  const queued = asked(open, held, own, held.text === undefined ? held.answered?.changes : []);
  // The request that is under way for it is its answer.
  const { asking } = state;
  if (asking?.what !== 'held' || asking.wish !== held.wish) return queued;
  return { ...queued, asking: { ...asking, what: 'act', act: own } };
}

function unsaved<T, C, P>(
  state: Session<T, C, P>,
  failure: Failure<T>,
  at: number,
  effects: Effect<T, C>[],
): Session<T, C, P> {
  const [first, ...rest] = state.queue;
  switch (failure.kind) {
    case 'lost':
      return missed(state, failure.message, at, effects);
    case 'full':
      effects.push({ do: 'wait', milliseconds: retryFullAfter, then: 'retry' });
      return { ...state, full: true, lost: undefined };
    case 'overtaken': {
      const stepped = first?.kind === 'undo' || first?.kind === 'redo';
      const queue = stepped ? rest : state.queue;
      const open = { ...state, queue, lost: undefined };
      if (!failure.theirs) return stepped ? open : { ...open, refused: failure.message };
      // What was done here goes on top of what was done there, unless both changed the same thing: then a person chooses.
      const apart = queue.length === 0 || isApart(open, queue, failure.theirs.document);
      return apart ? { ...open, saved: failure.theirs } : { ...open, conflict: failure.theirs };
    }
    case 'wrong':
      if (first?.kind === 'undo' || first?.kind === 'redo') {
        return { ...state, queue: rest, lost: undefined, told: { ...state.told, [first.kind]: failure.message } };
      }
      return { ...state, refused: failure.message, lost: undefined };
  }
}

/** Whether nothing that waits here was changed on another device, or lies in what was. */
function isApart<T, C, P>(state: Session<T, C, P>, queue: readonly Act<C>[], theirs: T): boolean {
  const there = changesBetween(state.saved?.document, theirs).map((change) => change.at);
  const here = queue.flatMap((act) =>
    act.kind === 'edit' ? act.changes.map((change) => change.at) : act.kind === 'ask' ? [act.scope] : [[]],
  );
  return here.every((one) => there.every((other) => !meet(one, other)));
}

/** The server did not answer: it is left alone for a while, and what is under way goes again. */
function missed<T, C, P>(
  state: Session<T, C, P>,
  message: string,
  at: number,
  effects: Effect<T, C>[],
): Session<T, C, P> {
  const times = (state.lost?.times ?? -1) + 1;
  // Two requests that are lost together are waited for once.
  if (!state.lost || state.lost.trying) effects.push({ do: 'wait', milliseconds: retryAfter(times), then: 'retry' });
  return { ...state, lost: { since: state.lost?.since ?? at, message, trying: false, times } };
}

function answered<T, C, P>(
  state: Session<T, C, P>,
  event: { turn: number; document: T; plan: P | undefined; at: number },
): Session<T, C, P> {
  const { asking } = state;
  if (!asking || asking.turn !== event.turn) return state;
  const { scope, of, context, what } = asking;
  const part = valueAt(event.document, scope);
  const changes = changesBetween(valueAt(of, scope), part, scope);
  const reached = { ...state, asking: undefined, lost: undefined, unplanned: undefined };
  const looked = state.view && same(state.view.scope, scope);
  const planned = (plan: P): Planned<P> => ({ plan, scope, of: part, context, at: event.at });
  const open = looked && event.plan !== undefined ? { ...reached, plan: planned(event.plan) } : reached;
  if (what === 'act') {
    const act = askedAct(state, asking);
    if (!act) return reached;
    const done = act.text === undefined ? open : doneTyping(open, act.target, act.text);
    const edit: Act<C> = { key: act.key, kind: 'edit', says: act.says, changes };
    return { ...done, queue: inPlaceOf(state.queue, act.key, changes.length > 0 ? edit : undefined) };
  }
  if (what === 'plan') return open;
  // An answer to what is no longer held changes nothing.
  if (!state.held || state.held.target !== asking.target) return reached;
  return { ...open, held: { ...state.held, answered: { wish: asking.wish, changes } } };
}

/** A text that was taken leaves its field, unless another one is typed there by now. */
const doneTyping = <T, C, P>(state: Session<T, C, P>, target: string, text: string): Session<T, C, P> =>
  state.texts[target]?.text === text && state.texts[target].state === 'waiting' ? without(state, target) : state;

/** The act a request is for, where it is still in the queue. */
function askedAct<T, C, P>(state: Session<T, C, P>, asking: Asking<T>) {
  const act = state.queue.find((one) => one.key === asking.act);
  return act?.kind === 'ask' ? act : undefined;
}

function unanswered<T, C, P>(
  state: Session<T, C, P>,
  turn: number,
  failure: Failure<T>,
  at: number,
  effects: Effect<T, C>[],
): Session<T, C, P> {
  const { asking } = state;
  if (!asking || asking.turn !== turn) return state;
  const open = { ...state, asking: undefined };
  if (failure.kind !== 'wrong') return missed(open, failure.message, at, effects);
  const reached = { ...open, lost: undefined };
  const { message, problem } = failure;
  switch (asking.what) {
    case 'act': {
      const act = askedAct(state, asking);
      if (!act) return reached;
      const queue = inPlaceOf(state.queue, act.key, undefined);
      if (act.text === undefined) return { ...reached, queue, told: { ...state.told, [act.target]: message } };
      // Another text that is typed there by now is not overwritten.
      if (state.texts[act.target]?.state === 'typing') return { ...reached, queue };
      return {
        ...reached,
        queue,
        texts: { ...state.texts, [act.target]: { text: act.text, state: 'wrong', message } },
      };
    }
    case 'held': {
      if (!state.held || asking.wish !== state.held.wish) return reached;
      const { text, answered: last, target } = state.held;
      const refused = { wish: asking.wish, message };
      // Half a number is no mistake, and shows nothing; a mark stays where it could be had last.
      const held = { ...state.held, refused, answered: text === undefined ? last : undefined };
      return { ...reached, held, told: text === undefined ? { ...state.told, [target]: message } : state.told };
    }
    case 'plan':
      return { ...reached, unplanned: { of: valueAt(asking.of, asking.scope), context: asking.context, problem } };
  }
}

/** The lines go on: what can be sent now is. */
function advanced<T, C, P>(from: Session<T, C, P>): Out<T, C, P> {
  let state = from;
  const effects: Effect<T, C>[] = [];
  if (!state.saved || (state.lost && !state.lost.trying)) return { state, effects };
  const [first] = state.queue;
  const stuck = state.conflict !== undefined || state.refused !== undefined || state.full;
  if (!state.saving && first && first.kind !== 'ask' && !stuck) {
    const turn = state.turn + 1;
    const { revision: based_on, document } = state.saved;
    const { key } = first;
    effects.push(
      first.kind === 'edit'
        ? { do: 'save', turn, key, based_on, says: first.says, document: applied(document, first.changes) }
        : { do: 'step', turn, key, based_on, which: first.kind },
    );
    state = { ...state, saving: { turn }, turn };
  }
  if (!state.asking) {
    const next = nextAsked(state);
    if (next) {
      const turn = state.turn + 1;
      const { command, ...asking } = next;
      effects.push({ do: 'ask', turn, document: next.of, scope: next.scope, command, context: next.context });
      state = { ...state, asking: { turn, ...asking }, turn };
    }
  }
  return { state, effects };
}

type Next<T, C> = Omit<Asking<T>, 'turn'> & { command: C | undefined };

function nextAsked<T, C, P>(state: Session<T, C, P>): Next<T, C> | undefined {
  const { saved, queue, held, view, kept, shown } = state;
  if (!saved || kept === undefined || shown === undefined) return undefined;
  const context = view?.context;
  const index = queue.findIndex((act) => act.kind === 'ask');
  const act = queue[index];
  if (act?.kind === 'ask') {
    const of = before(saved, queue, index);
    return of === undefined
      ? undefined
      : { ...none, what: 'act', act: act.key, scope: act.scope, of, context, command: act.command };
  }
  // How the document stands after an undo is not known before it is answered.
  if (queue.some((one) => one.kind !== 'edit')) return undefined;
  const done = Math.max(held?.answered?.wish ?? 0, held?.refused?.wish ?? 0);
  if (held && held.wish > done) {
    const { wish, target, scope, command } = held;
    return { ...none, what: 'held', wish, target, scope, of: kept, context, command };
  }
  if (!view || isPlanned(state) || valueAt(shown, view.scope) === undefined) return undefined;
  return { ...none, what: 'plan', scope: view.scope, of: shown, context, command: undefined };
}

const none = { wish: 0, act: undefined, target: undefined };

/** Whether what is shown is planned, or known not to be. */
function isPlanned<T, C, P>({ plan, unplanned, view, shown }: Session<T, C, P>): boolean {
  const part = valueAt(shown, view?.scope ?? []);
  const is = (of: { of: unknown; context: unknown } | undefined) =>
    of !== undefined && of.context === view?.context && (of.of === part || same(of.of, part));
  return is(plan) || is(unplanned);
}

/** What follows from the rest: the document as it is edited and as it is shown, and the plan without what is held. */
function settled<T, C, P>(was: Session<T, C, P> | undefined, state: Session<T, C, P>): Session<T, C, P> {
  if (!state.saved) return state;
  const old = was && was.saved === state.saved && was.queue === state.queue;
  const kept = old ? was.kept : replayed(state.saved, state.queue).document;
  const changes = state.held?.answered?.changes;
  const shown = changes && kept !== undefined ? applied(kept, changes) : kept;
  const stays = old && was.held?.answered === state.held?.answered;
  const now = { ...state, kept, shown: stays ? was.shown : shown };
  return !state.held && state.plan !== state.settled && state.plan ? { ...now, settled: state.plan } : now;
}

/** What undo and redo would do, in words; nothing where there is nothing. */
export function namesOf<T, C, P>({ saved, queue }: Session<T, C, P>) {
  if (!saved) return { undoes: undefined, redoes: undefined };
  const { undoes, redoes } = replayed(saved, queue);
  return { undoes, redoes };
}

/** Whether the plan that is shown is of what is shown: an older one stays on screen with its age. */
export const isFresh = <T, C, P>(state: Session<T, C, P>): boolean =>
  !state.lost && isPlanned(state) && !state.unplanned;
