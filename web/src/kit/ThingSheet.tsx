import type { Kit } from '../api/client';
import { Button } from '../ui/Button';
import { Grid, Lead, Notice, Row } from '../ui/Panel';
import { Sheet } from '../ui/Sheet';
import { TextField } from '../ui/TextField';
import { TypedField } from '../ui/TypedField';
import { at, put, things } from './fields';
import { CameraClicks, FlashOutput, ModifierSurface } from './Particulars';
import { type Kind, newId, useKit } from './KitContext';
import { defaultOf } from '../api/ranges';

type Props<K extends Kind> = {
  kind: K;
  thing: Kit[K][number] | undefined;
  onClose: () => void;
  /** What to do with a thing that was added from here: use it. */
  onAdded?: ((id: string) => void) | undefined;
};

/** A thing of the kit, with everything that is known of it. Every setup that uses it follows. */
export function ThingSheet<K extends Kind>({ kind, thing, onClose, onAdded }: Props<K>) {
  const owned = useKit();
  const about = things[kind];
  if (!thing || !owned) return null;
  const list = owned.document[kind] as Kit[K][number][];
  const here = list.find((one) => one.id === thing.id);
  const shown = here ?? thing;
  const edit = (what: string, to: (one: Kit[K][number]) => Kit[K][number]) =>
    owned.edit(`${about.one}: ${what}`, (kit) => ({
      ...kit,
      [kind]: (kit[kind] as Kit[K][number][]).map((one) => (one.id === thing.id ? to(one) : one)),
    }));
  const add = (copy: Kit[K][number]) => {
    owned.edit(`${about.one} added`, (kit) => ({ ...kit, [kind]: [...(kit[kind] as Kit[K][number][]), copy] }));
    onAdded?.(copy.id);
  };
  const another = () => {
    add({ ...shown, id: newId(), name: `${shown.name}, copy` });
  };
  return (
    <Sheet title={about.one} open onClose={onClose} width={680}>
      {here ? (
        <Lead>{about.says} All setups that use it follow.</Lead>
      ) : (
        <Notice style={{ marginBottom: 12 }}>
          <strong>{thing.name} is no longer in your kit. </strong>
          The setups of this job go on with it as it was.
          <Row style={{ marginTop: 8 }}>
            <Button onPress={() => add(thing)}>Put it back into the kit</Button>
          </Row>
        </Notice>
      )}
      {here && (
        <>
          <Grid>
            <TextField
              name="Called"
              value={shown.name}
              onChange={(name) => name.trim() !== '' && edit('name', (one) => ({ ...one, name }))}
            />
            {about.fields.map(({ path, none, ...field }) => {
              const value = at(shown, path);
              return (
                <TypedField
                  {...field}
                  key={path}
                  value={value}
                  placeholder={none ?? ''}
                  keptAs={`kit/${shown.id}/${path}`}
                  onValue={(u) => edit(field.name.toLowerCase(), (one) => together(put(one, path, u.value)))}
                  action={
                    none === undefined || value === undefined
                      ? undefined
                      : { name: none, run: () => edit(field.name, (one) => without(one, path)) }
                  }
                />
              );
            })}
          </Grid>
          {kind === 'cameras' && (
            <CameraClicks camera={shown as Kit['cameras'][number]} edit={(what, to) => edit(what, to as never)} />
          )}
          {kind === 'flashes' && (
            <FlashOutput
              flash={shown as Kit['flashes'][number]}
              modifiers={owned.document.modifiers}
              edit={(what, to) => edit(what, to as never)}
            />
          )}
          {kind === 'modifiers' && (
            <ModifierSurface
              modifier={shown as Kit['modifiers'][number]}
              edit={(what, to) => edit(what, to as never)}
            />
          )}
        </>
      )}
      <Row style={{ marginTop: 16, justifyContent: 'space-between' }}>
        <Button onPress={another}>{onAdded ? 'Add another like it, and use that' : 'Add another like it'}</Button>
        <Button kind="strong" onPress={onClose}>
          Done
        </Button>
      </Row>
    </Sheet>
  );
}

/** What belongs together stays in order: the safe sync is never faster than the rated one. */
function together<T>(thing: T): T {
  const camera = thing as Kit['cameras'][number];
  if (camera.sync_rated_s !== undefined && camera.sync_safe_s < camera.sync_rated_s) {
    return { ...thing, sync_safe_s: camera.sync_rated_s };
  }
  const flash = thing as Kit['flashes'][number];
  if (flash.duty)
    return {
      ...thing,
      duty: {
        full_pops: flash.duty.full_pops ?? defaultOf('Duty.full_pops'),
        rest_s: flash.duty.rest_s ?? defaultOf('Duty.rest_s'),
      },
    };
  return thing;
}

/** A limit that is not known is not known as a whole. */
const without = <T,>(thing: T, path: string): T => put(thing, path.startsWith('duty') ? 'duty' : path, null);
