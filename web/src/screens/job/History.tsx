import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import styled from 'styled-components';
import { answered, api, type JobBody, type RevisionLine } from '../../api/client';
import { Button } from '../../ui/Button';
import { Lead, Notice } from '../../ui/Panel';
import { Sheet } from '../../ui/Sheet';
import { TextField } from '../../ui/TextField';
import { space } from '../../ui/tokens';
import { when } from '../../ui/when';

const List = styled.ol`
  display: flex;
  flex-direction: column;
  max-height: 60vh;
  overflow: auto;
`;
const Line = styled.li`
  border-top: 1px solid var(--line);
  padding: 8px 0;
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  > div {
    flex: 1 1 220px;
    min-width: 0;
  }
  small {
    color: var(--quiet);
  }
`;

const Acts = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  justify-content: flex-end;
  && {
    flex: 0 1 auto;
  }
`;
/** As wide as the button that stands here otherwise. */
const Shown = styled.small`
  min-width: 112px;
  text-align: center;
`;

const Above = styled(Notice)`
  margin-bottom: ${space.part}px;
`;

type Props = {
  id: string;
  /** The revision that is shown. */
  revision: number | undefined;
  onClose: () => void;
  /** The job as it is then. */
  onBack: (body: JobBody) => void;
};

/** What a job was before: each change with its hour, to go back to or to keep for ever under a name. */
export default function History({ id, revision, onClose, onBack }: Props) {
  const client = useQueryClient();
  const queryKey = ['revisions', id];
  const path = { id };
  const { data, error } = useQuery({
    queryKey,
    queryFn: () => answered(api.GET('/api/v1/jobs/{id}/revisions', { params: { path } })),
    staleTime: 0,
  });
  const back = useMutation({
    mutationFn: (to: number) => {
      const shown = revision ?? data?.find((one) => one.shown)?.number ?? to;
      const body = { based_on: shown, revision: to };
      return answered(api.POST('/api/v1/jobs/{id}/set-back', { params: { path }, body }));
    },
    onSuccess: (body) => {
      void client.invalidateQueries({ queryKey: ['jobs'] });
      onBack(body);
      onClose();
    },
  });
  const name = useMutation({
    mutationFn: ({ number, point }: { number: number; point: string | null }) =>
      answered(
        api.PUT('/api/v1/jobs/{id}/revisions/{number}/point', {
          params: { path: { id, number } },
          body: { name: point },
        }),
      ),
    onSuccess: () => client.invalidateQueries({ queryKey }),
  });
  const wrong = error ?? back.error ?? name.error;
  return (
    <Sheet title="What it was before" open onClose={onClose} width={600}>
      <Lead>
        Every change of the last day is here; of the week before it one an hour, and one a day of what is older. What
        has a name stays for ever. Going back loses nothing: redo comes forward again.
      </Lead>
      {wrong && <Above role="alert">{wrong.message}</Above>}
      <List>
        {data?.map((one) => (
          <OneRevision
            key={one.number}
            one={one}
            onBack={() => back.mutate(one.number)}
            onName={(point) => name.mutate({ number: one.number, point })}
          />
        ))}
      </List>
    </Sheet>
  );
}

type Act = { one: RevisionLine; onBack: () => void; onName: (name: string | null) => void };

function OneRevision({ one, onBack, onName }: Act) {
  const [typed, setTyped] = useState<string>();
  const what = `${one.change}, ${when(one.saved_at)}`;
  if (typed !== undefined) {
    return (
      <Line>
        <div>
          <TextField name={`Name of: ${what}`} value={typed} onChange={setTyped} />
        </div>
        <Button
          isDisabled={typed.trim() === ''}
          onPress={() => {
            onName(typed.trim());
            setTyped(undefined);
          }}
        >
          Keep under this name
        </Button>
        <Button kind="bare" onPress={() => setTyped(undefined)}>
          Cancel
        </Button>
      </Line>
    );
  }
  return (
    <Line>
      <div>
        {one.point !== null && one.point !== undefined && <strong>{one.point}. </strong>}
        {one.change} <small>{when(one.saved_at)}</small>
      </div>
      <Acts>
        {one.point ? (
          <Button kind="bare" aria-label={`Take the name away: ${one.point}`} onPress={() => onName(null)}>
            Take the name away
          </Button>
        ) : (
          <Button kind="bare" aria-label={`Name it: ${what}`} onPress={() => setTyped('')}>
            Name it
          </Button>
        )}
        {one.shown ? (
          <Shown>Shown now</Shown>
        ) : (
          <Button aria-label={`Go back to it: ${what}`} onPress={onBack}>
            Go back to it
          </Button>
        )}
      </Acts>
    </Line>
  );
}
