import { useEffect, useState } from 'react';

/** Keeps the screen on for as long as it is looked at, where the browser can. */
export function useAwake(): boolean {
  const [awake, setAwake] = useState(false);
  useEffect(() => {
    let lock: WakeLockSentinel | undefined;
    let gone = false;
    const ask = () => {
      if (!('wakeLock' in navigator) || document.visibilityState !== 'visible') return;
      navigator.wakeLock.request('screen').then(
        (got) => {
          if (gone) return void got.release();
          lock = got;
          setAwake(true);
          got.addEventListener('release', () => setAwake(false));
        },
        () => setAwake(false),
      );
    };
    ask();
    document.addEventListener('visibilitychange', ask);
    return () => {
      gone = true;
      document.removeEventListener('visibilitychange', ask);
      void lock?.release();
    };
  }, []);
  return awake;
}
