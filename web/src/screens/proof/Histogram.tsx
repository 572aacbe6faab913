import { useMemo } from 'react';
import styled from 'styled-components';
import { Quiet } from '../../ui/Panel';
import { space } from '../../ui/tokens';

const Graph = styled.svg`
  width: 100%;
  max-width: 320px;
  height: 84px;
  background: var(--ground);
  border: 1px solid var(--line);
  border-radius: 4px;
  .all {
    fill: var(--quiet);
    opacity: 0.55;
  }
  path {
    fill: none;
    stroke-width: 1.6;
    vector-effect: non-scaling-stroke;
  }
  .red {
    stroke: #c8322b;
  }
  .green {
    stroke: #2c8a3d;
  }
  .blue {
    stroke: #2f62c9;
  }
  line {
    stroke: var(--ink);
    stroke-dasharray: 3 3;
    vector-effect: non-scaling-stroke;
  }
`;
const Box = styled.figure`
  margin: 0;
  display: grid;
  gap: ${space.hair}px;
  flex: 1 1 240px;
`;

/** Mid grey stands at level 118 of 255. */
const midGrey = 118 / 4;

type Props = { counted: number[][]; clipped: number };

/** How many pixels stand at which level: luminance filled, the channels as lines; mid grey is marked. */
export function Histogram({ counted, clipped }: Props) {
  const { area, lines } = useMemo(() => {
    // The ends hold whatever is black or white: the graph is as high as what lies between.
    const most = Math.max(1, ...counted.flatMap((channel) => channel.slice(1, -1)));
    const high = (count: number) => 100 - 96 * Math.min(1, Math.sqrt(count / most));
    const line = (channel: number[]) =>
      channel.map((count, level) => `${level === 0 ? 'M' : 'L'}${level + 0.5} ${high(count)}`).join('');
    const [all = [], ...channels] = counted;
    return { area: `M0.5 100${line(all).replace('M', 'L')}L63.5 100Z`, lines: channels.map(line) };
  }, [counted]);
  return (
    <Box>
      <Graph viewBox="0 0 64 100" preserveAspectRatio="none" role="img" aria-label={`Histogram. ${said(clipped)}`}>
        <path className="all" d={area} />
        {['red', 'green', 'blue'].map((channel, index) => (
          <path key={channel} className={channel} d={lines[index]} />
        ))}
        <line x1={midGrey} x2={midGrey} y1="0" y2="100" />
      </Graph>
      <Quiet>{said(clipped)} The dashed line is mid grey.</Quiet>
    </Box>
  );
}

const said = (clipped: number) =>
  clipped < 0.05 ? 'Nothing is clipped.' : `${clipped < 10 ? clipped.toFixed(1) : Math.round(clipped)} % is clipped.`;
