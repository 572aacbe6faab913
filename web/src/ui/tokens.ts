import { css } from 'styled-components';

/** Sizes of type, in pixels. Nothing is smaller than `small`. */
export const type = { small: 12.5, note: 13, body: 14.5, lead: 16, title: 20, figure: 31 } as const;
/** Gaps and paddings, in pixels. */
export const space = { hair: 3, near: 6, gap: 10, part: 14, wide: 18 } as const;
/** Corners, in pixels. */
export const radius = { small: 4, control: 7, card: 9, sheet: 11 } as const;
/** The least a finger hits, in pixels. */
export const touch = 44;

/** Up to here a page is one column, as on a phone. */
export const phone = '(max-width: 820px)';
export const narrow = `@media ${phone}`;
export const wide = '@media (min-width: 821px)';
export const coarse = '@media (pointer: coarse)';

/** Large enough for a finger, where fingers are used. */
export const forFingers = css`
  ${coarse} {
    min-height: ${touch}px;
  }
`;

/** The numbers' face: slightly narrow, tabular figures. */
export const figures = `
  font-family: 'Archivo Variable', sans-serif; font-stretch: 88%; font-variant-numeric: tabular-nums;
  font-feature-settings: 'tnum';
`;
