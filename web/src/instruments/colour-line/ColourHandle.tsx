import type { ReactNode } from 'react';
import type { ColourGrip, Colouring } from '../../api/client';
import { Handle } from '../Handle';
import { useMark } from '../useMark';

type Scale = ((at: number) => number) & { invert: (at: number) => number };

type Props = {
  what: ColourGrip;
  name: string;
  says: string;
  mired: number;
  tint: number;
  /** So far from its place, where another mark stands there. */
  dy: number;
  x: Scale;
  y: Scale;
  onMove: (to: Colouring) => void;
  onEnd: () => void;
  children: ReactNode;
};

/** `tinted` where the tint is moved too. */
type Place = { mired: number; tint: number; tinted: boolean };

const step = 5;
const tintStep = 0.001;
const times = 5;

/** A mark of the colour line: dragged, or nudged by 5 mired and 0.001 Duv with the arrow keys; five times that with Shift. */
export function ColourHandle({ what, name, says, mired, tint, dy, x, y, onMove, onEnd, children }: Props) {
  const moveProps = useMark<Place>(
    { mired, tint, tinted: false },
    {
      key: (from, by) => ({
        mired: from.mired + by.x * step * (by.shift ? times : 1),
        tint: from.tint - by.y * tintStep * (by.shift ? times : 1),
        tinted: from.tinted || by.y !== 0,
      }),
      pointer: (from, by) => ({
        mired: x.invert(x(from.mired) + by.x),
        tint: Math.round(y.invert(y(from.tint) + by.y) / tintStep) * tintStep,
        // A hand that goes along the line leaves the tint alone.
        tinted: Math.abs(by.y) > 14,
      }),
    },
    (to) =>
      onMove({
        what,
        mired: Math.min(1000, Math.max(25, to.mired)),
        ...(to.tinted ? { tint_duv: Math.min(0.05, Math.max(-0.05, Math.round(to.tint * 1000) / 1000)) } : {}),
      }),
    onEnd,
  );

  return (
    <Handle
      $cursor="move"
      {...moveProps}
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuemin={25}
      aria-valuemax={1000}
      aria-valuenow={Math.round(mired)}
      aria-valuetext={says}
      transform={`translate(${x(mired)} ${y(tint) + dy})`}
    >
      <rect x={-14} y={-18} width={28} height={36} fill="transparent" />
      <rect
        className="focus"
        x={-14}
        y={-18}
        width={28}
        height={36}
        rx={6}
        fill="none"
        stroke="var(--focus)"
        strokeWidth={2.4}
      />
      {children}
    </Handle>
  );
}
