import { useState } from 'react';
import styled from 'styled-components';
import { useStore } from 'zustand';
import { clearAside } from '../../session/drafts';
import type { Runner } from '../../session/runner';
import { useSaving } from '../../session/useSaving';
import { Button } from '../../ui/Button';
import { Notice, Row } from '../../ui/Panel';
import { clockOf, when } from '../../ui/when';
import { space } from '../../ui/tokens';

const Banner = styled(Notice)`
  margin: ${space.near}px ${space.gap}px;
  background: var(--panel);
`;

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- whatever is open, it is saved the same way
type Open = Runner<any, any, any>;

/** What stands between what is here and what is saved, and the way on. Nothing where all is well. */
export function Connection({ of }: { of: Open }) {
  const { lost, full, refused, undo } = useSaving(of);
  const saved = useStore(of.store, (state) => state.saved?.saved_at);
  const [aside, setAside] = useState(of.aside);
  return (
    <>
      {lost && (
        <Banner role="alert">
          <Row>
            <p>
              <strong>Tolva has not answered since {clockOf(lost.since)}. </strong>
              What stands here was saved {saved === undefined ? 'before' : when(saved)}. What you do is kept in this
              browser, and goes in by itself, in order, when it answers again.
            </p>
            <Button onPress={() => of.send({ type: 'retry' })}>Try now</Button>
          </Row>
        </Banner>
      )}
      {full && (
        <Banner role="alert">
          <strong>The disk is full. </strong>
          What you do here is kept in this browser. Make room where Tolva runs: it is saved by itself then.
        </Banner>
      )}
      {refused !== undefined && (
        <Banner role="alert">
          <Row>
            <p>
              <strong>The last change was not saved. </strong>
              {refused} Change it again, or take it back.
            </p>
            <Button onPress={undo}>Take it back</Button>
          </Row>
        </Banner>
      )}
      {aside !== undefined && (
        <Banner role="alert">
          <Row>
            <p>
              <strong>Something that was not saved cannot be read. </strong>
              It was left in this browser by another Tolva. Everything that was saved is here.
            </p>
            <Button onPress={() => keepAsFile(of.id, aside)}>Keep it as a file</Button>
            <Button
              onPress={() => {
                clearAside(of.id);
                setAside(undefined);
              }}
            >
              Throw it away
            </Button>
          </Row>
        </Banner>
      )}
    </>
  );
}

function keepAsFile(id: string, text: string) {
  const link = document.createElement('a');
  link.href = URL.createObjectURL(new Blob([text], { type: 'application/json' }));
  link.download = `not-saved-${id}.json`;
  link.click();
  URL.revokeObjectURL(link.href);
}
