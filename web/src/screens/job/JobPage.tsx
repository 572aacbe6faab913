import { useMutation } from '@tanstack/react-query';
import { Copy, Download, History as HistoryIcon, Play, Plus, Repeat, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-aria-components';
import styled from 'styled-components';
import { useLocation } from 'wouter';
import { answered, api, type Setup } from '../../api/client';
import { useMe } from '../../api/me';
import { Words } from '../../session/fields/Words';
import { bodyOf, useJob, useJobState } from '../../session/job';
import { Button, ButtonLink } from '../../ui/Button';
import { Wrong } from '../../ui/field';
import { Grid, Lead, Panel, Part, Quiet, Row } from '../../ui/Panel';
import { SmallPicture } from '../../ui/SmallPicture';
import { narrow, space } from '../../ui/tokens';
import { JobFields } from '../workbench/Naming';
import { lazily } from '../../ui/lazily';
import { JobFrame } from './JobFrame';
import { useNewSetup } from './useNewSetup';
import { useSummary } from './useSummary';

const History = lazily(() => import('./History'));
const DayInShort = lazily(() => import('../day/DayInShort'));
const Worked = lazily(() => import('./Worked'));

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
  const { says: only } = useMe();
  const begin = useNewSetup();
  const add = useMutation({
    mutationFn: begin,
    onSuccess: (setup) => navigate(`/jobs/${id}/setups/${setup.id}/place`),
  });
  const again = useMutation({
    mutationFn: () => answered(api.POST('/api/v1/jobs/{id}/again', { params: { path: { id } }, body: {} })),
    onSuccess: (made) => navigate(`/jobs/${made.id}`),
  });
  return (
    <JobFrame
      here=""
      actions={
        <>
          {!only && (
            <Button onPress={() => again.mutate()}>
              <Repeat size={17} aria-hidden /> Do it again
            </Button>
          )}
          <Button onPress={() => setPast(true)}>
            <HistoryIcon size={17} aria-hidden /> What it was before
          </Button>
          <ButtonLink href={`/api/v1/jobs/${id}/file`} download routerOptions={undefined} target="_self">
            <Download size={17} aria-hidden /> Export as a file
          </ButtonLink>
          <ButtonLink href="/">All jobs</ButtonLink>
        </>
      }
    >
      {again.error && <Wrong role="alert">No job was made. {again.error.message}</Wrong>}
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
          {only ? (
            <Quiet>{only}</Quiet>
          ) : (
            <Button kind="strong" onPress={() => add.mutate(undefined)}>
              <Plus size={17} aria-hidden /> New setup
            </Button>
          )}
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
                <ButtonLink href={`/jobs/${id}/run/${setup.id}`} aria-label={`Run ${setup.name}`}>
                  <Play size={16} aria-hidden /> Run
                </ButtonLink>
                {!only && (
                  <>
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
                  </>
                )}
              </Acts>
            </Line>
          ))}
        </List>
      </Panel>
      <DayInShort />
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
    </JobFrame>
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
