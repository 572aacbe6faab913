import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { Plus, Upload } from 'lucide-react';
import { useState } from 'react';
import { FileTrigger, Link } from 'react-aria-components';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import { answered, api, ApiProblem, type Job, type JobLine } from '../api/client';
import { Header } from '../app/Header';
import { useStart } from '../app/start';
import { Button } from '../ui/Button';
import { Lead, Notice, Row } from '../ui/Panel';

const Main = styled.main`
  max-width: 940px;
  margin: 0 auto;
  padding: 22px 16px 40px;
  h1 {
    font-size: 24px;
  }
  h2 {
    font-size: 17px;
    margin: 26px 0 8px;
  }
`;
const List = styled.ul`
  display: flex;
  flex-direction: column;
  gap: 8px;
  margin-top: 14px;
`;
const Line = styled.li`
  background: var(--panel);
  border-radius: 9px;
  padding: 12px 16px;
  display: flex;
  gap: 12px;
  align-items: center;
  flex-wrap: wrap;
  a {
    font-size: 17px;
    font-weight: 650;
    color: inherit;
    text-underline-offset: 3px;
    border-radius: 4px;
  }
  div {
    flex: 1 1 260px;
    min-width: 0;
  }
  p {
    color: var(--quiet);
  }
`;

const listOf = (binned: boolean) => ({
  queryKey: ['jobs', binned],
  queryFn: () => answered(api.GET('/api/jobs', { params: { query: { binned } } })),
});

/** A file's text is sent as it is; anything else as JSON. */
const asIs = (body: Job | string) => (typeof body === 'string' ? body : JSON.stringify(body));

/** All jobs: open one, make one, import one. */
export function JobsPage() {
  const client = useQueryClient();
  const navigate = useNavigate();
  const start = useStart();
  const { data: jobs, error } = useQuery(listOf(false));
  const { data: binned = [] } = useQuery(listOf(true));
  const [wrong, setWrong] = useState<{ file: string; problems: string[] }>();

  const add = useMutation({
    mutationFn: (body: Job | string) => answered(api.POST('/api/jobs', { body: body as Job, bodySerializer: asIs })),
    onSuccess: async (saved) => {
      await client.invalidateQueries({ queryKey: ['jobs'] });
      await navigate(`/jobs/${saved.id}`);
    },
  });
  const bin = useMutation({
    mutationFn: ({ id, into }: { id: string; into: boolean }) => {
      const params = { path: { id } };
      return into
        ? answered(api.DELETE('/api/jobs/{id}', { params }))
        : answered(api.POST('/api/jobs/{id}/restore', { params }));
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });

  const importFile = async (files: FileList | null) => {
    const file = files?.item(0);
    if (!file) return;
    setWrong(undefined);
    try {
      // The file goes to the core as it is: it says what is wrong with it, and where.
      await add.mutateAsync(await file.text());
    } catch (failure) {
      const problem = failure instanceof ApiProblem ? failure : undefined;
      const problems = problem?.problem?.errors?.map((one) => `${one.pointer || 'The document'}: ${one.message}`);
      setWrong({ file: file.name, problems: problems ?? [problem?.message ?? 'It cannot be read.'] });
    }
  };

  return (
    <div>
      <Header />
      <Main>
        <Row style={{ justifyContent: 'space-between' }}>
          <h1>Jobs</h1>
          <Row>
            <FileTrigger acceptedFileTypes={['.json', 'application/json']} onSelect={(files) => void importFile(files)}>
              <Button>
                <Upload size={17} aria-hidden /> Import a file
              </Button>
            </FileTrigger>
            <Button kind="strong" isDisabled={!start} onPress={() => start && add.mutate(start.new_job)}>
              <Plus size={17} aria-hidden /> New job
            </Button>
          </Row>
        </Row>
        {wrong && (
          <Notice role="alert" style={{ marginTop: 14 }}>
            <strong>“{wrong.file}” was not imported.</strong>
            <ul>
              {wrong.problems.map((problem) => (
                <li key={problem}>{problem}</li>
              ))}
            </ul>
          </Notice>
        )}
        {error && (
          <Notice role="alert" style={{ marginTop: 14 }}>
            <strong>The jobs cannot be read. </strong>
            {error.message}
          </Notice>
        )}
        {jobs?.length === 0 && (
          <Lead style={{ marginTop: 14 }}>
            No jobs yet. Make one: it comes with a generic kit and one setup with sensible values, so there is an answer
            on screen at once.
          </Lead>
        )}
        <List>
          {jobs?.map((job) => (
            <JobItem
              key={job.id}
              job={job}
              action="Put into the bin"
              onAction={() => bin.mutate({ id: job.id, into: true })}
            />
          ))}
        </List>
        {binned.length > 0 && (
          <>
            <h2>Bin</h2>
            <List>
              {binned.map((job) => (
                <JobItem
                  key={job.id}
                  job={job}
                  action="Take out of the bin"
                  onAction={() => bin.mutate({ id: job.id, into: false })}
                />
              ))}
            </List>
          </>
        )}
      </Main>
    </div>
  );
}

function JobItem({ job, action, onAction }: { job: JobLine; action: string; onAction: () => void }) {
  const facts = [job.date, job.place, job.client].filter((fact) => fact !== '');
  return (
    <Line>
      <div>
        <Link href={`/jobs/${job.id}`}>{job.name}</Link>
        <p>{facts.join(' · ')}</p>
        <p>{job.setups.length === 0 ? 'No setups' : job.setups.join(', ')}</p>
      </div>
      <Button kind="bare" aria-label={`${action}: ${job.name}`} onPress={onAction}>
        {action}
      </Button>
    </Line>
  );
}
