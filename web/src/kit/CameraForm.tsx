import type { Camera } from '../api/client';
import { useJob, useSetup } from '../jobs/JobContext';
import { Choice } from '../ui/Choice';
import { Grid, Lead } from '../ui/Panel';
import { Sheet } from '../ui/Sheet';
import { TextField } from '../ui/TextField';
import { TypedField } from '../ui/TypedField';
import { Another } from './Another';

const stepOptions = [
  { id: 'third' as const, label: 'Thirds of a stop' },
  { id: 'half' as const, label: 'Halves' },
  { id: 'whole' as const, label: 'Whole stops' },
];

/** A camera of the job's kit, with the lens that is on it. */
export function CameraForm({ camera, open, onClose }: { camera: Camera; open: boolean; onClose: () => void }) {
  const { id } = useJob();
  const { changeKit, change } = useSetup();
  const kept = `${id}/kit/${camera.id}`;
  const edit = (what: string, to: (camera: Camera) => Camera) =>
    changeKit(`Camera: ${what}`, (kit) => ({
      ...kit,
      cameras: kit.cameras.map((one) => (one.id === camera.id ? to(one) : one)),
    }));
  const shutter = (name: string, value: number, field: string, put: (value: number) => Camera, hint?: string) => (
    <TypedField
      name={name}
      as="shutter"
      value={value}
      keptAs={`${kept}/${field}`}
      hint={hint}
      onValue={(u) => edit(name.toLowerCase(), () => put(u.value))}
    />
  );
  return (
    <Sheet title="Camera" open={open} onClose={onClose}>
      <Lead>As it stands in this job. All setups of the job that use it follow.</Lead>
      <Grid>
        <TextField
          name="Called"
          value={camera.name}
          onChange={(name) => name.trim() !== '' && edit('name', (one) => ({ ...one, name }))}
        />
        {shutter('Rated sync', camera.sync_rated_s, 'sync_rated', (sync_rated_s) => ({
          ...camera,
          sync_rated_s,
          // The safe sync is never faster than the rated one.
          sync_safe_s: Math.max(camera.sync_safe_s, sync_rated_s),
        }))}
        {shutter(
          'Safe sync',
          camera.sync_safe_s,
          'sync_safe',
          (sync_safe_s) => ({
            ...camera,
            sync_safe_s,
            sync_rated_s: Math.min(camera.sync_rated_s, sync_safe_s),
          }),
          'With radio triggers: a third of a stop under the rated one, or more.',
        )}
        {shutter('Slowest shutter', camera.shutter.slowest_s, 'slowest', (slowest_s) => ({
          ...camera,
          shutter: { ...camera.shutter, slowest_s },
        }))}
        {shutter('Fastest shutter', camera.shutter.fastest_s, 'fastest', (fastest_s) => ({
          ...camera,
          shutter: { ...camera.shutter, fastest_s },
        }))}
        <Choice
          name="Shutter clicks"
          value={camera.shutter.step}
          options={stepOptions}
          onChange={(step) => edit('shutter clicks', (one) => ({ ...one, shutter: { ...one.shutter, step } }))}
        />
        <TypedField
          name="Widest aperture"
          as="aperture"
          value={camera.aperture.widest_f_number}
          keptAs={`${kept}/widest`}
          onValue={(u) =>
            edit('widest aperture', (one) => ({ ...one, aperture: { ...one.aperture, widest_f_number: u.value } }))
          }
        />
        <TypedField
          name="Smallest aperture"
          as="aperture"
          value={camera.aperture.smallest_f_number}
          keptAs={`${kept}/smallest`}
          onValue={(u) =>
            edit('smallest aperture', (one) => ({ ...one, aperture: { ...one.aperture, smallest_f_number: u.value } }))
          }
        />
        <Choice
          name="Aperture clicks"
          value={camera.aperture.step}
          options={stepOptions}
          onChange={(step) => edit('aperture clicks', (one) => ({ ...one, aperture: { ...one.aperture, step } }))}
        />
        <TypedField
          name="Lowest ISO"
          as="iso"
          value={camera.iso.base_iso}
          keptAs={`${kept}/base`}
          onValue={(u) => edit('lowest ISO', (one) => ({ ...one, iso: { ...one.iso, base_iso: u.value } }))}
        />
        <TypedField
          name="Highest acceptable ISO"
          as="iso"
          value={camera.iso.highest_iso}
          keptAs={`${kept}/highest`}
          onValue={(u) => edit('highest ISO', (one) => ({ ...one, iso: { ...one.iso, highest_iso: u.value } }))}
        />
        <Choice
          name="ISO clicks"
          value={camera.iso.step}
          options={stepOptions}
          onChange={(step) => edit('ISO clicks', (one) => ({ ...one, iso: { ...one.iso, step } }))}
        />
      </Grid>
      <Another
        of="cameras"
        thing={camera}
        onAdded={(added) => change('Camera', (one) => ({ ...one, camera_id: added }))}
        onClose={onClose}
      />
    </Sheet>
  );
}
