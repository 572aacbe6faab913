import { useCallback, useEffect, useRef, useState } from 'react';
import { ApiProblem } from '../api/client';
import { readDraft, writeDraft } from './drafts';

export type SaveState = 'saved' | 'saving' | 'waiting' | 'offline' | 'full' | 'refused';

/** A document as the server keeps it. */
export type Body<T> = {
  revision: number;
  saved_at: string;
  undo?: string | null;
  redo?: string | null;
  document: T;
};

/** Where a document is kept. */
export type Kept<T> = {
  get: () => Promise<Body<T>>;
  put: (basedOn: number, change: string, document: T) => Promise<Body<T>>;
  step: (which: 'undo' | 'redo', basedOn: number) => Promise<Body<T>>;
  /** A document that was never saved, as one of this version of Tolva. */
  upgraded: (draft: T, now: T) => Promise<T>;
  /** What another window saved, where a save or step was refused for it. */
  theirs: (problem: ApiProblem) => Promise<Body<T>> | undefined;
  /** Told of every body that comes from the server. */
  took: (body: Body<T>) => void;
};

export type Edited<T> = {
  id: string;
  document: T;
  /** The revision that is shown, or that is being edited. */
  revision: number;
  state: SaveState;
  /** Why a save was refused or is waiting. */
  trouble: string | undefined;
  undoes: string | null | undefined;
  redoes: string | null | undefined;
  /** Changes the document. `change` says in words what was done, for undo. */
  edit: (change: string, to: (document: T) => T) => void;
  undo: () => void;
  redo: () => void;
  /** What another window saved in the meantime, until one of the two is chosen. */
  conflict: Body<T> | undefined;
  keep: (which: 'mine' | 'theirs') => void;
  /** Another body came from the server by another way: a file that was imported. */
  took: (body: Body<T>) => void;
};

type Current<T> = { document: T; revision: number; change: string | undefined };

const pauseBeforeSave = 350;
const retryAfter = 3000;

/**
 * A document: edited at once, saved by itself, kept in this browser until the server has it.
 *
 * One save runs at a time; edits made meanwhile go into the next. A save that another window has overtaken stops
 * everything until the person chooses. `kept` must be the same object as long as the document is.
 */
