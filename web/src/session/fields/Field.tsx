import { useStore } from 'zustand';
import { fieldOf, type FieldName } from '../../api/fields';
import { usePreferences } from '../../api/preferences';
import { TypedBox } from '../../ui/TypedBox';
import { useDocument } from '../document';
import { keyOf, type Path, valueAt } from '../machine/change';
import { keyboardFor, useLabel } from './useLabel';

/** Keys pressed in a row are one step of undo; it ends when they rest for so long, in milliseconds. */
const rests = 400;

type Props = {
  /** Which number of the format it is: the catalogue knows its name, its range, its unit and its step. */
  of: FieldName;
  /** Where it stands in the open document. */
  at: Path;
  /** Another name than the catalogue's, where there are several of a kind. */
  name?: string;
  hint?: string;
  placeholder?: string | undefined;
  /** Shown instead of the core's label, where there is no single number (a reading as it was given). */
  shown?: string;
  /** What is done, in words, for undo; its name where it is not said. */
  says?: string;
  /** Another command than to type it into its place. */
  typed?: (text: string) => unknown;
  /** It is never stepped here. */
  still?: boolean;
  /** Something to do with the field as a whole, beside its name. */
  action?: { name: string; run: () => void } | undefined;
};

/**
 * A number of the open document: typed in any notation, understood by the core, stepped by the arrow keys. It shows what
 * it does while it is typed, and is set on Enter, on Tab, or when it is left; Escape brings back what was there.
 */
export function Field({ of, at, name, hint, placeholder, shown, typed, still, action, says: said }: Props) {
  const { session, scope } = useDocument();
  const { show } = usePreferences();
  const known = fieldOf(of);
  const whole = [...scope, ...at];
  const target = keyOf(typed ? [...whole, 'typed'] : whole);
  const text = useStore(session.store, (state) => state.texts[target]);
  const value = useStore(session.store, (state) => {
    const own = state.held?.target === target && state.held.text === undefined;
    return valueAt(own ? state.shown : state.kept, whole) as number | null | undefined;
  });
  const lost = useStore(session.store, (state) => state.lost !== undefined);
  const told = useStore(session.store, (state) => state.told[target]);
  const written = useLabel(known.as, shown === undefined ? value : undefined);
  const label = shown ?? written;
  const called = name ?? known.name;
  const says = said ?? called.split(',')[0] ?? called;

  const command = (written: string) => typed?.(written) ?? { edit: { type: { at, text: written } } };
  const onText = (written: string) => {
    // An empty field means nothing yet; it is not left empty either.
    if (written.trim() === '') session.send({ type: 'write', target, text: written });
    else session.send({ type: 'hold', target, says, scope, command: command(written), text: written });
  };
  const onFinish = () => {
    const now = session.store.getState();
    const written = now.texts[target];
    if (!written || written.state === 'waiting') return;
    if (written.text.trim() === '' || written.text === label) session.send({ type: 'cancel', target });
    else if (now.held?.target === target) session.send({ type: 'letGo', target });
    else session.send({ type: 'ask', target, says, scope, command: command(written.text), text: written.text });
  };
  const onStep = (by: number) => {
    const { held } = session.store.getState();
    const so =
      held?.target === target && held.text === undefined
        ? (held.command as { edit: { nudge: { by: number } } }).edit.nudge.by
        : 0;
    session.send({ type: 'hold', target, says, scope, command: { edit: { nudge: { at, by: so + by } } }, rests });
  };
  const steps = !still && known.step !== undefined && value !== null && value !== undefined;
  const waits = text?.state === 'waiting' && lost;
  return (
    <TypedBox
      name={called}
      text={text?.text ?? label}
      placeholder={placeholder}
      hint={hint ?? known.hint}
      wrong={text?.state === 'wrong' ? text.message : told}
      note={waits ? 'Waits for Tolva: it is set when it answers again.' : undefined}
      spin={{ now: value ?? undefined, says: label, least: known.least, most: known.most }}
      keyboard={keyboardFor(known.as, known.least, show.length === 'feet_and_inches')}
      onText={onText}
      onFinish={onFinish}
      onEscape={() => session.send({ type: 'cancel', target })}
      onStep={steps ? onStep : undefined}
      action={action}
    />
  );
}
