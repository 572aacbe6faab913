// What Tolva shows when its server is gone: the page and its parts as they came last, and what was last read of jobs, kit
// and preferences. Whatever is read is asked of the server first. What is written is the page's own matter.
const shell = 'tolva-shell-1';
const data = 'tolva-data-1';
/** Fewer answers than so many are kept. */
const most = 300;

self.addEventListener('install', () => self.skipWaiting());
self.addEventListener('activate', (event) => event.waitUntil(begin()));

async function begin() {
  const old = (await caches.keys()).filter(
    (name) => /^tolva-(shell|data)-/.test(name) && name !== shell && name !== data,
  );
  await Promise.all(old.map((name) => caches.delete(name)));
  await self.clients.claim();
}

// What a page had loaded before this was here.
self.addEventListener('message', (event) => {
  if (Array.isArray(event.data?.keep)) event.waitUntil(keepAll(event.data.keep));
});

async function keepAll(addresses) {
  const cache = await caches.open(shell);
  for (const address of addresses) {
    const url = new URL(address);
    const here = url.origin === self.location.origin && !url.pathname.startsWith('/api/');
    if (here && !(await cache.match(address))) await cache.add(address).catch(() => undefined);
  }
  const page = await fetch('/').catch(() => undefined);
  if (page?.ok) await cache.put('/', page);
}

self.addEventListener('fetch', (event) => {
  const { request } = event;
  const url = new URL(request.url);
  if (request.method !== 'GET' || url.origin !== self.location.origin) return;
  if (request.mode === 'navigate') {
    // Every page is the same one; but an address that is none, and a file, are the server's to answer.
    if (/^\/($|kit$|phones$|drills$|jobs\/)/.test(url.pathname)) event.respondWith(newest(request, shell, '/'));
  } else if (url.pathname.startsWith('/assets/')) event.respondWith(kept(request));
  else if (url.pathname.startsWith('/api/v1/')) {
    // Files taken out, pictures made while something slides, drills, which are never the same, and events, which never
    // end, are kept by nobody.
    if (!/\/(file|raw|events|mix|map|drills)$|\.(ics|csv|json|zip)$/.test(url.pathname))
      event.respondWith(newest(request, data, request.url));
  } else event.respondWith(newest(request, shell, request.url));
});

/** From the server; where it does not answer, as it came last. */
async function newest(request, into, name) {
  const cache = await caches.open(into);
  try {
    const answer = await fetch(request);
    if (answer.ok) {
      await cache.put(name, answer.clone());
      await thin(cache);
    }
    return answer;
  } catch (failure) {
    const before = await cache.match(name);
    if (before) return before;
    throw failure;
  }
}

/** What is named by its content never changes. */
async function kept(request) {
  const cache = await caches.open(shell);
  const before = await cache.match(request);
  if (before) return before;
  const answer = await fetch(request);
  if (answer.ok) await cache.put(request, answer.clone());
  return answer;
}

async function thin(cache) {
  const all = await cache.keys();
  for (const old of all.slice(0, Math.max(0, all.length - most))) await cache.delete(old);
}
