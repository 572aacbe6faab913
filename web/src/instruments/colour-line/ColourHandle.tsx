import type { ReactNode } from 'react';
import type { ColourGrip } from '../../api/client';
import { useHold } from '../../session/job';
import { Handle } from '../Handle';
import { useMark } from '../useMark';

type Scale = ((at: number) => number) & { invert: (at: number) => number };

type Props = {
  what: ColourGrip;
  name: string;
  says: string;
  mired: number;
  tint: number;
  /** Between where it may be put, in mired. */
  range: readonly [number, number];
  /** So far from its place, where another mark stands there. */
  dy: number;
  x: Scale;
  y: Scale;
  children: ReactNode;
};

/** A hand that goes along the line leaves the tint alone, up to so many pixels. */
const along = 14;

/** A mark of the colour line: dragged, or nudged by steps along it and across it with the arrow keys; five times that with Shift. */
export function ColourHandle({ what, name, says, mired, tint, range, dy, x, y, children }: Props) {
  const [least, most] = range;
  const hold = useHold(`colour-mark/${JSON.stringify(what)}`, 'Colour moved');
  const props = useMark({ mired, tint }, hold, {
    drag: (from, by) => ({
      colour_mark: {
        what,
        mired: x.invert(x(from.mired) + by.x),
        ...(Math.abs(by.y) > along ? { tint_duv: y.invert(y(from.tint) + by.y) } : {}),
      },
    }),
    nudge: (steps) => ({ colour_mark: { what, by: steps.x, tint_by: steps.y } }),
    shift: 5,
    page: 10,
    ends: { home: { colour_mark: { what, mired: least } }, end: { colour_mark: { what, mired: most } } },
  });

  return (
    <Handle
      $cursor="move"
      {...props}
      role="slider"
      tabIndex={0}
      aria-label={name}
      aria-valuemin={least}
      aria-valuemax={most}
      aria-valuenow={Math.round(mired)}
      aria-valuetext={says}
      transform={`translate(${x(mired)} ${y(tint) + dy})`}
    >
      <rect x={-22} y={-22} width={44} height={44} fill="transparent" />
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
