import { useCallback } from 'react';
import { answered, api, ApiProblem, type Scene, type Site } from '../../api/client';
import { useJob, useSetup } from '../../session/job';

/** The open setup's place and hour, and how to change them. */
export function useScene() {
  const { job } = useJob();
  const { setup, set, ask } = useSetup();
  const scene = setup.scene ?? undefined;

  const put = useCallback(
    <Field extends keyof Scene>(says: string, field: Field, to: Scene[Field]) => set(says, ['scene', field], to),
    [set],
  );

  /** The place is put in; the first one brings the job's day, or today and the hour it is there. */
  const goTo = useCallback(
    async (site: Site): Promise<string | undefined> => {
      try {
        if (scene) {
          ask('Place', { place: { site } }, 'place');
          return undefined;
        }
        const body = { time_zone: site.time_zone, on: job.date ?? '' };
        const { at } = await answered(api.POST('/api/v1/moment', { body }));
        ask('Place', { place: { site, at } }, 'place');
        return undefined;
      } catch (failure) {
        return failure instanceof ApiProblem ? failure.message : 'Tolva does not answer.';
      }
    },
    [scene, ask, job.date],
  );

  return { scene, put, goTo };
}
