import type { OnSet } from '../../api/client';

/** A thing of the set as a key of lists and targets. */
export const keyOfThing = (thing: OnSet): string =>
  typeof thing === 'string' ? thing : Object.entries(thing).flat().join('/');

/** The id of a thing that has one. */
export const idOfThing = (thing: OnSet): string | undefined =>
  typeof thing === 'string' ? undefined : Object.values(thing)[0];

/** The light's letter, where the thing is a light. */
export const lightOf = (thing: OnSet | undefined): string | undefined =>
  typeof thing === 'object' && 'light' in thing ? thing.light : undefined;
