import { type QueryClient, useQueryClient } from '@tanstack/react-query';
import { createContext, type ReactNode, useContext, useEffect, useMemo, useState } from 'react';
import { useStore } from 'zustand';
import {
  answered,
  api,
  type Command,
  type Job,
  type JobBody,
  type Kit,
  type MapAsked,
  type Plan,
  type Setup,
  type Show,
} from '../api/client';
import { usePreferences } from '../api/preferences';
import { Conflict } from './Conflict';
import { DocumentContext } from './document';
import { ownedNow, together, useOwned } from './kit';
import { applied, changesBetween, type Path, pointerTo, valueAt } from './machine/change';
import type { Body, Session } from './machine/state';
import { remember, remembered } from './remembered';
import { type Runner, runner } from './runner';

/** A command on a setup. Where it is about a number, `at` is the path to it within the setup. */
export type SetupCommand =
  | Exclude<Command, { edit: unknown }>
  | { edit: { type: { at: Path; text: string } } | { nudge: { at: Path; by: number } } };

export type JobSession = Session<Job, SetupCommand, Plan>;
export type JobRunner = Runner<Job, SetupCommand, Plan>;
/** What a plan depends on beside the setup. */
type Context = { kit: Kit; show: Show; map?: MapAsked | undefined };

export const bodyOf = ({ job, ...rest }: JobBody): Body<Job> => ({ ...rest, document: job });

/** A command as it is sent: paths as pointers into the setup as it stands. */
export function asSent(command: SetupCommand, setup: unknown): Command {
  if (typeof command === 'string' || !('edit' in command)) return command;
  const { edit } = command;
  return 'type' in edit
    ? { edit: { type: { ...edit.type, at: pointerTo(setup, edit.type.at) } } }
    : { edit: { nudge: { ...edit.nudge, at: pointerTo(setup, edit.nudge.at) } } };
}

/** How numbers are shown, for what is asked when nothing is on screen. */
let shownNow: Show = {};

const kitOf = (job: Job): Kit => {
  const owned = ownedNow();
  return owned ? together(owned, job.kit) : job.kit;
};

function openJob(id: string, client: QueryClient): JobRunner {
  const params = { path: { id } };
  const keyed = (key: string) => ({ params, headers: { 'Idempotency-Key': key } });
  const get = async () => bodyOf(await answered(api.GET('/api/v1/jobs/{id}', { params })));
  return runner<Job, SetupCommand, Plan>(id, {
    get,
    put: async (key, based_on, change, job) => {
      // A thing that was just added to the kit may not have reached the server by itself.
      const body = { based_on, change, job: { ...job, kit: kitOf(job) } };
      return bodyOf(await answered(api.PUT('/api/v1/jobs/{id}', { ...keyed(key), body })));
    },
    step: async (key, which, based_on) => {
      const path = which === 'undo' ? ('/api/v1/jobs/{id}/undo' as const) : ('/api/v1/jobs/{id}/redo' as const);
      return bodyOf(await answered(api.POST(path, { ...keyed(key), body: { based_on } })));
    },
    ask: async (document, scope, command, context) => {
      if (command && scope.length === 0) return { document: await editedJob(document, command), plan: undefined };
      const setup = valueAt(document, scope) as Setup;
      // What waited since another time is asked before any setup is looked at.
      const { kit, show, map } = (context as Context | undefined) ?? { kit: kitOf(document), show: shownNow };
      const done = command ? { command: asSent(command, setup) } : {};
      const body = { setup, kit, show, ...done, ...(map ? { map } : {}) };
      const solved = await answered(api.POST('/api/v1/solve', { body }));
      return { document: command ? applied(document, [{ at: scope, to: solved.setup }]) : document, plan: solved.plan };
    },
    upgraded: async (draft, now) =>
      draft.format_version === now.format_version
        ? draft
        : await answered(api.POST('/api/v1/upgrade', { body: draft })),
    theirs: (problem) => {
      const theirs = problem.problem?.theirs;
      return Promise.resolve(theirs ? bodyOf(theirs) : undefined);
    },
    took: () => void client.invalidateQueries({ queryKey: ['jobs'] }),
  });
}

