import { useQuery } from '@tanstack/react-query';
import { answered, api, type RunSheet } from '../../api/client';
import { usePreferences } from '../../api/preferences';
import { useJob, useJobKit } from '../../session/job';

/** A sheet, what this device's clock was off by when it came, and when that was. */
export type Came = { sheet: RunSheet; behindMs: number; atMs: number };

const place = (job: string, setup: string) => `tolva.run.${job}.${setup}`;

function kept(job: string, setup: string): Came | undefined {
  try {
    return JSON.parse(localStorage.getItem(place(job, setup)) ?? 'null') as Came | undefined;
  } catch {
    return undefined;
  }
}

function keep(job: string, setup: string, came: Came) {
  try {
    localStorage.setItem(place(job, setup), JSON.stringify(came));
  } catch {
    // A browser that keeps nothing still shows what it has.
  }
}

/** What is needed of a setup on the set; the last there was where Tolva does not answer, with its age. */
export function useRunSheet(setup: string) {
  const { id, job } = useJob();
  const kit = useJobKit();
  const { show } = usePreferences();
  const { data, error, refetch } = useQuery<Came>({
    queryKey: ['run', id, setup, job.setups, job.day, job.date, kit, show],
    queryFn: async ({ signal }) => {
      const body = { job: { ...job, kit }, setup_id: setup, show };
      const sheet = await answered(api.POST('/api/v1/run', { body, signal }));
      const atMs = Date.now();
      const came = { sheet, behindMs: Date.parse(sheet.utc) - atMs, atMs };
      keep(id, setup, came);
      return came;
    },
    placeholderData: (was) => (was?.sheet.setup_id === setup ? was : undefined),
    retry: false,
    refetchInterval: 60_000,
  });
  const came = data ?? kept(id, setup);
  return { came, error, refetch };
}
