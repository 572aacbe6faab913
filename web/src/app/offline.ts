/** Lets the page be opened when the server is gone, where the browser allows it: on this machine, or over a secure line. */
export function keepForLater() {
  // While Tolva is worked on, what was there before is in the way.
  if (import.meta.env.DEV || !window.isSecureContext || !('serviceWorker' in navigator)) return;
  void navigator.serviceWorker
    .register('/sw.js')
    .then(() => navigator.serviceWorker.ready)
    .then(({ active }) => {
      // What came before the worker was there is told to it, once the rest has come too.
      window.setTimeout(() => {
        const keep = performance.getEntriesByType('resource').map((one) => one.name);
        active?.postMessage({ keep });
      }, 2000);
    })
    .catch(() => undefined);
}
