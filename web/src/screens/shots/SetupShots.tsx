import { useQuery } from '@tanstack/react-query';
import { Play, Plus } from 'lucide-react';
import styled from 'styled-components';
import { answered, api, type Setup } from '../../api/client';
import { useJob, useJobKit } from '../../session/job';
import { newId } from '../../session/kit';
import { changesBetween } from '../../session/machine/change';
import { Button, ButtonLink } from '../../ui/Button';
import { Lead, Notice, Panel, Part, Quiet, Row } from '../../ui/Panel';
import { space } from '../../ui/tokens';
import { JobFields } from '../workbench/Naming';
import { useFrameList } from '../frames/useFrames';
import { OneShot } from './OneShot';

const List = styled.ol`
  display: grid;
  gap: ${space.part}px;
  margin-top: ${space.gap}px;
`;

/** A setup holds no more shots than so many. */
const most = 40;

/** The shots of one setup, in the order of taking. */
export function SetupShots({ setup }: { setup: Setup }) {
  const { id, session } = useJob();
  const kit = useJobKit();
  const { data, error } = useQuery({
    queryKey: ['shots', setup, kit],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/shots', { body: { setup, kit }, signal })),
    placeholderData: (was) => was,
    retry: false,
  });
  const plates = useFrameList(id, setup.id).data?.plates;
  const shots = setup.shots ?? [];
  const at = ['setups', { id: setup.id }, 'shots'];
  const put = (says: string, to: unknown) => session.send({ type: 'edit', says, changes: [{ at, to }] });
  const add = () => put('Shot added', [...shots, { id: newId(), name: `Shot ${shots.length + 1}` }]);
  return (
    <Panel aria-label={`Shots of ${setup.name}`}>
      <Row $apart>
        <Part as="h2">{setup.name}</Part>
        <Row>
          <ButtonLink href={`/jobs/${id}/run/${setup.id}`} aria-label={`Run ${setup.name}`}>
            <Play size={16} aria-hidden /> Run
          </ButtonLink>
          <Button onPress={add} isDisabled={shots.length >= most} aria-label={`Add a shot to ${setup.name}`}>
            <Plus size={16} aria-hidden /> Add a shot
          </Button>
        </Row>
      </Row>
      {error && (
        <Notice role="alert">
          <strong>How they are taken cannot be said. </strong>
          {error.message}
        </Notice>
      )}
      {shots.length === 0 ? (
        <Lead $tight>
          No shots are listed. Batteries and memory are then reckoned without them, and the run has nothing to tick off.
        </Lead>
      ) : (
        <Quiet>{data?.says}</Quiet>
      )}
      {data?.offers.map((offer) => (
        <Notice key={offer.does} role="status">
          {offer.says}
          <Row $below>
            <Button
              onPress={() =>
                session.send({
                  type: 'edit',
                  says: offer.does,
                  changes: changesBetween(setup, offer.setup, ['setups', { id: setup.id }]),
                })
              }
            >
              {offer.does}
            </Button>
          </Row>
        </Notice>
      ))}
      <JobFields>
        <List aria-label={`Shots of ${setup.name}, in order`}>
          {shots.map((shot, index) => (
            <OneShot
              key={shot.id}
              setup={setup}
              index={index}
              how={data?.shots.find((one) => one.id === shot.id)?.how ?? ''}
              came={plates?.find((one) => one.shot_id === shot.id)?.came}
              put={put}
            />
          ))}
        </List>
      </JobFields>
    </Panel>
  );
}
