import { Suspense, useState } from 'react';
import { Route, Switch } from 'wouter';
import { ApiProblem } from '../../api/client';
import { JobProvider, useJobRunner, useJobState } from '../../session/job';
import { Button, ButtonLink } from '../../ui/Button';
import { Row } from '../../ui/Panel';
import { NotOpen } from '../frame/NotOpen';
import { lazily } from '../../ui/lazily';

const JobPages = lazily(() => import('./JobPages'));
const Live = lazily(() => import('./Live'));
const Workbench = lazily(() => import('../workbench/Workbench'));
const History = lazily(() => import('./History'));

/** Opens a job for the pages under it. */
export default function JobRoute({ id }: { id: string }) {
  return (
    <JobProvider key={id} id={id}>
      <Opened />
    </JobProvider>
  );
}

function Opened() {
  const { id } = useJobRunner();
  const open = useJobState((state) => state.kept !== undefined);
  const problem = useJobState((state) => state.closed);
  const [past, setPast] = useState(false);
  if (open) {
    return (
      <>
        <Suspense>
          <Live />
        </Suspense>
        <Switch>
          <Route path="/jobs/:id/setups/:setup/:step?">
            <Workbench />
          </Route>
          <Route>
            <JobPages />
          </Route>
        </Switch>
      </>
    );
  }
  const unreadable = problem instanceof ApiProblem && problem.problem?.code === 'unreadable';
  return (
    <NotOpen what="This job" problem={problem}>
      {unreadable && (
        <>
          <p>
            Go back to an earlier state of it that can be read, or keep what stands in the data file: another Tolva may
            be able to read it.
          </p>
          <Row>
            <Button kind="strong" onPress={() => setPast(true)}>
              What it was before
            </Button>
            <ButtonLink href={`/api/v1/jobs/${id}/raw`} download routerOptions={undefined} target="_self">
              Export as it stands
            </ButtonLink>
          </Row>
        </>
      )}
      {past && (
        <History id={id} revision={undefined} onClose={() => setPast(false)} onBack={() => window.location.reload()} />
      )}
    </NotOpen>
  );
}
