import { Button } from '../ui/Button';
import { Lead, Row } from '../ui/Panel';
import { Sheet } from '../ui/Sheet';
import { when } from '../ui/when';

type Props = { what: string; savedAt: string; change: string; onChoice: (which: 'mine' | 'theirs') => void };

/** Two windows changed the same thing: the person chooses, and neither version is lost. */
export default function ChooseVersion({ what, savedAt, change, onChoice }: Props) {
  return (
    <Sheet title="Changed in another window" open onClose={() => undefined} dismissable={false} width={520}>
      <Lead>
        {what} was saved elsewhere at {when(savedAt)} ({change}) while you changed it here. Neither is lost: keep what
        is here, and undo goes to the other one; take the other one, and redo comes back to what is here.
      </Lead>
      <Row>
        <Button kind="strong" onPress={() => onChoice('mine')}>
          Keep what is here
        </Button>
        <Button onPress={() => onChoice('theirs')}>Take the other one</Button>
      </Row>
    </Sheet>
  );
}
