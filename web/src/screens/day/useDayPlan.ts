import { useQuery } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { answered, api, type DayPlan } from '../../api/client';
import { useJob, useJobKit } from '../../session/job';

type Before = { setup_id: string; utc: string }[];

const place = (job: string, date: string) => `tolva-day-${job}-${date}`;
const hoursOf = (plan: DayPlan): Before => plan.slots.map(({ setup_id, utc }) => ({ setup_id, utc }));

/** The plan somebody has last seen of a day, on this device: what moved since is told. */
function seenOf(job: string, date: string): Before {
  try {
    return JSON.parse(localStorage.getItem(place(job, date)) ?? '[]') as Before;
  } catch {
    return [];
  }
}

/** A day of the open job, worked out anew whenever anything changes it. */
export function useDayPlan(date: string | undefined) {
  const { id, job } = useJob();
  const kit = useJobKit();
  const [looked, setLooked] = useState(0);
  const before = seenOf(id, date ?? '');
  const { data, error, isPlaceholderData } = useQuery({
    // What is ticked off, written or called otherwise moves nothing.
    queryKey: ['day-plan', job.setups, job.day, job.date, kit, date, looked],
    queryFn: ({ signal }) =>
      answered(
        api.POST('/api/v1/day-plan', { body: { job: { ...job, kit }, before, ...(date ? { date } : {}) }, signal }),
      ),
    placeholderData: (was) => was,
    retry: false,
  });
  const seen = () => {
    if (!data) return;
    localStorage.setItem(place(id, date ?? ''), JSON.stringify(hoursOf(data)));
    setLooked(looked + 1);
  };
  // The first plan there is of a day is the one that later ones are held against.
  const first = data && !isPlaceholderData && before.length === 0 && data.slots.length > 0 ? data : undefined;
  useEffect(() => {
    if (first) localStorage.setItem(place(id, date ?? ''), JSON.stringify(hoursOf(first)));
  }, [first, id, date]);
  return { plan: data, error, seen };
}
