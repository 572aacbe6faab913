/** The session's machine by itself, as its tests run it. */
export { applied, changesBetween, pointerTo, same, valueAt } from './change';
export { begun, isFresh, namesOf, step } from './session';
