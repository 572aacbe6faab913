import type { KeyboardEvent, ReactNode } from 'react';
import type { SetThing } from '../../api/client';
import { type SetupCommand, useHold, useSetup } from '../../session/job';
import { touch } from '../../ui/tokens';
import { Handle } from '../Handle';
import { useMark } from '../useMark';
import { keyOfThing } from './things';

/** How a drawing moves a thing: from where it was, by so many metres, and by so many steps of the keys. */
export type Hand = {
  says: string;
  drag: (thing: SetThing, from: readonly number[], by: { x: number; y: number }) => SetupCommand;
  nudge: (thing: SetThing, steps: { x: number; y: number }) => SetupCommand;
};

/** A press of a bracket turns so far, in degrees. */
const turn = 5;

type Props = {
  thing: SetThing;
  /** Where its handle is drawn. */
  x: number;
  y: number;
  perMetre: number;
  hand: Hand | undefined;
  chosen: boolean;
  choose: () => void;
  children: ReactNode;
};

/** A thing that is dragged, nudged and chosen. A finger hits 44 px round its handle. */
export function ThingMark({ thing, x, y, perMetre, hand, chosen, choose, children }: Props) {
  const hold = useHold(`set/${keyOfThing(thing.thing)}`, hand?.says ?? '');
  const props = useMark(thing.at as readonly number[], hold, {
    drag: (from, by) => (hand ? hand.drag(thing, from, { x: by.x / perMetre, y: -by.y / perMetre }) : { set: 'use' }),
    nudge: (steps) => (hand ? hand.nudge(thing, steps) : { set: 'use' }),
    shift: 10,
    page: 10,
    onTap: choose,
  });
  const named = [thing.name, thing.kind === 'light' ? 'light' : '', thing.says].filter(Boolean).join(', ');
  const { ask } = useSetup();
  /** Square brackets turn it, five degrees a press. */
  const onKeyDown = (event: KeyboardEvent) => {
    const by_deg = { '[': -turn, ']': turn }[event.key];
    if (by_deg === undefined) return props.onKeyDown(event);
    event.preventDefault();
    ask('Turned on the set', { set: { turn: { thing: thing.thing, by_deg } } }, `set/${keyOfThing(thing.thing)}`);
  };
  if (!hand) {
    return (
      <g role="img" aria-label={named}>
        {children}
      </g>
    );
  }
  return (
    <Handle
      $cursor="move"
      {...props}
      onKeyDown={onKeyDown}
      role="button"
      tabIndex={0}
      aria-label={named}
      aria-roledescription="thing on the set, moved by the arrow keys, turned by the brackets"
      aria-pressed={chosen}
      data-thing={keyOfThing(thing.thing)}
      onFocus={choose}
    >
      {children}
      <circle cx={x} cy={y} r={touch / 2} fill="transparent" />
      <circle className="focus" cx={x} cy={y} r={touch / 2 - 3} fill="none" stroke="var(--focus)" strokeWidth={2.5} />
      {chosen && <circle cx={x} cy={y} r={touch / 2 - 6} fill="none" stroke="var(--ink)" strokeDasharray="3 3" />}
    </Handle>
  );
}
