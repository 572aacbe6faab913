import { useState } from 'react';
import type { Light, LightWish, Plan, Setup } from '../../api/client';
import { type Kind, useOptions } from '../../kit/KitContext';
import { ThingSheet } from '../../kit/ThingSheet';
import { useStart } from '../../app/start';
import { useJob, useSetup } from '../../jobs/JobContext';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Facts } from '../../ui/Facts';
import { Grid, Row } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { TickBox, Ticks } from '../../ui/Ticks';
import { TypedField } from '../../ui/TypedField';
import { Reaches } from './Reaches';
import { defaultOf, rangeOf, type Ranged } from '../../api/ranges';

const none = 'nothing-on-it';

type WishKind = 'key' | 'fill' | 'rim' | 'place';
const begun: Record<WishKind, LightWish> = {
  key: 'key',
  fill: { fill: { ratio_stops: defaultOf('LightWish.fill.ratio_stops') } },
  rim: { rim: { over_stops: defaultOf('LightWish.rim.over_stops') } },
  place: { place: { stops: defaultOf('LightWish.place.stops') } },
};

/** One light: what it is there for, what it is, where it stands. */
export function OneLight({ light, plan }: { light: Light; plan: Plan }) {
  const { id } = useJob();
  const { setup, kit, change } = useSetup();
  const [editing, setEditing] = useState<Kind>();
  const card = plan.dial_card.lights.find((one) => one.light_id === light.id);
  const flash = kit.flashes.find((one) => one.id === light.flash_id);
  const modifier = kit.modifiers.find((one) => one.id === light.modifier_id);
  const units = useOptions(kit, 'flashes');
  const modifiers = useOptions(kit, 'modifiers');
  const gels = useOptions(kit, 'gels');
  const stands = useOptions(kit, 'stands');
  const kept = `${id}/${setup.id}/${light.id}`;
  const continuous = card?.continuous ?? false;
  const edit = (what: string, to: (light: Light) => Light) =>
    change(`${light.id}: ${what.toLowerCase()}`, (one: Setup) => ({
      ...one,
      lights: one.lights.map((each) => (each.id === light.id ? to(each) : each)),
    }));
  const free = (field: 'distance_m' | 'power_stops', what: string) =>
    light[field] === null || light[field] === undefined
      ? undefined
      : { name: 'leave to Tolva', run: () => edit(`${what} left to Tolva`, (one) => ({ ...one, [field]: undefined })) };
  const wish = light.wish ?? 'key';
  const kind = (typeof wish === 'string' ? wish : Object.keys(wish)[0]) as WishKind;
  const lit = setup.regions.find((region) => region.role === 'lit_side');
  const wished = (name: string, value: number, range: Ranged, to: (value: number) => LightWish) => (
    <TypedField
      name={name}
      as="stops"
      value={value}
      keptAs={`${kept}/wish/${kind}`}
      {...rangeOf(range)}
      onValue={(u) => edit('wish', (one) => ({ ...one, wish: to(u.value) }))}
    />
  );
  const choose = (to: WishKind) => {
    const usual = (of: WishKind) =>
      setup.regions.find((region) => region.role === (of === 'place' ? 'background' : 'shadow_side'))?.id;
    // What was aimed where its kind usually is goes where the new kind usually is.
    const stays = light.aimed_at && light.aimed_at !== lit?.id && (kind === 'key' || light.aimed_at !== usual(kind));
    const aims = to === 'key' ? undefined : stays ? light.aimed_at : usual(to);
    edit('What it is there for', (one) => ({ ...one, wish: begun[to], aimed_at: aims ?? null }));
  };
  return (
    <>
      <Grid $min={220} style={{ marginBottom: 14 }}>
        <Choice
          name="It is there as"
          value={kind}
          options={[
            { id: 'key', label: 'The key' },
            { id: 'fill', label: 'A fill' },
            { id: 'rim', label: 'A rim' },
            { id: 'place', label: 'A light on its own region' },
          ]}
          onChange={choose}
        />
        {kind !== 'key' && (
          <Choice
            name="Aimed at"
            value={light.aimed_at ?? lit?.id ?? ''}
            options={setup.regions.map((region) => ({ id: region.id, label: region.name }))}
            onChange={(aimed_at) => edit('Aimed at', (one) => ({ ...one, aimed_at }))}
          />
        )}
        {typeof wish === 'object' &&
          'fill' in wish &&
          wished('Lit side over it, stops', wish.fill.ratio_stops, 'LightWish.fill.ratio_stops', (ratio_stops) => ({
            fill: { ratio_stops },
          }))}
        {typeof wish === 'object' &&
          'rim' in wish &&
          wished('Over the lit side, stops', wish.rim.over_stops, 'LightWish.rim.over_stops', (over_stops) => ({
            rim: { over_stops },
          }))}
        {typeof wish === 'object' &&
          'place' in wish &&
          wished('Its region at, stops', wish.place.stops, 'LightWish.place.stops', (stops) => ({ place: { stops } }))}
        <div>
          <Choice
            name="Unit"
            value={light.flash_id}
            options={units}
            onChange={(flash_id) => edit('Unit', (one) => ({ ...one, flash_id, power_stops: undefined }))}
          />
          <Button kind="bare" onPress={() => setEditing('flashes')}>
            Edit this unit
          </Button>
        </div>
        <TypedField
          name="Units side by side"
          as="number"
          value={light.units ?? defaultOf('Light.units')}
          keptAs={`${kept}/units`}
          {...rangeOf('Light.units')}
          onValue={(u) => edit('Units', (one) => ({ ...one, units: Math.round(u.value) }))}
        />
        <div>
          <Choice
            name="Modifier"
            value={light.modifier_id ?? none}
            options={[{ id: none, label: 'None, bare head' }, ...modifiers]}
            onChange={(chosen) => edit('Modifier', (one) => ({ ...one, modifier_id: chosen === none ? null : chosen }))}
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
            onChange={(control) => edit('Flash control', (one) => ({ ...one, control }))}
          />
        )}
        <TypedField
          name="Distance to the subject"
          as="length"
          value={light.distance_m}
          placeholder={card?.distance ? `${card.distance}, by Tolva` : 'left to Tolva'}
          keptAs={`${kept}/distance`}
          {...rangeOf('Light.distance_m')}
          hint="From its front surface."
          onValue={(understood) =>
            edit('Distance', (one) => ({ ...one, distance_m: Math.round(understood.value * 1000) / 1000 }))
          }
          action={free('distance_m', 'Distance')}
        />
        <TypedField
          name="Power, fixed, stops under full"
          as="stops"
          value={light.power_stops}
          placeholder={continuous ? 'full' : 'left to Tolva'}
          keptAs={`${kept}/power`}
          {...rangeOf('Light.power_stops')}
          {...(flash ? { least: flash.power.lowest_stops, allowed: undefined } : {})}
          hint="0 is full, −1 half, −2 a quarter."
          onValue={(understood) => edit('Power', (one) => ({ ...one, power_stops: understood.value }))}
          action={free('power_stops', 'Power')}
        />
        {flash && 'guide_number_zoom' in flash.output && (
          <TypedField
            name="Zoom of the head, mm"
            as="number"
            value={light.zoom_mm}
            placeholder="its widest"
            keptAs={`${kept}/zoom`}
            {...rangeOf('Light.zoom_mm')}
            onValue={(u) => edit('Zoom', (one) => ({ ...one, zoom_mm: u.value }))}
          />
        )}
        <TypedField
          name="Turned away, degrees"
          as="number"
          value={light.feather_deg ?? defaultOf('Light.feather_deg')}
          keptAs={`${kept}/turned`}
          {...rangeOf('Light.feather_deg')}
          onValue={(u) => edit('Turned', (one) => ({ ...one, feather_deg: u.value }))}
        />
        <Choice
          name="It stands on"
          value={light.on_camera ? 'camera' : (light.stand_id ?? none)}
          options={[{ id: none, label: 'Held, or not said' }, { id: 'camera', label: 'The camera' }, ...stands]}
          onChange={(to) =>
            edit('Stand', (one) => ({
              ...one,
              on_camera: to === 'camera',
              stand_id: to === none || to === 'camera' ? null : to,
            }))
          }
        />
      </Grid>
      <BounceFields light={light} kept={kept} edit={edit} />
      {gels.length > 0 && (
        <div style={{ marginBottom: 14 }}>
          <Ticks
            name="Gels on it"
            value={light.gel_ids ?? []}
            options={gels}
            onChange={(gel_ids) => edit('Gels', (one) => ({ ...one, gel_ids }))}
          />
        </div>
      )}
      <Reaches light={light} edit={edit} kept={kept} />
      {card && card.facts.length > 0 && <Facts name={`About ${light.id}`} facts={card.facts} />}
      <Row style={{ marginTop: 12 }}>
        <Button
          kind="bare"
          onPress={() =>
            change('Light removed', (one) => ({ ...one, lights: one.lights.filter((each) => each.id !== light.id) }))
          }
        >
          Remove this light
        </Button>
      </Row>
      {editing === 'flashes' && (
        <ThingSheet
          kind="flashes"
          thing={flash}
          onClose={() => setEditing(undefined)}
          onAdded={(flash_id) => edit('Unit', (one) => ({ ...one, flash_id }))}
        />
      )}
      {editing === 'modifiers' && (
        <ThingSheet
          kind="modifiers"
          thing={modifier}
          onClose={() => setEditing(undefined)}
          onAdded={(modifier_id) => edit('Modifier', (one) => ({ ...one, modifier_id }))}
        />
      )}
    </>
  );
}

