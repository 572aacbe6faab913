import { useMutation } from '@tanstack/react-query';
import { CalendarPlus, Download, PinOff, Play } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { answered, api, type DayPlan as Plan, type Setup } from '../../api/client';
import { useJob, useJobKit } from '../../session/job';
import { same } from '../../session/machine/change';
import { Button, ButtonLink } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Wrong } from '../../ui/field';
import { Notice, Panel, Part, Quiet, Row } from '../../ui/Panel';
import { figures, space } from '../../ui/tokens';
import { DayAsks } from './DayAsks';
import { Lanes } from './Lanes';
import { useDayPlan } from './useDayPlan';

const Body = styled.div`
  display: flex;
  flex-direction: column;
  gap: ${space.part}px;
  margin-top: ${space.gap}px;
`;
const Order = styled.ol`
  display: flex;
  flex-direction: column;
  li {
    border-top: 1px solid var(--line);
    padding: ${space.near}px 0;
    display: flex;
    flex-wrap: wrap;
    gap: 2px ${space.part}px;
    align-items: center;
    > :nth-child(2) {
      flex: 1 1 160px;
    }
  }
  b {
    ${figures}
    font-size: 17px;
  }
`;

/** The day of the job: when each setup has its light, in which order they are shot, what does not fit. */
export default function DayPlan() {
  const { id, job, session } = useJob();
  const kit = useJobKit();
  const [date, setDate] = useState<string>();
  const { plan, error, seen } = useDayPlan(date);
  const pin = useMutation({
    mutationFn: async ({ setup, minute }: { setup: string; minute: number }) => {
      const asked = { job: { ...job, kit }, setup_id: setup, minute, ...(date ? { date } : {}) };
      const at = await answered(api.POST('/api/v1/day-plan/hour', { body: asked }));
      schedule(setup, 'Setup pinned to an hour', { pinned: at });
    },
  });
  const schedule = (setup: string, says: string, part: Setup['schedule']) => {
    const is = { ...job.setups.find((one) => one.id === setup)?.schedule };
    delete is.pinned;
    session.send({
      type: 'edit',
      says,
      changes: [{ at: ['setups', { id: setup }, 'schedule'], to: { ...is, ...part } }],
    });
  };
  const unpin = (setup: string) => schedule(setup, 'Setup no longer pinned', {});
  if (job.setups.length === 0) return null;
  const query = date ? `?date=${date}` : '';
  return (
    <Panel aria-labelledby="day">
      <Row $apart>
        <Part as="h2" id="day">
          Day plan
        </Part>
        <Row>
          {plan && plan.dates.length > 1 && (
            <Choice
              name="Day"
              value={plan.date ?? ''}
              options={plan.dates.map((one) => ({ id: one, label: one }))}
              onChange={setDate}
            />
          )}
          <ButtonLink href={`/api/v1/jobs/${id}/day.ics${query}`} download routerOptions={undefined} target="_self">
            <CalendarPlus size={17} aria-hidden /> Calendar
          </ButtonLink>
          <ButtonLink href={`/api/v1/jobs/${id}/day.csv${query}`} download routerOptions={undefined} target="_self">
            <Download size={17} aria-hidden /> CSV
          </ButtonLink>
        </Row>
      </Row>
      {error && (
        <Notice role="alert">
          <strong>The day cannot be planned. </strong>
          {error.message}
        </Notice>
      )}
      {pin.error && <Wrong role="alert">Not pinned. {pin.error.message}</Wrong>}
      {plan && (
        <Body>
          <Told
            {...{ plan, seen, unpin }}
            begin={(part) => session.send(dayEdit(job.day, part))}
            put={(change, then) => schedule(change.setup_id ?? '', change.says, then)}
          />
          <Lanes plan={plan} pin={(setup, minute) => pin.mutate({ setup, minute })} />
          <Quiet>
            Filled is shooting, dashed is building before it; outlined is when the wish of the setup can be had, and the
            higher its ground, the more easily: with less ISO and with more of the flash left. Drag the shooting to an
            hour, or use the arrow keys, and it is pinned there.
          </Quiet>
          <Order aria-label="In this order">
            {plan.slots.map((slot) => (
              <li key={slot.setup_id}>
                <b>{slot.shoots}</b>
                <span>
                  <strong>{slot.name}</strong>
                  <Quiet>{slot.says}</Quiet>
                </span>
                <Unpin setup={slot.setup_id} unpin={unpin} />
                <ButtonLink href={`/jobs/${id}/run/${slot.setup_id}`} aria-label={`Run ${slot.name}`}>
                  <Play size={16} aria-hidden /> Run
                </ButtonLink>
              </li>
            ))}
          </Order>
          <Hours plan={plan} />
          <DayAsks />
        </Body>
      )}
    </Panel>
  );
}

