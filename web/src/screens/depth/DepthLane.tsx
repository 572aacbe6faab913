import styled from 'styled-components';
import { Drawing } from '../../instruments/Drawing';
import { useWidth } from '../../instruments/useWidth';
import { useLivePlan } from '../../session/job';
import { space } from '../../ui/tokens';
import { linear } from '../../ui/linear';

const Frame = styled.div`
  margin: ${space.part}px 0;
`;

const top = 30;
const lane = 40;
const height = top + lane + 40;
const left = 34;

/** What is sharp, from the camera on: nearest and farthest, the focus, and the people or the thing in it. */
export function DepthLane() {
  const depth = useLivePlan((plan) => plan.depth_lane);
  const { width, ref } = useWidth(640);
  if (!depth) return null;
  const right = Math.max(160, width - 12);
  const x = linear([depth.begin_m, depth.end_m], [left, right]);
  const [near, far, focus] = [x(depth.near.at_m), depth.far ? x(depth.far.at_m) : right, x(depth.focus.at_m)];
  const cut = depth.begin_m > 0;
  const middle = top + lane / 2;
  const ends = (at: number) => (at > right - 44 ? 'end' : at < left + 44 ? 'start' : 'middle');
  const apart = far - near > 110;
  return (
    <Frame ref={ref}>
      <Drawing height={height} role="img" aria-label={depth.says}>
        <defs>
          <pattern id="not-sharp" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" y1="0" x2="0" y2="6" stroke="var(--hatch)" strokeWidth="1.2" />
          </pattern>
        </defs>
        {/* The camera, and the way from it. */}
        <rect x={4} y={middle - 7} width={16} height={14} rx={2.5} fill="var(--ink)" />
        <rect x={20} y={middle - 4} width={7} height={8} fill="var(--ink)" />
        {cut && (
          <text className="quiet" x={left + 4} y={middle + 4}>
            …
          </text>
        )}
        <rect x={left} y={top} width={right - left} height={lane} fill="url(#not-sharp)" opacity={0.55} />
        <rect x={near} y={top} width={Math.max(2, far - near)} height={lane} fill="var(--raised)" stroke="var(--ink)" />
        {!depth.far && (
          <path d={`M ${right - 8} ${middle - 6} l 8 6 l -8 6`} fill="none" stroke="var(--ink)" strokeWidth={2} />
        )}
        {depth.things.map((thing) => (
          <g key={thing.name}>
            <title>{`${thing.name}${thing.sharp ? ', sharp' : ', not all sharp'}`}</title>
            <rect
              x={x(thing.from_m)}
              y={top + 8}
              width={Math.max(4, x(thing.to_m) - x(thing.from_m))}
              height={lane - 16}
              rx={4}
              fill={thing.sharp ? 'var(--ink)' : 'var(--panel)'}
              stroke="var(--ink)"
              strokeWidth={1.6}
              strokeDasharray={thing.sharp ? undefined : '3 2.4'}
            />
          </g>
        ))}
        <path d={`M ${focus} ${top - 2} l 5 -8 h -10 z`} fill="var(--ink)" />
        <text className="figure" x={focus} y={14} textAnchor={ends(focus)}>
          focus {depth.focus.label}
        </text>
        <text className="figure" x={near} y={top + lane + 16} textAnchor={apart ? ends(near) : 'end'}>
          {depth.near.label}
        </text>
        <text className="figure" x={far} y={top + lane + 16} textAnchor={apart ? ends(far) : 'start'}>
          {depth.far ? depth.far.label : 'to the horizon'}
        </text>
        {depth.marks.map((mark) => (
          <g key={mark.at_m}>
            <line
              x1={x(mark.at_m)}
              x2={x(mark.at_m)}
              y1={top + lane}
              y2={top + lane + 4}
              stroke="var(--control-line)"
            />
            <text className="quiet" x={x(mark.at_m)} y={height - 6} textAnchor={ends(x(mark.at_m))}>
              {mark.label}
            </text>
          </g>
        ))}
      </Drawing>
    </Frame>
  );
}
