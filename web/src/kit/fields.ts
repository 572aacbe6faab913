import type { Kit, Meant } from '../api/client';
import { rangeOf, type Ranged } from '../api/ranges';
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

type More = Partial<FieldOf> & {
  /** The part of the thing it stands in: `power`. */
  inside?: string;
};

const number = (range: Ranged, name: string, { inside, ...more }: More = {}): FieldOf => ({
  path: [inside, range.split('.').at(-1)].filter(Boolean).join('.'),
  name,
  as: 'number',
  ...rangeOf(range),
  ...more,
});
const shutter = (range: Ranged, name: string, more: More = {}): FieldOf =>
  number(range, name, { as: 'shutter', allowed: 'a shutter time', ...more });
const stops = (range: Ranged, name: string, more: More = {}): FieldOf =>
  number(range, `${name}, stops`, { as: 'stops', ...more });

/** What each kind of thing is called, said of it, and asked for. */
export const things: Record<Kind, { one: string; many: string; says: string; fields: FieldOf[] }> = {
  cameras: {
    one: 'Camera',
    many: 'Cameras',
    says: 'Its dials, its sensor and the shutters it syncs flash at.',
    fields: [
      shutter('Camera.sync_rated_s', 'Rated sync'),
      shutter('Camera.sync_safe_s', 'Safe sync', {
        hint: 'With radio triggers: a third of a stop under the rated one, or more.',
      }),
      shutter('Camera.sync_electronic_s', 'Sync, electronic shutter', { none: 'does not sync' }),
      shutter('Camera.slow_sync_floor_s', 'Slowest automatic shutter with flash'),
      shutter('ShutterRange.slowest_s', 'Slowest shutter', { inside: 'shutter' }),
      shutter('ShutterRange.fastest_s', 'Fastest shutter', { inside: 'shutter' }),
      number('IsoRange.base_iso', 'Lowest ISO', { inside: 'iso', as: 'iso' }),
      number('IsoRange.highest_iso', 'Highest acceptable ISO', { inside: 'iso', as: 'iso' }),
      number('Sensor.width_mm', 'Sensor, long side, mm', { inside: 'sensor' }),
      number('Sensor.height_mm', 'Sensor, short side, mm', { inside: 'sensor' }),
      number('Sensor.width_px', 'Pixels, long side', { inside: 'sensor' }),
      stops('Camera.stabilisation_stops', 'Stabilisation'),
      number('Camera.frames_per_s', 'Frames a second'),
    ],
  },
  lenses: {
    one: 'Lens',
    many: 'Lenses',
    says: 'Its focal lengths and apertures decide depth, shake and how near it goes.',
    fields: [
      number('Lens.shortest_mm', 'Shortest focal length, mm'),
      number('Lens.longest_mm', 'Longest focal length, mm', { hint: 'The same where it does not zoom.' }),
      number('Lens.widest_f_number', 'Widest aperture', { as: 'aperture' }),
      number('Lens.smallest_f_number', 'Smallest aperture', { as: 'aperture' }),
      stops('Lens.stabilisation_stops', 'Stabilisation'),
      number('Lens.closest_focus_m', 'Closest focus, from the sensor', { as: 'length' }),
      number('Lens.largest_magnification', 'Largest magnification', { hint: '1 is life size.' }),
      number('Lens.pupil_ratio', 'Pupil ratio', { hint: '1 for a symmetrical lens.' }),
    ],
  },
  flashes: {
    one: 'Flash unit or lamp',
    many: 'Flash units and lamps',
    says: 'A reading of your own unit is better than its guide number.',
    fields: [
      stops('PowerRange.lowest_stops', 'Lowest power, under full', { inside: 'power', hint: '−7 is 1/128.' }),
      number('Flash.recycle_full_s', 'Ready after a full pop, seconds'),
      number('Flash.pops_full', 'Full pops from a battery', { none: 'on mains' }),
      number('Duty.full_pops', 'Full pops before it rests', { inside: 'duty', none: 'not said by its maker' }),
      number('Duty.rest_s', 'Rests for, seconds', { inside: 'duty', none: 'no limit' }),
      number('Flash.kelvin', 'Colour of its light, K'),
      number('Flash.tint_duv', 'Its tint, Duv'),
      number('Flash.rendering', 'Colour rendering, Ra', { none: 'not known', hint: 'For lamps.' }),
      stops('Flash.high_speed_loss_stops', 'High-speed sync takes', { none: 'has none' }),
    ],
  },
  modifiers: {
    one: 'Modifier',
    many: 'Modifiers',
    says: 'Its size decides how the light falls off close by. Your own measurement of its loss beats a usual figure.',
    fields: [
      stops('Modifier.loss_stops', 'Loss on its axis', {
        hint: 'Negative where a reflector gathers the light.',
      }),
      number('Modifier.exponent', 'Fall-off to its sides, exponent', {
        hint: '1 for an open diffuser, more for a recessed face.',
      }),
      number('Modifier.grid_half_angle_deg', 'Grid, half angle, degrees', { none: 'no grid' }),
      number('Modifier.weight_kg', 'Weight, kg'),
      number('Modifier.area_m2', 'What the wind sees, m²'),
    ],
  },
  gels: {
    one: 'Gel',
    many: 'Gels',
    says: 'What it shifts a light by, and what it takes of it.',
    fields: [
      number('Gel.shift_mired', 'Shift, mired', {
        hint: 'Warm is positive.',
      }),
      number('Gel.shift_duv', 'Tint, Duv', {
        hint: 'Green is positive, magenta negative.',
      }),
      stops('Gel.loss_stops', 'It takes'),
    ],
  },
  filters: {
    one: 'Neutral filter',
    many: 'Neutral filters',
    says: 'For the lens: flash and ambient both lose by it.',
    fields: [stops('Filter.density_stops', 'Density')],
  },
  stands: {
    one: 'Stand',
    many: 'Stands',
    says: 'What it carries is for its maker to say.',
    fields: [
      number('Stand.highest_m', 'As high as it goes', { as: 'length' }),
      number('Stand.carries_kg', 'It carries, kg'),
      number('Stand.footprint_m', 'Middle to the line between two feet', { as: 'length' }),
      number('Stand.weight_kg', 'Weight, kg'),
    ],
  },
  triggers: {
    one: 'Trigger',
    many: 'Triggers',
    says: 'One on the camera; the units listen on its channel, in groups.',
    fields: [number('Trigger.channels', 'Channels'), number('Trigger.groups', 'Groups')],
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
