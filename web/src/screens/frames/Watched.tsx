import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { answered, api } from '../../api/client';
import { readTyped, writeTyped } from '../../session/drafts';
import { Button } from '../../ui/Button';
import { Lead, Notice, Row } from '../../ui/Panel';
import { TextField } from '../../ui/TextField';

const key = ['watched'];
const keptAs = 'frames/folder';

/** The folder a tethered camera writes into: its pictures come by themselves. */
export function Watched({ job, setup }: { job: string; setup: string }) {
  const client = useQueryClient();
  const { data } = useQuery({ queryKey: key, queryFn: () => answered(api.GET('/api/v1/watched')) });
  const [text, setText] = useState(() => readTyped(keptAs) ?? '');
  const again = () => client.invalidateQueries({ queryKey: key });
  const watch = useMutation({
    mutationFn: (folder: string) =>
      answered(api.PUT('/api/v1/watched', { body: { folder, job_id: job, setup_id: setup } })),
    onSuccess: () => {
      writeTyped(keptAs, undefined);
      return again();
    },
  });
  const stop = useMutation({ mutationFn: () => answered(api.DELETE('/api/v1/watched')), onSuccess: again });
  const watched = data?.watched;
  const here = watched?.setup_id === setup && watched.job_id === job;
  return (
    <>
      <Lead $tight>
        A camera on a cable writes into it; its frames come here by themselves, in their order, also those that were
        written while Tolva was off. The files stay where they are.
      </Lead>
      {watched && (
        <Notice>
          <strong>
            {watched.folder} {here ? 'is watched for this setup.' : 'is watched for another setup.'}{' '}
          </strong>
          {!data?.there && 'The folder is not there now: it is watched again as soon as it is. '}
          <Row $below>
            <Button onPress={() => stop.mutate()}>Watch it no more</Button>
            {!here && <Button onPress={() => watch.mutate(watched.folder)}>Watch it for this setup</Button>}
          </Row>
        </Notice>
      )}
      {!here && (
        <Row $below>
          <TextField
            name="Folder on the machine Tolva runs on"
            value={text}
            onChange={(typed) => {
              setText(typed);
              writeTyped(keptAs, typed === '' ? undefined : typed);
            }}
            most={1000}
            placeholder="/home/me/tether"
            wrong={watch.error?.message}
          />
          <Button isDisabled={text.trim() === ''} onPress={() => watch.mutate(text.trim())}>
            Watch it
          </Button>
        </Row>
      )}
    </>
  );
}
