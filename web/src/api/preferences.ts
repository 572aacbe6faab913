import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useMemo } from 'react';
import { answered, api, type Preferences } from './client';

const key = ['preferences'];
const defaults: Preferences = { theme: 'device', show: { length: 'metres', power: 'fraction' } };

/** How this person likes things shown. Kept by the server, since a demo's port changes at every start. */
export function usePreferences() {
  const client = useQueryClient();
  const { data = defaults, isFetched } = useQuery({
    queryKey: key,
    queryFn: () => answered(api.GET('/api/v1/preferences')),
    staleTime: Infinity,
  });
  const keep = useMutation({
    mutationKey: key,
    mutationFn: (body: Preferences) => answered(api.PUT('/api/v1/preferences', { body })),
    onMutate: (body) => {
      const before = client.getQueryData(key);
      client.setQueryData(key, body);
      return { before };
    },
    // What was not kept is not shown as if it were.
    onError: (_, __, kept) => client.setQueryData(key, kept?.before),
  });
  const set = (change: Partial<Preferences>) => keep.mutate({ ...data, ...change });
  // The same object until it changes: what is dragged hangs on it.
  const show = useMemo(() => ({ ...defaults.show, ...data.show }), [data]);
  // Until they are there, a bare number has no unit.
  return { preferences: data, show, set, failed: keep.error, known: isFetched };
}

/** Puts the theme on the page. */
export function useTheme() {
  const { preferences, set } = usePreferences();
  const theme = preferences.theme ?? 'device';
  useEffect(() => {
    document.documentElement.dataset.theme = theme;
  }, [theme]);
  const dark = theme === 'dusk' || (theme === 'device' && matchMedia('(prefers-color-scheme: dark)').matches);
  return { dark, toggle: () => set({ theme: dark ? 'daylight' : 'dusk' }), set };
}
