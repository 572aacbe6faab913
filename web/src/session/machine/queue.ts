import { applied, type Change } from './change';
import type { Act, Body } from './state';

/** What an act does to the document, as far as it is known here. */
const changesOf = <C>(act: Act<C>): readonly Change[] =>
  act.kind === 'edit' ? act.changes : act.kind === 'ask' ? act.interim : [];

/** What an act does, in words. */
export const saysOf = <C>(act: Act<C>): string | undefined =>
  act.kind === 'edit' || act.kind === 'ask' ? act.says : undefined;

type Replay<T> = { document: T; undoes: string | null | undefined; redoes: string | null | undefined };

/**
 * The document with the queue, and what undo and redo would do. What undo takes back of the queue itself is known; how
 * the document stood before it, only the server knows: until it answers, the document stays.
 */
export function replayed<T, C>(saved: Body<T>, queue: readonly Act<C>[]): Replay<T> {
  let states: { document: T; says: string | null | undefined }[] = [{ document: saved.document, says: saved.undo }];
  let here = 0;
  let redo = saved.redo;
  for (const act of queue) {
    const now = states[here]?.document ?? saved.document;
    if (act.kind === 'undo') here = Math.max(0, here - 1);
    else if (act.kind === 'redo') here = Math.min(states.length - 1, here + 1);
    else {
      states = [...states.slice(0, here + 1), { document: applied(now, changesOf(act)), says: saysOf(act) }];
      here += 1;
      redo = undefined;
    }
  }
  const now = states[here];
  return {
    document: now?.document ?? saved.document,
    undoes: now?.says,
    redoes: here < states.length - 1 ? states[here + 1]?.says : redo,
  };
}

/** The document an act of the queue is made on, where everything before it is known. */
export function before<T, C>(saved: Body<T>, queue: readonly Act<C>[], index: number): T | undefined {
  const earlier = queue.slice(0, index);
  if (!earlier.every((act) => act.kind === 'edit')) return undefined;
  return earlier.reduce((document, act) => applied(document, changesOf(act)), saved.document);
}

/** An act of the queue in place of another; without one it leaves. */
export const inPlaceOf = <C>(queue: readonly Act<C>[], key: string, act: Act<C> | undefined): readonly Act<C>[] =>
  queue.flatMap((one) => (one.key !== key ? [one] : act ? [act] : []));
