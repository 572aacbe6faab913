import made from './ranges.json';

type Made = typeof made;

/** A number of the format that has a range, by its type and name: `Gel.shift_mired`. */
export type Ranged = keyof Made;

/** A number that is something where nobody has said it, or begins with something. */
type Begun = { [Field in Ranged]: Made[Field] extends { default: number } ? Field : never }[Ranged];

const said = (number: number) => String(number).replace('-', '−');

/** What a number may be, as a field takes it: least, most, both in words, and one step of it. */
export function rangeOf(field: Ranged) {
  const { least, most, unit, ...more } = made[field];
  const allowed = `from ${said(least)} to ${said(most)} ${unit}`.trimEnd();
  return { least, most, allowed, ...('step' in more ? { step: more.step } : {}) };
}

/** What a number is where nobody has said it, or what it begins with. */
export const defaultOf = (field: Begun): number => made[field].default;
