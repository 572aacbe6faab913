import styled from 'styled-components';
import type { DrillProgress } from '../../api/client';

const Frame = styled.svg`
  display: block;
  width: 150px;
  height: 34px;
`;

type Week = DrillProgress['skills'][number]['weeks'][number];

/** So many weeks have room. */
const most = 12;
const [wide, high] = [150, 34];
/** So many stops stand at the top. */
const top = 2;

/** The last weeks of a skill: what part was right, and by how many stops the answers were off. */
export function Weeks({ weeks, name }: { weeks: Week[]; name: string }) {
  const last = weeks.slice(-most);
  if (last.length === 0) return null;
  const each = wide / most;
  const says = last
    .map(
      (week) =>
        `week of ${week.monday}: ${week.right} of ${week.answered} right${week.off_stops == null ? '' : `, off by ${week.off_stops} stops`}`,
    )
    .join('; ');
  const line = last.flatMap((week, index) =>
    week.off_stops == null
      ? []
      : [`${index * each + each / 2},${high - 1 - (Math.min(week.off_stops, top) / top) * (high - 4)}`],
  );
  return (
    <Frame viewBox={`0 0 ${wide} ${high}`} role="img" aria-label={`${name}, ${says}`}>
      <title>{says}</title>
      {last.map((week, index) => {
        const part = week.answered === 0 ? 0 : week.right / week.answered;
        return (
          <rect
            key={week.monday}
            x={index * each + 1}
            width={each - 2}
            y={high - 1 - part * (high - 2)}
            height={part * (high - 2)}
            fill="var(--ink)"
            fillOpacity={0.22}
          />
        );
      })}
      <line x1={0} x2={wide} y1={high - 0.5} y2={high - 0.5} stroke="var(--line)" />
      <polyline points={line.join(' ')} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
    </Frame>
  );
}
