import styled from 'styled-components';
import type { Drills } from '../../api/client';
import { Drawing } from '../../instruments/Drawing';
import { useWidth } from '../../instruments/useWidth';

const Frame = styled(Drawing)`
  max-width: 560px;
  text {
    font-size: 13px;
    fill: var(--ink);
    stroke: var(--panel);
    stroke-width: 3px;
    paint-order: stroke;
  }
`;

type Seen = NonNullable<Drills['drills'][number]['seen']>;

/** So many metres are shown from left to right, and before the pane. */
const [wide, deep] = [9, 4.6];
/** Room over the pane for its name. */
const over = 22;

/** A pane from above, to scale: the lens, a light, how far the glass goes. */
export function Pane({ seen }: { seen: Seen }) {
  const { width, ref } = useWidth(500);
  const metre = Math.min(width, 560) / wide;
  const x = (metres: number) => (metres + wide / 2) * metre;
  const y = (metres: number) => over + metres * metre;
  const says = `From above: the pane from ${seen.left_m} m left of the lens to ${seen.right_m} m right of it, the lens ${seen.lens_m} m before it, the light ${seen.light_m} m before it and ${Math.abs(seen.aside_m)} m to the ${seen.aside_m < 0 ? 'left' : 'right'}.`;
  // Each name stands on the side away from the other.
  const left = seen.aside_m < 0;
  // Near the edge of the drawing it stands inwards all the same.
  const outwards = left ? seen.aside_m > -3.6 : seen.aside_m > 3.6;
  return (
    <div ref={ref}>
      <Frame height={y(deep)} role="img" aria-label={says}>
        {Array.from({ length: Math.floor(deep) + 1 }, (_, row) => (
          <line key={row} x1={x(-4.5)} x2={x(4.5)} y1={y(row)} y2={y(row)} stroke="var(--line)" strokeWidth={0.6} />
        ))}
        {Array.from({ length: 9 }, (_, column) => (
          <line
            key={column}
            x1={x(column - 4)}
            x2={x(column - 4)}
            y1={y(0)}
            y2={y(deep)}
            stroke="var(--line)"
            strokeWidth={0.6}
          />
        ))}
        <line x1={x(-seen.left_m)} x2={x(seen.right_m)} y1={y(0)} y2={y(0)} stroke="var(--ink)" strokeWidth={6} />
        <text x={x((seen.right_m - seen.left_m) / 2)} y={13} textAnchor="middle">
          Pane
        </text>
        <path d={`M${x(0)} ${y(seen.lens_m) - 9}l9 16h-18z`} fill="none" stroke="var(--ink)" strokeWidth={2.2} />
        <text x={x(0) + (left ? 13 : -13)} y={y(seen.lens_m) + 5} textAnchor={left ? 'start' : 'end'}>
          Lens
        </text>
        <path d={`M${x(seen.aside_m)} ${y(seen.light_m) - 9}l9 9l-9 9l-9 -9z`} fill="var(--flash)" />
        <text
          x={x(seen.aside_m) + (outwards ? -13 : 13)}
          y={y(seen.light_m) + 5}
          textAnchor={outwards ? 'end' : 'start'}
        >
          Light
        </text>
      </Frame>
    </div>
  );
}
