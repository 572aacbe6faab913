import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { answered, api, type FrameLine, type FrameList } from '../../api/client';
import { framesOf } from './framesOf';

/** The frames of a setup, as they were read last. */
export const useFrameList = (job: string, setup: string, binned: boolean) =>
  useQuery<FrameList>({
    queryKey: [...framesOf(job), setup, binned],
    queryFn: ({ signal }) =>
      answered(
        api.GET('/api/v1/jobs/{id}/frames', { params: { path: { id: job }, query: { setup, binned } }, signal }),
      ),
    placeholderData: (before) => before,
  });

/** The frames of a setup as they come: the server tells when there are others, or what is wrong with one. */
export function useFrames(job: string, setup: string, binned: boolean) {
  const client = useQueryClient();
  const [wrong, setWrong] = useState<string[]>([]);
  const { data, error } = useFrameList(job, setup, binned);
  useEffect(() => {
    const events = new EventSource(`/api/v1/jobs/${job}/frames/events`);
    const changed = () => void client.invalidateQueries({ queryKey: framesOf(job) });
    events.addEventListener('frames', changed);
    // What came while the line was cut is read when it is there again.
    events.addEventListener('open', changed);
    events.addEventListener('wrong', (event) => {
      const { says } = JSON.parse((event as MessageEvent<string>).data) as { says: string };
      setWrong((now) => [...now.filter((one) => one !== says), says].slice(-6));
    });
    return () => events.close();
  }, [client, job]);
  const frames: FrameLine[] | undefined = data?.frames;
  return {
    frames,
    unreadable: data?.unreadable ?? [],
    error,
    wrong,
    forget: () => setWrong([]),
    again: () => client.invalidateQueries({ queryKey: framesOf(job) }),
  };
}
