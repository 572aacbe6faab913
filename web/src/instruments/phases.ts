import type { DayTimeline } from '../api/client';

/** How dark each kind of light is drawn behind a day. */
export const dark: { [phase in DayTimeline['phases'][number]['phase']]?: number } = {
  night: 0.2,
  last_trace: 0.15,
  deep_twilight: 0.1,
  twilight: 0.05,
};
