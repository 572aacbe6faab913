import { useRef } from 'react';
import styled from 'styled-components';
import type { DayTimeline } from '../../api/client';
import { useHold, useLivePlan, useShownSetup } from '../../session/job';
import { figures, type } from '../../ui/tokens';
import { Handle } from '../Handle';
import { Told } from '../Told';
import { useMark } from '../useMark';

const Drawing = styled.svg`
  display: block;
  width: 100%;
  max-width: 236px;
  margin: 0 auto;
  user-select: none;
  overflow: visible;
  text {
    ${figures} font-size: ${type.note}px;
    fill: var(--ink);
  }
  text.quiet {
    fill: var(--quiet);
    font-size: ${type.small}px;
  }
  && text.knob {
    fill: var(--panel);
    font-size: 11px;
  }
`;

const edge = 112;
const rim = 124;

/** A point of the sky, seen from below: the horizon is the edge, straight up the middle. North is up. */
function at(bearing: number, altitude: number): [number, number] {
  const radius = edge * (1 - Math.max(0, Math.min(90, altitude)) / 90);
  const angle = ((bearing - 90) * Math.PI) / 180;
  return [radius * Math.cos(angle), radius * Math.sin(angle)];
}

function onRim(bearing: number, radius: number): [number, number] {
  const angle = ((bearing - 90) * Math.PI) / 180;
  return [radius * Math.cos(angle), radius * Math.sin(angle)];
}

const points = (all: [number, number][]) => all.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ');

/** A press of an arrow key turns by so many degrees. */
const turn = 5;
/** The drawing is so many units wide. */
const across = 292;

/** The sky over the place: the sun's way on this day, what stands in the way, and which way the subject faces. */
export function Compass({ day }: { day: DayTimeline | undefined }) {
  const facing = useShownSetup().scene?.facing_deg ?? 0;
  const here = useLivePlan((plan) => plan.sun_report);
  const hold = useHold('facing', 'Subject turned');
  const drawing = useRef<SVGSVGElement>(null);
  const [subjectX, subjectY] = onRim(facing, rim);
  const props = useMark({ x: subjectX, y: subjectY }, hold, {
    drag: (from, by) => {
      const units = across / (drawing.current?.getBoundingClientRect().width ?? across);
      const [x, y] = [from.x + by.x * units, from.y + by.y * units];
      return { face: { to_deg: (Math.atan2(y, x) * 180) / Math.PI + 90 } };
    },
    nudge: (steps) => ({ face: { by_deg: (steps.x + steps.y) * turn } }),
    shift: 3,
    page: 9,
    ends: { home: { face: { to_deg: 0 } }, end: { face: { to_deg: 180 } } },
  });
  if (!here) return null;

  const way = (day?.azimuth_deg ?? []).flatMap((azimuth, index) => {
    const altitude = day?.altitude_deg[index] ?? -90;
    return altitude > -0.5 ? [{ index, point: at(azimuth, altitude) }] : [];
  });
  // The way is broken where the night lies between.
  const stretches: [number, number][][] = [];
  way.forEach(({ index, point }, position) => {
    if (position === 0 || way[position - 1]?.index !== index - 1) stretches.push([]);
    stretches[stretches.length - 1]?.push(point);
  });
  const skyline = here.skyline_deg;
  const blocked = skyline.some((height) => height > 0);
  const ring: [number, number][] = skyline.map((height, index) => at(index * (360 / skyline.length), height));
  const sun = at(here.sun_azimuth_deg, here.sun_altitude_deg);
  const [cameraX, cameraY] = onRim(facing, 70);
  // Its name stands beside the line, where it is not crossed.
  const [besideX, besideY] = onRim(facing - 90, 1);
  const labelX = cameraX + besideX * (14 + 16 * Math.abs(besideX));
  const labelY = cameraY + besideY * 16;

  return (
    <>
      <Drawing ref={drawing} viewBox="-146 -146 292 292" role="group" aria-label="The sky over the place">
        <defs>
          <pattern id="way-hatch" width="5" height="5" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
            <line x1="0" y1="0" x2="0" y2="5" stroke="var(--hatch)" strokeWidth="1.3" />
          </pattern>
        </defs>
        <circle r={edge} fill="var(--raised)" stroke="var(--control-line)" />
        <circle r={edge * (2 / 3)} fill="none" stroke="var(--hair)" />
        <circle r={edge / 3} fill="none" stroke="var(--hair)" />
        {blocked && (
          <path
            d={`M ${points(ring)} Z M 0 ${-edge} A ${edge} ${edge} 0 1 0 0.01 ${-edge} Z`}
            fill="url(#way-hatch)"
            fillRule="evenodd"
          />
        )}
        <line x1={0} x2={0} y1={-edge} y2={edge} stroke="var(--hair)" />
        <line x1={-edge} x2={edge} y1={0} y2={0} stroke="var(--hair)" />
        {(['N', 'E', 'S', 'W'] as const).map((letter, index) => {
          const [x, y] = onRim(index * 90, edge - 11);
          return (
            <text key={letter} x={x} y={y + 4.5} textAnchor="middle" className="quiet">
              {letter}
            </text>
          );
        })}
        {stretches.map((stretch, index) => (
          <polyline key={index} points={points(stretch)} fill="none" stroke="var(--ambient)" strokeWidth={1.6} />
        ))}
        <line
          x1={cameraX}
          y1={cameraY}
          x2={0}
          y2={0}
          stroke="var(--ink)"
          strokeWidth={1.2}
          strokeDasharray="2 4"
          aria-hidden
        />
        <rect x={cameraX - 6} y={cameraY - 4.5} width={12} height={9} rx={2} fill="var(--ink)" aria-hidden />
        <text className="quiet" x={labelX} y={labelY + 4} textAnchor="middle">
          camera
        </text>
        <g transform={`rotate(${facing})`} aria-hidden>
          <circle r={8} fill="var(--panel)" stroke="var(--ink)" strokeWidth={2} />
          <path d="M -4 -8 L 0 -14 L 4 -8 Z" fill="var(--ink)" />
        </g>
        <g transform={`translate(${sun[0]} ${sun[1]})`} role="img" aria-label={`Sun ${here.sun}`}>
          <circle r={8} fill="var(--panel)" opacity={0.9} />
          <circle
            r={7}
            fill="none"
            stroke="var(--ambient)"
            strokeWidth={3}
            strokeDasharray={here.sun_shows ? undefined : '3 3'}
          />
        </g>
        <Handle
          $cursor="grab"
          role="slider"
          tabIndex={0}
          aria-label="The subject faces"
          aria-valuemin={0}
          aria-valuemax={359}
          aria-valuenow={Math.round(facing) % 360}
          aria-valuetext={`${Math.round(facing)} degrees from north`}
          {...props}
        >
          <line x1={0} y1={0} x2={subjectX} y2={subjectY} stroke="var(--ink)" strokeWidth={1.6} />
          <circle cx={subjectX} cy={subjectY} r={22} fill="transparent" />
          <circle
            className="focus"
            cx={subjectX}
            cy={subjectY}
            r={16}
            fill="none"
            stroke="var(--focus)"
            strokeWidth={2}
          />
          <circle cx={subjectX} cy={subjectY} r={11} fill="var(--ink)" />
          <text className="knob" x={subjectX} y={subjectY + 4} textAnchor="middle">
            {Math.round(facing)}°
          </text>
        </Handle>
      </Drawing>
      <Told about="facing" />
    </>
  );
}
