import { createContext, type ReactNode, useContext, useEffect, useMemo } from 'react';
import { useStore } from 'zustand';
import { answered, api, type Kit, type KitBody } from '../api/client';
import { usePreferences } from '../api/preferences';
import { Conflict } from './Conflict';
import { DocumentContext } from './document';
import { type Path, pointerTo } from './machine/change';
import type { Body, Session } from './machine/state';
import { type Runner, runner } from './runner';

/** The kinds of things a kit holds. */
export const kinds = [
  'cameras',
  'lenses',
  'flashes',
  'modifiers',
  'gels',
  'filters',
  'stands',
  'booms',
  'boards',
  'backdrops',
  'triggers',
  'meters',
] as const;
export type Kind = (typeof kinds)[number];

type KitCommand = { edit: { type: { at: Path; text: string } } | { nudge: { at: Path; by: number } } };
export type KitSession = Session<Kit, KitCommand, undefined>;
export type KitRunner = Runner<Kit, KitCommand, undefined>;

export const bodyOf = ({ kit, ...rest }: KitBody): Body<Kit> => ({ ...rest, document: kit });

/** How lengths are read: the kit's session outlives the page that shows them. */
let length: 'metres' | 'feet_and_inches' = 'metres';

function openKit(): KitRunner {
  const get = async () => bodyOf(await answered(api.GET('/api/v1/kit')));
  const keyed = (key: string) => ({ headers: { 'Idempotency-Key': key } });
  return runner<Kit, KitCommand, undefined>('kit', {
    get,
    put: async (key, based_on, change, kit) =>
      bodyOf(await answered(api.PUT('/api/v1/kit', { ...keyed(key), body: { based_on, change, kit } }))),
    step: async (key, which, based_on) => {
      const path = which === 'undo' ? ('/api/v1/kit/undo' as const) : ('/api/v1/kit/redo' as const);
      return bodyOf(await answered(api.POST(path, { ...keyed(key), body: { based_on } })));
    },
    ask: async (kit, _, command) => {
      if (!command) return { document: kit, plan: undefined };
      const { edit } = command;
      const sent =
        'type' in edit
          ? { type: { ...edit.type, at: pointerTo(kit, edit.type.at) } }
          : { nudge: { ...edit.nudge, at: pointerTo(kit, edit.nudge.at) } };
      return {
        document: await answered(api.POST('/api/v1/kit/edit', { body: { kit, edit: sent, length } })),
        plan: undefined,
      };
    },
    // A kit has no version of its own: one of another is refused when it is saved, and stays in this browser.
    upgraded: (draft) => Promise.resolve(draft),
    theirs: get,
    took: () => undefined,
  });
}

const Context = createContext<KitRunner | undefined>(undefined);

let current: KitRunner | undefined;
/** What is owned at this moment, for what is not on screen: a save. */
export const ownedNow = (): Kit | undefined => current?.store.getState().kept;

/** The kit, once for all pages. */
export function KitProvider({ children }: { children: ReactNode }) {
  const kit = useMemo(() => openKit(), []);
  const { show, known } = usePreferences();
  useEffect(() => {
    current = kit;
    length = show.length ?? 'metres';
    if (known) kit.open();
  }, [kit, show, known]);
  return (
    <Context.Provider value={kit}>
      {children}
      <Conflict of={kit} what="The kit" />
    </Context.Provider>
  );
}

export function useKitRunner(): KitRunner {
  const kit = useContext(Context);
  if (!kit) throw new Error('this is for parts within KitProvider');
  return kit;
}

export function useKitState<S>(of: (state: KitSession) => S): S {
  return useStore(useKitRunner().store, of);
}

/** What the person owns; nothing until it is there. */
export const useOwned = (): Kit | undefined => useKitState((state) => state.kept);

/** Fields under it are the kit's. */
export function KitFields({ children }: { children: ReactNode }) {
  const session = useKitRunner();
  const document = useMemo(() => ({ session, scope: [], of: 'Kit' }), [session]);
  return <DocumentContext.Provider value={document}>{children}</DocumentContext.Provider>;
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
  booms: union(owned.booms, job.booms),
  boards: union(owned.boards, job.boards),
  backdrops: union(owned.backdrops, job.backdrops),
  triggers: union(owned.triggers, job.triggers),
  meters: union(owned.meters, job.meters),
});

/** What each thing of a kind is called in a list; one that has left the kit says so. */
export function useOptions(kit: Kit, kind: Kind): { id: string; label: string }[] {
  const owned = useOwned();
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