type Asks = NonNullable<ReturnType<typeof useJob>['job']['day']>;

const dayEdit = (day: Asks | undefined, part: Partial<Asks>) => ({
  type: 'edit' as const,
  says: 'Hours of the day',
  changes: [{ at: ['day'], to: { ...day, ...part } }],
});

type Change = Plan['changes'][number];

type ToldProps = {
  plan: Plan;
  seen: () => void;
  begin: (part: Partial<Asks>) => void;
  put: (change: Change, then: NonNullable<Setup['schedule']>) => void;
  unpin: (setup: string) => void;
};

/** Lets a setup go that is pinned to an hour, whether it fits there or not. */
function Unpin({ setup, unpin }: { setup: string; unpin: (setup: string) => void }) {
  const { job } = useJob();
  const pinned = job.setups.find((one) => one.id === setup && one.schedule?.pinned);
  if (!pinned) return null;
  return (
    <Button aria-label={`Unpin ${pinned.name}`} onPress={() => unpin(setup)}>
      <PinOff size={16} aria-hidden /> Unpin
    </Button>
  );
}

/** The day in a sentence, what moved, what does not fit, and the least that would make it fit. */
function Told({ plan, seen, begin, put, unpin }: ToldProps) {
  const make = (change: Change) => {
    if (change.schedule) {
      const { pinned, ...minutes } = change.schedule;
      put(change, { ...minutes, ...(pinned && { pinned }) });
    } else if (change.hour) begin(change.code === 'begin_earlier' ? { begin: change.hour } : { end: change.hour });
  };
  return (
    <>
      <p>
        <strong>{plan.says}</strong> {plan.sun_says} {plan.notes.join(' ')}
      </p>
      {plan.moved.length > 0 && (
        <Notice role="status">
          <strong>The light or the plan has changed: </strong>
          {plan.moved.join('; ')}.
          <Row $below>
            <Button onPress={seen}>I have seen it</Button>
          </Row>
        </Notice>
      )}
      {plan.left_out.length > 0 && (
        <Notice role="status">
          <strong>Does not fit: </strong>
          {plan.left_out.map((one) => `${one.name}, ${one.says}`).join('; ')}.{' '}
          {plan.left_out.map((one) => (
            <Unpin key={one.setup_id} setup={one.setup_id} unpin={unpin} />
          ))}
          {plan.changes.length > 0 && (
            <>
              <br />
              Any of these by itself makes everything fit:
              <ul>
                {plan.changes.map((change) => (
                  <li key={change.says}>
                    <Row $below>
                      <span>{change.says}</span>
                      <Button aria-label={`Do it: ${change.says}`} onPress={() => make(change)}>
                        Do it
                      </Button>
                    </Row>
                  </li>
                ))}
              </ul>
            </>
          )}
          {plan.changes.length === 0 && <> No single change makes everything fit: take less, or another day.</>}
        </Notice>
      )}
    </>
  );
}

/** The setups are planned for their own hours; one press plans each for the hour it is shot at. */
function Hours({ plan }: { plan: Plan }) {
  const { job, session } = useJob();
  const changes = plan.slots.flatMap((slot) => {
    const scene = job.setups.find((setup) => setup.id === slot.setup_id)?.scene;
    const differs = scene && !same({ second_time: false, ...scene.at }, slot.at);
    return differs ? [{ at: ['setups', { id: slot.setup_id }, 'scene', 'at'], to: slot.at }] : [];
  });
  if (changes.length === 0) return null;
  const many =
    changes.length === 1
      ? '1 setup is planned for another hour than it is'
      : `${changes.length} setups are planned for other hours than they are`;
  return (
    <Row $apart>
      <Quiet>{many} shot at.</Quiet>
      <Button onPress={() => session.send({ type: 'edit', says: 'Setups planned for the hours of the day', changes })}>
        Plan them for these hours
      </Button>
    </Row>
  );
}
