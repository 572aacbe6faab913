import { useState } from 'react';
import { readTyped, writeTyped } from '../jobs/drafts';
import { TextField } from './TextField';

type Props = {
  name: string;
  value: string;
  put: (text: string) => void;
  good: (text: string) => boolean;
  wrong: string;
  placeholder?: string;
  /** Where a text that is no good is kept, so that a closed tab loses nothing. */
  keptAs: string;
};

/** Words that must be of a kind: what is not stays in the field, with what is allowed, and is not put anywhere. */
export function KeptField({ name, value, put, good, wrong, placeholder, keptAs }: Props) {
  const [typed, setTyped] = useState(() => readTyped(keptAs));
  return (
    <TextField
      name={name}
      value={typed ?? value}
      placeholder={placeholder}
      wrong={typed === undefined ? undefined : wrong}
      onChange={(text) => {
        const kept = good(text) ? undefined : text;
        setTyped(kept);
        writeTyped(keptAs, kept);
        if (kept === undefined) put(text);
      }}
    />
  );
}
