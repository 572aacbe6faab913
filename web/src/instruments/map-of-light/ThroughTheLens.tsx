import { useId } from 'react';
import type { GlassFinding, GlassReport, SetReport } from '../../api/client';
import { Drawing } from '../Drawing';
import { Lozenge } from '../stop-rail/shapes';
import { pathOf } from './floor';
import { Outlines } from './shapes';
import { keyOfThing } from './things';

/** The frame takes so much of the drawing; what stands round it is drawn too. */
const part = 0.72;

/** What stands in the frame, in the lens's own perspective, nearest last. */
type Props = {
  set: SetReport;
  width: number;
  height: number;
  glass: GlassReport | undefined;
  finding: string | undefined;
};

export function ThroughTheLens({ set, width, height, glass, finding }: Props) {
  const wide = Math.min(width * part, (height * part) / set.frame_high);
  const high = wide * set.frame_high;
  const x = (right: number) => width / 2 + right * wide;
  const y = (up: number) => height / 2 - up * high;
  const cut = useId();
  const camera = set.things.find((thing) => thing.kind === 'camera')?.at ?? [0, 0, 0];
  const away = (at: number[]) => Math.hypot(...at.map((value, axis) => value - (camera[axis] ?? 0)));
  const seen = set.things.filter((thing) => thing.lens.length > 0).sort((a, b) => away(b.at) - away(a.at));
  const all = seen.map((thing) => (
    <g key={keyOfThing(thing.thing)}>
      <title>{thing.name}</title>
      <Outlines thing={thing} outlines={thing.lens} x={x} y={y} />
    </g>
  ));
  const box = { x: x(-0.5), y: y(0.5), width: wide, height: high };
  // The weakest first, so that the strongest lies on top.
  const mirrored = [...(glass?.findings ?? [])].reverse();
  const inside = set.notices.filter((note) => note.code === 'in_frame').map((note) => note.heading);
  const stands = inside.length > 0 ? inside.join('. ') : 'No light, stand or card stands in the frame.';
  const says = glass ? `${glass.says} ${stands}` : stands;
  return (
    <Drawing height={height} role="img" aria-label={`The frame through the lens. ${says}`}>
      <defs>
        <clipPath id={cut}>
          <rect {...box} />
        </clipPath>
      </defs>
      <g opacity={0.22}>{all}</g>
      <rect {...box} fill="var(--panel)" />
      <g clipPath={`url(#${cut})`}>
        {all}
        {mirrored.map((one) => (
          <Mirrored key={one.id} {...{ one, x, y }} pointed={one.id === finding} />
        ))}
      </g>
      <rect {...box} fill="none" stroke="var(--ink)" strokeWidth={2} />
    </Drawing>
  );
}

/** What stands in a glass: hatched where it shows, dotted where it is too dim to be seen; named at its middle. */
function Mirrored({ one, x, y, pointed }: { one: GlassFinding; x: At; y: At; pointed: boolean }) {
  const hatch = useId();
  const [right = 0, up = 0] = one.centre ?? [];
  const letter = typeof one.what === 'object' && 'light' in one.what ? one.what.light : undefined;
  const d = one.outlines.map((outline) => pathOf(outline, x, y)).join(' ');
  return (
    <g>
      <title>{`${one.name} in ${one.glass_name}`}</title>
      {/* Light lines on dark and dark on light: it is seen on people and on panes alike. */}
      <pattern id={hatch} width={6} height={6} patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width={6} height={6} fill="var(--flash)" fillOpacity={0.35} />
        <line x1={0} y1={0} x2={0} y2={6} stroke="var(--flash)" strokeWidth={3} />
      </pattern>
      <path d={d} fillRule="evenodd" fill="none" stroke="var(--panel)" strokeWidth={5} />
      <path
        d={d}
        fillRule="evenodd"
        fill={one.shows ? `url(#${hatch})` : 'none'}
        stroke={one.shows ? 'var(--flash)' : 'var(--quiet)'}
        strokeWidth={pointed ? 4 : 2}
        strokeDasharray={one.shows ? undefined : '2 4'}
      />
      {letter && Math.abs(right) < 0.5 && Math.abs(up) < 0.5 && (
        <g transform={`translate(${x(right)} ${y(up)})`}>
          <Lozenge letter={letter} />
        </g>
      )}
    </g>
  );
}

type At = (value: number) => number;
