import { CopyPlus, FilePlus2, Folder, Pencil } from 'lucide-react';
import { type ReactElement, type ReactNode } from 'react';
import { Menu as AriaMenu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import styled from 'styled-components';
import { Button } from './Button';
import { coarse, radius, space, touch } from './tokens';

const Floating = styled(Popover)`
  background: var(--raised);
  border: 1px solid var(--control-line);
  border-radius: ${radius.card}px;
  min-width: 230px;
  max-width: min(420px, 96vw);
  overflow: auto;
  box-shadow: 0 6px 22px rgb(0 0 0 / 0.28);
  padding: ${space.hair}px;
`;
const List = styled(AriaMenu)`
  outline: none;
`;
const One = styled(MenuItem)`
  display: flex;
  align-items: center;
  gap: ${space.gap}px;
  padding: 7px ${space.gap}px;
  border-radius: ${radius.control}px;
  cursor: pointer;
  min-height: 36px;
  color: inherit;
  text-decoration: none;
  outline: none;
  &[data-focused] {
    background: var(--chosen);
    box-shadow: inset 3px 0 var(--ink);
  }
  ${coarse} {
    min-height: ${touch}px;
  }
`;

/** Pictures of entries that nothing but a menu shows: they come with it. */
const pictures = { begin: FilePlus2, copy: CopyPlus, folder: Folder, rename: Pencil };

type Picture = keyof typeof pictures;
export type MenuEntry = {
  id: string;
  name: string;
  icon?: Picture | ReactElement;
  href?: string;
  run?: () => void;
};

function Pictured({ icon }: { icon: MenuEntry['icon'] }): ReactNode {
  if (typeof icon !== 'string') return icon;
  const Icon = pictures[icon];
  return <Icon size={18} aria-hidden />;
}

/** What there is beside, behind one button. */
export default function Menu({ name, icon, entries }: { name: string; icon: ReactNode; entries: MenuEntry[] }) {
  return (
    <MenuTrigger>
      <Button kind="bare" aria-label={name}>
        {icon}
      </Button>
      <Floating placement="bottom end">
        <List aria-label={name} onAction={(id) => entries.find((entry) => entry.id === id)?.run?.()}>
          {entries.map((entry) => (
            <One key={entry.id} id={entry.id} textValue={entry.name} {...(entry.href ? { href: entry.href } : {})}>
              <Pictured icon={entry.icon} />
              {entry.name}
            </One>
          ))}
        </List>
      </Floating>
    </MenuTrigger>
  );
}
