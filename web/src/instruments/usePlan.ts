import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { useCallback, useRef, useState } from 'react';
import {
  answered,
  api,
  type ApiProblem,
  type Colouring,
  type Kit,
  type Placing,
  type Plan,
  type Setup,
  type Show,
} from '../api/client';

type Solved = { setup: Setup; plan: Plan };

/** The plan of a setup, solved by the core at every change. The last one stays until the next is there. */
export function usePlan(
  setup: Setup,
  kit: Kit,
  show: Show,
): { plan: Plan | undefined; problem: ApiProblem | undefined } {
  const { data, error } = useQuery<Solved, ApiProblem>({
    queryKey: ['plan', setup, kit, show],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/solve', { body: { setup, kit, show }, signal })),
    placeholderData: (previous) => (previous?.setup.id === setup.id ? keepPreviousData(previous) : undefined),
    staleTime: Infinity,
    gcTime: 30_000,
    retry: false,
  });
  return { plan: data?.plan, problem: error ?? undefined };
}

/** What can be moved: a mark on the rail or on the colour line, the hour along its day, or anything of the setup. */
export type Move = { place: Placing } | { colour: Colouring } | { minute: number } | { setup: Setup };

/**
 * Moving something: each new place is solved at once, one request at a time, the newest place next. What is shown on
 * the way is `live`; the setup is changed once, when it is let go.
 */
export function useMoving(setup: Setup, kit: Kit, show: Show, done: (what: string, setup: Setup) => void) {
  const [live, setLive] = useState<Solved>();
  const from = useRef<Setup>(undefined);
  const next = useRef<Move>(undefined);
  const busy = useRef(false);
  const ended = useRef(false);
  const last = useRef<Solved>(undefined);
  const what = useRef('');

  const finish = useCallback(() => {
    const result = last.current;
    from.current = last.current = undefined;
    ended.current = false;
    if (result) done(what.current, result.setup);
    setLive(undefined);
  }, [done]);

  const run = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    while (next.current && from.current) {
      const move = next.current;
      next.current = undefined;
      try {
        last.current = await answered(api.POST('/api/v1/solve', { body: { setup: from.current, kit, show, ...move } }));
        setLive(last.current);
      } catch {
        // A place that cannot be had leaves things where they were.
      }
    }
    busy.current = false;
    if (ended.current) finish();
  }, [finish, kit, show]);

  const move = useCallback(
    (to: Move) => {
      from.current ??= setup;
      next.current = to;
      what.current =
        'place' in to
          ? 'Mark moved'
          : 'colour' in to
            ? 'Colour moved'
            : 'minute' in to
              ? 'Hour moved'
              : 'Subject turned';
      void run();
    },
    [run, setup],
  );

  const end = useCallback(() => {
    ended.current = true;
    if (!busy.current && !next.current) finish();
  }, [finish]);

  return { live, move, end };
}
