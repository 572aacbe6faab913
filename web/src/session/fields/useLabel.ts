import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { answered, api } from '../../api/client';
import { fieldOf } from '../../api/fields';
import { usePreferences } from '../../api/preferences';

type Meant = ReturnType<typeof fieldOf>['as'];

/** The label the core gives a number. */
export function useLabel(as: Meant, value: number | null | undefined): string {
  const { show } = usePreferences();
  const length = show.length ?? 'metres';
  const { data } = useQuery({
    queryKey: ['say', as, value, length],
    queryFn: () => answered(api.POST('/api/v1/say', { body: { as, value: value ?? 0, length } })),
    enabled: value !== null && value !== undefined,
    staleTime: Infinity,
    placeholderData: keepPreviousData,
  });
  return value === null || value === undefined ? '' : (data?.label ?? '');
}

/** Which keyboard a phone shows for a number: the one with digits wherever it writes all that is needed. */
export function keyboardFor(as: Meant, least: number, inFeet: boolean): 'decimal' | 'text' {
  const more = as === 'light' || as === 'shutter' || (as === 'length' && inFeet) || least < 0;
  return more ? 'text' : 'decimal';
}
