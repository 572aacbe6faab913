import type { Kit } from '../api/client';
import { useSetup } from '../jobs/JobContext';
import { Button } from '../ui/Button';
import { Row } from '../ui/Panel';

type Things = 'cameras' | 'flashes' | 'modifiers';

type Props = {
  of: Things;
  thing: { id: string; name: string };
  onAdded: (id: string) => void;
  onClose: () => void;
};

/** An id no other thing has. */
export function freshId(base: string, taken: string[]): string {
  let number = 2;
  while (taken.includes(`${base}-${number}`)) number += 1;
  return `${base}-${number}`;
}

/** A copy of a thing in the kit, to be changed into another one. */
export function Another({ of, thing, onAdded, onClose }: Props) {
  const { kit, changeKit } = useSetup();
  const add = () => {
    const id = freshId(
      thing.id.slice(0, 50),
      kit[of].map((one) => one.id),
    );
    changeKit('Added to the kit', (all): Kit => ({
      ...all,
      [of]: [...all[of], { ...thing, id, name: `${thing.name}, copy` }],
    }));
    onAdded(id);
  };
  return (
    <Row style={{ marginTop: 16, justifyContent: 'space-between' }}>
      <Button onPress={add}>Add another like it, and use that</Button>
      <Button kind="strong" onPress={onClose}>
        Done
      </Button>
    </Row>
  );
}
