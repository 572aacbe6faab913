import { useEffect, useState } from 'react';
import type { RunSheet } from '../../api/client';
import type { Came } from './useRunSheet';

const minute = 60_000;
/** So far before its first and after its last settings a setup counts as being on its day. */
const nearMs = 14 * 60 * minute;

/** The instant that counts: now, by the clock of the machine Tolva runs on; a minute that is tried where the day is another. */
export function useRunClock(came: Came | undefined) {
  const [now, setNow] = useState(() => Date.now());
  const [tried, setTried] = useState<number>();
  useEffect(() => {
    const timer = window.setInterval(() => setNow(Date.now()), 1000);
    return () => window.clearInterval(timer);
  }, []);
  const here = now + (came?.behindMs ?? 0);
  const begin = beginOf(came?.sheet);
  const onItsDay = begin === undefined || Math.abs(here - begin) < nearMs;
  const atMs = onItsDay ? here : (tried ?? begin);
  return {
    atMs,
    /** The setup's day is another: a minute of it is tried. */
    rehearsal: !onItsDay,
    step: (by: number) => setTried((atMs ?? 0) + by * minute),
    put: setTried,
    /** So many minutes this device's clock is before the machine's. */
    offMin: Math.round(-(came?.behindMs ?? 0) / minute),
    ageMin: came ? Math.max(0, Math.floor((now - came.atMs) / minute)) : 0,
  };
}

const beginOf = (sheet: RunSheet | undefined) => {
  const first = sheet?.steps[0];
  return first ? Date.parse(first.utc) : undefined;
};

/** A span of whole minutes, as it is said. */
export function spanOf(milliseconds: number): string {
  const minutes = Math.max(0, Math.ceil(milliseconds / minute));
  const hours = Math.floor(minutes / 60);
  if (hours === 0) return `${minutes} min`;
  return `${hours} h ${String(minutes % 60).padStart(2, '0')} min`;
}
