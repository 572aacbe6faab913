import { type ComponentType, lazy } from 'react';

/** So often a part that did not come is asked for again, so many milliseconds apart. */
const tries = 3;
const apart = 700;

async function again<M>(load: () => Promise<M>, left = tries): Promise<M> {
  try {
    return await load();
  } catch (failure) {
    if (left <= 1) throw failure;
    await new Promise((go) => window.setTimeout(go, apart));
    return again(load, left - 1);
  }
}

/** So long a page is left alone after it came, in milliseconds. */
const settles = 3000;

const all: (() => Promise<unknown>)[] = [];

/** A part of the page that is loaded when it is opened. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- parts take what they like
export function lazily<T extends ComponentType<any>>(load: () => Promise<{ default: T }>) {
  all.push(load);
  return lazy(() => again(load));
}

/** Loads the rest while nothing else is to be done, so that a server that stops takes no step away. */
export function loadTheRest() {
  const rest = async () => {
    // What comes may bring further parts with it.
    for (let next = 0; next < all.length; next += 1) await all[next]?.().catch(() => undefined);
  };
  const idle = window.requestIdleCallback ?? ((run: () => void) => window.setTimeout(run, 500));
  // What is on screen first: whoever has just come turns a page or presses something.
  window.setTimeout(() => idle(() => void rest()), settles);
}
