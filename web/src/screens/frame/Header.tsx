import {
  Backpack,
  Briefcase,
  Calculator,
  Target,
  Moon,
  MoreVertical,
  Redo2,
  Search,
  SlidersHorizontal,
  Smartphone,
  Sun,
  Undo2,
} from 'lucide-react';
import { type ReactNode, Suspense, useState } from 'react';
import { Link } from 'react-aria-components';
import styled from 'styled-components';
import { useTheme } from '../../api/preferences';
import type { Runner } from '../../session/runner';
import { type SaveState, useSaving } from '../../session/useSaving';
import { Button, ButtonLink } from '../../ui/Button';
import type { MenuEntry } from '../../ui/Menu';
import { modifier, useKeys, useShortcuts } from '../../ui/shortcuts';
import { narrow, phone, space, touch, type } from '../../ui/tokens';
import { useMedia } from '../../ui/useMedia';
import { lazily } from '../../ui/lazily';

const Menu = lazily(() => import('../../ui/Menu'));
const Showing = lazily(() => import('./Showing'));

const Bar = styled.header`
  grid-area: header;
  display: flex;
  align-items: center;
  gap: ${space.gap}px;
  min-height: 50px;
  padding: 4px 16px;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
  ${narrow} {
    padding: 0 ${space.hair}px;
    gap: 0;
    min-height: ${touch + 8}px;
  }
`;
const Home = styled(Link)`
  display: inline-flex;
  align-items: center;
  gap: 9px;
  font-size: 18px;
  font-weight: 700;
  color: inherit;
  text-decoration: none;
  border-radius: 5px;
  min-height: 36px;
  flex: none;
  ${narrow} {
    justify-content: center;
    width: ${touch}px;
    min-height: ${touch}px;
  }
`;
const Where = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
  min-width: 0;
  flex: 1 1 auto;
`;
const Tools = styled.div`
  display: flex;
  align-items: center;
  gap: 2px;
  margin-left: auto;
  flex: none;
  ${narrow} {
    gap: 0;
  }
`;
const State = styled.span`
  font-size: ${type.note}px;
  color: var(--quiet);
  white-space: nowrap;
  padding: 0 6px;
  &[data-loud] {
    color: var(--ink);
    font-weight: 650;
    border: 1.5px solid var(--ink);
    border-radius: 6px;
    padding: 2px 8px;
  }
`;
/** On a phone there is room for a word, where there is something to say. */
const Small = styled(State)`
  padding: 0 2px;
  &:not([data-loud]) {
    position: absolute;
    width: 1px;
    height: 1px;
    overflow: hidden;
    clip-path: inset(50%);
  }
  &[data-loud] {
    padding: 2px 5px;
  }
