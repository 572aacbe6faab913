import { type KeyboardEvent, useEffect, useRef, useState } from 'react';
import { useMove } from 'react-aria';
import { Link } from 'react-aria-components';
import styled from 'styled-components';
import type { DayLane, DayPlan, DaySlot } from '../../api/client';
import { Drawing } from '../../instruments/Drawing';
import { Handle } from '../../instruments/Handle';
import { dark } from '../../instruments/phases';
import { useWidth } from '../../instruments/useWidth';
import { useJob } from '../../session/job';
import { linear } from '../../ui/linear';
import { figures, narrow, space, touch, type } from '../../ui/tokens';

const Rows = styled.ul`
  display: grid;
  grid-template-columns: minmax(120px, 190px) 1fr;
  gap: ${space.near}px ${space.gap}px;
  align-items: center;
  li {
    display: contents;
  }
  ${narrow} {
    grid-template-columns: 1fr;
    gap: ${space.hair}px;
  }
`;
const Name = styled.div`
  min-width: 0;
  a {
    color: inherit;
    font-weight: 650;
    text-underline-offset: 3px;
    ${narrow} {
      min-height: ${touch}px;
      display: inline-flex;
      align-items: center;
    }
  }
  p {
    color: var(--quiet);
    font-size: ${type.note}px;
  }
  ${narrow} {
    margin-top: ${space.near}px;
  }
`;
const Bar = styled(Drawing)`
  text {
    ${figures}
    font-size: ${type.note}px;
    fill: var(--ink);
  }
`;

/** As high as a finger. */
const height = touch;
/** The ground of what can only just be had. */
const sill = 5;
/** What is dragged or nudged goes by so many minutes. */
const step = 5;
/** Keys pressed in a row are one move, which ends when they rest for so long, in milliseconds. */
const rests = 600;

type Props = { plan: DayPlan; pin: (setup: string, minute: number) => void };

/** The setups as lanes over the day: the light each needs, and when it is built and shot. */
export function Lanes({ plan, pin }: Props) {
  const { id } = useJob();
  const { width, ref } = useWidth(600);
  const x = linear([0, plan.minutes], [0, Math.max(160, width)]);
  const marks = plan.hours.filter((_, index) => width > 520 || index % 2 === 0);
  return (
    <Rows aria-label="Setups over the day">
      {plan.lanes.map((lane, index) => (
        <li key={lane.setup_id}>
          <Name>
            <Link href={`/jobs/${id}/setups/${lane.setup_id}/place`}>{lane.name}</Link>
            <p>
              {lane.says}
              {lane.easiest && `; ${lane.easiest}`}
              {lane.note && ` ${lane.note}`}
            </p>
          </Name>
          <div ref={index === 0 ? ref : undefined}>
            <Lane lane={lane} slot={plan.slots.find((one) => one.setup_id === lane.setup_id)} {...{ plan, x, pin }} />
          </div>
        </li>
      ))}
      <li aria-hidden>
        <div />
        <Bar height={18}>
          {marks.map((mark, index) => (
            <text
              key={mark.minute}
              x={x(mark.minute)}
              y={13}
              textAnchor={index === 0 ? 'start' : index === marks.length - 1 ? 'end' : 'middle'}
            >
              {mark.clock}
            </text>
          ))}
        </Bar>
      </li>
    </Rows>
  );
}

/** How easily a wish is had, as ground that rises within its windows; even what can only just be had stands on a sill. */
function ground(lane: DayLane, x: (minute: number) => number): string {
  const foot = height - 4;
  return lane.windows
    .map(({ from_minute: from, to_minute: to }) => {
      const steps = lane.moments.flatMap((moment, index) => {
        const next = lane.moments[index + 1];
        if (!next || next.minute <= from || moment.minute >= to) return [];
        const { ease } = moment.can ? moment : next;
        const y = foot - sill - ease * (foot - 4 - sill);
        return [`L${x(Math.max(from, moment.minute))} ${y}L${x(Math.min(to, next.minute))} ${y}`];
      });
      return `M${x(from)} ${foot}${steps.join('')}L${x(to)} ${foot}Z`;
    })
    .join('');
}

type LaneProps = Props & {
  lane: DayLane;
  slot: DaySlot | undefined;
  x: ReturnType<typeof linear>;
};

