import { useState } from 'react';
import { TextField } from '../../ui/TextField';
import { readTyped, writeTyped } from '../drafts';

type Props = {
  name: string;
  value: string;
  put: (text: string) => void;
  good: (text: string) => boolean;
  wrong: string;
  /** Where a text that is no good is kept, so that a closed tab loses nothing. */
  keptAs: string;
};

/** Words that belong to no document: what is not of their kind stays in the field, with what is allowed. */
export function LooseWords({ name, value, put, good, wrong, keptAs }: Props) {
  const [typed, setTyped] = useState(() => readTyped(keptAs));
  return (
    <TextField
      name={name}
      value={typed ?? value}
      wrong={typed === undefined || good(typed) ? undefined : wrong}
      onChange={(text) => {
        const kept = good(text) ? undefined : text;
        setTyped(kept);
        writeTyped(keptAs, kept);
        if (kept === undefined) put(text);
      }}
    />
  );
}