type BounceProps = { light: Light; kept: string; edit: (what: string, to: (light: Light) => Light) => void };

const begunBounce: NonNullable<Light['bounce']> = {
  off: 'ceiling',
  away_m: defaultOf('Bounce.away_m'),
  reflectance: defaultOf('Bounce.reflectance'),
  colour: 'white',
};

/** Turned to a ceiling or wall. */
function BounceFields({ light, kept, edit }: BounceProps) {
  const bounce = light.bounce;
  const start = useStart();
  return (
    <Grid $min={220} style={{ marginBottom: 14 }}>
      <TickBox
        name="Bounced off a ceiling or wall"
        value={bounce !== null && bounce !== undefined}
        onChange={(is) =>
          edit('Bounce', (one) => ({
            ...one,
            bounce: is ? begunBounce : null,
          }))
        }
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
            onChange={(off) => edit('Bounce', (one) => ({ ...one, bounce: { ...bounce, off } }))}
          />
          <TypedField
            name="From the head to it"
            as="length"
            value={bounce.away_m}
            keptAs={`${kept}/bounce/away`}
            {...rangeOf('Bounce.away_m')}
            onValue={(u) => edit('Bounce', (one) => ({ ...one, bounce: { ...bounce, away_m: u.value } }))}
          />
          <Choice
            name="Its colour"
            value={bounce.colour ?? 'white'}
            options={(start?.surface_colours ?? []).map((one) => ({ id: one.colour, label: one.name }))}
            onChange={(colour) => edit('Bounce', (one) => ({ ...one, bounce: { ...bounce, colour } }))}
          />
          <TypedField
            name="It gives back, as a part"
            as="number"
            value={bounce.reflectance}
            keptAs={`${kept}/bounce/reflectance`}
            {...rangeOf('Bounce.reflectance')}
            hint="0.8 white paint, 0.5 pale wood, 0.2 dark."
            onValue={(u) => edit('Bounce', (one) => ({ ...one, bounce: { ...bounce, reflectance: u.value } }))}
          />
        </>
      )}
    </Grid>
  );
}
