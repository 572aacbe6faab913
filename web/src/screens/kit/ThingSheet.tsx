import { Redo2, Undo2 } from 'lucide-react';
import styled from 'styled-components';
import type { Kit } from '../../api/client';
import { fieldOf } from '../../api/fields';
import { Field } from '../../session/fields/Field';
import { Words } from '../../session/fields/Words';
import { type Kind, KitFields, newId, useKitRunner, useKitState, useOwned } from '../../session/kit';
import { useSaving } from '../../session/useSaving';
import { Button } from '../../ui/Button';
import { Grid, Lead, Notice, Row } from '../../ui/Panel';
import { Sheet } from '../../ui/Sheet';
import { space } from '../../ui/tokens';
import { numberAt, things } from './fields';
import { BackdropColour, BoardKind, CameraClicks, FlashOutput, ModifierSurface } from './Particulars';
import { CameraTaught, FlashTaught } from './Taught';

const Gone = styled(Notice)`
  margin-bottom: ${space.part}px;
`;
const Ends = styled(Row)`
  margin-top: ${space.wide}px;
`;

type Props<K extends Kind> = {
  kind: K;
  thing: Kit[K][number] | undefined;
  onClose: () => void;
  /** What to do with a thing that was added from here: use it. */
  onAdded?: ((id: string) => void) | undefined;
};

/** A thing of the kit, with everything that is known of it. Every setup that uses it follows. */
export default function ThingSheet<K extends Kind>({ kind, thing, onClose, onAdded }: Props<K>) {
  const owned = useOwned();
  const kit = useKitRunner();
  const refused = useKitState((state) => state.refused);
  const { undoes, redoes, undo, redo } = useSaving(kit);
  const about = things[kind];
  if (!thing || !owned) return null;
  const list = owned[kind] as Kit[K][number][];
  const here = list.find((one) => one.id === thing.id);
  const shown = here ?? thing;
  const at = [kind, { id: shown.id }];
  const put = (says: string, to: string[], value: unknown) =>
    kit.send({ type: 'edit', says: `${about.one}: ${says}`, changes: [{ at: [...at, ...to], to: value }] });
  const add = (copy: Kit[K][number]) => {
    kit.send({ type: 'edit', says: `${about.one} added`, changes: [{ at: [kind, { id: copy.id }], to: copy }] });
    onAdded?.(copy.id);
  };
  return (
    <Sheet title={about.one} open onClose={onClose} width={680}>
      {here ? (
        <Lead>{about.says} All setups that use it follow.</Lead>
      ) : (
        <Gone>
          <strong>{thing.name} is no longer in your kit. </strong>
          The setups of this job go on with it as it was.
          <Row $below>
            <Button onPress={() => add(thing)}>Put it back into the kit</Button>
          </Row>
        </Gone>
      )}
      {refused !== undefined && (
        <Gone role="alert">
          <strong>Not saved. </strong>
          {refused} Change it again, or undo.
        </Gone>
      )}
      {here && (
        <KitFields>
          <Grid>
            <Words
              name="Called"
              at={[...at, 'name']}
              says={`${about.one}: name`}
              good={(text) => text.trim() !== ''}
              wrong="A thing needs a name."
            />
            {about.fields.map(({ of, at: inside, none }) => (
              <Field
                key={of}
                of={of}
                at={[...at, ...inside]}
                says={`${about.one}: ${fieldOf(of).name.split(',')[0]?.toLowerCase()}`}
                placeholder={none}
                action={
                  none === undefined || numberAt(shown, inside) === undefined
                    ? undefined
                    : // A limit that is not known is not known as a whole.
                      { name: none, run: () => put(none, inside.slice(0, 1), null) }
                }
              />
            ))}
          </Grid>
          {kind === 'cameras' && <CameraClicks camera={shown as Kit['cameras'][number]} put={put} />}
          {kind === 'flashes' && (
            <FlashOutput flash={shown as Kit['flashes'][number]} modifiers={owned.modifiers} put={put} />
          )}
          {kind === 'cameras' && (
            <CameraTaught camera={shown as Kit['cameras'][number]} lenses={owned.lenses} put={put} />
          )}
          {kind === 'flashes' && (
            <FlashTaught flash={shown as Kit['flashes'][number]} modifiers={owned.modifiers} put={put} />
          )}
          {kind === 'boards' && <BoardKind board={shown as Kit['boards'][number]} put={put} />}
          {kind === 'backdrops' && <BackdropColour backdrop={shown as Kit['backdrops'][number]} put={put} />}
          {kind === 'modifiers' && <ModifierSurface modifier={shown as Kit['modifiers'][number]} put={put} />}
        </KitFields>
      )}
      <Ends $apart>
        <Row>
          <Button onPress={() => add({ ...shown, id: newId(), name: `${shown.name}, copy` })}>
            {onAdded ? 'Add another like it, and use that' : 'Add another like it'}
          </Button>
          <Button
            kind="bare"
            isDisabled={!undoes}
            aria-label={undoes ? `Undo in the kit: ${undoes}` : 'Nothing to undo in the kit'}
            onPress={undo}
          >
            <Undo2 size={17} aria-hidden />
          </Button>
          <Button
            kind="bare"
            isDisabled={!redoes}
            aria-label={redoes ? `Redo in the kit: ${redoes}` : 'Nothing to redo in the kit'}
            onPress={redo}
          >
            <Redo2 size={17} aria-hidden />
          </Button>
        </Row>
        <Button kind="strong" onPress={onClose}>
          Done
        </Button>
      </Ends>
    </Sheet>
  );
}
