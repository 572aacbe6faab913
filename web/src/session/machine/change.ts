/** A step into a document: a field, a place in a list, or the thing of a list that has this id. */
export type Step = string | number | { readonly id: string };
/** Where something stands in a document. Things are found by their ids, so that a path outlives what is done beside it. */
export type Path = readonly Step[];
/** Something put at a path; without `to` it is taken away. */
export type Change = { readonly at: Path; readonly to?: unknown };

type Tree = { readonly [key: string]: unknown };

const isTree = (value: unknown): value is Tree => typeof value === 'object' && value !== null && !Array.isArray(value);
const idOf = (value: unknown): string | undefined =>
  isTree(value) && typeof value.id === 'string' ? value.id : undefined;

/** What stands at a path; nothing where there is none. */
export function valueAt(document: unknown, at: Path): unknown {
  return at.reduce<unknown>((here, step) => {
    if (typeof step === 'object') return Array.isArray(here) ? here.find((one) => idOf(one) === step.id) : undefined;
    return (here as Tree | undefined | null)?.[step];
  }, document);
}

/** Whether one of two places lies in the other, or is it. */
export const meet = (one: Path, other: Path): boolean =>
  one.slice(0, other.length).every((step, index) => same(step, other[index]));

/** A document with changes made, one after the other. What is not changed is the same object. */
export function applied<T>(document: T, changes: readonly Change[]): T {
  return changes.reduce<unknown>((here, { at, to }) => put(here, at, to), document) as T;
}

function put(here: unknown, at: Path, to: unknown): unknown {
  const [step, ...rest] = at;
  if (step === undefined) return to;
  if (typeof step === 'object') {
    const list: unknown[] = Array.isArray(here) ? here : [];
    const index = list.findIndex((one) => idOf(one) === step.id);
    // What is no longer there is not changed; what is new comes last.
    if (index < 0) return rest.length === 0 && to !== undefined ? [...list, to] : here;
    if (rest.length === 0 && to === undefined) return list.filter((_, other) => other !== index);
    return replaced(list, index, put(list[index], rest, to));
  }
  if (typeof step === 'number') return Array.isArray(here) ? replaced(here, step, put(here[step], rest, to)) : here;
  const tree = isTree(here) ? here : {};
  if (rest.length === 0 && to === undefined) {
    return Object.fromEntries(Object.entries(tree).filter(([key]) => key !== step));
  }
  const next = put(tree[step], rest, to);
  return next === tree[step] && step in tree ? here : { ...tree, [step]: next };
}

function replaced(list: readonly unknown[], index: number, to: unknown): readonly unknown[] {
  return list[index] === to ? list : list.map((one, other) => (other === index ? to : one));
}

/** What makes one document the other: the fewest paths, things of lists by their ids. Null and nothing are the same. */
export function changesBetween(before: unknown, after: unknown, at: Path = []): Change[] {
  if (before === after || ((before ?? null) === null && (after ?? null) === null)) return [];
  if (Array.isArray(before) && Array.isArray(after)) return betweenLists(before, after, at);
  if (!isTree(before) || !isTree(after) || isOtherKind(before, after)) return [{ at, to: after }];
  const keys = new Set([...Object.keys(before), ...Object.keys(after)]);
  return [...keys].flatMap((key) => changesBetween(before[key], after[key], [...at, key]));
}

/** Another variant of what has kinds: `{ fill: … }` for `{ lift: … }`. It is put as a whole. */
function isOtherKind(before: Tree, after: Tree): boolean {
  const [was, is] = [Object.keys(before), Object.keys(after)];
  return was.length === 1 && is.length === 1 && was[0] !== is[0];
}

function betweenLists(before: unknown[], after: unknown[], at: Path): Change[] {
  const [was, is] = [before.map(idOf), after.map(idOf)];
  const named = [...was, ...is].every((id) => id !== undefined);
  const stayed = was.filter((id) => is.includes(id));
  const inOrder = is.every((id, index) => (index < stayed.length ? id === stayed[index] : !was.includes(id)));
  if (!named || !inOrder) {
    const equal =
      before.length === after.length && before.every((one, index) => changesBetween(one, after[index]).length === 0);
    return equal ? [] : [{ at, to: after }];
  }
  const of = (id: string | undefined): Path => [...at, { id: id ?? '' }];
  const gone = was.filter((id) => !is.includes(id)).map((id) => ({ at: of(id) }));
  return [
    ...gone,
    ...after.flatMap((one, index) => {
      const old = before.find((other) => idOf(other) === is[index]);
      return old === undefined ? [{ at: of(is[index]), to: one }] : changesBetween(old, one, of(is[index]));
    }),
  ];
}

/** Whether two documents say the same. */
export const same = (one: unknown, other: unknown): boolean => changesBetween(one, other).length === 0;

/** The JSON pointer (RFC 6901) to a path, as the document stands now. */
export function pointerTo(document: unknown, at: Path): string {
  let here = document;
  const steps = at.map((step) => {
    const list = here;
    here = valueAt(here, [step]);
    return typeof step === 'object' && Array.isArray(list)
      ? list.findIndex((one) => idOf(one) === step.id)
      : String(step).replaceAll('~', '~0').replaceAll('/', '~1');
  });
  return steps.map((step) => `/${step}`).join('');
}

/** A path as one word: what is typed into a field, or told of a mark, is kept under it. */
export const keyOf = (at: Path): string => at.map((step) => (typeof step === 'object' ? step.id : step)).join('/');
