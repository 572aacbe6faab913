import type { Planned } from './machine/state';

/** Where plans are kept from one visit to the next; browsers offer it on this machine and over a secure line. */
const place = 'tolva-plans-1';
const address = (job: string, setup: string) => `/remembered/${encodeURIComponent(job)}/${encodeURIComponent(setup)}`;

/** Keeps the last plan of a setup, so that it is there when the server is gone. */
export async function remember<P>(job: string, setup: string, { plan, scope, of, at }: Planned<P>): Promise<void> {
  if (!('caches' in window)) return;
  const cache = await caches.open(place);
  await cache.put(address(job, setup), new Response(JSON.stringify({ plan, scope, of, at })));
}

/** The last plan there was of a setup. */
export async function remembered<P>(job: string, setup: string): Promise<Planned<P> | undefined> {
  if (!('caches' in window)) return undefined;
  const found = await (await caches.open(place)).match(address(job, setup));
  if (!found) return undefined;
  return { ...((await found.json()) as Omit<Planned<P>, 'context'>), context: undefined };
}
