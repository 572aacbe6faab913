import type { Kit, Meant } from '../api/client';
import type { Kind } from './KitContext';

/** A number of a thing, and how it is asked for. */
export type FieldOf = {
  /** Where it stands: `power.lowest_stops`. */
  path: string;
  name: string;
  as: Meant;
  least: number;
  most: number;
  allowed?: string;
  hint?: string;
  step?: number;
  /** It may be nothing; in these words. */
  none?: string;
};

const number = (path: string, name: string, least: number, most: number, more: Partial<FieldOf> = {}): FieldOf => ({
  path,
  name,
  as: 'number',
  least,
  most,
  ...more,
});
const shutter = (path: string, name: string, more: Partial<FieldOf> = {}): FieldOf =>
  number(path, name, 0.00001, 3600, { as: 'shutter', allowed: 'a shutter time', ...more });
const aperture = (path: string, name: string): FieldOf => number(path, name, 0.7, 128, { as: 'aperture' });
const metres = (path: string, name: string, least: number, most: number, more: Partial<FieldOf> = {}): FieldOf =>
  number(path, name, least, most, { as: 'length', allowed: `from ${least} to ${most} m`, ...more });
const stops = (path: string, name: string, least: number, most: number, more: Partial<FieldOf> = {}): FieldOf =>
  number(path, `${name}, stops`, least, most, {
    as: 'stops',
    allowed: `from ${least} to ${most} stops`.replaceAll('-', '−'),
    ...more,
  });

/** What each kind of thing is called, said of it, and asked for. */
export const things: Record<Kind, { one: string; many: string; says: string; fields: FieldOf[] }> = {
  cameras: {
    one: 'Camera',
    many: 'Cameras',
    says: 'Its dials, its sensor and the shutters it syncs flash at.',
    fields: [
      shutter('sync_rated_s', 'Rated sync'),
      shutter('sync_safe_s', 'Safe sync', {
        hint: 'With radio triggers: a third of a stop under the rated one, or more.',
      }),
      shutter('sync_electronic_s', 'Sync, electronic shutter', { none: 'does not sync' }),
      shutter('slow_sync_floor_s', 'Slowest automatic shutter with flash'),
      shutter('shutter.slowest_s', 'Slowest shutter'),
      shutter('shutter.fastest_s', 'Fastest shutter'),
      number('iso.base_iso', 'Lowest ISO', 3, 1e7, { as: 'iso' }),
      number('iso.highest_iso', 'Highest acceptable ISO', 3, 1e7, { as: 'iso' }),
      number('sensor.width_mm', 'Sensor, long side, mm', 4, 100),
      number('sensor.height_mm', 'Sensor, short side, mm', 3, 100),
      number('sensor.width_px', 'Pixels, long side', 500, 30000),
      stops('stabilisation_stops', 'Stabilisation', 0, 9),
      number('frames_per_s', 'Frames a second', 0.1, 240),
    ],
  },
  lenses: {
    one: 'Lens',
    many: 'Lenses',
    says: 'Its focal lengths and apertures decide depth, shake and how near it goes.',
    fields: [
      number('shortest_mm', 'Shortest focal length, mm', 4, 1200),
      number('longest_mm', 'Longest focal length, mm', 4, 1200, { hint: 'The same where it does not zoom.' }),
      aperture('widest_f_number', 'Widest aperture'),
      aperture('smallest_f_number', 'Smallest aperture'),
      stops('stabilisation_stops', 'Stabilisation', 0, 9),
      metres('closest_focus_m', 'Closest focus', 0.02, 20),
      number('largest_magnification', 'Largest magnification', 0.01, 10, { hint: '1 is life size.' }),
      number('pupil_ratio', 'Pupil ratio', 0.1, 10, { hint: '1 for a symmetrical lens.' }),
    ],
  },
  flashes: {
    one: 'Flash unit or lamp',
    many: 'Flash units and lamps',
    says: 'A reading of your own unit is better than its guide number.',
    fields: [
      stops('power.lowest_stops', 'Lowest power, under full', -12, 0, { step: 1, hint: '−7 is 1/128.' }),
      number('recycle_full_s', 'Ready after a full pop, seconds', 0, 60),
      number('pops_full', 'Full pops from a battery', 1, 100000, { none: 'on mains' }),
      number('duty.full_pops', 'Full pops before it rests', 1, 10000, { none: 'not said by its maker' }),
      number('duty.rest_s', 'Rests for, seconds', 0, 7200, { none: 'no limit' }),
      number('kelvin', 'Colour of its light, K', 1000, 40000),
      number('tint_duv', 'Its tint, Duv', -0.05, 0.05, { allowed: 'from −0.05 to 0.05' }),
      number('rendering', 'Colour rendering, Ra', 0, 100, { none: 'not known', hint: 'For lamps.' }),
      stops('high_speed_loss_stops', 'High-speed sync takes', 0, 6, { none: 'has none' }),
    ],
  },
  modifiers: {
    one: 'Modifier',
    many: 'Modifiers',
    says: 'Its size decides how the light falls off close by. Your own measurement of its loss beats a usual figure.',
    fields: [
      stops('loss_stops', 'Loss on its axis', -3, 8, {
        step: 1 / 3,
        hint: 'Negative where a reflector gathers the light.',
      }),
      number('exponent', 'Fall-off to its sides, exponent', 0, 400, {
        hint: '1 for an open diffuser, more for a recessed face.',
      }),
      number('grid_half_angle_deg', 'Grid, half angle, degrees', 2, 80, { none: 'no grid' }),
      number('weight_kg', 'Weight, kg', 0, 30),
      number('area_m2', 'What the wind sees, m²', 0, 20),
    ],
  },
  gels: {
    one: 'Gel',
    many: 'Gels',
    says: 'What it shifts a light by, and what it takes of it.',
    fields: [
      number('shift_mired', 'Shift, mired', -500, 500, {
        hint: 'Warm is positive.',
        allowed: 'from −500 to +500 mired',
      }),
      number('shift_duv', 'Tint, Duv', -0.05, 0.05, {
        hint: 'Green is positive, magenta negative.',
        allowed: 'from −0.05 to 0.05',
      }),
      stops('loss_stops', 'It takes', 0, 8),
    ],
  },
  filters: {
    one: 'Neutral filter',
    many: 'Neutral filters',
    says: 'For the lens: flash and ambient both lose by it.',
    fields: [stops('density_stops', 'Density', 0.1, 15)],
  },
  stands: {
    one: 'Stand',
    many: 'Stands',
    says: 'What it carries is for its maker to say.',
    fields: [
      metres('highest_m', 'As high as it goes', 0.1, 8),
      number('carries_kg', 'It carries, kg', 0.1, 100),
      metres('footprint_m', 'Middle to the line between two feet', 0.05, 3),
      number('weight_kg', 'Weight, kg', 0.1, 60),
    ],
  },
  triggers: {
    one: 'Trigger',
    many: 'Triggers',
    says: 'One on the camera; the units listen on its channel, in groups.',
    fields: [number('channels', 'Channels', 1, 64), number('groups', 'Groups', 1, 16)],
  },
};