function Lane({ plan, lane, slot, x, pin }: LaneProps) {
  return (
    <Bar height={height} role="group" aria-label={`${lane.name} over the day`}>
      <rect x={0} width={x(plan.minutes)} y={0} height={height} fill="var(--raised)" />
      {plan.phases.map((phase) => (
        <rect
          key={phase.from_minute}
          x={x(phase.from_minute)}
          width={x(phase.to_minute) - x(phase.from_minute)}
          height={height}
          fill="var(--ink)"
          opacity={dark[phase.phase] ?? 0}
        />
      ))}
      {lane.moments.slice(0, -1).map((moment, index) => {
        const next = lane.moments[index + 1] ?? moment;
        return (
          <rect
            key={moment.minute}
            x={x(moment.minute)}
            width={x(next.minute) - x(moment.minute)}
            height={height}
            fill="transparent"
          >
            <title>{moment.says}</title>
          </rect>
        );
      })}
      <path d={ground(lane, x)} fill="var(--ambient)" fillOpacity={0.32} pointerEvents="none" />
      {lane.windows.map((window) => (
        <rect
          key={window.from_minute}
          x={x(window.from_minute)}
          width={Math.max(2, x(window.to_minute) - x(window.from_minute))}
          y={4}
          height={height - 8}
          fill="none"
          stroke="var(--ambient)"
          strokeWidth={1.4}
          pointerEvents="none"
        />
      ))}
      {slot && <Block {...{ plan, lane, slot, x, pin }} />}
      <rect x={0.5} width={x(plan.minutes) - 1} y={0.5} height={height - 1} fill="none" stroke="var(--line)" />
    </Bar>
  );
}

/** The building and the shooting of a setup: dragged or nudged along the day, where it is pinned then. */
function Block({ plan, lane, slot, x, pin }: LaneProps & { slot: DaySlot }) {
  // What was moved counts until the plan has it elsewhere: the keyboard stays on it then.
  const [moved, setMoved] = useState({ from: slot.utc, by: 0 });
  const by = moved.from === slot.utc ? moved.by : 0;
  const setBy = (to: number) => setMoved({ from: slot.utc, by: to });
  const gone = useRef(0);
  const resting = useRef<number>(undefined);
  useEffect(() => () => window.clearTimeout(resting.current), []);
  const minutes = (pixels: number) => Math.round((x.invert(pixels) - x.invert(0)) / step) * step;
  const put = (far: number) => {
    if (far !== 0) pin(slot.setup_id, Math.min(plan.minutes, Math.max(0, slot.shoots_minute + far)));
  };
  const { moveProps } = useMove({
    onMoveStart(event) {
      if (event.pointerType !== 'keyboard') gone.current = 0;
    },
    onMove(event) {
      if (event.pointerType === 'keyboard') return;
      gone.current += event.deltaX;
      setBy(minutes(gone.current));
    },
    onMoveEnd(event) {
      if (event.pointerType !== 'keyboard') put(minutes(gone.current));
    },
  });
  const onKeyDown = (event: KeyboardEvent) => {
    const far = { ArrowLeft: -step, ArrowRight: step, PageDown: -60, PageUp: 60 }[event.key];
    if (event.key === 'Escape') {
      window.clearTimeout(resting.current);
      setBy(0);
    }
    if (far === undefined) return;
    event.preventDefault();
    const whole = by + far;
    setBy(whole);
    window.clearTimeout(resting.current);
    resting.current = window.setTimeout(() => put(whole), rests);
  };
  const [builds, shoots, done] = [slot.builds_minute, slot.shoots_minute, slot.done_minute].map((at) => x(at + by));
  const wide = x(slot.done_minute) - x(slot.shoots_minute);
  const after = (done ?? 0) + 52 < x(plan.minutes);
  return (
    <Handle
      $cursor="ew-resize"
      {...moveProps}
      onKeyDown={onKeyDown}
      role="slider"
      tabIndex={0}
      aria-label={`Shooting of ${lane.name}`}
      aria-valuemin={0}
      aria-valuemax={plan.minutes}
      aria-valuenow={slot.shoots_minute + by}
      aria-valuetext={`${slot.shoots} to ${slot.done}${lane.pinned_minute == null ? '' : ', pinned'}`}
    >
      <title>{slot.says}</title>
      {/* As wide as a finger. */}
      <rect x={(shoots ?? 0) + wide / 2 - 22} width={44} y={0} height={height} fill="transparent" />
      <rect
        x={builds}
        width={Math.max(0, (shoots ?? 0) - (builds ?? 0))}
        y={13}
        height={height - 26}
        fill="var(--panel)"
        stroke="var(--ink)"
        strokeDasharray="3 2"
      />
      <rect x={shoots} width={Math.max(3, wide)} y={8} height={height - 16} rx={2} fill="var(--ink)" />
      {lane.pinned_minute != null && (
        <line x1={shoots} x2={shoots} y1={0} y2={height} stroke="var(--ink)" strokeWidth={3} />
      )}
      <rect
        className="focus"
        x={(builds ?? 0) - 3}
        width={(done ?? 0) - (builds ?? 0) + 6}
        y={1}
        height={height - 2}
        rx={4}
        fill="none"
        stroke="var(--focus)"
        strokeWidth={2}
      />
      <text
        x={after ? (done ?? 0) + 5 : (builds ?? 0) - 5}
        y={height / 2 + 5}
        textAnchor={after ? 'start' : 'end'}
        stroke="var(--raised)"
        strokeWidth={3.5}
        paintOrder="stroke"
      >
        {by === 0 ? slot.shoots : `${by > 0 ? '+' : '−'}${Math.abs(by)} min`}
      </text>
    </Handle>
  );
}
