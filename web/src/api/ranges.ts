import made from './ranges.json';

/** A number of the format that has a range, by its type and name: `Gel.shift_mired`. */
export type Ranged = keyof typeof made;

const said = (number: number) => String(number).replace('-', '−');

/** What a number may be, as a field takes it: least, most, and both in words. */
export function rangeOf(field: Ranged) {
  const { least, most, unit } = made[field];
  return { least, most, allowed: `from ${said(least)} to ${said(most)} ${unit}`.trimEnd() };
}
