import { Suspense, useState } from 'react';
import { fieldOf } from '../../api/fields';
import '../../api/moreFields';
import { Told } from '../../instruments/Told';
import { useDials } from '../../instruments/dial-card/dials';
import { Field } from '../../session/fields/Field';
import { useLabel } from '../../session/fields/useLabel';
import { useLivePlan, useSetup } from '../../session/job';
import { type Kind, useOptions } from '../../session/kit';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { lazily } from '../../ui/lazily';
import { Facts } from '../../ui/Facts';
import { HintLine } from '../../ui/field';
import { Grid, Lead, Panel, Part, Quiet, Stack } from '../../ui/Panel';
import { Ticks } from '../../ui/Ticks';
import { KitUndo } from '../kit/KitUndo';
import { StepTitle } from '../workbench/StepTitle';
import { Depths } from './Depths';
import { SpeedForm } from './SpeedForm';

const ThingSheet = lazily(() => import('../kit/ThingSheet'));

/** Aperture from what is to be sharp, shutter from what must not blur, and what the camera may do. */
export default function DepthStep() {
  return (
    <Stack>
      <CameraPanel />
      <Depths />
      <SpeedForm />
      <PacePanel />
    </Stack>
  );
}

/** What may be fixed on the camera. */
const fixed = [
  { field: 'shutter_s', of: 'Fixed.shutter_s', name: 'Shutter' },
  { field: 'f_number', of: 'Fixed.f_number', name: 'Aperture' },
  { field: 'iso', of: 'Fixed.iso', name: 'ISO' },
] as const;

function CameraPanel() {
  const { setup, kit, set, ask } = useSetup();
  const [editing, setEditing] = useState<Kind>();
  const camera = kit.cameras.find((one) => one.id === setup.camera_id);
  const lens = kit.lenses.find((one) => one.id === setup.lens_id);
  const cameras = useOptions(kit, 'cameras');
  const lenses = useOptions(kit, 'lenses');
  const filters = useOptions(kit, 'filters');
  const rated = useLabel(fieldOf('Camera.sync_rated_s').as, camera?.sync_rated_s);
  const safe = useLabel(fieldOf('Camera.sync_safe_s').as, camera?.sync_safe_s);
  const syncs = useDials(camera, lens)?.sync ?? [];
  const stands = setup.fixed ?? {};
  return (
    <Panel>
      <StepTitle>Depth and speed</StepTitle>
      <Lead>Say what is to be sharp and what moves; Tolva finds the rest. What the picture needs can be fixed.</Lead>
      <Grid>
        <div>
          <Choice
            name="Camera"
            value={setup.camera_id}
            options={cameras}
            onChange={(to) => set('Camera', ['camera_id'], to)}
          />
          <Button kind="bare" onPress={() => setEditing('cameras')}>
            Edit this camera
          </Button>
          <HintLine>
            Sync {rated}, safe {safe}
          </HintLine>
        </div>
        <div>
          <Choice
            name="Lens"
            value={setup.lens_id}
            options={lenses}
            onChange={(to) => ask('Lens', { lens: { lens_id: to } }, 'lens')}
          />
          <Button kind="bare" onPress={() => setEditing('lenses')}>
            Edit this lens
          </Button>
          <Told about="lens" />
        </div>
        <Field of="Setup.focal_length_mm" at={['focal_length_mm']} />
        <Field of="Setup.camera_distance_m" at={['camera_distance_m']} says="Camera distance" />
        {fixed.map(({ field, of, name }) => (
          <Field
            key={field}
            of={of}
            at={['fixed', field]}
            says={`${name} fixed`}
            placeholder="left to Tolva"
            action={
              stands[field] === null || stands[field] === undefined
                ? undefined
                : {
                    name: 'leave to Tolva',
                    run: () => set(`${name} left to Tolva`, ['fixed', field], undefined),
                  }
            }
          />
        ))}
        <Choice
          name="Flash and shutter"
          value={setup.sync ?? 'ordinary'}
          options={syncs.map((one) => ({ id: one.sync, label: one.name }))}
          onChange={(to) => set('Sync', ['sync'], to)}
        />
        <Choice
          name="Exposure is judged"
          value={setup.exposure ?? 'trust_the_meter'}
          options={[
            { id: 'trust_the_meter', label: 'By the meter, and trusted' },
            { id: 'protect_highlights', label: 'By the highlights' },
            { id: 'add_a_little', label: 'By the meter, and a third more' },
          ]}
          onChange={(to) => set('Exposure school', ['exposure'], to)}
        />
      </Grid>
      <KitUndo />
      {filters.length > 0 && (
        <Grid $min={300} $below>
          <Ticks
            name="Neutral filters on the lens"
            value={setup.filter_ids ?? []}
            options={filters}
            onChange={(to) => set('Filter', ['filter_ids'], to)}
          />
        </Grid>
      )}
      <Suspense>
        {editing === 'cameras' && (
          <ThingSheet
            kind="cameras"
            thing={camera}
            onClose={() => setEditing(undefined)}
            onAdded={(to) => set('Camera', ['camera_id'], to)}
          />
        )}
        {editing === 'lenses' && (
          <ThingSheet
            kind="lenses"
            thing={lens}
            onClose={() => setEditing(undefined)}
            onAdded={(to) => set('Lens', ['lens_id'], to)}
          />
        )}
      </Suspense>
    </Panel>
  );
}

function PacePanel() {
  const facts = useLivePlan((plan) => plan.pace) ?? [];
  return (
    <Panel aria-labelledby="pace">
      <Part id="pace">Pace and stamina</Part>
      <Grid>
        <Field of="Pace.every_s" at={['pace', 'every_s']} says="Pace" placeholder="not said" />
        <Field of="Pace.burst_frames" at={['pace', 'burst_frames']} says="Pace" placeholder="not said" />
        <Field of="Pace.frames" at={['pace', 'frames']} says="Pace" placeholder="not said" />
      </Grid>
      <Grid $min={300} $below>
        {facts.length > 0 ? (
          <Facts name="Pace and stamina" facts={facts} />
        ) : (
          <Quiet>No flash is on: nothing has to recycle.</Quiet>
        )}
      </Grid>
    </Panel>
  );
}
