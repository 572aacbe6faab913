import { type ReactNode, useRef } from 'react';
import { useMove } from 'react-aria';
import { Handle } from '../Handle';
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
  const from = useRef<number>(undefined);
  const pointer = useRef(0);
  const timer = useRef<number>(undefined);

  const { moveProps } = useMove({
    onMoveStart() {
      from.current ??= at ?? 0;
      pointer.current = 0;
      window.clearTimeout(timer.current);
    },
    onMove(event) {
      if (from.current === undefined) return;
      if (event.pointerType === 'keyboard') {
        const by = (event.deltaX || -event.deltaY) > 0 ? 1 : -1;
        from.current = Math.round(from.current * 3 + by * (event.shiftKey ? 3 : 1)) / 3;
        onMove(from.current);
      } else {
        pointer.current += event.deltaX;
        const perStop = x(1) - x(0);
        onMove(Math.round((from.current + pointer.current / perStop) * 3) / 3);
      }
    },
    onMoveEnd(event) {
      const finish = () => {
        from.current = undefined;
        onEnd();
      };
      // Keys pressed in a row are one move.
      if (event.pointerType === 'keyboard') timer.current = window.setTimeout(finish, 250);
      else finish();
    },
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
