import { createContext, type ReactNode, useContext, useEffect, useMemo } from 'react';
import { answered, api, type Kit, type KitBody } from '../api/client';
import { Conflict } from '../jobs/Conflict';
import { type Body, type Edited, type Kept, useDocument } from '../jobs/useDocument';

/** The kinds of things a kit holds. */
export const kinds = ['cameras', 'lenses', 'flashes', 'modifiers', 'gels', 'filters', 'stands', 'triggers'] as const;
export type Kind = (typeof kinds)[number];

export const bodyOf = ({ kit, ...rest }: KitBody): Body<Kit> => ({ ...rest, document: kit });

const kept: Kept<Kit> = {
  get: async () => bodyOf(await answered(api.GET('/api/v1/kit'))),
  put: async (based_on, change, kit) =>
    bodyOf(await answered(api.PUT('/api/v1/kit', { body: { based_on, change, kit } }))),
  step: async (which, based_on) => {
    const path = which === 'undo' ? ('/api/v1/kit/undo' as const) : ('/api/v1/kit/redo' as const);
    return bodyOf(await answered(api.POST(path, { body: { based_on } })));
  },
  // A kit has no version of its own: one of another is refused when it is saved, and stays in this browser.
  upgraded: (draft) => Promise.resolve(draft),
  theirs: (problem) => (problem.status === 409 ? kept.get() : undefined),
  took: () => undefined,
};

const Context = createContext<Edited<Kit> | undefined>(undefined);

let current: Kit | undefined;
/** What is owned at this moment, for what is not on screen: a save. */
export const ownedNow = () => current;

/** The kit, once for all pages. */
export function KitProvider({ children }: { children: ReactNode }) {
  const { edited } = useDocument('kit', kept);
  useEffect(() => {
    current = edited?.document;
  }, [edited]);
  return (
    <Context.Provider value={edited}>
      {children}
      {edited && <Conflict document={edited} what="The kit" />}
    </Context.Provider>
  );
}

/** What the person owns; nothing until it is there. */
export function useKit() {
  return useContext(Context);
}

const union = <T extends { id: string }>(owned: T[], job: T[]) => [
  ...owned,
  ...job.filter((thing) => !owned.some((one) => one.id === thing.id)),
];

/** What is owned, and after it what only a job has. */
export const together = (owned: Kit, job: Kit): Kit => ({
  cameras: union(owned.cameras, job.cameras),
  lenses: union(owned.lenses, job.lenses),
  flashes: union(owned.flashes, job.flashes),
  modifiers: union(owned.modifiers, job.modifiers),
  gels: union(owned.gels, job.gels),
  filters: union(owned.filters, job.filters),
  stands: union(owned.stands, job.stands),
  triggers: union(owned.triggers, job.triggers),
});

/** The things a job can use: what is owned, and what it still uses that no longer is. */
export function useJobKit(job: Kit): Kit {
  const owned = useKit()?.document;
  return useMemo(() => (owned ? together(owned, job) : job), [owned, job]);
}

/** What each thing of a kind is called in a list; one that has left the kit says so. */
export function useOptions(kit: Kit, kind: Kind): { id: string; label: string }[] {
  const owned = useKit()?.document;
  return kit[kind].map(({ id, name }) => {
    const gone = owned && !owned[kind].some((one) => one.id === id);
    return { id, label: gone ? `${name} (no longer in the kit)` : name };
  });
}

/** An id that no thing has, has had or will have: what has retired from the kit keeps its own. */
export function newId(): string {
  const bytes = crypto.getRandomValues(new Uint8Array(16));
  return Array.from(bytes, (byte) => byte.toString(16).padStart(2, '0')).join('');
}

/** An id no other of its list has. */
export function freshId(base: string, taken: string[]): string {
  let number = 2;
  while (taken.includes(`${base}-${number}`)) number += 1;
  return `${base}-${number}`;
}
