import { useState } from 'react';
import { answered, api, ApiProblem } from '../../api/client';
import { usePreferences } from '../../api/preferences';
import { TypedBox } from '../../ui/TypedBox';
import { readTyped, writeTyped } from '../drafts';
import { keyboardFor, useLabel } from './useLabel';

type Props = {
  name: string;
  as: Parameters<typeof useLabel>[0];
  value: number | null | undefined;
  least: number;
  most: number;
  hint?: string;
  /** It is a whole number. */
  whole?: boolean;
  onValue: (value: number) => void;
  /** Where a text that is not set yet is kept, so that a closed tab loses nothing. */
  keptAs: string;
};

/** A number that belongs to no document: of a single sum, of a device. Set on Enter, or when it is left. */
export function LooseField({ name, as, value, least, most, hint, whole, onValue, keptAs }: Props) {
  const { show } = usePreferences();
  const label = useLabel(as, value);
  const [typed, setTyped] = useState(() => readTyped(keptAs));
  const [wrong, setWrong] = useState<string>();
  const write = (text: string | undefined) => {
    setTyped(text);
    writeTyped(keptAs, text);
    setWrong(undefined);
  };
  const finish = async () => {
    if (typed === undefined) return;
    if (typed.trim() === '' || typed === label) return write(undefined);
    try {
      const body = { as, text: typed, length: show.length ?? 'metres' };
      const understood = await answered(api.POST('/api/v1/read', { body }));
      const { value: read } = understood;
      if (read < least || read > most || (whole && !Number.isInteger(read))) {
        const kind = whole ? 'a whole number ' : '';
        setWrong(`“${typed}” is not allowed here: it must be ${kind}from ${least} to ${most}.`);
      } else {
        write(undefined);
        onValue(read);
      }
    } catch (failure) {
      setWrong(failure instanceof ApiProblem ? failure.message : 'Tolva does not answer.');
    }
  };
  return (
    <TypedBox
      name={name}
      text={typed ?? label}
      hint={hint}
      wrong={wrong}
      spin={{ now: value ?? undefined, says: label, least, most }}
      keyboard={keyboardFor(as, least, show.length === 'feet_and_inches')}
      onText={write}
      onFinish={() => void finish()}
      onEscape={() => write(undefined)}
    />
  );
}
