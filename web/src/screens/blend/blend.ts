import type { Blend } from '../../api/client';

/** The one key of a blend is its kind. */
export const blendKind = (blend: Blend): string => Object.keys(blend)[0] ?? '';
