import styled from 'styled-components';
import { usePreferences } from '../api/preferences';
import { modifier, type Shortcut } from '../ui/shortcuts';
import { Sheet } from '../ui/Sheet';
import { TickBox } from '../ui/Ticks';
import { space } from '../ui/tokens';

const List = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px 16px;
  align-items: baseline;
  margin-bottom: ${space.part}px;
  div {
    display: contents;
  }
  kbd {
    font: inherit;
    font-weight: 600;
    border: 1px solid var(--control-line);
    border-radius: 5px;
    padding: 1px 7px;
    white-space: nowrap;
  }
`;

const always = [
  { name: '?', does: 'This list' },
  { name: `${modifier} K`, does: 'Find anything' },
  { name: 'Q', does: 'Quick sums' },
  { name: 'Tab', does: 'The next control, or the next mark on the stop rail' },
  { name: '← →', does: 'On a mark: a third of a stop; with Shift a whole one' },
  { name: '← → ↑ ↓', does: 'On the set: 5 cm; with Shift 50 cm. From the side up and down' },
  { name: '[ ]', does: 'On the set: turned by five degrees' },
  { name: 'Home End', does: 'On a mark: to either end; Page up and Page down a long way' },
  { name: '↑ ↓', does: 'In a number: a step; with Shift three' },
  { name: 'Enter', does: 'In a field: sets what was typed; Escape brings back what was there' },
];

/** The keys there are here, and whether single letters count. */
export default function KeyList({ shortcuts, onClose }: { shortcuts: Shortcut[]; onClose: () => void }) {
  const { preferences, set } = usePreferences();
  return (
    <Sheet title="Keys" open onClose={onClose} width={480}>
      <List>
        {[...shortcuts, ...always].map((one) => (
          <div key={one.does}>
            <dt>
              <kbd>{one.name}</kbd>
            </dt>
            <dd>{one.does}</dd>
          </div>
        ))}
      </List>
      <TickBox
        name="Single letters and digits are keys"
        value={preferences.letter_keys !== false}
        onChange={(letter_keys) => set({ letter_keys })}
      />
    </Sheet>
  );
}
