import { useState } from 'react';
import type { Plan } from '../../api/client';
import { type Kind, useOptions } from '../../kit/KitContext';
import { ThingSheet } from '../../kit/ThingSheet';
import { useJob, useSetup } from '../../jobs/JobContext';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Facts } from '../../ui/Facts';
import { Grid, Lead, Panel, Stack, Title } from '../../ui/Panel';
import { Ticks } from '../../ui/Ticks';
import { Hint } from '../../ui/field';
import { TypedField, useLabel } from '../../ui/TypedField';
import { Depths } from './Depths';
import { SpeedForm } from './SpeedForm';
import { defaultOf, rangeOf } from '../../api/ranges';

/** Aperture from what is to be sharp, shutter from what must not blur, and what the camera may do. */
export function DepthStep({ plan }: { plan: Plan }) {
  return (
    <Stack>
      <CameraPanel />
      <Depths plan={plan} />
      <SpeedForm plan={plan} />
      <PacePanel plan={plan} />
    </Stack>
  );
}

function CameraPanel() {
  const { id } = useJob();
  const { setup, kit, change } = useSetup();
  const [editing, setEditing] = useState<Kind>();
  const camera = kit.cameras.find((one) => one.id === setup.camera_id);
  const lens = kit.lenses.find((one) => one.id === setup.lens_id);
  const cameras = useOptions(kit, 'cameras');
  const lenses = useOptions(kit, 'lenses');
  const filters = useOptions(kit, 'filters');
  const rated = useLabel('shutter', camera?.sync_rated_s);
  const safe = useLabel('shutter', camera?.sync_safe_s);
  const kept = `${id}/${setup.id}/depth`;
  const fixed = setup.fixed ?? {};
  const fixing = (field: 'shutter_s' | 'f_number' | 'iso', name: string, as: 'shutter' | 'aperture' | 'iso') => (
    <TypedField
      name={`${name}, fixed`}
      as={as}
      value={fixed[field]}
      placeholder="left to Tolva"
      keptAs={`${kept}/${field}`}
      onValue={(understood) =>
        change(`${name} fixed`, (one) => ({ ...one, fixed: { ...one.fixed, [field]: understood.value } }))
      }
      action={
        fixed[field] === null || fixed[field] === undefined
          ? undefined
          : {
              name: 'leave to Tolva',
              run: () =>
                change(`${name} left to Tolva`, (one) => ({ ...one, fixed: { ...one.fixed, [field]: undefined } })),
            }
      }
    />
  );
  return (
    <Panel>
      <Title>Depth and speed</Title>
      <Lead>Say what is to be sharp and what moves; Tolva finds the rest. What the picture needs can be fixed.</Lead>
      <Grid>
        <div>
          <Choice
            name="Camera"
            value={setup.camera_id}
            options={cameras}
            onChange={(camera_id) => change('Camera', (one) => ({ ...one, camera_id }))}
          />
          <Button kind="bare" onPress={() => setEditing('cameras')}>
            Edit this camera
          </Button>
          <Hint style={{ display: 'block' }}>
            Sync {rated}, safe {safe}
          </Hint>
        </div>
        <div>
          <Choice
            name="Lens"
            value={setup.lens_id}
            options={lenses}
            onChange={(lens_id) => {
              const to = kit.lenses.find((one) => one.id === lens_id);
              if (!to) return;
              change('Lens', (one) => ({
                ...one,
                lens_id,
                focal_length_mm: Math.min(to.longest_mm, Math.max(to.shortest_mm, one.focal_length_mm)),
              }));
            }}
          />
          <Button kind="bare" onPress={() => setEditing('lenses')}>
            Edit this lens
          </Button>
        </div>
        <TypedField
          name="Focal length, mm"
          as="number"
          value={setup.focal_length_mm}
          keptAs={`${kept}/focal`}
          {...rangeOf('Setup.focal_length_mm')}
          {...(lens ? { least: lens.shortest_mm, most: lens.longest_mm, allowed: undefined } : {})}
          onValue={({ value }) => change('Focal length', (one) => ({ ...one, focal_length_mm: value }))}
        />
        <TypedField
          name="Camera to the subject"
          as="length"
          value={setup.camera_distance_m}
          keptAs={`${kept}/distance`}
          {...rangeOf('Setup.camera_distance_m')}
          hint="From the sensor, as closest focus is, to the nearest of the subject."
          onValue={({ value }) => change('Camera distance', (one) => ({ ...one, camera_distance_m: value }))}
        />
        {fixing('shutter_s', 'Shutter', 'shutter')}
        {fixing('f_number', 'Aperture', 'aperture')}
        {fixing('iso', 'ISO', 'iso')}
        <Choice
          name="Flash and shutter"
          value={setup.sync ?? 'ordinary'}
          options={[
            { id: 'ordinary', label: 'Up to the safe sync' },
            { id: 'high_speed', label: 'High-speed sync' },
            ...(camera?.sync_electronic_s || setup.sync === 'electronic'
              ? [{ id: 'electronic' as const, label: 'Electronic shutter' }]
              : []),
          ]}
          onChange={(sync) => change('Sync', (one) => ({ ...one, sync }))}
        />
        <Choice
          name="Exposure is judged"
          value={setup.exposure ?? 'trust_the_meter'}
          options={[
            { id: 'trust_the_meter', label: 'By the meter, and trusted' },
            { id: 'protect_highlights', label: 'By the highlights' },
            { id: 'add_a_little', label: 'By the meter, and a third more' },
          ]}
          onChange={(exposure) => change('Exposure school', (one) => ({ ...one, exposure }))}
        />
      </Grid>
      {filters.length > 0 && (
        <div style={{ marginTop: 12 }}>
          <Ticks
            name="Neutral filters on the lens"
            value={setup.filter_ids ?? []}
            options={filters}
            onChange={(filter_ids) => change('Filter', (one) => ({ ...one, filter_ids }))}
          />
        </div>
      )}
      {editing === 'cameras' && (
        <ThingSheet
          kind="cameras"
          thing={camera}
          onClose={() => setEditing(undefined)}
          onAdded={(camera_id) => change('Camera', (one) => ({ ...one, camera_id }))}
        />
      )}
      {editing === 'lenses' && (
        <ThingSheet
          kind="lenses"
          thing={lens}
          onClose={() => setEditing(undefined)}
          onAdded={(lens_id) => change('Lens', (one) => ({ ...one, lens_id }))}
        />
      )}
    </Panel>
  );
}

