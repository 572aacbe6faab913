import { createContext, type ReactNode, useContext, useEffect, useMemo, useRef, useState } from 'react';
import styled from 'styled-components';
import { QuickSums } from '../sums/QuickSums';
import { Sheet } from '../ui/Sheet';
import { Finder } from './Finder';

/** A key and what it does. `key` as in KeyboardEvent; `mod` is Ctrl, or ⌘ on a Mac. */
export type Shortcut = { key: string; mod?: boolean; shift?: boolean; name: string; does: string; run: () => void };

type Keys = {
  add: (shortcuts: Shortcut[]) => () => void;
  all: () => Shortcut[];
  showKeys: () => void;
  find: () => void;
  sums: () => void;
};

const Context = createContext<Keys | undefined>(undefined);

export function useKeys(): Keys {
  const keys = useContext(Context);
  if (!keys) throw new Error('useKeys is for parts within KeysProvider');
  return keys;
}

/** Offers keys while a part is on screen. They are listed on `?` and found by Ctrl K. */
export function useShortcuts(shortcuts: Shortcut[]) {
  const { add } = useKeys();
  const latest = useRef(shortcuts);
  useEffect(() => {
    latest.current = shortcuts;
  });
  const names = shortcuts.map((one) => `${one.name} ${one.does}`).join();
  useEffect(
    () => add(latest.current.map((one, index) => ({ ...one, run: () => latest.current[index]?.run() }))),
    [add, names],
  );
}

/** Where letters are written or searched with. A tick box is an input too, and takes no letters. */
const written = 'input:not([type=checkbox], [type=radio], [type=range]), textarea, [contenteditable], [role=listbox]';

function typing(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.closest(written) !== null;
}

export const modifier = navigator.platform.startsWith('Mac') ? '⌘' : 'Ctrl';

export function KeysProvider({ children }: { children: ReactNode }) {
  const groups = useRef(new Set<Shortcut[]>());
  const [listed, setListed] = useState<Shortcut[]>();
  const [finding, setFinding] = useState(false);
  const [summing, setSumming] = useState(false);

  const keys = useMemo<Keys>(() => {
    const all = () => [...groups.current].flat();
    return {
      add: (shortcuts) => {
        groups.current.add(shortcuts);
        return () => void groups.current.delete(shortcuts);
      },
      all,
      // What has a name but no key is for the finder only.
      showKeys: () => setListed(all().filter((one) => one.key.length === 1)),
      find: () => setFinding(true),
      sums: () => setSumming(true),
    };
  }, []);

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const mod = event.ctrlKey || event.metaKey;
      if (mod && event.key.toLowerCase() === 'k') {
        event.preventDefault();
        setFinding(true);
        return;
      }
      if (event.altKey || (typing(event.target) && !mod) || document.querySelector('[role=dialog]')) return;
      if (event.key.toLowerCase() === 'q' && !mod) {
        event.preventDefault();
        keys.sums();
        return;
      }
      if (event.key === '?') {
        keys.showKeys();
        return;
      }
      const hit = keys
        .all()
        .find(
          (one) =>
            one.key === event.key.toLowerCase() &&
            (one.mod ?? false) === mod &&
            (!mod || (one.shift ?? false) === event.shiftKey),
        );
      // A field's own undo is the browser's.
      if (hit && !(hit.mod && typing(event.target))) {
        event.preventDefault();
        hit.run();
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [keys]);

  return (
    <Context.Provider value={keys}>
      {children}
      <KeyList shortcuts={listed} onClose={() => setListed(undefined)} />
      {finding && <Finder onClose={() => setFinding(false)} />}
      {summing && <QuickSums onClose={() => setSumming(false)} />}
    </Context.Provider>
  );
}

const List = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px 16px;
  align-items: baseline;
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
  { name: '↑ ↓', does: 'In a number: a step; with Shift three' },
];

function KeyList({ shortcuts, onClose }: { shortcuts: Shortcut[] | undefined; onClose: () => void }) {
  return (
    <Sheet title="Keys" open={shortcuts !== undefined} onClose={onClose} width={480}>
      <List>
        {[...(shortcuts ?? []), ...always].map((one) => (
          <div key={one.does} style={{ display: 'contents' }}>
            <dt>
              <kbd>{one.name}</kbd>
            </dt>
            <dd>{one.does}</dd>
          </div>
        ))}
      </List>
    </Sheet>
  );
}
