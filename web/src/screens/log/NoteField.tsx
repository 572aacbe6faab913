import { useState } from 'react';
import styled from 'styled-components';
import { readTyped, writeTyped } from '../../session/drafts';
import { Button } from '../../ui/Button';
import { Wrong } from '../../ui/field';
import { Row } from '../../ui/Panel';
import { TextField } from '../../ui/TextField';
import type { useNotes } from './useNotes';

const Words = styled.div`
  flex: 1 1 220px;
`;

const field = 'note';

/** Something to note: it is in the log with its hour. */
export function NoteField({ notes, setup }: { notes: ReturnType<typeof useNotes>; setup?: string }) {
  const [text, setText] = useState(() => readTyped(field) ?? '');
  const write = (written: string) => {
    setText(written);
    writeTyped(field, written === '' ? undefined : written);
  };
  const note = () => {
    if (text.trim() === '') return;
    notes.add(text.trim(), setup);
    write('');
  };
  return (
    <>
      <Row as="form" onSubmit={(event) => event.preventDefault()}>
        <Words>
          <TextField
            name="Note"
            value={text}
            onChange={write}
            most={1000}
            placeholder="Wind from the quay, B weighted"
          />
        </Words>
        <Button type="submit" onPress={note} isDisabled={text.trim() === ''}>
          Note it
        </Button>
      </Row>
      {notes.wrong && <Wrong role="alert">{notes.wrong}</Wrong>}
    </>
  );
}
