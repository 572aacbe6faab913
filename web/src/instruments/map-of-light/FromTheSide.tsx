import { Drawing } from '../Drawing';
import { Label, Outlines } from './shapes';
import { type Hand, ThingMark } from './ThingMark';
import { keyOfThing } from './things';
import type { ViewProps } from './view';

const hand: Hand = {
  says: 'Raised on the set',
  drag: ({ thing }, [, , high = 0], by) => ({ set: { raise: { thing, to_m: Math.max(0, high + by.y) } } }),
  nudge: ({ thing }, steps) => ({ set: { raise: { thing, steps: steps.x + steps.y } } }),
};

/** What goes up and down. */
const raised = ['light', 'camera', 'card', 'flag', 'mirror', 'diffuser', 'opening', 'product'];

/** The set from its right side: forwards to the right, heights to scale. */
export function FromTheSide({ set, part, width, height, chosen, choose }: ViewProps) {
  const tallest = Math.max(2.6, ...set.things.flatMap((thing) => thing.side.flat().map((at) => at[1] ?? 0))) + 0.3;
  const perMetre = Math.min(width / (part.far_m - part.near_m), (height - 34) / tallest);
  const middle = (part.near_m + part.far_m) / 2;
  const x = (forwards: number) => width / 2 + (forwards - middle) * perMetre;
  const y = (up: number) => height - 24 - up * perMetre;
  return (
    <Drawing height={height} role="group" aria-label="The set from the side">
      {Array.from({ length: Math.floor(tallest) + 1 }, (_, up) => (
        <g key={up} aria-hidden>
          <line x1={0} x2={width} y1={y(up)} y2={y(up)} stroke={up === 0 ? 'var(--ink)' : 'var(--hair)'} />
        </g>
      ))}
      {set.lights.map((light) => {
        const thing = set.things.find((one) => keyOfThing(one.thing) === `light/${light.light_id}`);
        const [, forwards = 0, up = 0] = thing?.at ?? [];
        return (
          <line
            key={light.light_id}
            aria-hidden
            x1={x(forwards)}
            y1={y(up)}
            x2={x(light.aim[1] ?? 0)}
            y2={y(light.aim[2] ?? 0)}
            stroke="var(--flash)"
            strokeDasharray="5 4"
          />
        );
      })}
      {set.things.map((thing) => {
        const [, forwards = 0, up = 0] = thing.at;
        const key = keyOfThing(thing.thing);
        const many = thing.kind === 'person' && chosen !== key;
        return (
          <ThingMark
            key={key}
            thing={thing}
            x={x(forwards)}
            y={y(up)}
            perMetre={perMetre}
            hand={raised.includes(thing.kind) ? hand : undefined}
            chosen={chosen === key}
            choose={() => choose(thing.thing)}
          >
            <Outlines thing={thing} outlines={thing.side} x={x} y={y} />
            {!many && <Label thing={thing} x={x(forwards) - (thing.kind === 'light' ? 20 : 0)} y={y(up)} />}
          </ThingMark>
        );
      })}
    </Drawing>
  );
}
