import { Check, Undo2 } from 'lucide-react';
import styled from 'styled-components';
import type { RunSheet, Shot } from '../../api/client';
import { useJob } from '../../session/job';
import { Button, ButtonLink } from '../../ui/Button';
import { Notice, Panel, Part, Quiet, Row } from '../../ui/Panel';
import { TickBox } from '../../ui/Ticks';
import { narrow, space, touch } from '../../ui/tokens';
import { useFrameList } from '../frames/useFrames';

const Name = styled.p`
  font-size: 20px;
  font-weight: 650;
`;
const Act = styled(Row)`
  margin: ${space.gap}px 0;
  button {
    min-height: ${touch + 10}px;
    flex: 1 1 130px;
    font-size: 18px;
  }
`;
const List = styled.ol`
  li {
    border-top: 1px solid var(--line);
    padding: ${space.near}px 0;
    display: flex;
    gap: ${space.gap}px;
    justify-content: space-between;
    align-items: center;
    ${narrow} {
      flex-wrap: wrap;
    }
  }
`;

/** Which shot is next; ticked when it is taken. A wrong tick is taken back. */
export function RunShots({ sheet }: { sheet: RunSheet }) {
  const { id, job, session } = useJob();
  const plates = useFrameList(id, sheet.setup_id).data?.plates.filter((one) => !one.came.good) ?? [];
  const shots = job.setups.find((one) => one.id === sheet.setup_id)?.shots ?? [];
  const tick = (shot: Shot, taken: number) =>
    session.send({
      type: 'edit',
      says: taken === 0 ? `${shot.name}: not taken` : `${shot.name}: ${taken} of ${shot.frames ?? 1} taken`,
      changes: [{ at: ['setups', { id: sheet.setup_id }, 'shots', { id: shot.id }, 'taken'], to: taken }],
    });
  const frames = (shot: Shot) => shot.frames ?? 1;
  const done = (shot: Shot) => shot.taken ?? 0;
  const next = shots.findIndex((shot) => done(shot) < frames(shot));
  const shot = shots[next];
  const said = (of: Shot) => sheet.shots.shots.find((one) => one.id === of.id);
  if (shots.length === 0) {
    return (
      <Panel aria-label="Shots">
        <Row $apart>
          <p>No shots are listed.</p>
          <ButtonLink href={`/jobs/${id}/shots`}>List them</ButtonLink>
        </Row>
      </Panel>
    );
  }
  return (
    <Panel aria-label="Shots">
      {plates.map((plate) => (
        <Notice key={plate.shot_id} role="status">
          <strong>{shots.find((one) => one.id === plate.shot_id)?.name}. </strong>
          {plate.came.says}
        </Notice>
      ))}
      {shot ? (
        <>
          <Row $apart>
            <Part as="h2">
              Shot {next + 1} of {shots.length}
            </Part>
            <Quiet>
              {done(shot)} of {frames(shot)} {frames(shot) === 1 ? 'frame' : 'frames'}
            </Quiet>
          </Row>
          <Name>
            {shot.name}
            {shot.who ? `, ${shot.who}` : ''}
          </Name>
          {said(shot)?.kind !== 'Picture' && <p>{said(shot)?.kind}</p>}
          <p>{said(shot)?.how}</p>
          {shot.notes && <Quiet>{shot.notes}</Quiet>}
          <Act>
            <Button kind="strong" aria-label={`Taken: ${shot.name}`} onPress={() => tick(shot, frames(shot))}>
              <Check size={20} aria-hidden /> Taken
            </Button>
            {frames(shot) > 1 && (
              <Button aria-label={`One frame of ${shot.name}`} onPress={() => tick(shot, done(shot) + 1)}>
                One frame
              </Button>
            )}
          </Act>
        </>
      ) : (
        <Part as="h2">All shots are taken</Part>
      )}
      <details>
        <summary>All shots</summary>
        <List aria-label="All shots">
          {shots.map((one) => (
            <li key={one.id}>
              <span>
                {one.name}
                <Quiet as="span"> {said(one)?.done}</Quiet>
              </span>
              <Row>
                {done(one) > 0 && done(one) < frames(one) && (
                  <Button
                    kind="bare"
                    aria-label={`One frame less of ${one.name}`}
                    onPress={() => tick(one, done(one) - 1)}
                  >
                    <Undo2 size={16} aria-hidden />
                  </Button>
                )}
                <TickBox
                  name="Taken"
                  of={one.name}
                  value={done(one) >= frames(one)}
                  onChange={(is) => tick(one, is ? frames(one) : 0)}
                />
              </Row>
            </li>
          ))}
        </List>
      </details>
    </Panel>
  );
}
