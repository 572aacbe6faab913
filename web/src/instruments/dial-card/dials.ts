import { useQuery } from '@tanstack/react-query';
import { answered, api, type Camera, type Lens } from '../../api/client';

/** The dials of a camera, in the order they are read. */
export const whichDials = ['shutter', 'aperture', 'iso'] as const;
/** What is fixed on each, as a setup has it. */
export const fixedAs = { shutter: 'shutter_s', aperture: 'f_number', iso: 'iso' } as const;

export type Which = (typeof whichDials)[number];

export const dialNames: Record<Which, string> = { shutter: 'Shutter', aperture: 'Aperture', iso: 'ISO' };

/** The settings on the dials of a camera with a lens on it. */
export function useDials(camera: Camera | undefined, lens: Lens | undefined) {
  const { data } = useQuery({
    queryKey: ['dials', camera, lens],
    queryFn: () => answered(api.POST('/api/v1/dials', { body: { camera: camera as Camera, lens: lens as Lens } })),
    enabled: camera !== undefined && lens !== undefined,
    staleTime: Infinity,
  });
  return data;
}