export function useDocument<T>(
  id: string,
  kept: Kept<T>,
): { edited: Edited<T> | undefined; error: ApiProblem | undefined } {
  const [saved, setSaved] = useState<Body<T>>();
  const [current, setCurrent] = useState<Current<T>>();
  const [state, setState] = useState<SaveState>('saved');
  const [trouble, setTrouble] = useState<string>();
  const [conflict, setConflict] = useState<Body<T>>();
  const [error, setError] = useState<ApiProblem>();
  const now = useRef<Current<T> | undefined>(undefined);
  const running = useRef<Promise<void>>(undefined);
  /** A save of which nobody knows whether it arrived, since its answer did not: it is sent again as it was, first. */
  const unsure = useRef<Current<T>>(undefined);
  const timer = useRef<number>(undefined);
  const saveNow = useRef<() => void>(() => undefined);
  const saveIn = useCallback((milliseconds: number) => {
    window.clearTimeout(timer.current);
    timer.current = window.setTimeout(() => saveNow.current(), milliseconds);
  }, []);

  const show = useCallback((next: Current<T>) => {
    now.current = next;
    setCurrent(next);
  }, []);

  const take = useCallback(
    (body: Body<T>) => {
      setSaved(body);
      kept.took(body);
    },
    [kept],
  );

  const save = useCallback(async (): Promise<void> => {
    window.clearTimeout(timer.current);
    // Of several that wait for the one under way, the first to go on is the next one that is under way.
    while (running.current) await running.current;
    const sent = unsure.current ?? now.current;
    if (!sent || sent.change === undefined) return;
    const run = async () => {
      setState('saving');
      try {
        const body = await kept.put(sent.revision, sent.change ?? '', sent.document);
        unsure.current = undefined;
        take(body);
        setTrouble(undefined);
        const latest = now.current;
        if (latest && latest.document !== sent.document) {
          show({ ...latest, revision: body.revision });
          writeDraft(id, { based_on: body.revision, change: latest.change ?? '', document: latest.document });
          setState('waiting');
          saveIn(pauseBeforeSave);
        } else {
          show({ document: body.document, revision: body.revision, change: undefined });
          writeDraft(id, undefined);
          setState('saved');
        }
      } catch (failure) {
        const problem = failure instanceof ApiProblem ? failure : new ApiProblem(0, undefined);
        setTrouble(problem.message);
        unsure.current = problem.status === 0 ? sent : undefined;
        const theirs = problem.status === 409 ? await kept.theirs(problem) : undefined;
        if (theirs) {
          setConflict(theirs);
          setState('refused');
        } else if ([403, 404, 422].includes(problem.status)) {
          setState('refused');
        } else {
          setState(problem.status === 507 ? 'full' : 'offline');
          saveIn(retryAfter);
        }
      }
    };
    running.current = run().finally(() => {
      running.current = undefined;
    });
    await running.current;
  }, [id, kept, saveIn, show, take]);
  useEffect(() => {
    saveNow.current = () => void save();
  }, [save]);

  useEffect(() => {
    let left = false;
    kept
      .get()
      .then(async (body) => {
        // An edit that was never saved may be from before this version of Tolva.
        const draft = readDraft<T>(id);
        if (draft) draft.document = await kept.upgraded(draft.document, body.document);
        if (left) return;
        take(body);
        if (draft && JSON.stringify(draft.document) !== JSON.stringify(body.document)) {
          show({ document: draft.document, revision: draft.based_on, change: draft.change });
          void save();
        } else {
          writeDraft(id, undefined);
          show({ document: body.document, revision: body.revision, change: undefined });
        }
      })
      .catch((failure: unknown) => {
        if (!left && failure instanceof ApiProblem) setError(failure);
      });
    return () => {
      left = true;
      void save();
    };
  }, [id, kept, save, show, take]);

  const edit = useCallback(
    (change: string, to: (document: T) => T) => {
      const before = now.current;
      if (!before) return;
      const next = { ...before, document: to(before.document), change };
      show(next);
      writeDraft(id, { based_on: next.revision, change, document: next.document });
      setState('waiting');
      saveIn(pauseBeforeSave);
    },
    [id, saveIn, show],
  );

  const step = useCallback(
    async (which: 'undo' | 'redo') => {
      await save();
      const here = now.current;
      if (!here || here.change !== undefined) return;
      try {
        const body = await kept.step(which, here.revision);
        take(body);
        show({ document: body.document, revision: body.revision, change: undefined });
      } catch (failure) {
        const problem = failure instanceof ApiProblem ? failure : undefined;
        const theirs = problem ? await kept.theirs(problem) : undefined;
        if (theirs) {
          take(theirs);
          show({ document: theirs.document, revision: theirs.revision, change: undefined });
        } else setTrouble(problem?.message);
      }
    },
    [kept, save, show, take],
  );

  const keep = useCallback(
    (which: 'mine' | 'theirs') => {
      const mine = now.current;
      if (!conflict || !mine) return;
      setConflict(undefined);
      setTrouble(undefined);
      take(conflict);
      show({ ...mine, revision: conflict.revision });
      // What is here is kept as a revision either way: taking the other one is undoing it, and redo brings it back.
      const same = JSON.stringify(mine.document) === JSON.stringify(conflict.document);
      void (which === 'mine' || same ? save() : step('undo'));
    },
    [conflict, save, show, step, take],
  );

  const took = useCallback(
    (body: Body<T>) => {
      take(body);
      show({ document: body.document, revision: body.revision, change: undefined });
    },
    [show, take],
  );

  if (!current || !saved) return { edited: undefined, error };
  const edited: Edited<T> = {
    id,
    document: current.document,
    revision: current.revision,
    state,
    trouble,
    undoes: current.change ?? saved.undo,
    redoes: current.change === undefined ? saved.redo : undefined,
    edit,
    undo: () => void step('undo'),
    redo: () => void step('redo'),
    conflict,
    keep,
    took,
  };
  return { edited, error };
}
