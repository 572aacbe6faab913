import { useQuery } from '@tanstack/react-query';
import { Undo2 } from 'lucide-react';
import { answered, api, type WorkedFrame } from '../../api/client';
import { useJob } from '../../session/job';
import { same } from '../../session/machine/change';
import { Button, ButtonLink } from '../../ui/Button';
import { Lead, Panel, Part, Quiet, Row } from '../../ui/Panel';
import { PictureLines } from '../../ui/PictureLines';
import { SmallPicture } from '../../ui/SmallPicture';
import { useSummary } from './useSummary';

/** What worked: of each setup the frame that came nearest to its plan. Nothing of a job without frames. */
export default function Worked() {
  const { id, job } = useJob();
  const { data } = useQuery({
    queryKey: ['frames', id, 'worked'],
    queryFn: ({ signal }) => answered(api.GET('/api/v1/jobs/{id}/frames/worked', { params: { path: { id } }, signal })),
  });
  const all = data?.setups.filter((one) => job.setups.some((setup) => setup.id === one.setup.id)) ?? [];
  if (all.length === 0) return null;
  return (
    <Panel aria-labelledby="worked">
      <Row $apart>
        <Part as="h2" id="worked">
          What worked
        </Part>
        <ButtonLink href={`/api/v1/jobs/${id}/frames/log.csv`} download routerOptions={undefined} target="_self">
          All frames as CSV
        </ButtonLink>
      </Row>
      <Lead $tight>Of each setup the frame that came nearest to its plan, and what it was taken with.</Lead>
      <PictureLines>
        {all.map((one) => (
          <Line key={one.setup.id} one={one} />
        ))}
      </PictureLines>
    </Panel>
  );
}

function Line({ one: { frame, setup, of } }: { one: WorkedFrame }) {
  const { id, job, session } = useJob();
  const plan = useSummary(setup);
  const now = job.setups.find((other) => other.id === setup.id);
  // What is learnt since is not undone by going back to what was set.
  const back = { ...setup, name: now?.name ?? setup.name, notes: now?.notes ?? setup.notes };
  delete back.learnt;
  const to = now?.learnt ? { ...back, learnt: now.learnt } : back;
  const asNow = same(now, to);
  return (
    <li>
      <SmallPicture src={frame.missing ? undefined : `/api/v1/frames/${frame.id}/small`} />
      <span>
        <strong>{back.name}</strong> {plan}
        <Quiet>
          {frame.simulated && 'Of the stand-in camera. '}
          {frame.says} {of === 1 ? 'The only frame that tells.' : `Of ${of} frames that tell.`} {frame.note}
        </Quiet>
      </span>
      <Row>
        <ButtonLink href={`/jobs/${id}/setups/${setup.id}/frames`}>Its frames</ButtonLink>
        <Button
          isDisabled={asNow}
          aria-label={asNow ? `${back.name} is set like this now` : `Set ${back.name} like this again`}
          onPress={() =>
            session.send({
              type: 'edit',
              says: `${back.name} as it was for the frame that worked`,
              changes: [{ at: ['setups', { id: setup.id }], to }],
            })
          }
        >
          <Undo2 size={16} aria-hidden /> {asNow ? 'Set like this now' : 'Set like this again'}
        </Button>
      </Row>
    </li>
  );
}
