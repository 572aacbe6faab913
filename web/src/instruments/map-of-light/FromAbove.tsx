import { type PointerEvent, useMemo, useRef } from 'react';
import type { FloorPart, SetReport, SetThing } from '../../api/client';
import { Drawing } from '../Drawing';
import { Contours } from './Contours';
import { floorOf, moved, nearer } from './floor';
import { Label, Looks, Outlines } from './shapes';
import { type Hand, ThingMark } from './ThingMark';
import { keyOfThing } from './things';
import type { ViewProps } from './view';

type Props = ViewProps & { setPart: (part: FloorPart) => void };

const hand: Hand = {
  says: 'Moved on the set',
  drag: ({ thing }, [right = 0, forwards = 0], by) => ({
    set: { move: { thing, to: [right + by.x, forwards + by.y], snap: true } },
  }),
  nudge: ({ thing }, steps) => ({ set: { move: { thing, steps: [steps.x, steps.y] } } }),
};

/** Walls and runs are long: they are taken hold of by the keyboard and in the list, not by what lies over them. */
const fixed = ['ceiling'];

/** The floor plan: true sizes, contours in stops, the frame, the sun's shadows. */
export function FromAbove({ set, part, width, height, chosen, choose, setPart }: Props) {
  const floor = useMemo(() => floorOf(part, width, height), [part, width, height]);
  const { x, y } = floor;
  const from = useRef<{ x: number; y: number; part: FloorPart }>(undefined);
  // The ground is panned by the mouse; a finger scrolls the page, and pans with two buttons beside.
  const press = (event: PointerEvent<SVGSVGElement>) => {
    if (event.pointerType !== 'mouse' || event.button !== 0) return;
    if (event.target instanceof Element && event.target.closest('[data-thing]')) return;
    event.currentTarget.setPointerCapture(event.pointerId);
    from.current = { x: event.clientX, y: event.clientY, part };
  };
  const drag = (event: PointerEvent<SVGSVGElement>) => {
    const begun = from.current;
    if (!begun || !event.currentTarget.hasPointerCapture(event.pointerId)) return;
    const [right, up] = [event.clientX - begun.x, event.clientY - begun.y];
    setPart(moved(begun.part, -right / floor.perMetre, up / floor.perMetre));
  };
  const [apex, left, right] = set.frame;
  const metres = (low: number, high: number) =>
    Array.from({ length: Math.max(0, Math.floor(high) - Math.ceil(low) + 1) }, (_, index) => Math.ceil(low) + index);
  const far = part.right_m - part.left_m > 40;
  const bar = set.map.bar.at_m * floor.perMetre;
  return (
    <Drawing
      height={height}
      role="group"
      aria-label="The set from above"
      onPointerDown={press}
      onPointerMove={drag}
      onPointerUp={() => (from.current = undefined)}
      onPointerCancel={() => (from.current = undefined)}
      onWheel={(event) => {
        if (!event.ctrlKey && !event.metaKey) return;
        const box = event.currentTarget.getBoundingClientRect();
        const at = {
          x: part.left_m + ((event.clientX - box.left) / width) * (part.right_m - part.left_m),
          y: part.far_m - ((event.clientY - box.top) / height) * (part.far_m - part.near_m),
        };
        setPart(nearer(part, event.deltaY < 0 ? 1.15 : 1 / 1.15, at));
      }}
    >
      {!far && (
        <g aria-hidden>
          {metres(part.left_m, part.right_m).map((at) => (
            <line key={`x${at}`} x1={x(at)} x2={x(at)} y1={0} y2={height} stroke="var(--hair)" strokeWidth={0.6} />
          ))}
          {metres(part.near_m, part.far_m).map((at) => (
            <line key={`y${at}`} y1={y(at)} y2={y(at)} x1={0} x2={width} stroke="var(--hair)" strokeWidth={0.6} />
          ))}
        </g>
      )}
      {apex && left && right && (
        <path
          aria-hidden
          d={`M${x(left[0] ?? 0)} ${y(left[1] ?? 0)}L${x(apex[0] ?? 0)} ${y(apex[1] ?? 0)}L${x(right[0] ?? 0)} ${y(right[1] ?? 0)}`}
          fill="var(--ink)"
          fillOpacity={0.06}
          stroke="var(--ink)"
          strokeDasharray="2 4"
        />
      )}
      <Contours map={set.map} floor={floor} />
      {set.shadows.map((shadow) => (
        <g
          key={keyOfThing(shadow.of)}
          role="img"
          aria-label={`${shadow.lit ? 'Thrown by a card' : 'Shadow of the sun'}: ${shadow.says}`}
        >
          <title>{shadow.says}</title>
          <line
            x1={x(shadow.from[0] ?? 0)}
            y1={y(shadow.from[1] ?? 0)}
            x2={x(shadow.to[0] ?? 0)}
            y2={y(shadow.to[1] ?? 0)}
            stroke="var(--ambient)"
            {...(shadow.lit
              ? { strokeWidth: 2, strokeDasharray: '1 5', strokeLinecap: 'round' as const }
              : { strokeWidth: Math.max(4, 0.4 * floor.perMetre), opacity: 0.28 })}
          />
        </g>
      ))}
      {set.lights.map((light) => {
        const thing = set.things.find((one) => keyOfThing(one.thing) === `light/${light.light_id}`);
        return (
          thing && <Line key={light.light_id} thing={thing} aim={light.aim} label={light.distance} {...{ x, y }} />
        );
      })}
      {set.things.map((thing) => {
        const [right = 0, forwards = 0] = thing.at;
        const key = keyOfThing(thing.thing);
        return (
          <ThingMark
            key={key}
            thing={thing}
            x={x(right)}
            y={y(forwards)}
            perMetre={floor.perMetre}
            hand={fixed.includes(thing.kind) ? undefined : hand}
            chosen={chosen === key}
            choose={() => choose(thing.thing)}
          >
            <Outlines thing={thing} outlines={thing.plan} x={x} y={y} />
            <Looks thing={thing} x={x} y={y} />
            <Beside thing={thing} set={set} x={x} y={y} chosen={chosen === key} />
          </ThingMark>
        );
      })}
      <g aria-hidden>
        <path
          d={`M${width - 16 - bar} ${height - 14}h${bar}m0 -5v10m${-bar} -10v10`}
          stroke="var(--ink)"
          strokeWidth={1.6}
        />
        <text className="figure" x={width - 16 - bar / 2} y={height - 20} textAnchor="middle">
          {set.map.bar.label}
        </text>
      </g>
    </Drawing>
  );
}

