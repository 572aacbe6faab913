import { Button } from '../ui/Button';
import { Lead, Row } from '../ui/Panel';
import { Sheet } from '../ui/Sheet';
import type { Edited } from './useDocument';
import { when } from './when';

/** Two windows changed the same thing: the person chooses, and neither version is lost. */
export function Conflict<T>({ document, what }: { document: Edited<T>; what: string }) {
  const theirs = document.conflict;
  return (
    <Sheet
      title="Changed in another window"
      open={theirs !== undefined}
      onClose={() => undefined}
      dismissable={false}
      width={520}
    >
      <Lead>
        {what} was saved elsewhere{theirs ? ` at ${when(theirs.saved_at)}` : ''} ({theirs?.undo ?? 'a change'}) while
        you changed it here. Neither is lost: keep what is here, and undo goes to the other one; take the other one, and
        redo comes back to what is here.
      </Lead>
      <Row>
        <Button kind="strong" onPress={() => document.keep('mine')}>
          Keep what is here
        </Button>
        <Button onPress={() => document.keep('theirs')}>Take the other one</Button>
      </Row>
    </Sheet>
  );
}
