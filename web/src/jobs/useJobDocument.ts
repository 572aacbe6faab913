import { type QueryClient, useQueryClient } from '@tanstack/react-query';
import { useMemo } from 'react';
import { answered, api, type ApiProblem, type Job, type JobBody } from '../api/client';
import { ownedNow, together } from '../kit/KitContext';
import { type Body, type Edited, type Kept, useDocument } from './useDocument';

export type JobDocument = Edited<Job> & { job: Job };

export const bodyOf = ({ job, ...rest }: JobBody): Body<Job> => ({ ...rest, document: job });

function keptJob(id: string, client: QueryClient): Kept<Job> {
  const params = { path: { id } };
  return {
    get: async () => bodyOf(await answered(api.GET('/api/v1/jobs/{id}', { params }))),
    put: async (based_on, change, job) => {
      // A thing that was just added to the kit may not have reached the server by itself.
      const now = ownedNow();
      const whole = now ? { ...job, kit: together(now, job.kit) } : job;
      return bodyOf(await answered(api.PUT('/api/v1/jobs/{id}', { params, body: { based_on, change, job: whole } })));
    },
    step: async (which, based_on) => {
      const path = which === 'undo' ? ('/api/v1/jobs/{id}/undo' as const) : ('/api/v1/jobs/{id}/redo' as const);
      return bodyOf(await answered(api.POST(path, { params, body: { based_on } })));
    },
    upgraded: async (draft, now) =>
      draft.format_version === now.format_version
        ? draft
        : await answered(api.POST('/api/v1/upgrade', { body: draft })),
    theirs: (problem) => {
      const theirs = problem.problem?.theirs;
      return theirs ? Promise.resolve(bodyOf(theirs)) : undefined;
    },
    took: () => void client.invalidateQueries({ queryKey: ['jobs'] }),
  };
}

/** The document of a job. */
export function useJobDocument(id: string): { document: JobDocument | undefined; error: ApiProblem | undefined } {
  const client = useQueryClient();
  const kept = useMemo(() => keptJob(id, client), [id, client]);
  const { edited, error } = useDocument(id, kept);
  return { document: edited && { ...edited, job: edited.document }, error };
}
