import { useQuery } from '@tanstack/react-query';
import { Download } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { answered, api, type LogEntry } from '../../api/client';
import { useJob } from '../../session/job';
import { ButtonLink } from '../../ui/Button';
import { Lead, Notice, Panel, Part, Quiet, Row } from '../../ui/Panel';
import { SmallPicture } from '../../ui/SmallPicture';
import { Ticks } from '../../ui/Ticks';
import { figures, narrow, space } from '../../ui/tokens';
import { when } from '../../ui/when';
import { JobFrame } from '../job/JobFrame';
import { NoteField } from './NoteField';
import { useNotes } from './useNotes';

const Lines = styled.ol`
  li {
    border-top: 1px solid var(--line);
    padding: ${space.near}px 0;
    display: grid;
    grid-template-columns: 150px 110px minmax(0, 1fr) auto;
    gap: 2px ${space.gap}px;
    align-items: center;
    ${narrow} {
      grid-template-columns: minmax(0, 1fr) auto;
      > :nth-child(3) {
        grid-column: 1 / -1;
      }
    }
  }
  time {
    ${figures}
  }
`;

/** More than so many lines are no help: what is older is in the file. */
const most = 400;

/** What was done to the job: frames, ticks, readings, changes, notes; the newest first. */
export default function LogPage() {
  const { id } = useJob();
  const [kinds, setKinds] = useState<string[]>([]);
  const notes = useNotes(id);
  const { data, error } = useQuery({
    queryKey: ['log', id],
    queryFn: ({ signal }) => answered(api.GET('/api/v1/jobs/{id}/log', { params: { path: { id } }, signal })),
  });
  const all = data?.entries ?? [];
  const offered = [...new Map(all.map((one) => [one.kind, one.kind_says]))].map(([kind, label]) => ({
    id: kind,
    label: `${label} ${all.filter((one) => one.kind === kind).length}`,
  }));
  const shown = all.filter((one) => kinds.length === 0 || kinds.includes(one.kind)).reverse();
  return (
    <JobFrame here="log">
      <Panel aria-labelledby="log">
        <Row $apart>
          <Part as="h2" id="log">
            Log
          </Part>
          <Row>
            <ButtonLink href={`/api/v1/jobs/${id}/log.csv`} download routerOptions={undefined} target="_self">
              <Download size={17} aria-hidden /> CSV
            </ButtonLink>
            <ButtonLink href={`/api/v1/jobs/${id}/log.json`} download routerOptions={undefined} target="_self">
              <Download size={17} aria-hidden /> JSON
            </ButtonLink>
          </Row>
        </Row>
        <NoteField notes={notes} />
        {error && (
          <Notice role="alert">
            <strong>The log does not come. </strong>
            {error.message}
          </Notice>
        )}
        {data && all.length === 0 && (
          <Lead $tight>Nothing was done yet. Frames, ticks, readings, changes and notes come here by themselves.</Lead>
        )}
        {offered.length > 1 && <Ticks name="Only these" value={kinds} options={offered} onChange={setKinds} />}
        <Lines aria-label="What was done, the newest first">
          {notes.waiting.map((one) => (
            <li key={one.key}>
              <span>Waits for Tolva</span>
              <strong>Note</strong>
              <span>{one.says}</span>
            </li>
          ))}
          {shown.slice(0, most).map((entry, index) => (
            <Line key={`${entry.utc}-${index}`} entry={entry} job={id} />
          ))}
        </Lines>
        {shown.length > most && (
          <Quiet>
            {shown.length - most} older lines are in the files: {shown.length} in all.
          </Quiet>
        )}
      </Panel>
    </JobFrame>
  );
}

function Line({ entry, job }: { entry: LogEntry; job: string }) {
  return (
    <li>
      <time dateTime={entry.utc}>{when(entry.utc)}</time>
      <strong>{entry.kind_says}</strong>
      <span>
        {entry.says}
        <Quiet as="span">
          {entry.setup && ` · ${entry.setup}`}
          {entry.who && ` · ${entry.who}`}
        </Quiet>
      </span>
      {entry.frame_id ? <SmallPicture src={`/api/v1/jobs/${job}/frames/${entry.frame_id}/small`} /> : <span />}
    </li>
  );
}
