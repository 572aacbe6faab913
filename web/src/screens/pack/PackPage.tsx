import { useJob } from '../../session/job';
import { Lead, Panel } from '../../ui/Panel';
import { JobFrame } from '../job/JobFrame';
import PackList from './PackList';

/** What a job takes along, on a page of its own. */
export default function PackPage() {
  const { job } = useJob();
  return (
    <JobFrame here="pack">
      {job.setups.length === 0 && (
        <Panel>
          <Lead $tight>Nothing to carry yet: the list is made from the setups of the job.</Lead>
        </Panel>
      )}
      <PackList />
    </JobFrame>
  );
}
