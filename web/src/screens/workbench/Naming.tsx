import { type ReactNode, useMemo } from 'react';
import styled from 'styled-components';
import { DocumentContext } from '../../session/document';
import { Words } from '../../session/fields/Words';
import { useJob } from '../../session/job';
import { Grid, Panel } from '../../ui/Panel';
import { space } from '../../ui/tokens';

export const filled = (text: string) => text.trim() !== '';
/** What a job is called before anybody has named it. */
const unnamed = 'New job';

const Line = styled(Panel)`
  margin-bottom: ${space.gap}px;
`;

/** Fields under it are the job's, not the setup's. */
export function JobFields({ children }: { children: ReactNode }) {
  const { session } = useJob();
  const document = useMemo(() => ({ session, scope: [], of: 'Job' }), [session]);
  return <DocumentContext.Provider value={document}>{children}</DocumentContext.Provider>;
}

export function JobName() {
  return (
    <JobFields>
      <Words name="Name of the job" at={['name']} says="Job: name" good={filled} wrong="A job needs a name." />
    </JobFields>
  );
}

/** A job that nobody has named yet is named where it begins. */
export function Naming() {
  const { job } = useJob();
  if (job.name !== unnamed) return null;
  return (
    <Line aria-label="Name this job">
      <Grid $min={300}>
        <JobName />
      </Grid>
    </Line>
  );
}
