import { useStore } from 'zustand';
import { namesOf } from './machine/session';
import type { Session } from './machine/state';
import type { Runner } from './runner';

export type SaveState = 'saved' | 'saving' | 'kept' | 'full' | 'refused';

function stateOf<T, C, P>(state: Session<T, C, P>): SaveState {
  const { queue, lost, full, refused, conflict, texts } = state;
  if (refused !== undefined || conflict) return 'refused';
  if (full) return 'full';
  const waits = queue.length > 0 || Object.values(texts).some((one) => one.state === 'waiting');
  if (lost) return waits || state.held ? 'kept' : 'refused';
  return waits || state.saving ? 'saving' : 'saved';
}

/** Whether a document is saved, and what undo and redo would do. */
export function useSaving<T, C, P>(of: Runner<T, C, P>) {
  const save = useStore(of.store, stateOf);
  const lost = useStore(of.store, (state) => state.lost);
  const full = useStore(of.store, (state) => state.full);
  const refused = useStore(of.store, (state) => state.refused);
  const undoes = useStore(of.store, (state) => namesOf(state).undoes) ?? undefined;
  const redoes = useStore(of.store, (state) => namesOf(state).redoes) ?? undefined;
  const held = useStore(of.store, (state) => state.held?.says);
  return {
    save,
    lost,
    full,
    refused,
    undoes: held ?? undoes,
    redoes,
    undo: () => of.send({ type: 'undo' }),
    redo: () => of.send({ type: 'redo' }),
  };
}
