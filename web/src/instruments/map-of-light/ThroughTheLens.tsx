import { useId } from 'react';
import type { SetReport } from '../../api/client';
import { Drawing } from '../Drawing';
import { Outlines } from './shapes';
import { keyOfThing } from './things';

/** The frame takes so much of the drawing; what stands round it is drawn too. */
const part = 0.72;

/** What stands in the frame, in the lens's own perspective, nearest last. */
export function ThroughTheLens({ set, width, height }: { set: SetReport; width: number; height: number }) {
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
  const inside = set.notices.filter((note) => note.code === 'in_frame').map((note) => note.heading);
  const says = inside.length > 0 ? inside.join('. ') : 'No light, stand or card stands in the frame.';
  return (
    <Drawing height={height} role="img" aria-label={`The frame through the lens. ${says}`}>
      <defs>
        <clipPath id={cut}>
          <rect {...box} />
        </clipPath>
      </defs>
      <g opacity={0.22}>{all}</g>
      <rect {...box} fill="var(--panel)" />
      <g clipPath={`url(#${cut})`}>{all}</g>
      <rect {...box} fill="none" stroke="var(--ink)" strokeWidth={2} />
    </Drawing>
  );
}
