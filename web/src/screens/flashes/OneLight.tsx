import { memo, Suspense, useState } from 'react';
import styled from 'styled-components';
import type { Light } from '../../api/client';
import { begin, type FieldName } from '../../api/fields';
import { useStart } from '../../api/start';
import { Told } from '../../instruments/Told';
import { Field } from '../../session/fields/Field';
import { useLivePlan, useSetup } from '../../session/job';
import { type Kind, useOptions } from '../../session/kit';
import type { Path } from '../../session/machine/change';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { lazily } from '../../ui/lazily';
import { Facts } from '../../ui/Facts';
import { Grid, Row } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { TickBox, Ticks } from '../../ui/Ticks';
import { space } from '../../ui/tokens';
import { KitUndo } from '../kit/KitUndo';
import { LightOnSet } from '../set/LightOnSet';
import { Reaches } from './Reaches';

const ThingSheet = lazily(() => import('../kit/ThingSheet'));

const none = 'nothing-on-it';
type WishKind = 'key' | 'fill' | 'rim' | 'place';

/** The number of each wish. */
const numbers: { [kind: string]: FieldName } = {
  fill: 'LightWish.fill.ratio_stops',
  rim: 'LightWish.rim.over_stops',
  place: 'LightWish.place.stops',
};

const Fields = styled(Grid)`
  margin-bottom: ${space.part}px;
`;
const Below = styled.div`
  margin-bottom: ${space.part}px;
`;