type At = (value: number) => number;

/** From a light to what it is aimed at, with how far that is. */
function Line({ thing, aim, label, x, y }: { thing: SetThing; aim: number[]; label: string; x: At; y: At }) {
  const [a = 0, b = 0] = thing.at;
  const [c = 0, d = 0] = aim;
  const [mx, my] = [(x(a) + x(c)) / 2, (y(b) + y(d)) / 2];
  return (
    <g aria-hidden>
      <line x1={x(a)} y1={y(b)} x2={x(c)} y2={y(d)} stroke="var(--flash)" strokeDasharray="5 4" strokeWidth={1.2} />
      <text
        className="figure"
        x={mx}
        y={my + 4}
        textAnchor="middle"
        fontWeight={650}
        stroke="var(--panel)"
        strokeWidth={5}
        paintOrder="stroke"
      >
        {label}
      </text>
    </g>
  );
}

/** Names of many people would hide them: the main one's, and of who is chosen. */
function Beside({ thing, set, x, y, chosen }: { thing: SetThing; set: SetReport; x: At; y: At; chosen: boolean }) {
  const [right = 0, forwards = 0] = thing.at;
  const people = set.things.filter((one) => one.kind === 'person').length;
  if (thing.kind === 'person' && people > 1 && !chosen) return null;
  // A light's letter stands behind what glows, so that its face is seen.
  const back = ((thing.looks_deg ?? 0) * Math.PI) / 180;
  const off = thing.kind === 'light' ? 24 : 0;
  return <Label thing={thing} x={x(right) - Math.sin(back) * off} y={y(forwards) + Math.cos(back) * off} />;
}