`;

const states: Record<SaveState, [string, string]> = {
  saved: ['Saved', 'Saved'],
  saving: ['Saving…', 'Saving…'],
  kept: ['Not saved: kept in this browser', 'Kept here'],
  full: ['Disk full: kept in this browser', 'Disk full'],
  refused: ['Not saved: kept in this browser', 'Not saved'],
};

function Mark() {
  return (
    <svg width="24" height="24" viewBox="4 5 24 22" aria-hidden>
      <path d="M6 8h20l-7.5 9v8h-5v-8z" fill="none" stroke="currentColor" strokeWidth="2.4" strokeLinejoin="round" />
    </svg>
  );
}

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- whatever is open, it is saved the same way
type Open = Runner<any, any, any>;

/**
 * The top of every page: where one is, whether it is saved, undo, theme, finding. On a phone it is one line, with what
 * there is more behind one button.
 */
export function Header({ of, more = [], children }: { of?: Open; more?: MenuEntry[]; children?: ReactNode }) {
  const { dark, toggle } = useTheme();
  const { find, sums } = useKeys();
  const small = useMedia(phone);
  const [showing, setShowing] = useState(false);
  useShortcuts([{ key: 't', name: 'T', does: 'Daylight or dusk', run: toggle }]);
  const theme = dark ? 'Theme: change to daylight' : 'Theme: change to dusk';
  const Shade = dark ? Sun : Moon;
  return (
    <Bar>
      <Home href="/" aria-label="Tolva: all jobs">
        <Mark />
        {!small && 'Tolva'}
      </Home>
      <Where>{children}</Where>
      <Tools>
        {of && <Saving of={of} small={small} />}
        {small ? (
          <Suspense>
            <Menu
              name="More"
              icon={<MoreVertical size={20} aria-hidden />}
              entries={[
                ...more,
                { id: 'jobs', name: 'All jobs', icon: <Briefcase size={18} aria-hidden />, href: '/' },
                { id: 'kit', name: 'Kit', icon: <Backpack size={18} aria-hidden />, href: '/kit' },
                { id: 'drills', name: 'Drills', icon: <Target size={18} aria-hidden />, href: '/drills' },
                { id: 'phones', name: 'Phones', icon: <Smartphone size={18} aria-hidden />, href: '/phones' },
                { id: 'find', name: 'Find anything', icon: <Search size={18} aria-hidden />, run: find },
                { id: 'sums', name: 'Quick sums', icon: <Calculator size={18} aria-hidden />, run: sums },
                {
                  id: 'showing',
                  name: 'How numbers are shown',
                  icon: <SlidersHorizontal size={18} aria-hidden />,
                  run: () => setShowing(true),
                },
                { id: 'theme', name: theme, icon: <Shade size={18} aria-hidden />, run: toggle },
              ]}
            />
          </Suspense>
        ) : (
          <>
            <Button kind="bare" aria-label="Quick sums" onPress={sums}>
              <Calculator size={18} aria-hidden />
            </Button>
            <ButtonLink kind="bare" href="/kit" aria-label="Kit">
              <Backpack size={18} aria-hidden />
            </ButtonLink>
            <ButtonLink kind="bare" href="/drills" aria-label="Drills">
              <Target size={18} aria-hidden />
            </ButtonLink>
            <Button kind="bare" aria-label="Find anything" onPress={find}>
              <Search size={18} aria-hidden />
            </Button>
            <Button kind="bare" aria-label="How numbers are shown" onPress={() => setShowing(true)}>
              <SlidersHorizontal size={18} aria-hidden />
            </Button>
            <Button kind="bare" aria-label={theme} onPress={toggle}>
              <Shade size={18} aria-hidden />
            </Button>
          </>
        )}
      </Tools>
      <Suspense>{showing && <Showing onClose={() => setShowing(false)} />}</Suspense>
    </Bar>
  );
}

function Saving({ of, small }: { of: Open; small: boolean }) {
  const { save, undoes, redoes, undo, redo } = useSaving(of);
  const loud = save === 'kept' || save === 'full' || save === 'refused';
  useShortcuts([
    { key: 'z', mod: true, name: `${modifier} Z`, does: 'Undo', run: undo },
    { key: 'z', mod: true, shift: true, name: `${modifier} Shift Z`, does: 'Redo', run: redo },
  ]);
  const Word = small ? Small : State;
  return (
    <>
      <Word role="status" data-loud={loud || undefined} aria-label={loud && small ? states[save][0] : undefined}>
        {states[save][small ? 1 : 0]}
      </Word>
      <Button
        kind="bare"
        aria-label={undoes ? `Undo: ${undoes}` : 'Nothing to undo'}
        isDisabled={!undoes}
        onPress={undo}
      >
        <Undo2 size={18} aria-hidden />
      </Button>
      <Button
        kind="bare"
        aria-label={redoes ? `Redo: ${redoes}` : 'Nothing to redo'}
        isDisabled={!redoes}
        onPress={redo}
      >
        <Redo2 size={18} aria-hidden />
      </Button>
    </>
  );
}