/** A job with a number of its own typed or stepped: nothing is planned by that. */
async function editedJob(job: Job, command: SetupCommand): Promise<Job> {
  const sent = asSent(command, job);
  if (typeof sent === 'string' || !('edit' in sent)) return job;
  return answered(api.POST('/api/v1/edit-job', { body: { job, edit: sent.edit } }));
}

const JobContext = createContext<JobRunner | undefined>(undefined);

/** Opens a job for what is under it; its edits go on being saved when it is left. */
export function JobProvider({ id, children }: { id: string; children: ReactNode }) {
  const client = useQueryClient();
  const job = useMemo(() => openJob(id, client), [id, client]);
  const { show, known } = usePreferences();
  useEffect(() => {
    shownNow = show;
    if (known) job.open();
  }, [job, show, known]);
  useEffect(() => {
    const look = () => document.visibilityState === 'visible' && job.look();
    const leave = () => job.send({ type: 'letGo' });
    document.addEventListener('visibilitychange', look);
    window.addEventListener('focus', look);
    window.addEventListener('pagehide', leave);
    return () => {
      document.removeEventListener('visibilitychange', look);
      window.removeEventListener('focus', look);
      window.removeEventListener('pagehide', leave);
      leave();
    };
  }, [job]);
  return (
    <JobContext.Provider value={job}>
      {children}
      <Conflict of={job} what="This job" />
    </JobContext.Provider>
  );
}

/** The open job's session. */
export function useJobRunner(): JobRunner {
  const job = useContext(JobContext);
  if (!job) throw new Error('this is for parts within an open job');
  return job;
}

/** Something of the open job's session; renders again only when it changes. */
export function useJobState<S>(of: (state: JobSession) => S): S {
  return useStore(useJobRunner().store, of);
}

/** The open job as it is edited. Only for what is under an opened one. */
export function useJob(): { id: string; job: Job; session: JobRunner } {
  const session = useJobRunner();
  const job = useJobState((state) => state.kept);
  if (!job) throw new Error('this is for parts within an opened job');
  return { id: session.id, job, session };
}

/** The things a job can use: what is owned, and what it still uses that no longer is. */
export function useJobKit(): Kit {
  const job = useJobState((state) => state.kept?.kit);
  const owned = useOwned();
  return useMemo(() => {
    if (!job) throw new Error('this is for parts within an opened job');
    return owned ? together(owned, job) : job;
  }, [owned, job]);
}

/** How long nothing is new before a plan is kept for another time, in milliseconds. */
const rest = 1500;

/** The plan of a setup is kept for when the server is gone, and shown with its age where there is no newer one. */
function useRemembered(session: JobRunner, setup: string) {
  useEffect(() => {
    let timer: number | undefined;
    let left = false;
    void remembered<Plan>(session.id, setup)
      .catch(() => undefined)
      .then((planned) => {
        if (planned && !left) session.send({ type: 'remembered', planned });
      });
    const stop = session.store.subscribe(({ settled }, before) => {
      if (!settled || settled === before.settled) return;
      window.clearTimeout(timer);
      timer = window.setTimeout(() => void remember(session.id, setup, settled).catch(() => undefined), rest);
    });
    return () => {
      left = true;
      window.clearTimeout(timer);
      stop();
    };
  }, [session, setup]);
}

type OpenSetup = { id: string; scope: Path; kit: Kit; askMap: (asked: MapAsked | undefined) => void };
const SetupContext = createContext<OpenSetup | undefined>(undefined);

