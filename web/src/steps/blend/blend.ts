import type { Blend } from '../../api/client';

/** The one key of a blend is its kind, and what stands under it are its numbers. */
export function blendKind(blend: Blend): string {
  return Object.keys(blend)[0] ?? '';
}

export function blendNumbers(blend: Blend): Record<string, number> {
  return (Object.values(blend)[0] as Record<string, number> | undefined) ?? {};
}

export function withNumber(blend: Blend, field: string, value: number): Blend {
  return { [blendKind(blend)]: { ...blendNumbers(blend), [field]: value } } as Blend;
}
