import { useMutation, useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import styled from 'styled-components';
import { answered, api, type JobLine } from '../../api/client';
import { Button } from '../../ui/Button';
import { Lead, Notice, Row } from '../../ui/Panel';
import { Sheet } from '../../ui/Sheet';
import { space } from '../../ui/tokens';
import { when } from '../../ui/when';

const List = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
`;
const Jobs = styled.div`
  margin-bottom: 14px;
  h3 {
    font-size: 15px;
    margin-bottom: 4px;
  }
  li {
    color: var(--quiet);
  }
`;

const Above = styled(Notice)`
  margin-bottom: ${space.part}px;
`;

const day = /^\d{4}-\d{2}-\d{2}$/;
/** What a copy is called on screen. */
const called = (name: string) => (day.test(name) ? name : `Before a restore, ${name.slice(0, 10)}`);
const size = (bytes: number) => (bytes < 1e6 ? `${Math.ceil(bytes / 1e3)} kB` : `${(bytes / 1e6).toFixed(1)} MB`);

/** The copies of the data file, and what each would bring back. */
export default function Backups() {
  const [open, setOpen] = useState<string>();
  const { data } = useQuery({ queryKey: ['backups'], queryFn: () => answered(api.GET('/api/v1/backups')) });
  if (!data || data.backups.length === 0) return null;
  return (
    <>
      <h2>Backups</h2>
      <Lead>
        Of each of the last {data.days} days on which Tolva ran, a copy of everything stands beside the data file. Look
        into one to see what it would bring back.
      </Lead>
      <List>
        {data.backups.map(({ name, bytes }) => (
          <li key={name}>
            <Button onPress={() => setOpen(name)}>
              {called(name)} <small>{size(bytes)}</small>
            </Button>
          </li>
        ))}
      </List>
      {open !== undefined && <Backup name={open} onClose={() => setOpen(undefined)} />}
    </>
  );
}

function Backup({ name, onClose }: { name: string; onClose: () => void }) {
  const params = { path: { name } };
  const { data, error } = useQuery({
    queryKey: ['backups', name],
    queryFn: () => answered(api.GET('/api/v1/backups/{name}', { params })),
    staleTime: 0,
  });
  const restore = useMutation({
    mutationFn: () => answered(api.POST('/api/v1/backups/{name}/restore', { params })),
    // Everything on screen may be otherwise now.
    onSuccess: () => window.location.reload(),
  });
  const wrong = error ?? restore.error;
  const same = data && data.back.length + data.changed.length + data.gone.length === 0;
  return (
    <Sheet title={`Backup: ${called(name)}`} open onClose={onClose} width={560}>
      {wrong && <Above role="alert">{wrong.message}</Above>}
      {same && <Lead>All jobs are as they were then. The kit and your preferences may differ.</Lead>}
      {data && (
        <>
          <Told title="Would come back" jobs={data.back} />
          <Told title="Would be again as they were then" jobs={data.changed} />
          <Told title="Made since, and would be gone" jobs={data.gone} />
          <Lead>
            Bringing it back takes the kit and your preferences along. What is there now becomes a backup first, so that
            you can come back to it.
          </Lead>
          <Row>
            <Button kind="strong" isDisabled={restore.isPending} onPress={() => restore.mutate()}>
              Bring everything back
            </Button>
            <Button onPress={onClose}>Leave it as it is</Button>
          </Row>
        </>
      )}
    </Sheet>
  );
}

function Told({ title, jobs }: { title: string; jobs: JobLine[] }) {
  if (jobs.length === 0) return null;
  return (
    <Jobs>
      <h3>{title}</h3>
      <ul>
        {jobs.map((job) => (
          <li key={job.id}>
            {job.name}, saved {when(job.saved_at)}
          </li>
        ))}
      </ul>
    </Jobs>
  );
}