/** Opens a setup of the job: its plan follows it, the kit and how numbers are shown. */
export function SetupProvider({ id, children }: { id: string; children: ReactNode }) {
  const session = useJobRunner();
  const kit = useJobKit();
  const { show } = usePreferences();
  const scope = useMemo<Path>(() => ['setups', { id }], [id]);
  const [map, askMap] = useState<MapAsked>();
  const context = useMemo<Context>(() => ({ kit, show, map }), [kit, show, map]);
  useEffect(() => session.send({ type: 'look', view: { scope, context } }), [session, scope, context]);
  useEffect(() => () => session.send({ type: 'look', view: undefined }), [session, scope]);
  useRemembered(session, id);
  const open = useMemo(() => ({ id, scope, kit, askMap }), [id, scope, kit]);
  const document = useMemo(() => ({ session, scope, of: 'Setup' }), [session, scope]);
  return (
    <SetupContext.Provider value={open}>
      <DocumentContext.Provider value={document}>{children}</DocumentContext.Provider>
    </SetupContext.Provider>
  );
}

function useOpenSetup(): OpenSetup {
  const open = useContext(SetupContext);
  if (!open) throw new Error('this is for parts within an open setup');
  return open;
}

/** The open setup as it is edited: it does not change while something is held. With what can be done to it. */
export function useSetup() {
  const session = useJobRunner();
  const { scope, kit } = useOpenSetup();
  const setup = useJobState((state) => valueAt(state.kept, scope)) as Setup | undefined;
  if (!setup) throw new Error('this is for parts within an open setup');
  return useMemo(() => {
    const target = (at: Path) => [...scope, ...at];
    return {
      setup,
      kit,
      /** Puts something somewhere in the setup. What needs a rule is asked instead. */
      set: (says: string, at: Path, to: unknown) =>
        session.send({ type: 'edit', says, changes: [{ at: target(at), to }] }),
      /** A setup the server offered: what it offered to change of the one it was asked about. */
      take: (says: string, to: Setup, of: unknown = session.store.getState().settled?.of) =>
        session.send({ type: 'edit', says, changes: changesBetween(of ?? setup, to, scope) }),
      /** Has a command carried out; what is wrong with it is told of its target. */
      ask: (says: string, command: SetupCommand, about: string) =>
        session.send({ type: 'ask', target: `${setup.id}/${about}`, says, scope, command }),
    };
  }, [session, scope, setup, kit]);
}

/** The open setup under the pointer: it changes at every frame of a drag. */
export function useShownSetup(): Setup {
  const { scope } = useOpenSetup();
  const setup = useJobState((state) => valueAt(state.shown, scope)) as Setup | undefined;
  if (!setup) throw new Error('this is for parts within an open setup');
  return setup;
}

/** The plan of what is under the pointer; the last one there is. Something of it, so that little renders again. */
export function useLivePlan<S>(of: (plan: Plan) => S): S | undefined {
  return useJobState((state) => (state.plan ? of(state.plan.plan) : undefined));
}

/** The plan of the setup as it is edited: it does not change while something is held. */
export function usePlan(): Plan | undefined {
  return useJobState((state) => state.settled?.plan);
}

/** Has the set come with the plan, with this map of light, for as long as it is looked at. */
export function useMapAsked(asked: MapAsked) {
  const { askMap } = useOpenSetup();
  useEffect(() => askMap(asked), [askMap, asked]);
  useEffect(() => () => askMap(undefined), [askMap]);
}

/** Holds something of the setup: each new command takes the place of the one before, until it is let go or rests. */
export function useHold(about: string, says: string) {
  const session = useJobRunner();
  const { scope, id } = useOpenSetup();
  const target = `${id}/${about}`;
  return useMemo(
    () => ({
      target,
      move: (command: SetupCommand, rests?: number) =>
        session.send({ type: 'hold', target, says, scope, command, ...(rests === undefined ? {} : { rests }) }),
      /** The same by a text, which stays in its field where it is wrong. */
      type: (command: SetupCommand, text: string) => session.send({ type: 'hold', target, says, scope, command, text }),
      letGo: () => session.send({ type: 'letGo', target }),
      cancel: () => session.send({ type: 'cancel', target }),
      /** The command that is held, where it is held by this. */
      held: () => {
        const { held } = session.store.getState();
        return held?.target === target ? held.command : undefined;
      },
    }),
    [session, scope, target, says],
  );
}
