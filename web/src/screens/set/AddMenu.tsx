import { Plus } from 'lucide-react';
import type { SetCommand } from '../../api/client';
import { useSetup } from '../../session/job';
import { Suspense } from 'react';
import type { MenuEntry } from '../../ui/Menu';
import { lazily } from '../../ui/lazily';

const Menu = lazily(() => import('../../ui/Menu'));

type Entry = { id: string; name: string; command: SetCommand };

const things: Entry[] = [
  { id: 'person', name: 'A person', command: { add: 'person' } },
  { id: 'couple', name: 'People: a couple', command: { people: 'couple' } },
  { id: 'row', name: 'People: a row of four', command: { people: { rows: { rows: 1, in_each: 4 } } } },
  { id: 'rows', name: 'People: three rows of five', command: { people: { rows: { rows: 3, in_each: 5 } } } },
  { id: 'circle', name: 'People: a circle of eight', command: { people: { circle: { count: 8 } } } },
  { id: 'one', name: 'People: only one', command: { people: 'one' } },
  { id: 'product', name: 'A product on a table', command: { add: 'product' } },
  { id: 'backdrop', name: 'A backdrop', command: { add: 'backdrop' } },
  { id: 'wall-left', name: 'A wall, left', command: { add: 'wall_left' } },
  { id: 'wall-right', name: 'A wall, right', command: { add: 'wall_right' } },
  { id: 'wall-behind', name: 'A wall behind the camera', command: { add: 'wall_behind_camera' } },
  { id: 'ceiling', name: 'A ceiling', command: { add: 'ceiling' } },
  { id: 'floor', name: 'The floor, as it gives light back', command: { add: 'floor' } },
  { id: 'window', name: 'A window', command: { add: 'window' } },
  { id: 'doorway', name: 'A doorway behind the camera', command: { add: 'doorway' } },
  { id: 'white', name: 'A white card', command: { add: { card: 'white' } } },
  { id: 'silver', name: 'A silver card', command: { add: { card: 'silver' } } },
  { id: 'gold', name: 'A gold card', command: { add: { card: 'gold' } } },
  { id: 'black', name: 'A black card or flag', command: { add: { card: 'black' } } },
  { id: 'diffuser', name: 'A diffuser', command: { add: { card: 'diffuser' } } },
  { id: 'mirror', name: 'A mirror', command: { add: { card: 'mirror' } } },
];
const glass: Entry[] = [
  { id: 'pane-window', name: 'Glass: a window behind', command: { add: { pane: 'window' } } },
  { id: 'pane-shop', name: 'Glass: a shop window behind', command: { add: { pane: 'shop_window' } } },
  { id: 'pane-door', name: 'Glass: a glazed door', command: { add: { pane: 'glazed_door' } } },
  { id: 'pane-through', name: 'Glass: a pane to shoot through', command: { add: { pane: 'shot_through' } } },
  { id: 'pane-mirror', name: 'Glass: a mirror behind', command: { add: { pane: 'mirror' } } },
  { id: 'pane-mirrors', name: 'Glass: a wall of mirrors', command: { add: { pane: 'mirror_wall' } } },
  { id: 'pane-picture', name: 'Glass: a picture under glass', command: { add: { pane: 'picture' } } },
  { id: 'pane-table', name: 'Glass: a glass table', command: { add: { pane: 'table' } } },
  { id: 'pane-car', name: 'Glass: the side of a car', command: { add: { pane: 'car_side' } } },
];
const hazards: Entry[] = [
  { id: 'edge', name: 'Can hurt: an edge', command: { add: { hazard: 'edge' } } },
  { id: 'road', name: 'Can hurt: a road', command: { add: { hazard: 'road' } } },
  { id: 'water', name: 'Can hurt: water', command: { add: { hazard: 'water' } } },
  { id: 'crowd', name: 'Can hurt: people passing', command: { add: { hazard: 'crowd' } } },
  { id: 'line', name: 'Can hurt: a line overhead', command: { add: { hazard: 'overhead_line' } } },
  { id: 'cable', name: 'Can hurt: a cable on the floor', command: { add: { hazard: 'cable' } } },
];

/** Everything that can be put onto the set, behind one button; or glass and what can hurt only. */
export function AddMenu({ only }: { only?: 'glass' }) {
  const { ask, kit } = useSetup();
  const owned = [
    ...kit.boards.map((one) => ({ id: `board/${one.id}`, name: one.name, add: { board: one.id } })),
    ...kit.backdrops.map((one) => ({ id: `roll/${one.id}`, name: one.name, add: { from_roll: one.id } })),
  ].map(({ id, name, add }) => ({ id, name: `Of the kit: ${name}`, command: { add } }));
  const offered = only ? [...glass, ...hazards] : [...things, ...glass, ...hazards, ...owned];
  const entries: MenuEntry[] = offered.map(({ id, name, command }) => ({
    id,
    name,
    run: () => ask(`Set: ${name.toLowerCase()}`, { set: command }, 'set/add'),
  }));
  return (
    <Suspense>
      <Menu
        name="Put onto the set"
        icon={
          <>
            <Plus size={16} aria-hidden /> Put onto the set
          </>
        }
        entries={entries}
      />
    </Suspense>
  );
}
