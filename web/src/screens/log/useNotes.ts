import { useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { answered, api, ApiProblem } from '../../api/client';
import { newId } from '../../session/kit';

type Note = { key: string; says: string; setup_id?: string };

const place = (job: string) => `tolva.notes.${job}`;
/** So often what waits is tried again, in milliseconds. */
const between = 4000;

function kept(job: string): Note[] {
  try {
    return JSON.parse(localStorage.getItem(place(job)) ?? '[]') as Note[];
  } catch {
    return [];
  }
}

/** Notes for a job's log: kept in this browser until Tolva has them, sent in order, once each. */
export function useNotes(job: string) {
  const [waiting, setWaiting] = useState(() => kept(job));
  const [wrong, setWrong] = useState<string>();
  const client = useQueryClient();
  const keep = (notes: Note[]) => {
    localStorage.setItem(place(job), JSON.stringify(notes));
    setWaiting(notes);
  };
  const first = waiting[0];
  useEffect(() => {
    if (!first) return;
    let gone = false;
    let timer: number | undefined;
    const { key, ...body } = first;
    const send = () =>
      answered(
        api.POST('/api/v1/jobs/{id}/log', { params: { path: { id: job } }, headers: { 'Idempotency-Key': key }, body }),
      ).then(
        () => {
          if (gone) return;
          keep(kept(job).filter((one) => one.key !== key));
          setWrong(undefined);
          void client.invalidateQueries({ queryKey: ['log', job] });
        },
        (failure: unknown) => {
          if (gone) return;
          const refused = failure instanceof ApiProblem && failure.status >= 400 && failure.status < 500;
          if (refused) {
            setWrong(`“${body.says}” was not noted: ${failure.message}`);
            keep(kept(job).filter((one) => one.key !== key));
          } else timer = window.setTimeout(() => void send(), between);
        },
      );
    void send();
    return () => {
      gone = true;
      window.clearTimeout(timer);
    };
    // Sending goes on for as long as the same note is the first.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [job, first?.key]);
  const add = (says: string, setup_id?: string) =>
    keep([...kept(job), { key: newId(), says, ...(setup_id === undefined ? {} : { setup_id }) }]);
  return { waiting, wrong, add };
}
