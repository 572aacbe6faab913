import styled from 'styled-components';
import type { Drills } from '../../api/client';
import { Drawing } from '../../instruments/Drawing';
import { useWidth } from '../../instruments/useWidth';

const Frame = styled(Drawing)`
  max-width: 560px;
  text {
    font-size: 13px;
    fill: var(--ink);
  }
`;

type Rail = Drills['drills'][number]['rail'];

/** So many stops are shown to either side of mid grey. */
const most = 5;
const lane = 34;

/** Where regions lie, in stops from mid grey: a lane each. */
export function OnRail({ rail }: { rail: Rail }) {
  const { width, ref } = useWidth(500);
  if (rail.length === 0) return null;
  const wide = Math.min(width, 560);
  const x = (stops: number) => 8 + ((stops + most) / (2 * most)) * (wide - 16);
  const says = rail.map(({ name, at }) => `${name} at ${at.label}`).join(', ');
  return (
    <div ref={ref}>
      <Frame height={rail.length * lane + 18} role="img" aria-label={`Rail: ${says}`}>
        {Array.from({ length: 2 * most + 1 }, (_, index) => index - most).map((stops) => (
          <g key={stops}>
            <line x1={x(stops)} x2={x(stops)} y1={0} y2={rail.length * lane} stroke="var(--line)" />
            <text x={x(stops)} y={rail.length * lane + 14} textAnchor="middle">
              {stops < 0 ? `−${-stops}` : stops}
            </text>
          </g>
        ))}
        {rail.map(({ name, at }, index) => {
          const stops = Math.max(-most, Math.min(most, at.stops ?? -most));
          const right = stops > 0;
          return (
            <g key={name}>
              <line x1={x(-most)} x2={x(most)} y1={index * lane + 17} y2={index * lane + 17} stroke="var(--line)" />
              <rect x={x(stops) - 4} width={8} y={index * lane + 5} height={24} fill="var(--ink)" />
              <text x={x(stops) + (right ? -9 : 9)} y={index * lane + 14} textAnchor={right ? 'end' : 'start'}>
                {name}
              </text>
            </g>
          );
        })}
      </Frame>
    </div>
  );
}
