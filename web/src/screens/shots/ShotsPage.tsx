import { useJob } from '../../session/job';
import { ButtonLink } from '../../ui/Button';
import { Lead, Panel, Row } from '../../ui/Panel';
import { JobFrame } from '../job/JobFrame';
import { SetupShots } from './SetupShots';

/** What is taken of each setup: who, how many, how. */
export default function ShotsPage() {
  const { id, job } = useJob();
  return (
    <JobFrame here="shots">
      {job.setups.length === 0 && (
        <Panel>
          <Lead>A list of shots belongs to a setup: make one first.</Lead>
          <Row>
            <ButtonLink href={`/jobs/${id}`}>To the setups</ButtonLink>
          </Row>
        </Panel>
      )}
      {job.setups.map((setup) => (
        <SetupShots key={setup.id} setup={setup} />
      ))}
    </JobFrame>
  );
}
