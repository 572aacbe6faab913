import { useQuery } from '@tanstack/react-query';
import { answered, api } from './client';

/** What the core says once: the wedge, the blends, a new job. */
export function useStart() {
  return useQuery({ queryKey: ['start'], queryFn: () => answered(api.GET('/api/v1/start')), staleTime: Infinity }).data;
}
