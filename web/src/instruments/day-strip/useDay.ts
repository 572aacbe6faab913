import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { answered, api, type ApiProblem, type DayTimeline, type Kit, type Setup } from '../../api/client';

/** From one point of the strip to the next, in minutes: about two of its pixels. */
const step = 5;

/** The light of a setup's day. It depends on everything of the scene but its hour. */
export function useDay(setup: Setup, kit: Kit): DayTimeline | undefined {
  const { scene } = setup;
  const { data } = useQuery<DayTimeline, ApiProblem>({
    queryKey: ['day', scene && { ...scene, at: scene.at.date }, setup.regions],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/day', { body: { setup, kit, step_min: step }, signal })),
    enabled: Boolean(scene),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 30_000,
    retry: false,
  });
  return scene ? data : undefined;
}
