import { Undo2 } from 'lucide-react';
import { useState } from 'react';
import { namesOf } from '../../session/machine/session';
import { useKitRunner, useKitState } from '../../session/kit';
import { Button } from '../../ui/Button';

/** Takes back in the kit what was just changed from here. Nothing where nothing was. */
export function KitUndo() {
  const kit = useKitRunner();
  const undoes = useKitState((state) => namesOf(state).undoes);
  const revision = useKitState((state) => state.saved?.revision);
  const [came] = useState(revision);
  if (!undoes || came === undefined || revision === undefined || revision <= came) return null;
  return (
    <Button kind="bare" aria-label={`Undo in the kit: ${undoes}`} onPress={() => kit.send({ type: 'undo' })}>
      <Undo2 size={16} aria-hidden /> {undoes}
    </Button>
  );
}
