import { useEffect, useState } from 'react';
import { answered, api, ApiProblem, type Kit, type ProofReady, type Setup, type Show } from '../../api/client';

/** A picture that is there, decoded and ready to be shown. */
export type Shown = ProofReady & { src: string };

export type Wanted = { longest: number; grain: boolean; movement: boolean; behind?: string | null };

/** How long nothing changes before it is rendered finely, in milliseconds. */
const rest = 140;

/** A window's own name, so that what it asked for before can be given up. */
export const newAsker = () =>
  Array.from(crypto.getRandomValues(new Uint32Array(3)), (part) => part.toString(36)).join('-');

const isGivenUp = (failure: unknown) => failure instanceof ApiProblem && failure.status === 409;

export const pictureOf = (id: string) => `/api/v1/proof/${id}/picture`;

/** Asks for the proof of a setup. */
export async function askProof(
  setup: Setup,
  kit: Kit,
  show: Show,
  wanted: Wanted & { fine: boolean; asker: string },
): Promise<Shown> {
  const ready = await answered(api.POST('/api/v1/proof', { body: { setup, kit, show, ...wanted } }));
  const src = pictureOf(ready.id);
  const picture = new Image();
  picture.src = src;
  await picture.decode();
  return { ...ready, src };
}

type Told = { shown?: Shown; wrong?: string };
type Question = { setup: Setup; kit: Kit; show: Show } & Wanted;

/** Follows a setup: one question at a time, coarsely while it changes and finely when it rests; the newest is asked next. */
function follow(tell: (told: Told) => void) {
  const asker = newAsker();
  let newest: Question | undefined;
  let busy = false;
  let timer: number | undefined;
  let left = false;

  const ask = async (question: Question, fine: boolean): Promise<void> => {
    const { setup, kit, show, ...wanted } = question;
    busy = true;
    let rests = false;
    try {
      const shown = await askProof(setup, kit, show, { ...wanted, fine, asker });
      if (!left) tell({ shown });
      rests = !shown.fine;
    } catch (failure) {
      if (!left && !isGivenUp(failure)) {
        tell({ wrong: failure instanceof Error ? failure.message : 'The proof did not come.' });
      }
    }
    busy = false;
    if (left) return;
    if (newest && newest !== question) return ask(newest, false);
    if (rests) timer = window.setTimeout(() => !busy && !left && newest && void ask(newest, true), rest);
  };

  return {
    want: (question: Question) => {
      newest = question;
      window.clearTimeout(timer);
      // What is rendered is given up for what is newer.
      if (busy) void api.DELETE('/api/v1/proof', { params: { query: { asker } } }).catch(() => undefined);
      else void ask(question, false);
    },
    stay: () => {
      left = false;
    },
    leave: () => {
      left = true;
      window.clearTimeout(timer);
    },
  };
}

/** The proof of a setup, as it follows it. */
export function useProof(
  setup: Setup,
  kit: Kit,
  show: Show,
  { longest, grain, movement, behind = null }: Wanted,
): Told {
  const [told, setTold] = useState<Told>({});
  const [following] = useState(() =>
    // What was there stays while something is wrong.
    follow((now) => setTold((before) => (now.shown ? now : { ...before, ...now }))),
  );
  useEffect(() => {
    following.stay();
    return following.leave;
  }, [following]);
  useEffect(
    () => following.want({ setup, kit, show, longest, grain, movement, behind }),
    [following, setup, kit, show, longest, grain, movement, behind],
  );
  return told;
}