const begunPace = {
  every_s: defaultOf('Pace.every_s'),
  burst_frames: defaultOf('Pace.burst_frames'),
  frames: defaultOf('Pace.frames'),
};

function PacePanel({ plan }: { plan: Plan }) {
  const { id } = useJob();
  const { setup, change } = useSetup();
  const pace = setup.pace;
  const kept = `${id}/${setup.id}/pace`;
  const field = (name: string, value: number | undefined, field: 'every_s' | 'burst_frames' | 'frames') => (
    <TypedField
      name={name}
      as="number"
      value={value}
      placeholder="not said"
      keptAs={`${kept}/${field}`}
      {...rangeOf(`Pace.${field}`)}
      onValue={(u) => {
        const to = field === 'every_s' ? u.value : Math.round(u.value);
        change('Pace', (one) => ({
          ...one,
          pace: { ...begunPace, ...one.pace, [field]: to },
        }));
      }}
    />
  );
  return (
    <Panel aria-labelledby="pace">
      <h3 id="pace" style={{ marginBottom: 8 }}>
        Pace and stamina
      </h3>
      <Grid style={{ marginBottom: 12 }}>
        {field('A picture every, seconds', pace?.every_s, 'every_s')}
        {field('Frames in a burst', pace?.burst_frames, 'burst_frames')}
        {field('Frames in all', pace?.frames, 'frames')}
      </Grid>
      {plan.pace.length > 0 ? (
        <Facts name="Pace and stamina" facts={plan.pace} />
      ) : (
        <p style={{ color: 'var(--quiet)' }}>No flash is on: nothing has to recycle.</p>
      )}
    </Panel>
  );
}
