import type { SetThing } from '../../api/client';
import { Lozenge } from '../stop-rail/shapes';
import { pathOf } from './floor';

type At = (value: number) => number;

/** How each kind of thing is filled: meaning is in the shape and the name, colour is light's alone. */
const fills: { [kind: string]: string } = {
  person: 'var(--ink)',
  camera: 'var(--ink)',
  flag: 'var(--ink)',
  wall: 'var(--control-line)',
  card: 'var(--raised)',
  mirror: 'var(--raised)',
  diffuser: 'none',
  product: 'var(--chosen)',
  opening: 'none',
  pane: 'none',
};
/** Runs along the floor or overhead are lines. */
const dashes: { [kind: string]: string | undefined } = {
  edge: '2 5',
  road: '14 6',
  water: '6 4 1 4',
  crowd: '1 6',
  line: '12 3 2 3',
  cable: undefined,
  diffuser: '4 3',
  pane: '1 3',
};

/** The outlines of a thing. */
export function Outlines({ thing, outlines, x, y }: { thing: SetThing; outlines: number[][][]; x: At; y: At }) {
  if (thing.kind === 'light') {
    return outlines.map((outline, index) => (
      <path
        key={index}
        d={pathOf(outline, x, y)}
        // What glows, then the head behind it, then what holds it.
        fill={index === 1 ? 'var(--flash)' : 'none'}
        fillOpacity={0.3}
        stroke={index === 2 ? 'var(--quiet)' : 'var(--flash)'}
        strokeWidth={index === 0 ? 4.5 : 1.2}
        strokeLinejoin="round"
      />
    ));
  }
  const ambient = thing.kind === 'opening';
  return outlines.map((outline, index) => (
    <path
      key={index}
      d={pathOf(outline, x, y)}
      fill={fills[thing.kind] ?? 'none'}
      stroke={ambient ? 'var(--ambient)' : thing.kind === 'person' ? 'var(--panel)' : 'var(--ink)'}
      strokeWidth={ambient ? 4 : outline.length < 3 ? 3 : thing.kind === 'person' ? 2 : 1.5}
      strokeDasharray={dashes[thing.kind]}
    />
  ));
}

/** The way somebody looks, as a notch before the head. */
export function Looks({ thing, x, y }: { thing: SetThing; x: At; y: At }) {
  if (thing.kind !== 'person' || thing.looks_deg === null || thing.looks_deg === undefined) return null;
  const [right = 0, forwards = 0] = thing.at;
  return (
    <path
      transform={`translate(${x(right)} ${y(forwards)}) rotate(${thing.looks_deg})`}
      d="M -4 1 L 0 -7 L 4 1 Z"
      fill="var(--panel)"
      stroke="var(--ink)"
    />
  );
}

/** What a thing is called, beside it. A light by its lozenge. */
export function Label({ thing, x, y }: { thing: SetThing; x: number; y: number }) {
  if (thing.kind === 'light') {
    return (
      <g transform={`translate(${x} ${y})`}>
        <Lozenge letter={thing.name} />
      </g>
    );
  }
  const text = thing.says ? thing.says : thing.name;
  return (
    <text
      className="quiet"
      x={x + 16}
      y={y + (thing.kind === 'person' ? -14 : thing.kind === 'camera' ? 30 : 16)}
      stroke="var(--panel)"
      strokeWidth={4}
      paintOrder="stroke"
    >
      {text}
    </text>
  );
}
