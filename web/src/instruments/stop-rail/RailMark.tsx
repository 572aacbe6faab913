import type { ReactNode } from 'react';
import { Handle } from '../Handle';
import { useMark } from '../useMark';
import type { Mark } from '../../api/client';

type Props = {
  mark: Mark;
  name: string;
  x: (stops: number) => number;
  y: number;
  height: number;
  shape: ReactNode;
  onMove: (stops: number) => void;
  onEnd: () => void;
};

/** A mark that can be dragged or nudged: a third of a stop by the arrow keys, a whole one with Shift. */
export function RailMark({ mark, name, x, y, height, shape, onMove, onEnd }: Props) {
  const at = mark.at.stops;
  const moveProps = useMark(
    at ?? 0,
    {
      key: (from, by) => Math.round(from * 3 + (by.x || -by.y) * (by.shift ? 3 : 1)) / 3,
      pointer: (from, by) => Math.round((from + by.x / (x(1) - x(0))) * 3) / 3,
    },
    onMove,
    onEnd,
  );

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
      {...moveProps}
      role="slider"
      tabIndex={0}
      aria-label={`${name}: moves ${mark.moves}`}
      aria-valuemin={-12}
      aria-valuemax={12}
      aria-valuenow={Math.round(at * 100) / 100}
      aria-valuetext={`${mark.at.label} stops`}
      aria-orientation="horizontal"
    >
      <rect x={centre - 13} y={y - height / 2} width={26} height={height} fill="transparent" />
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
