import { Printer } from 'lucide-react';
import { useEffect } from 'react';
import styled from 'styled-components';
import { useParams } from 'wouter';
import type { RunSheet } from '../../api/client';
import { useJob } from '../../session/job';
import { ButtonLink } from '../../ui/Button';
import { Lead, Notice, Panel, Part, Quiet, Row } from '../../ui/Panel';
import { narrow, space } from '../../ui/tokens';
import { clockOf } from '../../ui/when';
import { Connection } from '../frame/Connection';
import { Header } from '../frame/Header';
import { NoteField } from '../log/NoteField';
import { useNotes } from '../log/useNotes';
import { Changes, stepAt } from './Changes';
import { Dials } from './Dials';
import { Looked } from './Looked';
import { RunShots } from './RunShots';
import { useAwake } from './useAwake';
import { useRunClock } from './useRunClock';
import { useRunSheet } from './useRunSheet';

const Main = styled.main`
  max-width: 720px;
  margin: 0 auto;
  padding: ${space.gap}px ${space.gap}px 40px;
  display: flex;
  flex-direction: column;
  gap: ${space.gap}px;
  h1 {
    font-size: 18px;
  }
  h2 {
    font-size: 17px;
  }
  summary {
    cursor: pointer;
    font-weight: 600;
    padding-block: ${space.near}px;
    ${narrow} {
      min-height: 44px;
      padding-block: ${space.gap}px;
    }
  }
`;

/** One setup on the set: what to set now, what changes next, which shot, what comes after. */
export default function RunPage() {
  const { setup: wanted = '' } = useParams<{ setup: string }>();
  const { id, job, session } = useJob();
  const { came, error } = useRunSheet(wanted);
  const clock = useRunClock(came);
  const awake = useAwake();
  const name = job.setups.find((one) => one.id === wanted)?.name;
  useEffect(() => {
    document.title = `Run: ${name ?? 'nothing'}`;
    return () => {
      document.title = 'Tolva';
    };
  }, [name]);
  return (
    <div>
      <Header of={session} />
      <Connection of={session} />
      <Main>
        {name === undefined ? (
          <Panel>
            <h1>This setup is not there</h1>
            <Lead>It may have been deleted: undo brings it back.</Lead>
            <ButtonLink href={`/jobs/${id}`}>To the job</ButtonLink>
          </Panel>
        ) : (
          <>
            {came && (
              <Dials
                sheet={came.sheet}
                dials={came.sheet.steps[stepAt(came.sheet.steps, clock.atMs ?? 0)]?.stands ?? came.sheet.stands}
              />
            )}
            <Row $apart>
              <h1>{name}</h1>
              <Row>
                <ButtonLink kind="bare" href={`/jobs/${id}/day`}>
                  Day
                </ButtonLink>
                <ButtonLink kind="bare" href={`/jobs/${id}/log`}>
                  Log
                </ButtonLink>
                <ButtonLink kind="bare" href={`/jobs/${id}/setups/${wanted}/place`}>
                  Plan
                </ButtonLink>
              </Row>
            </Row>
            {error && (
              <Notice role="alert">
                <strong>
                  {came
                    ? `This is as it was at ${clockOf(came.atMs)}, ${clock.ageMin} min ago. `
                    : 'Nothing to show yet. '}
                </strong>
                {error.message} Ticks and notes wait here, and go in by themselves.
              </Notice>
            )}
            {Math.abs(clock.offMin) >= 1 && (
              <Notice role="status">
                This device’s clock is {Math.abs(clock.offMin)} min {clock.offMin > 0 ? 'fast' : 'slow'}: the hours here
                are those of the machine Tolva runs on.
              </Notice>
            )}
            {came && <Sheet sheet={came.sheet} clock={clock} />}
            <Quiet>{awake ? 'The screen stays on.' : 'This browser does not keep the screen on by itself.'}</Quiet>
          </>
        )}
      </Main>
    </div>
  );
}

function Sheet({ sheet, clock }: { sheet: RunSheet; clock: ReturnType<typeof useRunClock> }) {
  const { id } = useJob();
  const notes = useNotes(id);
  const old = sheet.readings.filter((one) => one.again_utc && clock.atMs && Date.parse(one.again_utc) <= clock.atMs);
  return (
    <>
      {!sheet.possible && (
        <Notice role="status">
          <strong>The wish cannot be had. </strong>
          {sheet.says}
        </Notice>
      )}
      <Changes sheet={sheet} clock={clock} />
      {old.length > 0 && (
        <Notice role="status">
          <strong>Read it again: {old.map((one) => one.name).join(', ')}. </strong>
          The light has moved more than a stop since it was read.
          <Row $below>
            <ButtonLink href={`/jobs/${id}/setups/${sheet.setup_id}/light`}>Take a reading</ButtonLink>
          </Row>
        </Notice>
      )}
      <RunShots sheet={sheet} />
      <Looked sheet={sheet} at={clock.atMs} />
      {sheet.next && (
        <Panel aria-label="Then">
          <Row $apart>
            <Part as="h2">
              Then: {sheet.next.name}
              {sheet.next.shoots && `, ${sheet.next.shoots}`}
            </Part>
            <ButtonLink href={`/jobs/${id}/run/${sheet.next.setup_id}`}>Go to it</ButtonLink>
          </Row>
          {sheet.next.moves.length === 0 ? (
            <p>Nothing moves.</p>
          ) : (
            <ul aria-label="What is moved">
              {sheet.next.moves.map((move) => (
                <li key={move}>{move}</li>
              ))}
            </ul>
          )}
        </Panel>
      )}
      <Panel aria-label="Notes">
        {sheet.notes && <p>{sheet.notes}</p>}
        <NoteField notes={notes} setup={sheet.setup_id} />
        {notes.waiting.length > 0 && <Quiet>{notes.waiting.length} waiting for Tolva.</Quiet>}
      </Panel>
      {sheet.cautions.length + sheet.hazards.length > 0 && (
        <Panel aria-label="Mind">
          <details open>
            <summary>Mind</summary>
            <ul>
              {[...sheet.hazards, ...sheet.cautions].map((one, index) => (
                <li key={`${one.code}-${index}`}>
                  <strong>{one.heading}. </strong>
                  {one.says}
                </li>
              ))}
            </ul>
            <Quiet>Local rules and licensed practice come first.</Quiet>
          </details>
        </Panel>
      )}
      <Row>
        <ButtonLink
          href={`/api/v1/jobs/${id}/setups/${sheet.setup_id}/card.html`}
          target="_blank"
          routerOptions={undefined}
        >
          <Printer size={17} aria-hidden /> Field card, A5
        </ButtonLink>
        <ButtonLink
          href={`/api/v1/jobs/${id}/setups/${sheet.setup_id}/card.html?paper=a4`}
          target="_blank"
          routerOptions={undefined}
        >
          A4
        </ButtonLink>
        <ButtonLink
          href={`/api/v1/jobs/${id}/setups/${sheet.setup_id}/card.html?keep=true`}
          download
          target="_self"
          routerOptions={undefined}
        >
          Keep it as a file
        </ButtonLink>
      </Row>
    </>
  );
}