/** One light: what it is there for, what it is, where it stands. */
export const OneLight = memo(function OneLight({ light }: { light: Light }) {
  const { setup, kit, set, ask } = useSetup();
  const [editing, setEditing] = useState<Kind>();
  const card = useLivePlan((plan) => plan.dial_card.lights.find((one) => one.light_id === light.id));
  // On the set its softness is told with where it stands.
  const facts = (card?.facts ?? []).filter((fact) => !setup.set || fact.code !== 'softness');
  const flash = kit.flashes.find((one) => one.id === light.flash_id);
  const modifier = kit.modifiers.find((one) => one.id === light.modifier_id);
  const units = useOptions(kit, 'flashes');
  const modifiers = useOptions(kit, 'modifiers');
  const gels = useOptions(kit, 'gels');
  const stands = useOptions(kit, 'stands');
  const continuous = card?.continuous ?? false;
  const at: Path = ['lights', { id: light.id }];
  const edit = (what: string, field: string, to: unknown) => set(`${light.id}: ${what}`, [...at, field], to);
  const free = (field: 'distance_m' | 'power_stops', what: string) =>
    light[field] === null || light[field] === undefined
      ? undefined
      : { name: 'leave to Tolva', run: () => edit(`${what} left to Tolva`, field, undefined) };
  const wish = light.wish ?? 'key';
  const kind = (typeof wish === 'string' ? wish : Object.keys(wish)[0]) as WishKind;
  const number = numbers[kind];
  const lit = setup.regions.find((region) => region.role === 'lit_side');
  return (
    <>
      <Fields $min={220}>
        <Choice
          name="It is there as"
          value={kind}
          options={[
            { id: 'key', label: 'The key' },
            { id: 'fill', label: 'A fill' },
            { id: 'rim', label: 'A rim' },
            { id: 'place', label: 'A light on its own region' },
          ]}
          onChange={(to) =>
            ask(`${light.id}: what it is there for`, { wish: { light_id: light.id, kind: to } }, `lights/${light.id}`)
          }
        />
        {kind !== 'key' && (
          <Choice
            name="Aimed at"
            value={light.aimed_at ?? lit?.id ?? ''}
            options={setup.regions.map((region) => ({ id: region.id, label: region.name }))}
            onChange={(to) =>
              setup.set
                ? ask(
                    `${light.id}: aimed at`,
                    { set: { aim: { light_id: light.id, at: { region: to } } } },
                    `lights/${light.id}`,
                  )
                : edit('aimed at', 'aimed_at', to)
            }
          />
        )}
        {number && <Field of={number} at={[...at, 'wish', kind, number.split('.').at(-1) ?? '']} />}
        <div>
          <Choice
            name="Unit"
            value={light.flash_id}
            options={units}
            onChange={(to) =>
              ask(`${light.id}: unit`, { unit: { light_id: light.id, flash_id: to } }, `lights/${light.id}`)
            }
          />
          <Button kind="bare" onPress={() => setEditing('flashes')}>
            Edit this unit
          </Button>
        </div>
        <Field of="Light.units" at={[...at, 'units']} />
        <div>
          <Choice
            name="Modifier"
            value={light.modifier_id ?? none}
            options={[{ id: none, label: 'None, bare head' }, ...modifiers]}
            onChange={(to) => edit('modifier', 'modifier_id', to === none ? null : to)}
          />
          {modifier && (
            <Button kind="bare" onPress={() => setEditing('modifiers')}>
              Edit this modifier
            </Button>
          )}
        </div>
        {!continuous && (
          <Segments
            name="Control"
            value={light.control ?? 'manual'}
            options={[
              { id: 'manual', label: 'Manual' },
              { id: 'ttl', label: 'Automatic' },
            ]}
            onChange={(to) => edit('flash control', 'control', to)}
          />
        )}
        <Field
          of="Light.distance_m"
          at={[...at, 'distance_m']}
          placeholder={card?.distance ? `${card.distance}, by Tolva` : 'left to Tolva'}
          action={free('distance_m', 'distance')}
        />
        <Field
          of="Light.power_stops"
          at={[...at, 'power_stops']}
          placeholder={continuous ? 'full' : 'left to Tolva'}
          action={free('power_stops', 'power')}
        />
        {flash && 'guide_number_zoom' in flash.output && (
          <Field of="Light.zoom_mm" at={[...at, 'zoom_mm']} placeholder="its widest" />
        )}
        <Field of="Light.feather_deg" at={[...at, 'feather_deg']} />
        <Choice
          name="It stands on"
          value={light.on_camera ? 'camera' : (light.stand_id ?? none)}
          options={[{ id: none, label: 'Held, or not said' }, { id: 'camera', label: 'The camera' }, ...stands]}
          onChange={(to) =>
            set(`${light.id}: stand`, at, {
              ...light,
              on_camera: to === 'camera',
              stand_id: to === none || to === 'camera' ? null : to,
            })
          }
        />
      </Fields>
      <Told about={`lights/${light.id}`} />
      <KitUndo />
      {setup.set ? <LightOnSet light={light} /> : <Bounced light={light} />}
      {gels.length > 0 && (
        <Below>
          <Ticks
            name="Gels on it"
            value={light.gel_ids ?? []}
            options={gels}
            onChange={(to) => edit('gels', 'gel_ids', to)}
          />
        </Below>
      )}
      <Reaches light={light} />
      {facts.length > 0 && <Facts name={`About ${light.id}`} facts={facts} />}
      <Row $below>
        <Button kind="bare" onPress={() => set('Light removed', at, undefined)}>
          Remove this light
        </Button>
      </Row>
      <Suspense>
        {editing === 'flashes' && (
          <ThingSheet
            kind="flashes"
            thing={flash}
            onClose={() => setEditing(undefined)}
            onAdded={(to) => edit('unit', 'flash_id', to)}
          />
        )}
        {editing === 'modifiers' && (
          <ThingSheet
            kind="modifiers"
            thing={modifier}
            onClose={() => setEditing(undefined)}
            onAdded={(to) => edit('modifier', 'modifier_id', to)}
          />
        )}
      </Suspense>
    </>
  );
});

/** Turned to a ceiling or wall. */
function Bounced({ light }: { light: Light }) {
  const { set } = useSetup();
  const start = useStart();
  const { bounce } = light;
  const at: Path = ['lights', { id: light.id }, 'bounce'];
  const edit = (field: string, to: unknown) => set(`${light.id}: bounce`, [...at, field], to);
  return (
    <Fields $min={220}>
      <TickBox
        name="Bounced off a ceiling or wall"
        value={bounce !== null && bounce !== undefined}
        onChange={(is) => set(`${light.id}: bounce`, at, is ? begin('Light', 'bounce') : null)}
      />
      {bounce && (
        <>
          <Segments
            name="Off"
            value={bounce.off}
            options={[
              { id: 'ceiling', label: 'Ceiling' },
              { id: 'wall', label: 'Wall beside' },
              { id: 'back_wall', label: 'Wall behind' },
            ]}
            onChange={(to) => edit('off', to)}
          />
          <Field of="Bounce.away_m" at={[...at, 'away_m']} />
          <Choice
            name="Its colour"
            value={bounce.colour ?? 'white'}
            options={(start?.surface_colours ?? []).map((one) => ({ id: one.colour, label: one.name }))}
            onChange={(to) => edit('colour', to)}
          />
          <Field of="Bounce.reflectance" at={[...at, 'reflectance']} />
        </>
      )}
    </Fields>
  );
}
