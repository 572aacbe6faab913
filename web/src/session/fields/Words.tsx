import { useStore } from 'zustand';
import { TextField } from '../../ui/TextField';
import { useDocument } from '../document';
import { keyOf, type Path, valueAt } from '../machine/change';

type Props = {
  name: string;
  at: Path;
  /** What is done, in words, for undo. */
  says: string;
  lines?: boolean;
  placeholder?: string;
  most?: number;
  /** Words of a kind: what is not stays in the field, with what is allowed. */
  good?: (text: string) => boolean;
  wrong?: string;
  unseenName?: boolean;
};

/** Plain words of the open document: set when the field is left or Enter is pressed; Escape brings back what was there. */
export function Words({ name, at, says, lines, placeholder, most, good, wrong, unseenName }: Props) {
  const { session, scope } = useDocument();
  const whole = [...scope, ...at];
  const target = keyOf(whole);
  const text = useStore(session.store, (state) => state.texts[target]);
  const value = useStore(session.store, (state) => valueAt(state.kept, whole) as string | undefined) ?? '';
  const set = () => {
    const written = session.store.getState().texts[target];
    if (!written) return;
    if (written.text === value) session.send({ type: 'cancel', target });
    else if (good && !good(written.text)) {
      session.send({ type: 'write', target, text: written.text, message: wrong ?? 'This is not allowed here.' });
    } else session.send({ type: 'edit', target, says, changes: [{ at: whole, to: written.text }] });
  };
  return (
    <TextField
      name={name}
      unseenName={unseenName}
      value={text?.text ?? value}
      placeholder={placeholder}
      lines={lines}
      most={most}
      wrong={text?.state === 'wrong' ? text.message : undefined}
      onChange={(written) => session.send({ type: 'write', target, text: written })}
      onFinish={set}
      onEscape={() => session.send({ type: 'cancel', target })}
    />
  );
}
