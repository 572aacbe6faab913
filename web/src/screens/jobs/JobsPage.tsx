import {
  infiniteQueryOptions,
  keepPreviousData,
  useInfiniteQuery,
  useMutation,
  useQueryClient,
} from '@tanstack/react-query';
import { Plus, Smartphone, Upload } from 'lucide-react';
import { Suspense, useState } from 'react';
import { FileTrigger, Link } from 'react-aria-components';
import styled from 'styled-components';
import { useLocation } from 'wouter';
import { answered, api, type Job, type JobBody, type JobLine, linesOf } from '../../api/client';
import { useMe } from '../../api/me';
import { Button, ButtonLink } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { NotImported } from '../../ui/NotImported';
import { Lead, Notice, Quiet, Row } from '../../ui/Panel';
import { SmallPicture } from '../../ui/SmallPicture';
import { TextField } from '../../ui/TextField';
import { narrow, space } from '../../ui/tokens';
import { Header } from '../frame/Header';
import { lazily } from '../../ui/lazily';

const Backups = lazily(() => import('./Backups'));
const NextJob = lazily(() => import('./NextJob'));

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
    display: inline-flex;
    align-items: center;
    ${narrow} {
      min-height: 44px;
    }
  }
  div {
    flex: 1 1 220px;
    min-width: 0;
  }
  p {
    color: var(--quiet);
  }
`;

const Below = styled(Notice)`
  margin-top: ${space.part}px;
`;
const Search = styled.div`
  margin-top: ${space.part}px;
  display: flex;
  flex-wrap: wrap;
  gap: ${space.gap}px;
  align-items: end;
  > :first-child {
    flex: 1 1 260px;
  }
`;
const First = styled(Lead)`
  margin-top: ${space.part}px;
