import { createStore, type StoreApi } from 'zustand/vanilla';
import { ApiProblem } from '../api/client';
import { clearDraft, readAside, readDraft, readTexts, setAside, writeDraft, writeTexts } from './drafts';
import type { Path } from './machine/change';
import { begun, step } from './machine/session';
import type { Body, Draft, Effect, Event, Failure, Session } from './machine/state';

/** Where a document is kept, and who answers what is asked about it. */
export type Ports<T, C, P> = {
  get: () => Promise<Body<T>>;
  put: (key: string, basedOn: number, says: string, document: T) => Promise<Body<T>>;
  step: (key: string, which: 'undo' | 'redo', basedOn: number) => Promise<Body<T>>;
  /** The document with a command carried out in a part of it, and the plan of that part; none of what is not planned. */
  ask: (
    document: T,
    scope: Path,
    command: C | undefined,
    context: unknown,
  ) => Promise<{ document: T; plan: P | undefined }>;
  /** A document that was never saved, as one of this version of Tolva. */
  upgraded: (draft: T, now: T) => Promise<T>;
  /** What somebody else saved, where a save or step was refused for it. */
  theirs: (problem: ApiProblem) => Promise<Body<T> | undefined>;
  /** Told of every body that comes from the server. */
  took: () => void;
};

/** An open document: its state, and how to send it events. */
export type Runner<T, C, P> = {
  id: string;
  store: StoreApi<Session<T, C, P>>;
  send: (event: Event<T, C, P>) => void;
  open: () => void;
  /** Looks whether somebody else saved it in the meantime. */
  look: () => void;
  /** A draft that nobody could read, set aside. */
  aside: () => string | undefined;
};

/** A key no other act has. */
const newKey = () =>
  Array.from(crypto.getRandomValues(new Uint8Array(12)), (byte) => byte.toString(16).padStart(2, '0')).join('');

const isLost = (status: number) => status === 0 || status >= 500;

/** Carries out what a session wants done, and tells it what came of it. The one place with a clock and requests. */
export function runner<T, C, P>(id: string, ports: Ports<T, C, P>): Runner<T, C, P> {
  const store = createStore<Session<T, C, P>>(() => begun());
  let retry: number | undefined;
  let opening = false;

  const send = (event: Event<T, C, P>) => {
    const was = store.getState();
    const { state, effects } = step(was, { ...event, at: Date.now(), key: newKey() });
    store.setState(state, true);
    if (state.queue !== was.queue || state.saved !== was.saved) keep(state);
    if (state.texts !== was.texts) writeTexts(id, state.texts);
    effects.forEach((effect) => void run(effect));
  };

  const keep = ({ saved, queue, kept }: Session<T, C, P>) => {
    if (!saved) return;
    if (queue.length === 0) clearDraft(id);
    else writeDraft(id, { based_on: saved.revision, base: saved.document, document: kept, queue });
  };

  const run = async (effect: Effect<T, C>): Promise<void> => {
    switch (effect.do) {
      case 'save':
      case 'step': {
        const { turn, key, based_on } = effect;
        try {
          const body =
            effect.do === 'save'
              ? await ports.put(key, based_on, effect.says, effect.document)
              : await ports.step(key, effect.which, based_on);
          send({ type: 'saved', turn, body });
          ports.took();
        } catch (failure) {
          send({ type: 'unsaved', turn, failure: await told(failure) });
        }
        return;
      }
      case 'ask': {
        const { turn, document, scope, command, context } = effect;
        try {
          send({ type: 'answered', turn, ...(await ports.ask(document, scope, command, context)) });
        } catch (failure) {
          send({ type: 'unanswered', turn, failure: await told(failure) });
        }
        return;
      }
      case 'wait': {
        if (effect.then === 'rested') {
          const { wish } = effect;
          window.setTimeout(() => send({ type: 'rested', wish }), effect.milliseconds);
          return;
        }
        window.clearTimeout(retry);
        retry = window.setTimeout(() => send({ type: 'retry' }), effect.milliseconds);
      }
    }
  };

  const told = async (failure: unknown): Promise<Failure<T>> => {
    const problem = failure instanceof ApiProblem ? failure : new ApiProblem(0, undefined);
    const { message, status } = problem;
    if (status === 409) {
      try {
        return { kind: 'overtaken', message, theirs: await ports.theirs(problem) };
      } catch {
        return { kind: 'lost', message };
      }
    }
    if (status === 507) return { kind: 'full', message };
    return isLost(status) ? { kind: 'lost', message } : { kind: 'wrong', message, problem };
  };

  /** What was not saved when the window was closed, as far as it can be read. */
  const draftOf = async (body: Body<T>): Promise<Draft<T, C> | undefined> => {
    const draft = readDraft<T, C>(id);
    if (!draft) return undefined;
    try {
      const whole = async (document: T): Promise<Draft<T, C>> => {
        const upgraded = await ports.upgraded(document, body.document);
        const act = { key: newKey(), kind: 'edit' as const, says: draft.says, changes: [{ at: [], to: upgraded }] };
        return { based_on: draft.based_on, base: body.document, queue: [act] };
      };
      if (draft.base === undefined || draft.queue === undefined) return await whole(draft.document as T);
      // Paths into a document of another version may lead nowhere: then it is taken as a whole.
      if ((await ports.upgraded(draft.base, body.document)) !== draft.base) return await whole(draft.document as T);
      return { based_on: draft.based_on, base: draft.base, queue: draft.queue };
    } catch (failure) {
      if (failure instanceof ApiProblem && isLost(failure.status)) throw failure;
      // It stays in this browser, but keeps nobody from the job.
      setAside(id);
      return undefined;
    }
  };

  const open = () => {
    if (opening || store.getState().saved) return;
    opening = true;
    ports
      .get()
      .then(async (body) => {
        const draft = await draftOf(body);
        opening = false;
        send({ type: 'opened', body, draft, texts: readTexts(id) });
      })
      .catch((problem: unknown) => {
        opening = false;
        send({ type: 'closed', problem });
        if (problem instanceof ApiProblem && isLost(problem.status) && problem.problem?.code !== 'unreadable')
          window.setTimeout(open, 1500);
      });
  };

  const look = () => {
    const { saved, queue, held } = store.getState();
    if (!saved || queue.length > 0 || held) return;
    ports.get().then(
      (body) => send({ type: 'seen', since: saved.revision, body }),
      () => undefined,
    );
  };

  return { id, store, send, open, look, aside: () => readAside(id) };
}
