import { useQueryClient } from '@tanstack/react-query';
import { useCallback, useEffect, useRef, useState } from 'react';
import { answered, api, ApiProblem, type Job, type JobBody } from '../api/client';
import { readDraft, writeDraft } from './drafts';

export type SaveState = 'saved' | 'saving' | 'waiting' | 'offline' | 'full' | 'refused';

export type JobDocument = {
  id: string;
  job: Job;
  state: SaveState;
  /** Why a save was refused or is waiting. */
  trouble: string | undefined;
  undoes: string | null | undefined;
  redoes: string | null | undefined;
  /** Changes the document. `change` says in words what was done, for undo. */
  edit: (change: string, to: (job: Job) => Job) => void;
  undo: () => void;
  redo: () => void;
  /** What another window saved in the meantime, until one of the two is chosen. */
  conflict: JobBody | undefined;
  keep: (which: 'mine' | 'theirs') => void;
};

type Current = { job: Job; revision: number; change: string | undefined };

const pauseBeforeSave = 350;
const retryAfter = 3000;

/**
 * The document of a job: edited at once, saved by itself, kept in this browser until the server has it.
 *
 * One save runs at a time; edits made meanwhile go into the next. A save that another window has overtaken stops
 * everything until the person chooses.
 */
export function useJobDocument(id: string): { document: JobDocument | undefined; error: ApiProblem | undefined } {
  const client = useQueryClient();
  const [saved, setSaved] = useState<JobBody>();
  const [current, setCurrent] = useState<Current>();
  const [state, setState] = useState<SaveState>('saved');
  const [trouble, setTrouble] = useState<string>();
  const [conflict, setConflict] = useState<JobBody>();
  const [error, setError] = useState<ApiProblem>();
  const now = useRef<Current | undefined>(undefined);
  const running = useRef<Promise<void>>(undefined);
  const timer = useRef<number>(undefined);
  const saveNow = useRef<() => void>(() => undefined);
  const saveIn = useCallback((milliseconds: number) => {
    window.clearTimeout(timer.current);
    timer.current = window.setTimeout(() => saveNow.current(), milliseconds);
  }, []);

  const show = useCallback((next: Current) => {
    now.current = next;
    setCurrent(next);
  }, []);

  const take = useCallback(
    (body: JobBody) => {
      setSaved(body);
      client.setQueryData(['job', id], body);
      void client.invalidateQueries({ queryKey: ['jobs'] });
    },
    [client, id],
  );

  const save = useCallback(async (): Promise<void> => {
    window.clearTimeout(timer.current);
    // Of several that wait for the one under way, the first to go on is the next one that is under way.
    while (running.current) await running.current;
    const sent = now.current;
    if (!sent || sent.change === undefined) return;
    const run = async () => {
      setState('saving');
      try {
        const body = await answered(
          api.PUT('/api/jobs/{id}', {
            params: { path: { id } },
            body: { based_on: sent.revision, change: sent.change ?? '', job: sent.job },
          }),
        );
        take(body);
        setTrouble(undefined);
        const latest = now.current;
        if (latest && latest.job !== sent.job) {
          show({ ...latest, revision: body.revision });
          writeDraft(id, { based_on: body.revision, change: latest.change ?? '', job: latest.job });
          setState('waiting');
          saveIn(pauseBeforeSave);
        } else {
          show({ job: body.job, revision: body.revision, change: undefined });
          writeDraft(id, undefined);
          setState('saved');
        }
      } catch (failure) {
        const problem = failure instanceof ApiProblem ? failure : new ApiProblem(0, undefined);
        setTrouble(problem.message);
        if (problem.status === 409 && problem.problem?.theirs) {
          setConflict(problem.problem.theirs);
          setState('refused');
        } else if (problem.status === 422 || problem.status === 404) {
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
  }, [id, saveIn, show, take]);
  useEffect(() => {
    saveNow.current = () => void save();
  }, [save]);

  useEffect(() => {
    let left = false;
    answered(api.GET('/api/jobs/{id}', { params: { path: { id } } }))
      .then(async (body) => {
        // An edit that was never saved may be from before this version of Tolva.
        let draft = readDraft(id);
        if (draft && draft.job.format_version !== body.job.format_version) {
          draft = { ...draft, job: await answered(api.POST('/api/upgrade', { body: draft.job })) };
        }
        if (left) return;
        take(body);
        if (draft && JSON.stringify(draft.job) !== JSON.stringify(body.job)) {
          show({ job: draft.job, revision: draft.based_on, change: draft.change });
          void save();
        } else {
          writeDraft(id, undefined);
          show({ job: body.job, revision: body.revision, change: undefined });
        }
      })
      .catch((failure: unknown) => {
        if (!left && failure instanceof ApiProblem) setError(failure);
      });
    return () => {
      left = true;
      void save();
    };
  }, [id, save, show, take]);

  const edit = useCallback(
    (change: string, to: (job: Job) => Job) => {
      const before = now.current;
      if (!before) return;
      const next = { ...before, job: to(before.job), change };
      show(next);
      writeDraft(id, { based_on: next.revision, change, job: next.job });
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
      const path = which === 'undo' ? ('/api/jobs/{id}/undo' as const) : ('/api/jobs/{id}/redo' as const);
      try {
        const asked = api.POST(path, { params: { path: { id } }, body: { based_on: here.revision } });
        const body = await answered(asked);
        take(body);
        show({ job: body.job, revision: body.revision, change: undefined });
      } catch (failure) {
        const problem = failure instanceof ApiProblem ? failure : undefined;
        if (problem?.problem?.theirs) {
          take(problem.problem.theirs);
          show({ job: problem.problem.theirs.job, revision: problem.problem.theirs.revision, change: undefined });
        } else setTrouble(problem?.message);
      }
    },
    [id, save, show, take],
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
      const same = JSON.stringify(mine.job) === JSON.stringify(conflict.job);
      void (which === 'mine' || same ? save() : step('undo'));
    },
    [conflict, save, show, step, take],
  );

  if (!current || !saved) return { document: undefined, error };
  const document: JobDocument = {
    id,
    job: current.job,
    state,
    trouble,
    undoes: current.change ?? saved.undo,
    redoes: current.change === undefined ? saved.redo : undefined,
    edit,
    undo: () => void step('undo'),
    redo: () => void step('redo'),
    conflict,
    keep,
  };
  return { document, error };
}
