import { useInfiniteQuery, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { answered, api, type FrameLine, type FrameList } from '../../api/client';
import { framesOf } from './framesOf';

const page = (job: string, setup: string, signal: AbortSignal, before?: number) =>
  answered(api.GET('/api/v1/jobs/{id}/frames', { params: { path: { id: job }, query: { setup, before } }, signal }));

/** The last frames of a setup, as they were read last, and what its plates are held to. */
export const useFrameList = (job: string, setup: string) =>
  useQuery<FrameList>({
    queryKey: [...framesOf(job), setup, 'last'],
    queryFn: ({ signal }) => page(job, setup, signal),
    placeholderData: (before) => before,
  });

/** The frames of a setup as they come: the server tells when there are others, or what is wrong with one. */
export function useFrames(job: string, setup: string) {
  const client = useQueryClient();
  const [wrong, setWrong] = useState<string[]>([]);
  const { data, error, hasNextPage, isFetchingNextPage, fetchNextPage } = useInfiniteQuery({
    queryKey: [...framesOf(job), setup, 'pages'],
    queryFn: ({ signal, pageParam }) => page(job, setup, signal, pageParam),
    initialPageParam: undefined as number | undefined,
    getNextPageParam: ({ earlier }) => earlier ?? undefined,
    placeholderData: (before) => before,
  });
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
  // The first page has the last frames.
  const pages = data?.pages.toReversed();
  const frames: FrameLine[] | undefined = pages?.flatMap((one) => one.frames);
  const unreadable = pages?.flatMap((one) => one.unreadable) ?? [];
  const hidden = (data?.pages[0]?.total ?? 0) - (frames?.length ?? 0) - unreadable.length;
  return {
    frames,
    unreadable,
    /** Frames that came earlier than those: how many, and what reads more of them. */
    earlier: { count: hasNextPage ? Math.max(0, hidden) : 0, busy: isFetchingNextPage, show: fetchNextPage },
    error,
    wrong,
    forget: () => setWrong([]),
    again: () => client.invalidateQueries({ queryKey: framesOf(job) }),
  };
}
