import type { Kit } from '../../api/client';
import '../../api/moreFields';
import type { FieldName } from '../../api/fields';
import type { Kind } from '../../session/kit';

/** A number of a thing: which of the format it is, and where it stands in the thing. */
export type FieldOf = {
  of: FieldName;
  at: string[];
  /** It may be nothing; in these words. */
  none?: string;
};

/** A number by its place: `power.lowest_stops` of a thing whose part is a `PowerRange`. */
const number = (of: FieldName, { inside, none }: { inside?: string; none?: string } = {}): FieldOf => ({
  of,
  at: [...(inside === undefined ? [] : [inside]), of.split('.').at(-1) ?? ''],
  ...(none === undefined ? {} : { none }),
});

/** What each kind of thing is called, said of it, and asked for. */
export const things: Record<Kind, { one: string; many: string; says: string; fields: FieldOf[] }> = {
  cameras: {
    one: 'Camera',
    many: 'Cameras',
    says: 'Its dials, its sensor and the shutters it syncs flash at.',
    fields: [
      number('Camera.sync_rated_s'),
      number('Camera.sync_safe_s'),
      number('Camera.sync_electronic_s', { none: 'does not sync' }),
      number('Camera.slow_sync_floor_s'),
      number('ShutterRange.slowest_s', { inside: 'shutter' }),
      number('ShutterRange.fastest_s', { inside: 'shutter' }),
      number('IsoRange.base_iso', { inside: 'iso' }),
      number('IsoRange.highest_iso', { inside: 'iso' }),
      number('Sensor.width_mm', { inside: 'sensor' }),
      number('Sensor.height_mm', { inside: 'sensor' }),
      number('Sensor.width_px', { inside: 'sensor' }),
      number('Camera.stabilisation_stops'),
      number('Camera.frames_per_s'),
      number('Camera.weight_kg', { none: 'not weighed' }),
    ],
  },
  lenses: {
    one: 'Lens',
    many: 'Lenses',
    says: 'Its focal lengths and apertures decide depth, shake and how near it goes.',
    fields: [
      number('Lens.shortest_mm'),
      number('Lens.longest_mm'),
      number('Lens.widest_f_number'),
      number('Lens.smallest_f_number'),
      number('Lens.stabilisation_stops'),
      number('Lens.closest_focus_m'),
      number('Lens.largest_magnification'),
      number('Lens.pupil_ratio'),
      number('Lens.weight_kg', { none: 'not weighed' }),
    ],
  },
  flashes: {
    one: 'Flash unit or lamp',
    many: 'Flash units and lamps',
    says: 'A reading of your own unit is better than its guide number.',
    fields: [
      number('PowerRange.lowest_stops', { inside: 'power' }),
      number('Flash.recycle_full_s'),
      number('Flash.pops_full', { none: 'on mains' }),
      number('Duty.full_pops', { inside: 'duty', none: 'not said by its maker' }),
      number('Duty.rest_s', { inside: 'duty', none: 'no limit' }),
      number('Flash.kelvin'),
      number('Flash.tint_duv'),
      number('Flash.rendering', { none: 'not known' }),
      number('Flash.high_speed_loss_stops', { none: 'has none' }),
      number('Flash.weight_kg', { none: 'not weighed' }),
    ],
  },
  modifiers: {
    one: 'Modifier',
    many: 'Modifiers',
    says: 'Its size decides how the light falls off close by. Your own measurement of its loss beats a usual figure.',
    fields: [
      number('Modifier.loss_stops'),
      number('Modifier.exponent'),
      number('Modifier.grid_half_angle_deg', { none: 'no grid' }),
      number('Modifier.weight_kg'),
      number('Modifier.area_m2'),
    ],
  },
  gels: {
    one: 'Gel',
    many: 'Gels',
    says: 'What it shifts a light by, and what it takes of it.',
    fields: [number('Gel.shift_mired'), number('Gel.shift_duv'), number('Gel.loss_stops')],
  },
  filters: {
    one: 'Neutral filter',
    many: 'Neutral filters',
    says: 'For the lens: flash and ambient both lose by it.',
    fields: [number('Filter.density_stops')],
  },
  stands: {
    one: 'Stand',
    many: 'Stands',
    says: 'What it carries is for its maker to say.',
    fields: [
      number('Stand.highest_m'),
      number('Stand.carries_kg'),
      number('Stand.footprint_m'),
      number('Stand.weight_kg'),
    ],
  },
  booms: {
    one: 'Boom',
    many: 'Booms',
    says: 'An arm on a stand. A counterweight, and nobody under it.',
    fields: [number('Boom.reach_m'), number('Boom.carries_kg'), number('Boom.weight_kg')],
  },
  boards: {
    one: 'Card, flag or diffuser',
    many: 'Cards, flags and diffusers',
    says: 'Put onto the set in its size, to give light back, keep it off or soften it.',
    fields: [number('Board.width_m'), number('Board.height_m')],
  },
  backdrops: {
    one: 'Backdrop',
    many: 'Backdrops',
    says: 'What it gives back of the light decides how bright it comes out.',
    fields: [number('Backdrop.width_m'), number('Backdrop.height_m'), number('Backdrop.reflectance')],
  },
  triggers: {
    one: 'Trigger',
    many: 'Triggers',
    says: 'One on the camera; the units listen on its channel, in groups.',
    fields: [number('Trigger.channels'), number('Trigger.groups')],
  },
  meters: {
    one: 'Meter',
    many: 'Meters',
    says: 'Say with which a reading was taken, and frames find out what it is off by, for every job.',
    fields: [number('Meter.more_stops'), number('Meter.sure_stops')],
  },
};

type Tree = { [key: string]: unknown };

/** The number at a path; nothing where there is none. */
export function numberAt(thing: unknown, at: string[]): number | undefined {
  const found = at.reduce<unknown>((part, key) => (part as Tree | null | undefined)?.[key], thing);
  return typeof found === 'number' ? found : undefined;
}

const signed = (number: number, unit: string) =>
  number === 0 ? '' : `${number > 0 ? '+' : '−'}${Math.abs(number)} ${unit}`;

/** What a battery of a unit gives; nothing for one on mains. */
function onBattery(flash: unknown): string | undefined {
  const pops = numberAt(flash, ['pops_full']);
  const minutes = numberAt(flash, ['output', 'continuous', 'battery_full_min']);
  if (minutes !== undefined) return `${minutes} min at full power from a battery`;
  return pops === undefined ? undefined : `${pops} full pops in a battery`;
}

/** A thing of a kind in a line. */
export function summary<K extends Kind>(kind: K, thing: Kit[K][number]): string {
  const of = (field: string) => numberAt(thing, [field]);
  switch (kind) {
    case 'lenses':
      return `f/${of('widest_f_number')} to f/${of('smallest_f_number')}`;
    case 'gels':
      return [signed(of('shift_mired') ?? 0, 'mired'), signed(of('shift_duv') ?? 0, 'Duv')].filter(Boolean).join(', ');
    case 'filters':
      return `${of('density_stops')} stops`;
    case 'stands':
      return `carries ${of('carries_kg')} kg`;
    case 'booms':
      return `carries ${of('carries_kg')} kg`;
    case 'triggers':
      return `${of('channels')} channels, ${of('groups')} groups`;
    case 'flashes':
      return onBattery(thing) ?? 'on mains';
    default:
      return '';
  }
}