type Tree = { [key: string]: unknown };

/** The number at a path; nothing where there is none. */
export function at(thing: unknown, path: string): number | undefined {
  const found = path.split('.').reduce<unknown>((part, key) => (part as Tree | null | undefined)?.[key], thing);
  return typeof found === 'number' ? found : undefined;
}

/** The thing with a number put at a path. */
export function put<T>(thing: T, path: string, value: number | null): T {
  const [first = '', ...rest] = path.split('.');
  const tree = thing as Tree;
  const under = rest.length === 0 ? value : put((tree[first] ?? {}) as Tree, rest.join('.'), value);
  return { ...tree, [first]: under } as T;
}

const signed = (number: number, unit: string) =>
  number === 0 ? '' : `${number > 0 ? '+' : '−'}${Math.abs(number)} ${unit}`;

/** A thing of a kind in a line. */
export function summary<K extends Kind>(kind: K, thing: Kit[K][number]): string {
  const of = (path: string) => at(thing, path);
  switch (kind) {
    case 'lenses':
      return `f/${of('widest_f_number')} to f/${of('smallest_f_number')}`;
    case 'gels':
      return [signed(of('shift_mired') ?? 0, 'mired'), signed(of('shift_duv') ?? 0, 'Duv')].filter(Boolean).join(', ');
    case 'filters':
      return `${of('density_stops')} stops`;
    case 'stands':
      return `to ${of('highest_m')} m, carries ${of('carries_kg')} kg`;
    case 'triggers':
      return `${of('channels')} channels, ${of('groups')} groups`;
    case 'flashes':
      return of('pops_full') === undefined ? 'on mains' : `${of('pops_full')} full pops in a battery`;
    default:
      return '';
  }
}
