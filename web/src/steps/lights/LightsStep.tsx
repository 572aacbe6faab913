import { useState } from 'react';
import type { Light, Plan, Setup } from '../../api/client';
import { useStart } from '../../app/start';
import { FlashForm } from '../../kit/FlashForm';
import { ModifierForm } from '../../kit/ModifierForm';
import { useJob, useSetup } from '../../jobs/JobContext';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Grid, Lead, Panel, Row, Title } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { TypedField } from '../../ui/TypedField';

const bare = 'bare-head-without-modifier';

/** Which unit, which modifier, how far, what power. */
export function LightsStep({ plan }: { plan: Plan }) {
  const { setup, kit, change } = useSetup();
  const start = useStart();
  const light = setup.lights[0];
  if (!light) {
    const offered = start?.new_job.setups[0]?.lights[0];
    const flash = kit.flashes[0];
    return (
      <Panel>
        <Title>Lights</Title>
        <Lead>There is no flash in this setup. Ambient only and silhouette need none.</Lead>
        {flash && offered ? (
          <Button
            kind="strong"
            onPress={() =>
              change('Flash added', (one) => ({
                ...one,
                lights: [{ ...offered, flash_id: flash.id, modifier_id: kit.modifiers[0]?.id ?? null, reaches: [] }],
              }))
            }
          >
            Add a flash
          </Button>
        ) : (
          <p>The kit of this job has no flash.</p>
        )}
      </Panel>
    );
  }
  return <OneLight light={light} plan={plan} />;
}

function OneLight({ light, plan }: { light: Light; plan: Plan }) {
  const { id } = useJob();
  const { setup, kit, change } = useSetup();
  const [editing, setEditing] = useState<'flash' | 'modifier'>();
  const card = plan.dial_card.lights[0];
  const flash = kit.flashes.find((one) => one.id === light.flash_id);
  const modifier = kit.modifiers.find((one) => one.id === light.modifier_id);
  const kept = `${id}/${setup.id}/${light.id}`;
  const edit = (what: string, to: (light: Light) => Light) =>
    change(what, (one: Setup) => ({
      ...one,
      lights: one.lights.map((each) => (each.id === light.id ? to(each) : each)),
    }));
  const free = (field: 'distance_m' | 'power_stops', what: string) =>
    light[field] === null || light[field] === undefined
      ? undefined
      : { name: 'leave to Tolva', run: () => edit(`${what} left to Tolva`, (one) => ({ ...one, [field]: undefined })) };
  return (
    <Panel>
      <Row style={{ justifyContent: 'space-between', alignItems: 'flex-start' }}>
        <div>
          <Title>Lights</Title>
          <Lead>Flash {light.id}, aimed at the lit side.</Lead>
        </div>
        <Button kind="bare" onPress={() => change('Flash removed', (one) => ({ ...one, lights: [] }))}>
          Remove this flash
        </Button>
      </Row>
      <Grid $min={240} style={{ marginBottom: 14 }}>
        <div>
          <Choice
            name="Unit"
            value={light.flash_id}
            options={kit.flashes.map((one) => ({ id: one.id, label: one.name }))}
            onChange={(flash_id) => edit('Unit', (one) => ({ ...one, flash_id, power_stops: undefined }))}
          />
          <Button kind="bare" onPress={() => setEditing('flash')}>
            Edit this unit
          </Button>
        </div>
        <div>
          <Choice
            name="Modifier"
            value={light.modifier_id ?? bare}
            options={[
              { id: bare, label: 'None, bare head' },
              ...kit.modifiers.map((one) => ({ id: one.id, label: one.name })),
            ]}
            onChange={(chosen) => edit('Modifier', (one) => ({ ...one, modifier_id: chosen === bare ? null : chosen }))}
          />
          {modifier && (
            <Button kind="bare" onPress={() => setEditing('modifier')}>
              Edit this modifier
            </Button>
          )}
        </div>
        <Segments
          name="Control"
          value={light.control ?? 'manual'}
          options={[
            { id: 'manual', label: 'Manual' },
            { id: 'automatic', label: 'Automatic' },
          ]}
          onChange={(control) => edit('Flash control', (one) => ({ ...one, control }))}
        />
      </Grid>
      <Grid>
        <div>
          <TypedField
            name="Distance to the subject"
            as="length"
            value={light.distance_m}
            placeholder={card?.distance ? `${card.distance}, by Tolva` : 'left to Tolva'}
            keptAs={`${kept}/distance`}
            step={light.distance_m ? 0.05 : undefined}
            least={0.1}
            most={50}
            allowed="from 0.1 to 50 m"
            onValue={(understood) =>
              edit('Distance', (one) => ({ ...one, distance_m: Math.round(understood.value * 1000) / 1000 }))
            }
            action={free('distance_m', 'Distance')}
          />
        </div>
        <div>
          <TypedField
            name="Power, fixed, stops under full"
            as="stops"
            value={light.power_stops}
            placeholder="left to Tolva"
            keptAs={`${kept}/power`}
            step={light.power_stops !== null && light.power_stops !== undefined ? 1 / 3 : undefined}
            least={flash?.power.lowest_stops ?? -12}
            most={0}
            hint="0 is full, −1 half, −2 a quarter."
            onValue={(understood) => edit('Power', (one) => ({ ...one, power_stops: understood.value }))}
            action={free('power_stops', 'Power')}
          />
        </div>
        {setup.regions
          .filter((region) => region.role !== 'lit_side')
          .map((region) => {
            const reach = light.reaches?.find((one) => one.region_id === region.id);
            const put = (stops: number | undefined) =>
              edit(`Flash on ${region.name}`, (one) => ({
                ...one,
                reaches: [
                  ...(one.reaches ?? []).filter((each) => each.region_id !== region.id),
                  ...(stops === undefined ? [] : [{ region_id: region.id, stops }]),
                ],
              }));
            return (
              <div key={region.id}>
                <TypedField
                  name={`On ${region.name.toLowerCase()}, stops`}
                  as="stops"
                  value={reach?.stops}
                  placeholder="not at all"
                  keptAs={`${kept}/reach/${region.id}`}
                  step={reach ? 1 / 3 : undefined}
                  least={-12}
                  most={4}
                  allowed="from −12 to +4 stops"
                  hint="Against the lit side: an estimate until measured."
                  onValue={(understood) => put(understood.value)}
                  action={reach && { name: 'not at all', run: () => put(undefined) }}
                />
              </div>
            );
          })}
      </Grid>
      {flash && <FlashForm flash={flash} open={editing === 'flash'} onClose={() => setEditing(undefined)} />}
      {modifier && (
        <ModifierForm modifier={modifier} open={editing === 'modifier'} onClose={() => setEditing(undefined)} />
      )}
    </Panel>
  );
}
