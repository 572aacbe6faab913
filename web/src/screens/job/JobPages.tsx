import { Redirect, Route, Switch } from 'wouter';
import { useJob } from '../../session/job';
import { lazily } from '../../ui/lazily';

const JobPage = lazily(() => import('./JobPage'));
const DayPage = lazily(() => import('../day/DayPage'));
const ShotsPage = lazily(() => import('../shots/ShotsPage'));
const PackPage = lazily(() => import('../pack/PackPage'));
const LogPage = lazily(() => import('../log/LogPage'));
const RunPage = lazily(() => import('../run/RunPage'));

/** The pages of a job beside those of its setups. */
export default function JobPages() {
  const { id } = useJob();
  return (
    <Switch>
      <Route path="/jobs/:id">
        <JobPage />
      </Route>
      <Route path="/jobs/:id/day">
        <DayPage />
      </Route>
      <Route path="/jobs/:id/shots">
        <ShotsPage />
      </Route>
      <Route path="/jobs/:id/pack">
        <PackPage />
      </Route>
      <Route path="/jobs/:id/log">
        <LogPage />
      </Route>
      <Route path="/jobs/:id/run/:setup">
        <RunPage />
      </Route>
      <Route>
        <Redirect to={`/jobs/${id}`} replace />
      </Route>
    </Switch>
  );
}
