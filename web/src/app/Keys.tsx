import { type ReactNode, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { usePreferences } from '../api/preferences';
import { isTyping, type Shortcut, type Shortcuts, ShortcutsContext } from '../ui/shortcuts';
import { lazily } from '../ui/lazily';

const Finder = lazily(() => import('./Finder'));
const KeyList = lazily(() => import('./KeyList'));
const QuickSums = lazily(() => import('../screens/calculators/QuickSums'));

/** Hears the keys that are offered, and opens what is reached from anywhere. */
export function KeysProvider({ children }: { children: ReactNode }) {
  const groups = useRef(new Set<Shortcut[]>());
  const [open, setOpen] = useState<'finder' | 'sums' | Shortcut[]>();
  const { preferences } = usePreferences();
  // Who dictates, or whose hands shake, can switch single letters off (WCAG 2.1.4).
  const letters = preferences.letter_keys !== false;

  const keys = useMemo<Shortcuts>(
    () => ({
      add: (shortcuts) => {
        groups.current.add(shortcuts);
        return () => void groups.current.delete(shortcuts);
      },
      all: () => [...groups.current].flat(),
      // What has a name but no key is for the finder only.
      showKeys: () => setOpen([...groups.current].flat().filter((one) => one.key.length === 1)),
      find: () => setOpen('finder'),
      sums: () => setOpen('sums'),
    }),
    [],
  );

  useEffect(() => {
    const always: Shortcut[] = [
      { key: 'k', mod: true, name: '', does: '', run: keys.find },
      { key: 'q', name: '', does: '', run: keys.sums },
      { key: '?', name: '', does: '', run: keys.showKeys },
    ];
    const onKey = (event: KeyboardEvent) => {
      const mod = event.ctrlKey || event.metaKey;
      const finding = mod && event.key.toLowerCase() === 'k';
      if (!finding && (event.altKey || document.querySelector('[role=dialog]'))) return;
      // A field's own undo is the browser's, and letters are the field's.
      if (!finding && isTyping(event.target)) return;
      if (!mod && !letters) return;
      const hit = [...always, ...keys.all()].find(
        (one) =>
          one.key === event.key.toLowerCase() &&
          (one.mod ?? false) === mod &&
          (!mod || (one.shift ?? false) === event.shiftKey),
      );
      if (hit) {
        event.preventDefault();
        hit.run();
      }
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [keys, letters]);

  const close = () => setOpen(undefined);
  return (
    <ShortcutsContext.Provider value={keys}>
      {children}
      <Suspense>
        {Array.isArray(open) && <KeyList shortcuts={open} onClose={close} />}
        {open === 'finder' && <Finder onClose={close} />}
        {open === 'sums' && <QuickSums onClose={close} />}
      </Suspense>
    </ShortcutsContext.Provider>
  );
}
