import { ArrowDown, ArrowUp, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import '../../api/moreFields';
import type { SameSaid, Setup, Shot } from '../../api/client';
import { useStart } from '../../api/start';
import { Field } from '../../session/fields/Field';
import { Words } from '../../session/fields/Words';
import { useJob } from '../../session/job';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Grid, Quiet, Row } from '../../ui/Panel';
import { TickBox, Ticks } from '../../ui/Ticks';
import { space, wide } from '../../ui/tokens';
import { filled } from '../workbench/Naming';
import { PlateNote } from './PlateNote';

const Line = styled.li`
  border-top: 1px solid var(--line);
  padding-top: ${space.gap}px;
  display: grid;
  gap: ${space.gap}px;
`;

const Name = styled.div`
  ${wide} {
    grid-column: span 2;
  }
`;

type Props = {
  setup: Setup;
  index: number;
  how: string;
  /** What the frames that came of it are like, where they are to be like the picture. */
  came: SameSaid | undefined;
  put: (says: string, to: unknown) => void;
};

/** One shot: what, who, how many, how; moved up and down, ticked off, taken away. */
export function OneShot({ setup, index, how, came, put }: Props) {
  const { session } = useJob();
  const start = useStart();
  const shots = setup.shots ?? [];
  const shot = shots[index];
  if (!shot) return null;
  const at = ['setups', { id: setup.id }, 'shots', { id: shot.id }];
  const set = (says: string, part: keyof Shot, to: unknown) =>
    session.send({ type: 'edit', says, changes: [{ at: [...at, part], to }] });
  const swap = (other: number) => {
    const list = [...shots];
    [list[index], list[other]] = [list[other] as Shot, shot];
    put('Order of the shots', list);
  };
  const kind = shot.kind ?? 'picture';
  const lights = setup.lights.map((light) => ({ id: light.id, label: light.id }));
  const taken = (shot.taken ?? 0) >= (shot.frames ?? 1);
  return (
    <Line>
      <Grid $min={150}>
        <Name>
          <Words name="Shot" at={[...at, 'name']} says="Name of a shot" good={filled} wrong="A shot needs a name." />
        </Name>
        <Choice
          name="How"
          value={kind}
          options={(start?.shot_kinds ?? []).map((one) => ({ id: one.id, label: one.name }))}
          onChange={(to) => set('How a shot is taken', 'kind', to)}
        />
        <Words name="Who" at={[...at, 'who']} says="Who is in a shot" most={200} placeholder="The keeper" />
        <Field of="Shot.frames" at={[...at, 'frames']} placeholder="1" />
        {kind === 'bracket' && <Field of="Shot.step_stops" at={[...at, 'step_stops']} placeholder="1" />}
      </Grid>
      <Row>
        {lights.length > 0 && (
          <Ticks
            name="Lights that are off"
            value={shot.lights_off ?? []}
            options={lights}
            onChange={(ids) => set('Lights off for a shot', 'lights_off', ids)}
          />
        )}
        <TickBox
          name="Nobody in the frame"
          of={shot.name}
          value={shot.people_out ?? false}
          onChange={(is) => set('People in a shot', 'people_out', is)}
        />
        <TickBox
          name="Taken"
          of={shot.name}
          value={taken}
          onChange={(is) => set(`${shot.name}: ${is ? 'taken' : 'not taken'}`, 'taken', is ? (shot.frames ?? 1) : 0)}
        />
      </Row>
      <Words name="Poses, props, hazards" at={[...at, 'notes']} says="Notes on a shot" most={1000} />
      {came && <PlateNote same={came} />}
      <Row $apart>
        <Quiet>{how}</Quiet>
        <Row $gap={2}>
          <Button
            kind="bare"
            aria-label={`${shot.name} earlier`}
            isDisabled={index === 0}
            onPress={() => swap(index - 1)}
          >
            <ArrowUp size={17} aria-hidden />
          </Button>
          <Button
            kind="bare"
            aria-label={`${shot.name} later`}
            isDisabled={index === shots.length - 1}
            onPress={() => swap(index + 1)}
          >
            <ArrowDown size={17} aria-hidden />
          </Button>
          <Button
            kind="bare"
            aria-label={`Take ${shot.name} off the list`}
            onPress={() => session.send({ type: 'edit', says: 'Shot taken off the list', changes: [{ at }] })}
          >
            <Trash2 size={17} aria-hidden />
          </Button>
        </Row>
      </Row>
    </Line>
  );
}
