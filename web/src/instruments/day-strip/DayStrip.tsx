import { type PointerEvent, useMemo } from 'react';
import styled from 'styled-components';
import type { DayTimeline as Day } from '../../api/client';
import { useHold, useLivePlan, useShownSetup } from '../../session/job';
import { figures } from '../../ui/tokens';
import { Drawing } from '../Drawing';
import { Handle } from '../Handle';
import { dark } from '../phases';
import { Told } from '../Told';
import { useMark } from '../useMark';
import { useWidth } from '../useWidth';
import { linear } from '../../ui/linear';

const Frame = styled.section`
  h3 {
    font-size: 14.5px;
  }
`;
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 3px 14px;
  align-items: baseline;
  margin-bottom: 4px;
  p {
    color: var(--quiet);
    font-size: 13px;
  }
`;
const Strip = styled(Drawing)`
  text {
    ${figures} font-size: 12.5px;
    fill: var(--quiet);
  }
  text.strong {
    fill: var(--ink);
    font-size: 13px;
    font-weight: 600;
  }
`;

const lanes = [
  { key: 'background_ev100', role: 'background', name: 'behind', dash: '7 4', width: 2 },
  { key: 'lit_ev100', role: 'lit_side', name: 'lit side', dash: undefined, width: 2.4 },
  { key: 'shadow_ev100', role: 'shadow_side', name: 'shadow side', dash: '2 3.5', width: 2.2 },
] as const;

const least = -4;
const most = 18;
const skyTop = 2;
const skyHeight = 32;
const top = skyTop + skyHeight + 6;
const evHeight = 98;
const bottom = top + evHeight;

type Props = { day: Day };

/** The three lights over the day on one axis of EV, with the sun over it; the hour is dragged along. */
export function DayStrip({ day }: Props) {
  const here = useLivePlan((plan) => plan.sun_report);
  const rail = useLivePlan((plan) => plan.rail) ?? [];
  const clock = useShownSetup().scene?.at.time ?? '';
  const hold = useHold('hour', 'Hour moved');
  const { width, ref } = useWidth(700);
  const { x, y, sky } = scales(day, width);
  const minute = here?.minute ?? 0;
  const props = useMark(minute, hold, {
    drag: (from, by) => ({ minute: { to: x.invert(x(from) + by.x) } }),
    nudge: (steps) => ({ minute: { by: (steps.x + steps.y) * keyMinutes } }),
    shift: 12,
    page: 36,
    ends: { home: { minute: { to: 0 } }, end: { minute: { to: day.minutes } } },
  });
  // All but the hour: it is drawn once a day, not at every frame of a drag.
  const background = useMemo(() => <Background day={day} width={width} />, [day, width]);
  if (!here) return null;
  /** A mouse takes the hour along wherever it presses; a finger only by its line, so that the page scrolls. */
  const press = (event: PointerEvent<SVGSVGElement>) => {
    if (event.pointerType !== 'mouse' || event.button !== 0) return;
    if (event.target instanceof Element && event.target.closest('[role=slider]')) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    drag(event);
  };
  const drag = (event: PointerEvent<SVGSVGElement>) => {
    if (!event.currentTarget.hasPointerCapture(event.pointerId)) return;
    hold.move({ minute: { to: x.invert(event.clientX - event.currentTarget.getBoundingClientRect().left) } });
  };
  const drop = (event: PointerEvent<SVGSVGElement>) => {
    if (event.currentTarget.hasPointerCapture(event.pointerId)) hold.letGo();
  };
  const said = (role: string) => rail.find((region) => region.role === role)?.ev.replace('EV ', '') ?? '';
  // Labels beside the cursor keep clear of each other.
  const placed = lanes
    .map((lane) => ({ ...lane, at: y(here[lane.key]), says: said(lane.role) }))
    .sort((a, b) => a.at - b.at);
  placed.forEach((lane, index) => {
    const before = placed[index - 1];
    if (before && lane.at - before.at < 14) lane.at = before.at + 14;
  });
  const leftwards = x(minute) > width - 130;
  const rows = Number(day.close.length > 0) + Number(day.silhouette.length > 0);
  const height = bottom + 19 + 11 * rows;

  return (
    <Frame aria-label="Day strip">
      <Head>
        <h3>The day, EV at ISO 100</h3>
        <p>
          {day.says} Drag the hour, or use the arrow keys.
          {day.simulated && ' Cloud: simulated.'}
        </p>
      </Head>
      <div ref={ref}>
        <Strip
          height={height}
          role="group"
          aria-label="The light of the day"
          onPointerDown={press}
          onPointerMove={drag}
          onPointerUp={drop}
          onPointerCancel={drop}
        >
          {background}
          <Handle
            $cursor="ew-resize"
            {...props}
            role="slider"
            tabIndex={0}
            aria-label="Hour"
            aria-valuemin={0}
            aria-valuemax={Math.round(day.minutes) - 1}
            aria-valuenow={Math.round(minute)}
            aria-valuetext={`${clock}, ${here.sun}`}
          >
            <line x1={x(minute)} x2={x(minute)} y1={skyTop} y2={bottom} stroke="var(--ink)" strokeWidth={1.8} />
            <rect x={x(minute) - 22} y={skyTop} width={44} height={bottom - skyTop} fill="transparent" />
            <rect
              className="focus"
              x={x(minute) - 6}
              y={skyTop - 2}
              width={12}
              height={bottom - skyTop + 4}
              rx={5}
              fill="none"
              stroke="var(--focus)"
              strokeWidth={2}
            />
            <circle
              cx={x(minute)}
              cy={sky(Math.max(0, here.sun_altitude_deg))}
              r={5.5}
              fill="var(--panel)"
              stroke="var(--ambient)"
              strokeWidth={2.8}
              strokeDasharray={here.sun_shows ? undefined : '3 2.4'}
            />
          </Handle>
          {placed.map((lane) => (
            <text
              key={lane.key}
              className="strong"
              x={x(minute) + (leftwards ? -9 : 9)}
              y={lane.at + 4}
              textAnchor={leftwards ? 'end' : 'start'}
              stroke="var(--panel)"
              strokeWidth={3.5}
              paintOrder="stroke"
            >
              {lane.name} {lane.says}
            </text>
          ))}
        </Strip>
      </div>
      <Told about="hour" />
    </Frame>
  );
}

/** A press of an arrow key goes so many minutes. */
const keyMinutes = 5;

function scales(day: Day, width: number) {
  const highest = Math.max(15, ...day.altitude_deg);
  return {
    x: linear([0, day.minutes], [30, Math.max(160, width - 6)]),
    y: linear([least, most], [bottom, top]),
    sky: linear([0, highest], [skyTop + skyHeight, skyTop + 10]),
  };
}

/** The sun's height and cloud, the three lines, the readings, and when they lie close or far apart. */
function Background({ day, width }: { day: Day; width: number }) {
  const { x, y, sky } = scales(day, width);
  const line = (list: number[]) =>
    day.minute.map((at, index) => `${x(at).toFixed(1)},${y(list[index] ?? 0).toFixed(1)}`).join(' ');
  const up = day.minute
    .map((at, index) => `${x(at).toFixed(1)},${sky(Math.max(0, day.altitude_deg[index] ?? 0)).toFixed(1)}`)
    .join(' ');
  const rows = Number(day.close.length > 0) + Number(day.silhouette.length > 0);
  const marks = day.hours.filter((_, index) => width > 520 || index % 2 === 0);
  return (
    <>
      <rect x={x(0)} y={skyTop} width={x(day.minutes) - x(0)} height={skyHeight} fill="var(--raised)" />
      <polygon points={`${x(0)},${sky(0)} ${up} ${x(day.minutes)},${sky(0)}`} fill="var(--ambient)" opacity={0.22} />
      {day.minute.slice(0, -1).map((at, index) => {
        const cloud = day.cloud_eighths[index] ?? 0;
        return cloud > 0 ? (
          <rect
            key={at}
            x={x(at)}
            width={x(day.minute[index + 1] ?? at) - x(at) + 0.4}
            y={skyTop}
            height={cloud}
            fill="var(--hatch)"
          />
        ) : null;
      })}
      {day.events
        .filter((event) => event.event === 'goes_behind' || event.event === 'comes_out')
        .map((event) => (
          <g key={event.utc}>
            <title>
              {event.clock} {event.says}
            </title>
            <line
              x1={x(event.minute)}
              x2={x(event.minute)}
              y1={skyTop}
              y2={skyTop + skyHeight}
              stroke="var(--ink)"
              strokeDasharray="2 2"
            />
          </g>
        ))}
      {day.phases.map((phase) => (
        <rect
          key={phase.from_minute}
          x={x(phase.from_minute)}
          width={x(phase.to_minute) - x(phase.from_minute)}
          y={top}
          height={evHeight}
          fill="var(--ink)"
          opacity={dark[phase.phase] ?? 0}
        >
          <title>
            {phase.name}, {phase.says}
          </title>
        </rect>
      ))}
      {[0, 4, 8, 12, 16].map((ev) => (
        <g key={ev}>
          <line x1={x(0)} x2={x(day.minutes)} y1={y(ev)} y2={y(ev)} stroke="var(--hair)" />
          <text x={x(0) - 5} y={y(ev) + 4} textAnchor="end">
            {ev}
          </text>
        </g>
      ))}
      {lanes.map((lane) => (
        <polyline
          key={lane.key}
          points={line(day[lane.key])}
          fill="none"
          stroke="var(--ambient)"
          strokeWidth={lane.width}
          strokeDasharray={lane.dash}
          strokeLinejoin="round"
        />
      ))}
      {day.readings.map((reading) => (
        <g key={`${reading.role}${reading.minute}${reading.ev100}`} role="img" aria-label={reading.says}>
          <title>{reading.says}</title>
          <circle
            cx={x(reading.minute)}
            cy={y(reading.ev100)}
            r={4}
            fill="var(--panel)"
            stroke="var(--ink)"
            strokeWidth={1.8}
            strokeDasharray={reading.simulated ? '2 2' : undefined}
          />
        </g>
      ))}
      {marks.map((mark, index) => (
        <text
          key={mark.minute}
          x={x(mark.minute)}
          y={bottom + 15}
          textAnchor={index === 0 ? 'start' : index === marks.length - 1 ? 'end' : 'middle'}
        >
          {mark.clock}
        </text>
      ))}
      <Stretches all={day.close} x={x} line={bottom + 25} label="all within 2 stops" filled={false} />
      <Stretches all={day.silhouette} x={x} line={bottom + 14 + 11 * rows} label="behind 3 over" filled />
    </>
  );
}

type StretchProps = {
  all: Day['close'];
  x: (minute: number) => number;
  line: number;
  label: string;
  filled: boolean;
};

/** When the three lie close together, or behind far over the subject. */
function Stretches({ all, x, line, label, filled }: StretchProps) {
  return all.map((stretch) => {
    const from = x(stretch.from_minute);
    const to = x(stretch.to_minute);
    return (
      <g key={stretch.from_minute} role="img" aria-label={`${label}: ${stretch.says}`}>
        <title>
          {label}: {stretch.says}
        </title>
        <rect
          x={from}
          width={Math.max(2, to - from)}
          y={line - 3}
          height={5}
          fill={filled ? 'var(--ink)' : 'none'}
          stroke="var(--ink)"
          strokeWidth={1}
        />
        {to - from > 96 && (
          <text
            x={(from + to) / 2}
            y={line + 4}
            textAnchor="middle"
            stroke="var(--panel)"
            strokeWidth={6}
            paintOrder="stroke"
          >
            {label}
          </text>
        )}
      </g>
    );
  });
}