`;

const sorts = [
  { id: 'saved', label: 'Last saved' },
  { id: 'day', label: 'Day' },
  { id: 'name', label: 'Name' },
] as const;
type Sort = (typeof sorts)[number]['id'];

const listOf = (binned: boolean, search: string, sort: Sort) =>
  infiniteQueryOptions({
    queryKey: ['jobs', binned, search, sort],
    queryFn: ({ pageParam }) =>
      answered(
        api.GET('/api/v1/jobs', {
          params: { query: { binned, search: search.slice(0, 200), sort, after: pageParam } },
        }),
      ),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (page) => page.next ?? undefined,
    placeholderData: keepPreviousData,
  });
/** So few jobs need no search. */
const few = 5;

/** A file goes to the core as it is: it says what is wrong with it, and where. */
const addedFrom = async (file: File) => {
  const bytes = await file.arrayBuffer();
  // As every ZIP begins, whatever it is called.
  const zipped = new TextDecoder('latin1').decode(bytes.slice(0, 4)) === 'PK\u0003\u0004';
  if (!zipped) return answered(api.POST('/api/v1/jobs', { body: {} as Job, bodySerializer: () => bytes }));
  return answered(
    api.POST('/api/v1/jobs/archive', {
      headers: { 'Content-Type': 'application/octet-stream' },
      body: [],
      bodySerializer: () => bytes,
    }),
  );
};

/** All jobs: open one, make one, import one. */
export default function JobsPage() {
  const client = useQueryClient();
  const [, navigate] = useLocation();
  const { says: may } = useMe();
  const [search, setSearch] = useState('');
  const [sort, setSort] = useState<Sort>('saved');
  const listed = useInfiniteQuery(listOf(false, search, sort));
  const inBin = useInfiniteQuery(listOf(true, '', 'saved'));
  const { error } = listed;
  const jobs = listed.data?.pages.flatMap((page) => page.jobs);
  const total = listed.data?.pages[0]?.total ?? 0;
  const binned = inBin.data?.pages.flatMap((page) => page.jobs) ?? [];
  const [wrong, setWrong] = useState<{ file: string; problems: string[] }>();

  const add = useMutation({
    mutationFn: addedFrom,
    onSuccess: async (saved) => {
      await client.invalidateQueries({ queryKey: ['jobs'] });
      navigate(`/jobs/${saved.id}`);
    },
  });
  // A new job begins where there is something to see: at its first setup.
  const begin = useMutation({
    mutationFn: () => answered(api.POST('/api/v1/new-job')),
    onSuccess: async (made: JobBody) => {
      await client.invalidateQueries({ queryKey: ['jobs'] });
      navigate(`/jobs/${made.id}/setups/${made.job.setups[0]?.id ?? ''}/place`);
    },
  });
  const bin = useMutation({
    mutationFn: ({ id, into }: { id: string; into: boolean }) => {
      const params = { path: { id } };
      return into
        ? answered(api.DELETE('/api/v1/jobs/{id}', { params }))
        : answered(api.POST('/api/v1/jobs/{id}/restore', { params }));
    },
    onSuccess: () => client.invalidateQueries({ queryKey: ['jobs'] }),
  });

  const importFile = async (files: FileList | null) => {
    const file = files?.item(0);
    if (!file) return;
    setWrong(undefined);
    try {
      await add.mutateAsync(file);
    } catch (failure) {
      setWrong({ file: file.name, problems: linesOf(failure, 'It cannot be read.') });
    }
  };

  return (
    <div>
      <Header />
      <Main>
        <Row $apart>
          <h1>Jobs</h1>
          {may ? (
            <Quiet>{may}</Quiet>
          ) : (
            <Row>
              <ButtonLink href="/phones">
                <Smartphone size={17} aria-hidden /> Phones
              </ButtonLink>
              <FileTrigger
                acceptedFileTypes={['.json', 'application/json', '.zip', 'application/zip']}
                onSelect={(files) => void importFile(files)}
              >
                <Button isPending={add.isPending}>
                  <Upload size={17} aria-hidden /> Import a file
                </Button>
              </FileTrigger>
              <Button kind="strong" onPress={() => begin.mutate()}>
                <Plus size={17} aria-hidden /> New job
              </Button>
            </Row>
          )}
        </Row>
        {wrong && <NotImported {...wrong} />}
        {begin.error && (
          <Below role="alert">
            <strong>No job was made. </strong>
            {begin.error.message}
          </Below>
        )}
        {bin.error && (
          <Below role="alert">
            <strong>The job was not moved. </strong>
            {bin.error.message}
          </Below>
        )}
        {error && (
          <Below role="alert">
            <strong>The jobs cannot be read. </strong>
            {error.message}
          </Below>
        )}
        <Suspense>{search === '' && <NextJob />}</Suspense>
        {(total > few || search !== '' || sort !== 'saved') && (
          <Search>
            <div>
              <TextField
                name="Find a job"
                value={search}
                onChange={setSearch}
                placeholder="Name, client, place, day, setups, kit, blend, light"
                most={200}
              />
            </div>
            <Choice name="In order of" value={sort} options={[...sorts]} onChange={setSort} />
          </Search>
        )}
        {jobs?.length === 0 && search !== '' && <First>No job has such words.</First>}
        {jobs?.length === 0 && search === '' && (
          <First>
            No jobs yet. Make one: it comes with a generic kit and one setup with sensible values, so there is an answer
            on screen at once.
          </First>
        )}
        <List>
          {jobs?.map((job) => (
            <JobItem
              key={job.id}
              job={job}
              action="Put into the bin"
              onAction={may ? undefined : () => bin.mutate({ id: job.id, into: true })}
            />
          ))}
        </List>
        {listed.hasNextPage && (
          <Row $below>
            <Button isDisabled={listed.isFetchingNextPage} onPress={() => void listed.fetchNextPage()}>
              Show more of the {total} jobs
            </Button>
          </Row>
        )}
        {binned.length > 0 && (
          <>
            <h2>Bin</h2>
            <Lead>A job stays here for {inBin.data?.pages[0]?.bin_days ?? 0} days. Then it is gone for good.</Lead>
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
            {inBin.hasNextPage && (
              <Row $below>
                <Button onPress={() => void inBin.fetchNextPage()}>Show more of the bin</Button>
              </Row>
            )}
          </>
        )}
        <Suspense>
          <Backups />
        </Suspense>
      </Main>
    </div>
  );
}

function JobItem({ job, action, onAction }: { job: JobLine; action: string; onAction: (() => void) | undefined }) {
  const facts = [job.date, job.place, job.client].filter((fact) => fact !== '');
  return (
    <Line>
      <SmallPicture
        src={
          job.readable && job.setups.length > 0
            ? `/api/v1/jobs/${job.id}/setups/first/proof?revision=${encodeURIComponent(job.saved_at)}`
            : undefined
        }
      />
      <div>
        <Link href={`/jobs/${job.id}`}>{job.name}</Link>
        <p>{facts.join(' · ')}</p>
        {job.readable ? (
          <p>{job.setups.length === 0 ? 'No setups' : job.setups.join(', ')}</p>
        ) : (
          <p>
            <strong>This job cannot be read.</strong> Open it to see what can be done.
          </p>
        )}
      </div>
      {onAction && (
        <Button kind="bare" aria-label={`${action}: ${job.name}`} onPress={onAction}>
          {action}
        </Button>
      )}
    </Line>
  );
}
