import { Plus, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { fieldOf } from '../../api/fields';
import '../../api/moreFields';
import { Field } from '../../session/fields/Field';
import { Words } from '../../session/fields/Words';
import { useJob } from '../../session/job';
import { newId } from '../../session/kit';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Grid, Part, Quiet, Row } from '../../ui/Panel';
import { space } from '../../ui/tokens';
import { JobFields } from '../workbench/Naming';

const Fold = styled.details`
  border-top: 1px solid var(--line);
  padding-top: ${space.near}px;
  summary {
    cursor: pointer;
    font-weight: 600;
    min-height: 34px;
    padding-block: ${space.near}px;
    @media (pointer: coarse) {
      min-height: 44px;
    }
  }
`;
const One = styled.div`
  margin-bottom: ${space.part}px;
`;
const Lines = styled.ul`
  display: flex;
  flex-direction: column;
  gap: ${space.gap}px;
  margin: ${space.near}px 0;
`;

const hours = /^([01]\d|2[0-3]):[0-5]\d$/;
const isHour = (text: string) => hours.test(text);
const wrong = 'Write an hour as 07:30.';
const usual = (of: 'Schedule.build_min' | 'Schedule.shoot_min' | 'JobDay.way_min') =>
  `${fieldOf(of).default}, as usual`;

/** What the setups ask of the day, who comes when, and how long ways take. */
export function DayAsks() {
  const { job, session } = useJob();
  const people = job.day?.people ?? [];
  const ways = job.day?.ways ?? [];
  const put = (says: string, list: 'people' | 'ways', id: string, to?: unknown) => {
    // A list that is not there yet is begun.
    const before = { people, ways };
    const at = before[list].length === 0 ? ['day'] : ['day', list, { id }];
    const whole = { ...job.day, [list]: [to] };
    session.send({ type: 'edit', says, changes: [at.length === 1 ? { at, to: whole } : to ? { at, to } : { at }] });
  };
  const who = [{ id: '', label: 'Everything' }, ...job.setups.map((one) => ({ id: one.id, label: one.name }))];
  return (
    <JobFields>
      <Fold>
        <summary>Minutes and spots of each setup</summary>
        {job.setups.map((setup) => {
          const at = ['setups', { id: setup.id }, 'schedule'];
          return (
            <One key={setup.id}>
              <Part as="h3">{setup.name}</Part>
              <Grid $min={150}>
                <Field of="Schedule.build_min" at={[...at, 'build_min']} placeholder={usual('Schedule.build_min')} />
                <Field of="Schedule.shoot_min" at={[...at, 'shoot_min']} placeholder={usual('Schedule.shoot_min')} />
                <Words name="Spot" at={[...at, 'spot']} says="Spot of a setup" most={60} placeholder="Yard" />
              </Grid>
            </One>
          );
        })}
        <Quiet>Setups of one spot have no way between them.</Quiet>
      </Fold>
      <Fold>
        <summary>Hours, people, ways</summary>
        <Grid $min={150}>
          <Words
            name="Nothing before"
            at={['day', 'begin']}
            says="Begin of the day"
            good={isHour}
            wrong={wrong}
            placeholder="07:00"
          />
          <Words
            name="Done by"
            at={['day', 'end']}
            says="End of the day"
            good={isHour}
            wrong={wrong}
            placeholder="00:00"
          />
          <Field of="JobDay.way_min" at={['day', 'way_min']} placeholder={usual('JobDay.way_min')} />
        </Grid>
        <Row $apart $below>
          <Part as="h3">Who comes when</Part>
          <Button
            onPress={() => {
              const id = newId();
              put('Somebody comes', 'people', id, { id, name: '', at: '12:00', setup_ids: [] });
            }}
          >
            <Plus size={16} aria-hidden /> Somebody comes
          </Button>
        </Row>
        <Lines aria-label="Who comes when">
          {people.map((one) => {
            const at = ['day', 'people', { id: one.id }];
            return (
              <Row as="li" key={one.id}>
                <Words name="Who" at={[...at, 'name']} says="Who comes" most={120} placeholder="The band" />
                <Words name="Comes at" at={[...at, 'at']} says="When somebody comes" good={isHour} wrong={wrong} />
                <Choice
                  name="Is in"
                  value={one.setup_ids?.[0] ?? ''}
                  options={who}
                  onChange={(to) =>
                    session.send({
                      type: 'edit',
                      says: 'Where somebody is in',
                      changes: [{ at: [...at, 'setup_ids'], to: to ? [to] : [] }],
                    })
                  }
                />
                <Button
                  kind="bare"
                  aria-label={`${one.name || 'Nobody'} does not come`}
                  onPress={() => put('Somebody does not come', 'people', one.id)}
                >
                  <Trash2 size={16} aria-hidden />
                </Button>
              </Row>
            );
          })}
        </Lines>
        <Row $apart>
          <Part as="h3">Ways between spots</Part>
          <Button
            onPress={() => {
              const id = newId();
              put('A way between spots', 'ways', id, { id, from: '', to: '', minutes: fieldOf('Way.minutes').default });
            }}
          >
            <Plus size={16} aria-hidden /> A way
          </Button>
        </Row>
        <Lines aria-label="Ways between spots">
          {ways.map((one) => {
            const at = ['day', 'ways', { id: one.id }];
            return (
              <Row as="li" key={one.id}>
                <Words name="From" at={[...at, 'from']} says="A way between spots" most={60} placeholder="Yard" />
                <Words name="To" at={[...at, 'to']} says="A way between spots" most={60} placeholder="Hall" />
                <Field of="Way.minutes" at={[...at, 'minutes']} />
                <Button
                  kind="bare"
                  aria-label={`Remove the way from ${one.from || 'nowhere'} to ${one.to || 'nowhere'}`}
                  onPress={() => put('A way removed', 'ways', one.id)}
                >
                  <Trash2 size={16} aria-hidden />
                </Button>
              </Row>
            );
          })}
        </Lines>
      </Fold>
    </JobFields>
  );
}
