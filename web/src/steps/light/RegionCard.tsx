import { Gauge, Trash2 } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import {
  answered,
  api,
  ApiProblem,
  type MeteringMethod,
  type Plan,
  type Region,
  type MeterReading,
  type Understood,
} from '../../api/client';
import { useStart } from '../../app/start';
import { useJob, useSetup } from '../../jobs/JobContext';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Wrong } from '../../ui/field';
import { Card } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { TextField } from '../../ui/TextField';
import { TypedField } from '../../ui/TypedField';
import { PointingDrawing } from './Pointing';
import { defaultOf, rangeOf } from '../../api/ranges';

const Earlier = styled.ul`
  font-size: 13px;
  color: var(--quiet);
  border-top: 1px solid var(--line);
  padding-top: 6px;
`;
const Buttons = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`;

const where = {
  background: 'What lies behind the subject.',
  lit_side: 'The side the ambient lights more.',
  shadow_side: 'The side the ambient lights less.',
  part: 'Another part of the subject; lit as the lit side is until it is read.',
};

const readingOf = (understood: Understood): MeterReading['reading'] =>
  understood.reading ?? { ev: { ev100: Math.round(understood.value * 100) / 100 } };

/** One region: what it reads, how and when that was taken, and how to take it again. */
export function RegionCard({ region, plan }: { region: Region; plan: Plan }) {
  const { id } = useJob();
  const { setup, kit, change } = useSetup();
  const start = useStart();
  const [again, setAgain] = useState(false);
  const [failed, setFailed] = useState<string>();
  const lane = plan.rail.find((one) => one.region_id === region.id);
  const kept = `${id}/${setup.id}/${region.id}`;
  const readings = region.ambient.readings ?? [];
  const last = readings.at(-1);
  const at = setup.scene?.at;

  const edit = (what: string, to: (readings: MeterReading[]) => MeterReading[]) =>
    change(what, (one) => ({
      ...one,
      regions: one.regions.map((each) =>
        each.id === region.id
          ? { ...each, ambient: { ...each.ambient, readings: to(each.ambient.readings ?? []) } }
          : each,
      ),
    }));
  const editLast = (what: string, part: Partial<MeterReading>) =>
    edit(what, (all) => all.map((one, index) => (index === all.length - 1 ? { ...one, ...part } : one)));
  const add = (taken: MeterReading) => {
    edit(`Reading of ${region.name}`, (all) => [...all, taken].slice(-60));
    setAgain(false);
  };
  const fresh = (understood: Understood): MeterReading => ({
    reading: readingOf(understood),
    method: last?.method ?? 'incident_dome',
    surface_stops: last?.surface_stops ?? defaultOf('MeterReading.surface_stops'),
    ...(at ? { at } : {}),
    place: last?.place ?? '',
  });
  const simulate = async () => {
    try {
      add(await answered(api.POST('/api/v1/meter', { body: { setup, kit, region_id: region.id } })));
      setFailed(undefined);
    } catch (failure) {
      setFailed(failure instanceof ApiProblem ? failure.message : 'The meter does not answer.');
    }
  };

  const method = last?.method ?? 'incident_dome';
  const offer = start?.metering_methods.find((one) => one.method === method) ?? start?.metering_methods[0];
  const instruction = plan.sun_report?.sun_shows ? offer?.in_sun : offer?.in_shade;
  const reading = last?.reading;
  const lux = reading && 'lux' in reading ? reading.lux : undefined;
  const camera = reading && 'camera' in reading ? reading.camera : undefined;
  const ev = reading && 'ev' in reading ? reading.ev : undefined;
  const unsaid = { id: 'unsaid' as MeteringMethod, label: 'Not said' };

  return (
    <Card>
      <h3>
        {region.name}
        <small>{lane?.ev}</small>
      </h3>
      <p>
        {where[region.role]} {lane && `${lane.source[0]?.toUpperCase()}${lane.source.slice(1)}.`}
      </p>
      <TypedField
        name="Reading"
        as="light"
        value={ev?.ev100}
        shown={lane?.reading ?? ''}
        placeholder="12.6, 8000 lx, 1/250 f/8"
        keptAs={`${kept}/reading`}
        {...rangeOf('EvReading.ev100')}
        onValue={(understood) =>
          last
            ? editLast(`Reading of ${region.name}`, { reading: readingOf(understood), simulated: false })
            : add(fresh(understood))
        }
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
              editLast(`How ${region.name} was read`, {
                method: to,
                surface_stops: start?.metering_methods.find((one) => one.method === to)?.surface_stops ?? 0,
              })
            }
          />
          {lux && (
            <Segments
              name="Read with"
              value={lux.receptor ?? 'flat'}
              options={[
                { id: 'flat', label: 'Flat, luxmeter' },
                { id: 'dome', label: 'Dome' },
              ]}
              onChange={(receptor) =>
                editLast(`Receptor of ${region.name}`, { reading: { lux: { ...lux, receptor } } })
              }
            />
          )}
          {camera && (
            <TypedField
              name="Compensation that stood on it, stops"
              as="stops"
              value={camera.compensation_stops ?? defaultOf('CameraReading.compensation_stops')}
              keptAs={`${kept}/compensation`}
              {...rangeOf('CameraReading.compensation_stops')}
              onValue={({ value }) =>
                editLast(`Compensation of ${region.name}`, {
                  reading: { camera: { ...camera, compensation_stops: value } },
                })
              }
            />
          )}
          <TypedField
            name="Surface over grey, stops"
            as="stops"
            value={last.surface_stops ?? defaultOf('MeterReading.surface_stops')}
            keptAs={`${kept}/surface`}
            {...rangeOf('MeterReading.surface_stops')}
            onValue={({ value }) => editLast(`Surface of ${region.name}`, { surface_stops: value })}
          />
        </>
      )}
      {instruction && (
        <>
          <PointingDrawing pointing={instruction.pointing} />
          <p>{instruction.says}</p>
        </>
      )}
      {again && (
        <TypedField
          name={at ? `New reading, ${at.time}` : 'New reading'}
          as="light"
          value={undefined}
          shown=""
          placeholder="12.6, 8000 lx, 1/250 f/8"
          keptAs={`${kept}/again`}
          {...rangeOf('EvReading.ev100')}
          // Half a reading is one too ("1" of "12.6"): it counts when it is finished.
          whenFinished
          onValue={(understood) => add(fresh(understood))}
        />
      )}
      <Buttons>
        {last && (
          <Button onPress={() => setAgain(!again)} aria-expanded={again}>
            Read again
          </Button>
        )}
        <Button onPress={() => void simulate()} aria-label={`Simulated meter: read ${region.name}`}>
          <Gauge size={16} aria-hidden /> Simulated meter
        </Button>
        {last && (
          <Button
            kind="bare"
            aria-label={`Delete the last reading of ${region.name}`}
            onPress={() => edit(`Reading of ${region.name} deleted`, (all) => all.slice(0, -1))}
          >
            <Trash2 size={16} aria-hidden />
          </Button>
        )}
      </Buttons>
      {failed && <Wrong role="alert">{failed}</Wrong>}
      {last && (
        <TextField
          name="Taken where"
          value={last.place ?? ''}
          placeholder="At the face"
          onChange={(place) => editLast(`Where ${region.name} was read`, { place })}
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
          onPress={() =>
            change('Region removed', (one) => ({
              ...one,
              regions: one.regions.filter((each) => each.id !== region.id),
              // What was aimed there, or reached it, has nowhere to go.
              lights: one.lights
                .filter((light) => light.aimed_at !== region.id)
                .map((light) => ({
                  ...light,
                  spill: (light.spill ?? []).filter((reach) => reach.region_id !== region.id),
                })),
            }))
          }
        >
          Remove this region
        </Button>
      )}
      <TextField
        name="Called"
        value={region.name}
        onChange={(name) =>
          name.trim() !== '' &&
          change('Name of a region', (one) => ({
            ...one,
            regions: one.regions.map((each) => (each.id === region.id ? { ...each, name } : each)),
          }))
        }
      />
    </Card>
  );
}
