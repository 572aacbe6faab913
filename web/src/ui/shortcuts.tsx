import { createContext, useContext, useEffect, useRef } from 'react';

/** A key and what it does. `key` as in KeyboardEvent; `mod` is Ctrl, or ⌘ on a Mac. */
export type Shortcut = { key: string; mod?: boolean; shift?: boolean; name: string; does: string; run: () => void };

export type Shortcuts = {
  add: (shortcuts: Shortcut[]) => () => void;
  all: () => Shortcut[];
  showKeys: () => void;
  find: () => void;
  sums: () => void;
};

export const ShortcutsContext = createContext<Shortcuts | undefined>(undefined);

export function useKeys(): Shortcuts {
  const keys = useContext(ShortcutsContext);
  if (!keys) throw new Error('keys are for parts within KeysProvider');
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
const written =
  'input:not([type=checkbox], [type=radio], [type=range]), textarea, [contenteditable], [role=listbox], [role=spinbutton]';

export function isTyping(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.closest(written) !== null;
}

export const modifier = navigator.platform.startsWith('Mac') ? '⌘' : 'Ctrl';
