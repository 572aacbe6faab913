import { cardKinds } from '../../api/cards';
import { ListBox, ListBoxItem } from 'react-aria-components';
import styled from 'styled-components';
import type { OnSet } from '../../api/client';
import type { FieldName } from '../../api/fields';
import { useStart } from '../../api/start';
import { idOfThing, keyOfThing } from '../../instruments/map-of-light/things';
import { Field } from '../../session/fields/Field';
import { Words } from '../../session/fields/Words';
import { useLivePlan, useSetup } from '../../session/job';
import type { Path } from '../../session/machine/change';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Grid, Panel, Part, Quiet, Row } from '../../ui/Panel';
import { TickBox } from '../../ui/Ticks';
import { chipLook } from '../../ui/field';
import { space } from '../../ui/tokens';

const List = styled(ListBox)`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: ${space.part}px;
  outline: none;
`;
const One = styled(ListBoxItem)`
  ${chipLook}
`;

/** Where each kind of thing stands in the document, and its numbers. */
const kinds: { [kind: string]: { list: string; of: string; numbers: string[] } } = {
  person: { list: 'people', of: 'Person', numbers: ['x_m', 'y_m', 'height_m', 'facing_deg'] },
  product: { list: 'products', of: 'Product', numbers: ['x_m', 'y_m', 'table_m', 'facing_deg'] },
  card: {
    list: 'cards',
    of: 'Card',
    numbers: ['x_m', 'y_m', 'z_m', 'facing_deg', 'tilt_deg', 'width_m', 'height_m'],
  },
  wall: {
    list: 'walls',
    of: 'Wall',
    numbers: ['from_x_m', 'from_y_m', 'to_x_m', 'to_y_m', 'height_m', 'reflectance'],
  },
  opening: { list: 'openings', of: 'Opening', numbers: ['x_m', 'y_m', 'z_m', 'facing_deg', 'width_m', 'height_m'] },
  pane: {
    list: 'panes',
    of: 'Pane',
    numbers: ['x_m', 'y_m', 'z_m', 'facing_deg', 'tilt_deg', 'width_m', 'height_m'],
  },
  hazard: { list: 'hazards', of: 'Hazard', numbers: ['from_x_m', 'from_y_m', 'to_x_m', 'to_y_m', 'height_m'] },
};

type Props = { chosen: OnSet | undefined; choose: (thing: OnSet) => void };

/** Everything else that stands on the set: what is chosen, in numbers. Nothing here needs the drawing. */
export function OtherThings({ chosen, choose }: Props) {
  const { setup } = useSetup();
  const things = useLivePlan((plan) => plan.set?.things);
  const others = (things ?? []).filter(({ thing }) => typeof thing === 'string' || !('light' in thing));
  const more: { thing: OnSet; name: string }[] = [
    ...(setup.set?.ceiling ? [{ thing: 'ceiling' as const, name: 'Ceiling' }] : []),
    ...(setup.set?.floor ? [{ thing: 'floor' as const, name: 'Floor' }] : []),
  ];
  const all = [...others, ...more];
  const key = chosen && keyOfThing(chosen);
  const here = all.find((one) => keyOfThing(one.thing) === key) ?? all.find((one) => one.thing === 'camera');
  if (!here) return null;
  return (
    <Panel>
      <Part>What else stands here</Part>
      <List
        aria-label="Things on the set"
        layout="grid"
        orientation="horizontal"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={[keyOfThing(here.thing)]}
        onSelectionChange={(keys) => {
          const found = all.find((one) => keys !== 'all' && keys.has(keyOfThing(one.thing)));
          if (found) choose(found.thing);
        }}
      >
        {all.map((one) => (
          <One key={keyOfThing(one.thing)} id={keyOfThing(one.thing)} textValue={one.name}>
            {one.name}
          </One>
        ))}
      </List>
      {setup.set ? (
        <Numbers thing={here.thing} />
      ) : (
        <Quiet>Use the set, or move something on it, to type numbers here.</Quiet>
      )}
    </Panel>
  );
}

