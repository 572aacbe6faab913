import { useStore } from 'zustand';
import { useDocument } from '../session/document';
import { keyOf } from '../session/machine/change';
import { Wrong } from '../ui/field';

/** What could not be done, said where it was tried: of whatever begins so (a mark, a button, a list). */
export function Told({ about }: { about: string }) {
  const { session, scope } = useDocument();
  const begins = `${keyOf(scope.slice(-1))}/${about}`;
  const told = useStore(session.store, (state) => {
    const target = Object.keys(state.told).find((one) => one.startsWith(begins));
    return target === undefined ? undefined : state.told[target];
  });
  return told === undefined ? null : <Wrong role="alert">Not done. {told}</Wrong>;
}
