import { Backpack, Calculator, Moon, Redo2, Search, SlidersHorizontal, Sun, Undo2 } from 'lucide-react';
import { type ReactNode, useState } from 'react';
import { Link } from 'react-aria-components';
import styled from 'styled-components';
import type { Edited, SaveState } from '../jobs/useDocument';
import { Button, ButtonLink } from '../ui/Button';
import { Segments } from '../ui/Segments';
import { Sheet } from '../ui/Sheet';
import { modifier, useKeys, useShortcuts } from './keys';
import { usePreferences, useTheme } from './preferences';
import { narrow } from './theme';

const Bar = styled.header`
  grid-area: header;
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 50px;
  padding: 4px 16px;
  flex-wrap: wrap;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
  ${narrow} {
    padding: 4px 10px;
    gap: 4px 8px;
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
`;
const Where = styled.div`
  display: flex;
  align-items: center;
  gap: 8px;
  min-width: 0;
  flex: 1 1 240px;
  ${narrow} {
    order: 3;
    flex-basis: 100%;
  }
`;
const Tools = styled.div`
  display: flex;
  align-items: center;
  gap: 2px;
  margin-left: auto;
`;
const State = styled.span`
  font-size: 13px;
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

const states: Record<SaveState, string> = {
  saved: 'Saved',
  saving: 'Saving…',
  waiting: 'Saving…',
  offline: 'Not saved: kept in this browser',
  full: 'Disk full: kept in this browser',
  refused: 'Not saved: kept in this browser',
};

/** The top of every page: where one is, whether it is saved, undo, theme, finding. */
export function Header({
  document,
  children,
}: {
  document?: Pick<Edited<unknown>, 'state' | 'trouble' | 'undoes' | 'redoes' | 'undo' | 'redo'>;
  children?: ReactNode;
}) {
  const { dark, toggle } = useTheme();
  const { find, sums } = useKeys();
  const [showing, setShowing] = useState(false);
  const loud = document && ['offline', 'full', 'refused'].includes(document.state);
  useShortcuts([
    { key: 't', name: 'T', does: 'Daylight or dusk', run: toggle },
    ...(document
      ? [
          { key: 'z', mod: true, name: `${modifier} Z`, does: 'Undo', run: document.undo },
          { key: 'z', mod: true, shift: true, name: `${modifier} Shift Z`, does: 'Redo', run: document.redo },
        ]
      : []),
  ]);
  return (
    <Bar>
      <Home href="/">
        <svg width="24" height="24" viewBox="4 5 24 22" aria-hidden>
          <path
            d="M6 8h20l-7.5 9v8h-5v-8z"
            fill="none"
            stroke="currentColor"
            strokeWidth="2.4"
            strokeLinejoin="round"
          />
        </svg>
        Tolva
      </Home>
      <Where>{children}</Where>
      <Tools>
        {document && (
          <>
            <State role="status" data-loud={loud || undefined} title={document.trouble}>
              {states[document.state]}
            </State>
            <Button
              kind="bare"
              aria-label={document.undoes ? `Undo: ${document.undoes}` : 'Nothing to undo'}
              isDisabled={!document.undoes}
              onPress={document.undo}
            >
              <Undo2 size={18} aria-hidden />
            </Button>
            <Button
              kind="bare"
              aria-label={document.redoes ? `Redo: ${document.redoes}` : 'Nothing to redo'}
              isDisabled={!document.redoes}
              onPress={document.redo}
            >
              <Redo2 size={18} aria-hidden />
            </Button>
          </>
        )}
        <Button kind="bare" aria-label="Quick sums" onPress={sums}>
          <Calculator size={18} aria-hidden />
        </Button>
        <ButtonLink kind="bare" href="/kit" aria-label="Kit">
          <Backpack size={18} aria-hidden />
        </ButtonLink>
        <Button kind="bare" aria-label="Find anything" onPress={find}>
          <Search size={18} aria-hidden />
        </Button>
        <Button kind="bare" aria-label="How numbers are shown" onPress={() => setShowing(true)}>
          <SlidersHorizontal size={18} aria-hidden />
        </Button>
        <Button kind="bare" aria-label={dark ? 'Theme: change to daylight' : 'Theme: change to dusk'} onPress={toggle}>
          {dark ? <Sun size={18} aria-hidden /> : <Moon size={18} aria-hidden />}
        </Button>
      </Tools>
      <Showing open={showing} onClose={() => setShowing(false)} />
    </Bar>
  );
}

function Showing({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { preferences, show, set } = usePreferences();
  return (
    <Sheet title="How things are shown" open={open} onClose={onClose} width={440}>
      <div style={{ display: 'grid', gap: 14 }}>
        <Segments
          name="Distances"
          value={show.length ?? 'metres'}
          options={[
            { id: 'metres', label: 'Metres' },
            { id: 'feet_and_inches', label: 'Feet and inches' },
          ]}
          onChange={(length) => set({ show: { ...show, length } })}
        />
        <Segments
          name="Flash power"
          value={show.power ?? 'fraction'}
          options={[
            { id: 'fraction', label: '1/4 +⅓' },
            { id: 'stops', label: '−1⅔ stops' },
          ]}
          onChange={(power) => set({ show: { ...show, power } })}
        />
        <Segments
          name="Theme"
          value={preferences.theme ?? 'device'}
          options={[
            { id: 'device', label: 'As the device' },
            { id: 'daylight', label: 'Daylight' },
            { id: 'dusk', label: 'Dusk' },
          ]}
          onChange={(theme) => set({ theme })}
        />
      </div>
    </Sheet>
  );
}
