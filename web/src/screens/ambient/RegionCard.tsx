import { useMutation } from '@tanstack/react-query';
import { Gauge, Trash2 } from 'lucide-react';
import { memo, useState } from 'react';
import styled from 'styled-components';
import { answered, api, type MeteringMethod, type Region } from '../../api/client';
import { useStart } from '../../api/start';
import { Told } from '../../instruments/Told';
import { Field } from '../../session/fields/Field';
import { Words } from '../../session/fields/Words';
import { useLivePlan, usePlan, useSetup } from '../../session/job';
import { useOptions } from '../../session/kit';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Wrong } from '../../ui/field';
import { Card } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { space, type } from '../../ui/tokens';
import { PointingDrawing } from './Pointing';

const Earlier = styled.ul`
  font-size: ${type.note}px;
  color: var(--quiet);
  border-top: 1px solid var(--line);
  padding-top: ${space.near}px;
`;
const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.near}px;
`;

const where = {
  background: 'What lies behind the subject.',
  lit_side: 'The side the ambient lights more.',
  shadow_side: 'The side the ambient lights less.',
  part: 'Another part of the subject; lit as the lit side is until it is read.',
};
const example = '12.6, 8000 lx, 1/250 f/8';

/** What a region reads, as the plan under the pointer has it. */
function useLane(id: string) {
  return useLivePlan((plan) => plan.rail.find((one) => one.region_id === id));
}

/** One region: what it reads, how and when that was taken, and how to take it again. */
export const RegionCard = memo(function RegionCard({ region }: { region: Region }) {
  const { setup, kit, set, ask } = useSetup();
  const start = useStart();
  const meters = useOptions(kit, 'meters');
  const [again, setAgain] = useState(false);
  const lane = useLane(region.id);
  // What stands in the field is what was set: under the pointer it is what is being typed.
  const stands = usePlan()?.rail.find((one) => one.region_id === region.id)?.reading ?? '';
  const sun = useLivePlan((plan) => plan.sun_report?.sun_shows) ?? false;
  const readings = region.ambient.readings ?? [];
  const last = readings.at(-1);
  const at = ['regions', { id: region.id }];
  const lastAt = [...at, 'ambient', 'readings', readings.length - 1];
  const reading = last?.reading;
  const method = last?.method ?? 'incident_dome';
  const offer = start?.metering_methods.find((one) => one.method === method) ?? start?.metering_methods[0];
  const instruction = offer?.instructions.find((one) => one.part === region.role && one.sun_shows === sun);
  const unsaid = { id: 'unsaid' as MeteringMethod, label: 'Not said' };
  const typed = (text: string, once = false) => ({ reading: { region_id: region.id, text, again: once } });

  const simulated = useMutation({
    mutationFn: () => answered(api.POST('/api/v1/meter', { body: { setup, kit, region_id: region.id } })),
    onSuccess: (taken) => {
      set(`Reading of ${region.name}`, [...at, 'ambient', 'readings'], [...readings, taken]);
      setAgain(false);
    },
  });

  return (
    <Card>
      <h3>
        {region.name}
        <small>{lane?.ev}</small>
      </h3>
      <p>
        {where[region.role]} {lane && `${lane.source[0]?.toUpperCase()}${lane.source.slice(1)}.`}
      </p>
      <Field
        of="EvReading.ev100"
        at={[...lastAt, 'reading', 'ev', 'ev100']}
        says={`Reading of ${region.name}`}
        shown={stands}
        placeholder={example}
        typed={typed}
        still={!(reading && 'ev' in reading)}
      />
      {last && (
        <>
          <Choice
            name="Taken how"
            value={method}
            options={[
              ...(method === 'unsaid' ? [unsaid] : []),
              ...(start?.metering_methods ?? []).map((one) => ({ id: one.method, label: one.name })),
            ]}
            onChange={(to) =>
              ask(
                `How ${region.name} was read`,
                { method: { region_id: region.id, method: to } },
                `reading/${region.id}`,
              )
            }
          />
          {kit.meters.length > 0 && (
            <Choice
              name="With which meter"
              value={last.meter_id ?? ''}
              options={[{ id: '', label: 'Not said' }, ...meters]}
              onChange={(to) => set(`Meter of ${region.name}`, [...lastAt, 'meter_id'], to || undefined)}
            />
          )}
          {reading && 'lux' in reading && (
            <Segments
              name="Read with"
              value={reading.lux.receptor ?? 'flat'}
              options={[
                { id: 'flat', label: 'Flat, luxmeter' },
                { id: 'dome', label: 'Dome' },
              ]}
              onChange={(to) => set(`Receptor of ${region.name}`, [...lastAt, 'reading', 'lux', 'receptor'], to)}
            />
          )}
          {reading && 'camera' in reading && (
            <Field of="CameraReading.compensation_stops" at={[...lastAt, 'reading', 'camera', 'compensation_stops']} />
          )}
          <Field of="MeterReading.surface_stops" at={[...lastAt, 'surface_stops']} />
        </>
      )}
      {instruction && (
        <>
          <PointingDrawing pointing={instruction.pointing} />
          <p>{instruction.says}</p>
        </>
      )}
      {again && (
        <Field
          of="EvReading.ev100"
          name={setup.scene ? `New reading, ${setup.scene.at.time}` : 'New reading'}
          at={[...at, 'ambient', 'again']}
          says={`Reading of ${region.name}`}
          shown=""
          placeholder={example}
          typed={(text) => typed(text, true)}
          still
        />
      )}
      <Buttons>
        {last && (
          <Button onPress={() => setAgain(!again)} aria-expanded={again}>
            Read again
          </Button>
        )}
        <Button onPress={() => simulated.mutate()} aria-label={`Simulated meter: read ${region.name}`}>
          <Gauge size={16} aria-hidden /> Simulated meter
        </Button>
        {last && (
          <Button
            kind="bare"
            aria-label={`Delete the last reading of ${region.name}`}
            onPress={() =>
              set(`Reading of ${region.name} deleted`, [...at, 'ambient', 'readings'], readings.slice(0, -1))
            }
          >
            <Trash2 size={16} aria-hidden />
          </Button>
        )}
      </Buttons>
      <Told about={`reading/${region.id}`} />
      {simulated.error && <Wrong role="alert">{simulated.error.message}</Wrong>}
      {last && (
        <Words
          name="Taken where"
          at={[...lastAt, 'place']}
          says={`Where ${region.name} was read`}
          placeholder="At the face"
        />
      )}
      {lane && lane.earlier.length > 0 && (
        <Earlier aria-label={`Earlier readings of ${region.name}`}>
          {lane.earlier.map((one, index) => (
            <li key={index}>{one}</li>
          ))}
        </Earlier>
      )}
      {region.role === 'part' && (
        <Button
          kind="bare"
          onPress={() => ask('Region removed', { remove_region: { region_id: region.id } }, 'regions')}
        >
          Remove this region
        </Button>
      )}
      <Words
        name="Called"
        at={[...at, 'name']}
        says="Name of a region"
        good={(text) => text.trim() !== ''}
        wrong="A region needs a name."
      />
    </Card>
  );
});
