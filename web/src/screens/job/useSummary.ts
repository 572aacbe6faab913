import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { answered, api, type Setup } from '../../api/client';
import { usePreferences } from '../../api/preferences';
import { useJobKit } from '../../session/job';

/** What a setup that is not open comes to, in a line. */
export function useSummary(setup: Setup): string {
  const kit = useJobKit();
  const { show } = usePreferences();
  const { data, error } = useQuery({
    queryKey: ['plan', setup, kit, show],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/solve', { body: { setup, kit, show }, signal })),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    gcTime: 30_000,
    retry: false,
  });
  if (!data) return error ? `No plan: ${error.message}` : '';
  const { dial_card: card, possible } = data.plan;
  const settings = [card.shutter.label, card.aperture.label, card.iso.label];
  for (const light of card.lights) if (light.power) settings.push(`${light.light_id} at ${light.power}`);
  return `${settings.join(', ')}${possible ? '' : '. Not as wished.'}`;
}
