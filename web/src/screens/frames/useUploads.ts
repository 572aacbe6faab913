import { useCallback, useEffect, useRef, useState } from 'react';
import { ApiProblem, type Problem } from '../../api/client';

/** A picture on its way. */
export type Upload = { name: string; percent: number };

type Sent<Came> = { came?: Came; wrong?: string };

/** Sends one picture; the first function gives it up. */
function send<Came>(url: string, file: File, tell: (percent: number) => void): [() => void, Promise<Sent<Came>>] {
  const request = new XMLHttpRequest();
  const done = new Promise<Sent<Came>>((resolve) => {
    request.upload.addEventListener('progress', ({ loaded, total }) => tell((loaded / Math.max(total, 1)) * 100));
    request.addEventListener('load', () => {
      const answer = JSON.parse(request.responseText || '{}') as Came & Problem;
      const good = request.status < 300;
      const wrong = () => `${file.name}: ${new ApiProblem(request.status, answer).message}`;
      resolve(good ? { came: answer } : { wrong: wrong() });
    });
    request.addEventListener('error', () => resolve({ wrong: `${file.name}: Tolva does not answer.` }));
    request.addEventListener('abort', () => resolve({}));
  });
  request.open('POST', `${url}?name=${encodeURIComponent(file.name.slice(0, 200))}`);
  request.setRequestHeader('Content-Type', 'application/octet-stream');
  request.send(file);
  return [() => request.abort(), done];
}

/** Pictures are sent one after the other, and what is left of them can be stopped. */
export function useUploads<Came>(url: string, arrived: (came: Came) => void) {
  const waiting = useRef<File[]>([]);
  const stopNow = useRef<() => void>(undefined);
  const [now, setNow] = useState<Upload & { left: number }>();
  const [wrong, setWrong] = useState<string[]>([]);
  const busy = useRef(false);
  const took = useRef(arrived);
  useEffect(() => {
    took.current = arrived;
  });
  const run = useCallback(async () => {
    if (busy.current) return;
    busy.current = true;
    for (let file = waiting.current.shift(); file; file = waiting.current.shift()) {
      const { name } = file;
      const tell = (percent: number) => setNow({ name, percent, left: waiting.current.length });
      tell(0);
      const [stop, done] = send<Came>(url, file, tell);
      stopNow.current = stop;
      const sent = await done;
      if (sent.wrong) setWrong((all) => [...all, sent.wrong ?? '']);
      if (sent.came) took.current(sent.came);
    }
    busy.current = false;
    setNow(undefined);
  }, [url]);
  const add = useCallback(
    (files: Iterable<File>) => {
      const all = [...files];
      if (all.length === 0) return;
      setWrong([]);
      waiting.current.push(...all);
      void run();
    },
    [run],
  );
  return {
    now,
    wrong,
    add,
    stop: () => {
      waiting.current = [];
      stopNow.current?.();
    },
  };
}
