import { useCallback } from 'react';
import { answered, api, ApiProblem, type LocalTime, type Scene, type Site } from '../../api/client';
import { useStart } from '../../app/start';
import { useJob, useKeptSetup } from '../../jobs/JobContext';

/** What is wrong with something that was tried; nothing where it was put in. */
export type Wrong = string | undefined;

/** The open setup's place and hour, and how to change them. */
export function useScene() {
  const { job } = useJob();
  const { setup, kit, change } = useKeptSetup();
  const start = useStart();
  const scene = setup.scene ?? undefined;

  const put = useCallback(
    (what: string, part: Partial<Scene>) =>
      change(what, (one) => (one.scene ? { ...one, scene: { ...one.scene, ...part } } : one)),
    [change],
  );

  /** Puts something in only where the core finds it good; says what is wrong otherwise. */
  const attempt = useCallback(
    async (what: string, part: Partial<Scene>): Promise<Wrong> => {
      if (!setup.scene) return undefined;
      const tried = { ...setup, scene: { ...setup.scene, ...part } };
      try {
        await answered(api.POST('/api/v1/solve', { body: { setup: tried, kit } }));
      } catch (failure) {
        // A server that does not answer is no reason to lose what was typed: the save tries again.
        if (failure instanceof ApiProblem && failure.status !== 0) return failure.message;
      }
      put(what, part);
      return undefined;
    },
    [setup, kit, put],
  );

  /** The place is put in; the first one brings the job's day, or today and the hour it is there. */
  const goTo = useCallback(
    async (site: Site): Promise<Wrong> => {
      try {
        if (scene) return await attempt('Place', { site });
        const template = start?.new_scene;
        if (!template) return undefined;
        const body = { time_zone: site.time_zone };
        const now = await answered(api.POST('/api/v1/moment', { body }));
        // On the day itself the hour it is now, ahead of it noon.
        const ahead = job.date && job.date !== now.at.date;
        const at: LocalTime = ahead ? { date: job.date ?? '', time: '12:00', second_time: false } : now.at;
        change('Place', (one) => ({ ...one, scene: { ...template, site, at } }));
        return undefined;
      } catch (failure) {
        return failure instanceof ApiProblem ? failure.message : 'Tolva does not answer.';
      }
    },
    [scene, attempt, start, job.date, change],
  );

  return { scene, put, attempt, goTo };
}
