import { useMutation } from '@tanstack/react-query';
import { Copy, Download, History as HistoryIcon, Plus, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { Link } from 'react-aria-components';
import styled from 'styled-components';
import { useLocation } from 'wouter';
import type { Setup } from '../../api/client';
import { Words } from '../../session/fields/Words';
import { bodyOf, useJob, useJobState } from '../../session/job';
import { Button, ButtonLink } from '../../ui/Button';
import { Wrong } from '../../ui/field';
import { Grid, Lead, Panel, Part, Row } from '../../ui/Panel';
import { SmallPicture } from '../../ui/SmallPicture';
import { narrow, space } from '../../ui/tokens';
import { Connection } from '../frame/Connection';
import { Header } from '../frame/Header';
import { JobFields } from '../workbench/Naming';
import { lazily } from '../../ui/lazily';
import { useNewSetup } from './useNewSetup';
import { useSummary } from './useSummary';

const History = lazily(() => import('./History'));
const DayPlan = lazily(() => import('../day/DayPlan'));
const PackList = lazily(() => import('../pack/PackList'));
const Worked = lazily(() => import('./Worked'));

const Main = styled.main`
  max-width: 1000px;
  margin: 0 auto;
  padding: ${space.wide}px 16px 40px;
  display: flex;
  flex-direction: column;
  gap: ${space.part}px;
  h1 {
    font-size: 22px;
  }
  h2 {
    font-size: 17px;
  }
  ${narrow} {
    padding: ${space.gap}px;
  }
`;
const List = styled.ul`
  display: flex;
  flex-direction: column;
  margin-top: 10px;
`;
const Line = styled.li`
  border-top: 1px solid var(--line);
  padding: 10px 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  > div:first-of-type {
    flex: 1 1 180px;
    min-width: 0;
  }
  a {
    font-size: 16px;
    font-weight: 650;
    color: inherit;
    text-underline-offset: 3px;
    border-radius: 4px;
    display: inline-flex;
    align-items: center;
    ${narrow} {
      min-height: 44px;
    }
  }
  p {
    color: var(--quiet);
  }
`;
const Acts = styled.div`
  display: flex;
  flex: none;
`;
const Pair = styled(Grid)`
  margin-bottom: ${space.gap}px;
`;

const days = /^(\d{4}-\d{2}-\d{2})?$/;
const isDay = (text: string) => days.test(text) && (text === '' || !Number.isNaN(Date.parse(text)));
const filled = (text: string) => text.trim() !== '';

/** A job: its facts and its setups. */
export default function JobPage() {
  const { id, job, session } = useJob();
  const revision = useJobState((state) => state.saved?.revision);
  const [, navigate] = useLocation();
  const [past, setPast] = useState(false);
  const begin = useNewSetup();
  const add = useMutation({
    mutationFn: begin,
    onSuccess: (setup) => navigate(`/jobs/${id}/setups/${setup.id}/place`),
  });
  useEffect(() => {
    document.title = job.name;
    return () => {
      document.title = 'Tolva';
    };
  }, [job.name]);
  return (
    <div>
      <Header of={session} />
      <Connection of={session} />
      <Main>
        <Row $apart>
          <h1>{job.name}</h1>
          <Row>
            <Button onPress={() => setPast(true)}>
              <HistoryIcon size={17} aria-hidden /> What it was before
            </Button>
            <ButtonLink href={`/api/v1/jobs/${id}/file`} download routerOptions={undefined} target="_self">
              <Download size={17} aria-hidden /> Export as a file
            </ButtonLink>
            <ButtonLink href="/">All jobs</ButtonLink>
          </Row>
        </Row>
        {past && (
          <History
            id={id}
            revision={revision}
            onClose={() => setPast(false)}
            onBack={(body) => session.send({ type: 'took', body: bodyOf(body) })}
          />
        )}
        <Panel aria-labelledby="setups">
          <Row $apart>
            <h2 id="setups">Setups</h2>
            <Button kind="strong" onPress={() => add.mutate(undefined)}>
              <Plus size={17} aria-hidden /> New setup
            </Button>
          </Row>
          {add.error && <Wrong role="alert">No setup was made. {add.error.message}</Wrong>}
          {job.setups.length === 0 && (
            <Lead $tight>No setups yet. A setup is one lighting arrangement for one kind of picture.</Lead>
          )}
          <List>
            {job.setups.map((setup) => (
              <Line key={setup.id}>
                <SmallPicture src={`/api/v1/jobs/${id}/setups/${setup.id}/proof?revision=${revision ?? 0}`} />
                <SetupLine setup={setup} />
                <Acts>
                  <Button kind="bare" aria-label={`Duplicate ${setup.name}`} onPress={() => add.mutate(setup.id)}>
                    <Copy size={17} aria-hidden />
                  </Button>
                  <Button
                    kind="bare"
                    aria-label={`Delete ${setup.name} (undo brings it back)`}
                    onPress={() =>
                      session.send({
                        type: 'edit',
                        says: 'Setup deleted',
                        changes: [{ at: ['setups', { id: setup.id }] }],
                      })
                    }
                  >
                    <Trash2 size={17} aria-hidden />
                  </Button>
                </Acts>
              </Line>
            ))}
          </List>
        </Panel>
        <DayPlan />
        <PackList />
        <Worked />
        <JobFields>
          <Panel aria-labelledby="facts">
            <Part as="h2" id="facts">
              The job
            </Part>
            <Grid>
              <Words name="Name" at={['name']} says="Job: name" good={filled} wrong="A job needs a name." />
              <Words name="Client" at={['client']} says="Job: client" />
              <Words name="Place" at={['place']} says="Job: place" />
              <Words
                name="Day"
                at={['date']}
                says="Job: date"
                good={isDay}
                wrong="Write the day as 2026-08-29, or leave it empty."
                placeholder="2026-08-29"
              />
            </Grid>
            <Grid $min={300} $below>
              <Words name="Notes" at={['notes']} says="Job: notes" lines most={4000} />
            </Grid>
          </Panel>
          {job.setups.length > 0 && (
            <Panel aria-labelledby="names">
              <Part as="h2" id="names">
                Names and notes of the setups
              </Part>
              {job.setups.map((setup) => {
                const at = ['setups', { id: setup.id }];
                return (
                  <Pair key={setup.id} $min={300}>
                    <Words
                      name="Setup"
                      at={[...at, 'name']}
                      says="Setup: words"
                      good={filled}
                      wrong="A setup needs a name."
                    />
                    <Words name={`Notes on ${setup.name}`} at={[...at, 'notes']} says="Setup: words" most={4000} />
                  </Pair>
                );
              })}
            </Panel>
          )}
        </JobFields>
      </Main>
    </div>
  );
}

function SetupLine({ setup }: { setup: Setup }) {
  const { id } = useJob();
  const says = useSummary(setup);
  return (
    <div>
      <Link href={`/jobs/${id}/setups/${setup.id}/place`}>{setup.name}</Link>
      <p>{says}</p>
    </div>
  );
}
