import styled from 'styled-components';
import type { Plan, Region } from '../../api/client';
import { useJob, useSetup } from '../../jobs/JobContext';
import { Grid, Lead, Panel, Title } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { TypedField } from '../../ui/TypedField';
import { TextField } from '../../ui/TextField';

const Card = styled.div`
  border: 1px solid var(--line);
  border-radius: 9px;
  padding: 11px 13px;
  display: flex;
  flex-direction: column;
  gap: 10px;
  h3 {
    font-size: 15px;
    display: flex;
    justify-content: space-between;
    gap: 8px;
    align-items: baseline;
  }
  h3 small {
    font-weight: 450;
    color: var(--quiet);
    font-size: 13px;
  }
`;

const where = {
  behind: 'What lies behind the subject. Point a spot or the camera at it.',
  lit_side: 'The side the ambient lights more. Hold the meter at the face.',
  shadow_side: 'The side it lights less. Keep out of your own shadow.',
};

/** Ambient first, flash off: a reading for each region. */
export function LightStep({ plan }: { plan: Plan }) {
  const { setup } = useSetup();
  return (
    <Panel>
      <Title>Light that is there</Title>
      <Lead>
        Read it with the flash off: an EV (12.6), lux (8000 lx), or what the meter or camera said (1/250, f/8, ISO 100).
        Read off a surface? Say how far it lies over mid grey: 0 for a grey card or an incident meter, about +1 for pale
        skin, +2⅓ for white cloth.
      </Lead>
      <Grid $min={230}>
        {setup.regions.map((region) => (
          <RegionCard key={region.id} region={region} plan={plan} />
        ))}
      </Grid>
    </Panel>
  );
}

function RegionCard({ region, plan }: { region: Region; plan: Plan }) {
  const { id } = useJob();
  const { setup, change } = useSetup();
  const lane = plan.rail.find((one) => one.region_id === region.id);
  const kept = `${id}/${setup.id}/${region.id}`;
  const edit = (what: string, to: (region: Region) => Region) =>
    change(what, (one) => ({ ...one, regions: one.regions.map((each) => (each.id === region.id ? to(each) : each)) }));
  const reading = region.ambient.reading;
  const lux = 'lux' in reading ? reading.lux : undefined;
  return (
    <Card>
      <h3>
        {region.name}
        <small>
          {lane?.ev}
          {region.ambient.estimated ? ', estimate' : ''}
        </small>
      </h3>
      <TypedField
        name="Reading"
        as="light"
        value={'ev' in reading ? reading.ev.ev100 : undefined}
        shown={lane?.reading ?? ''}
        keptAs={`${kept}/reading`}
        step={'ev' in reading ? 1 / 3 : undefined}
        least={-10}
        most={24}
        hint={region.ambient.estimated ? 'Nobody has read it yet: a guess.' : undefined}
        onValue={(understood) =>
          edit(`Reading of ${region.name}`, (one) => ({
            ...one,
            ambient: {
              ...one.ambient,
              estimated: false,
              reading: understood.reading ?? { ev: { ev100: Math.round(understood.value * 100) / 100 } },
            },
          }))
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
            edit(`Receptor of ${region.name}`, (one) => ({
              ...one,
              ambient: { ...one.ambient, reading: { lux: { ...lux, receptor } } },
            }))
          }
        />
      )}
      <TypedField
        name="Surface over grey, stops"
        as="stops"
        value={region.ambient.surface_stops ?? 0}
        keptAs={`${kept}/surface`}
        step={1 / 3}
        least={-6}
        most={4}
        allowed="from −6 to +4 stops"
        onValue={(understood) =>
          edit(`Surface of ${region.name}`, (one) => ({
            ...one,
            ambient: { ...one.ambient, surface_stops: understood.value },
          }))
        }
      />
      <TextField
        name="Called"
        value={region.name}
        onChange={(name) => name.trim() !== '' && edit('Name of a region', (one) => ({ ...one, name }))}
      />
      <small style={{ color: 'var(--quiet)', fontSize: 13 }}>{where[region.role]}</small>
    </Card>
  );
}
