import made from './fields.json';

const { kinds, lists } = made;
const fields: { [name: string]: unknown } = made.fields;

/** A number of the format, by its type and name: `Gel.shift_mired`. */
export type FieldName = keyof typeof made.fields | keyof typeof import('./more-fields.json');

/** Numbers that stand in no setup: they come with the pages that show them. */
export const moreFields = (more: { [name: string]: unknown }) => void Object.assign(fields, more);

type Known = {
  name: string;
  as: 'light' | 'stops' | 'length' | 'shutter' | 'aperture' | 'iso' | 'number' | 'coordinate';
  hint?: string;
  least: number;
  most: number;
  unit: string;
  whole?: boolean;
  step?: number;
  default?: number;
};

/** What is known of a number: what it is called, how it is written, what it may be. */
export const fieldOf = (name: FieldName): Known => fields[name] as Known;

/** How many things a list may hold at most. */
export const mostOf = (list: keyof typeof lists): number => lists[list];

type Kinds = typeof kinds;

/** What a kind of something begins with. */
export const begin = <T extends keyof Kinds, V>(type: T, kind: string): V =>
  (kinds[type] as { [kind: string]: unknown })[kind] as V;