function Numbers({ thing }: { thing: OnSet }) {
  const { setup, ask, set } = useSetup();
  const start = useStart();
  const id = idOfThing(thing);
  const kind = typeof thing === 'string' ? thing : (Object.keys(thing)[0] ?? '');
  const remove = (
    <Button kind="bare" onPress={() => ask('Taken off the set', { set: { remove: thing } }, 'set/remove')}>
      Take it off the set
    </Button>
  );
  const colours = (start?.surface_colours ?? []).map((one) => ({ id: one.colour, label: one.name }));
  if (kind === 'camera') {
    return (
      <Grid $min={200}>
        <Field of="Setup.camera_distance_m" at={['camera_distance_m']} />
        <Field of="CameraPlace.direction_deg" at={['set', 'camera', 'direction_deg']} />
        <Field of="CameraPlace.elevation_deg" at={['set', 'camera', 'elevation_deg']} />
        <TickBox
          name="Upright frame"
          value={setup.set?.camera.portrait ?? false}
          onChange={(is) => set('Upright frame', ['set', 'camera', 'portrait'], is)}
        />
        <Field of="Set.wind_m_s" at={['set', 'wind_m_s']} placeholder="not said" />
      </Grid>
    );
  }
  if (kind === 'ceiling' || kind === 'floor') {
    const value = setup.set?.[kind];
    const of = kind === 'ceiling' ? 'Ceiling' : 'Floor';
    return (
      <>
        <Grid $min={200}>
          {kind === 'ceiling' && <Field of="Ceiling.height_m" at={['set', kind, 'height_m']} />}
          <Field of={`${of}.reflectance`} at={['set', kind, 'reflectance']} />
          <Choice
            name="Its colour"
            value={value?.colour ?? 'white'}
            options={colours}
            onChange={(to) => set('Colour of a surface', ['set', kind, 'colour'], to)}
          />
        </Grid>
        <Row $below>{remove}</Row>
      </>
    );
  }
  const known = kinds[kind];
  if (!known || !id) return null;
  const at: Path = ['set', known.list, { id }];
  const person = kind === 'person' ? setup.set?.people?.find((one) => one.id === id) : undefined;
  const card = kind === 'card' ? setup.set?.cards?.find((one) => one.id === id) : undefined;
  const pane = kind === 'pane' ? setup.set?.panes?.find((one) => one.id === id) : undefined;
  const wall = kind === 'wall' ? setup.set?.walls?.find((one) => one.id === id) : undefined;
  const product = kind === 'product' ? setup.set?.products?.find((one) => one.id === id) : undefined;
  const shape = product && (Object.entries(product.shape)[0] as [string, { [field: string]: number }] | undefined);
  const region = (side: 'left' | 'right' | 'front' | 'top') =>
    ask('Region added', { set: { region: { thing, side } } }, 'set/region');
  return (
    <>
      <Grid $min={200}>
        {kind !== 'hazard' && <Words name="Name" says="Name" at={[...at, 'name']} most={120} />}
        {known.numbers
          .filter((field) => kind !== 'hazard' || field !== 'height_m' || isLine(setup.set?.hazards, id))
          .map((field) => (
            <Field key={field} of={`${known.of}.${field}` as FieldName} at={[...at, field]} />
          ))}
        {person && (
          <TickBox
            name="Seated"
            value={person.seated ?? false}
            onChange={(is) => set('Seated', [...at, 'seated'], is)}
          />
        )}
        {person && (
          <>
            <Choice
              name="Skin, for the proof"
              value={person.skin ?? 'medium'}
              options={[
                { id: 'pale', label: 'Pale' },
                { id: 'medium', label: 'In between' },
                { id: 'dark', label: 'Dark' },
              ]}
              onChange={(to) => set('Skin', [...at, 'skin'], to)}
            />
            <Choice
              name="Clothes, for the proof"
              value={person.clothes ?? 'middling'}
              options={[
                { id: 'pale', label: 'White or nearly' },
                { id: 'middling', label: 'In between' },
                { id: 'dark', label: 'Black or nearly' },
              ]}
              onChange={(to) => set('Clothes', [...at, 'clothes'], to)}
            />
          </>
        )}
        {person && (
          <TickBox
            name="Wears spectacles"
            value={Boolean(person.spectacles)}
            onChange={(is) => set('Spectacles', [...at, 'spectacles'], is ? { tilt_deg: 8 } : undefined)}
          />
        )}
        {person?.spectacles && <Field of="Spectacles.tilt_deg" at={[...at, 'spectacles', 'tilt_deg']} />}
        {pane && (
          <>
            <Choice
              name="It is of"
              value={pane.glazing ?? 'single'}
              options={[
                { id: 'single', label: 'One sheet of glass' },
                { id: 'double', label: 'Double glazing' },
                { id: 'mirror', label: 'A mirror' },
              ]}
              onChange={(to) => set('Glass', [...at, 'glazing'], to)}
            />
            <TickBox
              name="Can be turned, like a door"
              value={pane.turns ?? false}
              onChange={(is) => set('Turns', [...at, 'turns'], is)}
            />
          </>
        )}
        {shape &&
          Object.keys(shape[1]).map((field) => (
            <Field
              key={field}
              of={`ProductShape.${shape[0]}.${field}` as FieldName}
              at={[...at, 'shape', shape[0], field]}
            />
          ))}
        {product && (
          <>
            <Choice
              name="Shape"
              value={shape?.[0] ?? 'box'}
              options={[
                { id: 'box', label: 'A box' },
                { id: 'cylinder', label: 'Upright and round' },
                { id: 'ball', label: 'A ball' },
              ]}
              onChange={(to) => set('Shape', [...at, 'shape'], shapes[to as keyof typeof shapes])}
            />
            <Choice
              name="Gives light back"
              value={product.finish ?? 'matt'}
              options={[
                { id: 'matt', label: 'Matt' },
                { id: 'satin', label: 'Satin' },
                { id: 'mirror', label: 'Like a mirror' },
              ]}
              onChange={(to) => set('Finish', [...at, 'finish'], to)}
            />
          </>
        )}
        {card && (
          <Choice
            name="It is of"
            value={card.kind}
            options={cardKinds}
            onChange={(to) => set('Card', [...at, 'kind'], to)}
          />
        )}
        {wall && (
          <Choice
            name="Its colour"
            value={wall.colour ?? 'white'}
            options={colours}
            onChange={(to) => set('Colour of a wall', [...at, 'colour'], to)}
          />
        )}
      </Grid>
      <Row $below>
        {(person ?? product) && (
          <>
            <Button onPress={() => region('left')}>Its left as a region</Button>
            <Button onPress={() => region('right')}>Its right as a region</Button>
            <Button onPress={() => region('front')}>Its front as a region</Button>
          </>
        )}
        {wall && <Button onPress={() => region('front')}>As a region</Button>}
        {remove}
      </Row>
    </>
  );
}

const shapes = {
  box: { box: { width_m: 0.3, depth_m: 0.2, height_m: 0.3 } },
  cylinder: { cylinder: { diameter_m: 0.1, height_m: 0.3 } },
  ball: { ball: { diameter_m: 0.2 } },
};

const isLine = (hazards: { id: string; kind: string }[] | undefined, id: string) =>
  hazards?.some((one) => one.id === id && one.kind === 'overhead_line') ?? false;
