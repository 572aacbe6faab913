import { useQuery } from '@tanstack/react-query';
import { answered, api } from './client';

/** What a device may do that may not do everything, in words. */
const says = {
  look: 'This device looks only.',
  tick: 'This device ticks and notes.',
  all: undefined,
};

/** What this device is called, and what it may do. */
export function useMe() {
  const { data: me } = useQuery({
    queryKey: ['me'],
    queryFn: ({ signal }) => answered(api.GET('/api/v1/me', { signal })),
    staleTime: Infinity,
  });
  return { me, says: me && says[me.rights] };
}
