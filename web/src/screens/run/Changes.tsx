import { Minus, Plus } from 'lucide-react';
import styled from 'styled-components';
import type { RunSheet, RunStep } from '../../api/client';
import { useJob } from '../../session/job';
import { Button } from '../../ui/Button';
import { Notice, Panel, Quiet, Row } from '../../ui/Panel';
import { Slide } from '../../ui/Slide';
import { figures } from '../../ui/tokens';
import { spanOf, type useRunClock } from './useRunClock';

const Big = styled.p`
  ${figures}
  font-size: 44px;
  line-height: 1.1;
  font-weight: 700;
`;
const Does = styled.p`
  font-size: 20px;
  font-weight: 650;
`;

/** What stands at an instant: the last step that has begun; the first before that. */
export function stepAt(steps: RunStep[], atMs: number): number {
  const after = steps.findIndex((step) => Date.parse(step.utc) > atMs);
  return after < 0 ? steps.length - 1 : Math.max(0, after - 1);
}

/** For so long after a change it is still told, in milliseconds. */
const fresh = 3 * 60_000;

type Props = { sheet: RunSheet; clock: ReturnType<typeof useRunClock> };

/** What changes next, and in how many minutes; that the light has left the plan. */
export function Changes({ sheet, clock }: Props) {
  const { steps, last } = sheet;
  const { atMs } = clock;
  if (steps.length === 0 || atMs === undefined) {
    return (
      <Panel aria-label="Next change">
        <p>Nothing changes by itself: where and when are not said, so the light is taken to stay.</p>
      </Panel>
    );
  }
  const here = stepAt(steps, atMs);
  const step = steps[here];
  const next = steps.slice(here + 1).find((one) => one.does.length > 0);
  const begin = Date.parse(steps[0]?.utc ?? '');
  const end = last ? Date.parse(last.utc) : undefined;
  return (
    <Panel aria-label="Next change">
      {atMs < begin - 60_000 && (
        <Notice role="status">
          <strong>
            Planned for {steps[0]?.clock}, in {spanOf(begin - atMs)}.{' '}
          </strong>
          The light is another now.
          <PlanForNow sheet={sheet} />
        </Notice>
      )}
      {end !== undefined && atMs > end + 60_000 ? (
        <Notice role="status">
          <strong>The light has left the plan. </strong>
          {last?.says}
          <PlanForNow sheet={sheet} />
        </Notice>
      ) : (
        <>
          {here > 0 && step && step.does.length > 0 && atMs - Date.parse(step.utc) < fresh && (
            <Notice role="status">
              <strong>Now: {step.does.join(', ')}. </strong>
              Since {step.clock}.
            </Notice>
          )}
          {next ? (
            <>
              <Quiet>Next change, in</Quiet>
              <Big>{spanOf(Date.parse(next.utc) - atMs)}</Big>
              <Does>{next.does.join(', ')}</Does>
              <Quiet>
                {next.clock}. {next.notes.join(' ')}
              </Quiet>
            </>
          ) : (
            <p>
              <strong>Nothing changes any more. </strong>
              {last ? `The last usable minute is ${last.clock}.` : 'The light lasts.'}
            </p>
          )}
        </>
      )}
      {clock.rehearsal && <Rehearsal sheet={sheet} clock={clock} />}
    </Panel>
  );
}

/** The setup's hour becomes this one, by the clocks of its place. */
function PlanForNow({ sheet }: { sheet: RunSheet }) {
  const { session } = useJob();
  if (!sheet.now) return null;
  const { now } = sheet;
  const plan = () =>
    session.send({
      type: 'ask',
      target: `${sheet.setup_id}/hour`,
      says: 'Planned for now',
      scope: ['setups', { id: sheet.setup_id }],
      command: { hour: now },
    });
  return (
    <Row $below>
      <Button onPress={plan}>Plan it for now</Button>
    </Row>
  );
}

/** On another day than the setup's a minute of it is tried. */
function Rehearsal({ sheet, clock }: Props) {
  const begin = Date.parse(sheet.steps[0]?.utc ?? '');
  const end = Date.parse(sheet.last?.utc ?? sheet.steps.at(-1)?.utc ?? '') + 30 * 60_000;
  const at = clock.atMs ?? begin;
  const minutes = Math.round((at - begin) / 60_000);
  return (
    <>
      <Quiet>
        <strong>Rehearsal. </strong>This setup is of another day: what is shown is{' '}
        {minutes === 0 ? 'its hour' : `${minutes} min after its hour`}.
      </Quiet>
      <Row>
        <Button aria-label="A minute earlier" onPress={() => clock.step(-1)}>
          <Minus size={17} aria-hidden />
        </Button>
        <Slide
          name="Minutes after its hour"
          most={Math.max(1, Math.round((end - begin) / 60_000))}
          value={Math.max(0, minutes)}
          says={`${minutes} min after its hour`}
          onChange={(to) => clock.put(begin + to * 60_000)}
        />
        <Button aria-label="A minute later" onPress={() => clock.step(1)}>
          <Plus size={17} aria-hidden />
        </Button>
      </Row>
    </>
  );
}
