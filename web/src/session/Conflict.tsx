import { Suspense } from 'react';
import { useStore } from 'zustand';
import { lazily } from '../ui/lazily';
import type { Runner } from './runner';

const ChooseVersion = lazily(() => import('./ChooseVersion'));

/** Watches for a conflict; what is needed for it is loaded when there is one. */
export function Conflict<T, C, P>({ of, what }: { of: Runner<T, C, P>; what: string }) {
  const theirs = useStore(of.store, (state) => state.conflict);
  if (!theirs) return null;
  const { saved_at, undo } = theirs;
  return (
    <Suspense>
      <ChooseVersion
        what={what}
        savedAt={saved_at}
        change={undo ?? 'a change'}
        onChoice={(which) => of.send({ type: 'keep', which })}
      />
    </Suspense>
  );
}
