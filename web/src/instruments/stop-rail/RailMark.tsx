import type { ReactNode } from 'react';
import type { Grip, Mark } from '../../api/client';
import { useHold } from '../../session/job';
import { Handle } from '../Handle';
import { useMark } from '../useMark';

/** Which mark of the rail: of a region, and of one of its flashes. */
export type MarkOf = { region_id: string; grip: Grip; light_id?: string };

export const markKey = (of: MarkOf): string => `mark/${of.region_id}/${of.grip}/${of.light_id ?? ''}`;

type Props = {
  of: MarkOf;
  mark: Mark;
  name: string;
  /** Between where a mark may be put, in stops. */
  range: readonly [number, number];
  x: (stops: number) => number;
  y: number;
  height: number;
  shape: ReactNode;
  onTap: () => void;
};

/** A mark that can be dragged or nudged: a third of a stop by the arrow keys, a whole one with Shift. */
export function RailMark({ of, mark, name, range, x, y, height, shape, onTap }: Props) {
  const at = mark.at.stops;
  const hold = useHold(markKey(of), 'Mark moved');
  const put = (stops: number) => ({ mark: { ...of, stops } });
  const [least, most] = range;
  const props = useMark(at ?? 0, hold, {
    drag: (from, by) => put(from + by.x / (x(1) - x(0))),
    nudge: (steps) => ({ mark: { ...of, by: steps.x + steps.y } }),
    shift: 3,
    page: 6,
    ends: { home: put(least), end: put(most) },
    onTap,
  });

  if (at === null || at === undefined) return null;
  const centre = x(at);
  const outside = Math.abs(centre - x(at - 0.01)) < 1e-9 && Math.abs(centre - x(at + 0.01)) < 1e-9;
  const drawing = (
    <>
      <g transform={`translate(${centre} ${y})`}>{shape}</g>
      {outside && (
        <text className="figure quiet" x={centre + (at < 0 ? 10 : -10)} y={y - 8} textAnchor={at < 0 ? 'start' : 'end'}>
          {mark.at.label}
        </text>
      )}
    </>
  );
  if (!mark.grip) {
    return (
      <g role="img" aria-label={`${name}: ${mark.at.label} stops`}>
        {drawing}
      </g>
    );
  }
  return (
    <Handle
      $cursor="ew-resize"
      {...props}
      role="slider"
      tabIndex={0}
      aria-label={`${name}: moves ${mark.moves}`}
      aria-valuemin={least}
      aria-valuemax={most}
      aria-valuenow={Math.round(at * 100) / 100}
      aria-valuetext={`${mark.at.label} stops`}
      aria-orientation="horizontal"
    >
      <rect x={centre - 22} y={y - height / 2} width={44} height={height} fill="transparent" />
      <rect
        className="focus"
        x={centre - 12}
        y={y - 16}
        width={24}
        height={32}
        rx={6}
        fill="none"
        stroke="var(--focus)"
        strokeWidth={2.4}
      />
      {drawing}
    </Handle>
  );
}
