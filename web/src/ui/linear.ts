/** A scale from numbers to pixels and back; beyond its ends it stays at them. */
export type Linear = ((at: number) => number) & { invert: (pixel: number) => number };

/** From these numbers to these pixels, evenly. */
export function linear([from, to]: readonly [number, number], [begin, end]: readonly [number, number]): Linear {
  const within = (share: number) => Math.min(1, Math.max(0, share));
  const scale = (at: number) => begin + within((at - from) / (to - from)) * (end - begin);
  const invert = (pixel: number) => from + within((pixel - begin) / (end - begin)) * (to - from);
  return Object.assign(scale, { invert });
}
