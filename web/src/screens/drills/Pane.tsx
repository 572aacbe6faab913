import styled from 'styled-components';
import type { Drills } from '../../api/client';

const Frame = styled.svg`
  display: block;
  width: 100%;
  max-width: 520px;
  height: auto;
  text {
    font-size: 12.5px;
    fill: var(--ink);
  }
`;

type Seen = NonNullable<Drills['drills'][number]['seen']>;

/** Half of what is shown from left to right, and how far before the pane, in metres. */
const [half, deep] = [4.5, 4.6];
/** So many pixels are a metre. */
const metre = 48;

/** A pane from above, to scale: the lens, a light, how far the glass goes. */
export function Pane({ seen }: { seen: Seen }) {
  const x = (metres: number) => (metres + half) * metre;
  const y = (metres: number) => 22 + metres * metre;
  const says = `From above: the pane from ${seen.left_m} m left of the lens to ${seen.right_m} m right of it, the lens ${seen.lens_m} m before it, the light ${seen.light_m} m before it and ${Math.abs(seen.aside_m)} m to the ${seen.aside_m < 0 ? 'left' : 'right'}.`;
  return (
    <Frame viewBox={`0 0 ${2 * half * metre} ${y(deep)}`} role="img" aria-label={says}>
      {Array.from({ length: Math.floor(deep) + 1 }, (_, row) => (
        <line key={row} x1={0} x2={x(half)} y1={y(row)} y2={y(row)} stroke="var(--line)" strokeWidth={0.6} />
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
      <text x={x(0) + 13} y={y(seen.lens_m) + 5}>
        Lens
      </text>
      <path
        d={`M${x(seen.aside_m)} ${y(seen.light_m) - 9}l9 9l-9 9l-9 -9z`}
        fill="var(--flash)"
        stroke="var(--panel)"
        strokeWidth={1}
      />
      <text
        x={x(seen.aside_m) + (seen.aside_m > 3 ? -13 : 13)}
        y={y(seen.light_m) + 5}
        textAnchor={seen.aside_m > 3 ? 'end' : 'start'}
      >
        Light
      </text>
    </Frame>
  );
}
