import { memo } from 'react';
import type { Surroundings } from '../../api/client';
import { begin } from '../../api/fields';
import { useStart } from '../../api/start';
import { Field } from '../../session/fields/Field';
import { useLivePlan, useSetup } from '../../session/job';
import { Choice } from '../../ui/Choice';
import { Hint } from '../../ui/field';
import { Stack } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { useScene } from './useScene';

const kinds = [
  { id: 'open_ground', label: 'Open ground' },
  { id: 'snow', label: 'Snow' },
  { id: 'sand', label: 'Pale sand' },
  { id: 'water', label: 'Water, a quay' },
  { id: 'open_shade', label: 'Open shade' },
  { id: 'trees', label: 'Under trees' },
  { id: 'awning', label: 'Under an awning or porch' },
  { id: 'dark_street', label: 'Narrow or dark street' },
  { id: 'artificial', label: 'Lamps: indoors or night' },
] as const;
type Kind = (typeof kinds)[number]['id'];

const kindOf = (surroundings: Surroundings): Kind =>
  typeof surroundings === 'string' ? surroundings : 'open_shade' in surroundings ? 'open_shade' : 'artificial';

/** How much of the sky reaches the subject. */
function Sky() {
  const sky = useLivePlan((plan) => plan.sun_report?.sky);
  return sky ? <Hint>{sky} reaches the subject.</Hint> : null;
}

/** What is around the subject, and what lies behind it. */
export const SurroundingsForm = memo(function SurroundingsForm() {
  const { set } = useSetup();
  const { scene, put } = useScene();
  const start = useStart();
  if (!scene) return null;
  const { surroundings, background } = scene;
  const at = ['scene', 'surroundings'];
  const shade = typeof surroundings === 'object' && 'open_shade' in surroundings;
  const lamps = typeof surroundings === 'object' && 'artificial' in surroundings ? surroundings.artificial : undefined;
  return (
    <Stack>
      <h3>Around and behind</h3>
      <Choice
        name="Around the subject"
        value={kindOf(surroundings)}
        options={[...kinds]}
        onChange={(kind) =>
          put('Surroundings', 'surroundings', begin<'Surroundings', Surroundings>('Surroundings', kind))
        }
      />
      {shade && <Field of="OpenShade.sky_percent" at={[...at, 'open_shade', 'sky_percent']} />}
      {lamps && (
        <>
          <Choice
            name="Kind of light"
            value={lamps.light}
            options={(start?.typical_lights ?? []).map((one) => ({ id: one.light, label: one.name }))}
            onChange={(light) => set('Surroundings', [...at, 'artificial', 'light'], light)}
          />
          <Segments
            name="Mains"
            value={String(lamps.mains_hz)}
            options={[
              { id: '50', label: '50 Hz' },
              { id: '60', label: '60 Hz' },
            ]}
            onChange={(hz) => set('Surroundings', [...at, 'artificial', 'mains_hz'], Number(hz))}
          />
        </>
      )}
      {!lamps && (
        <>
          <Sky />
          <Choice
            name="Behind the subject"
            value={background.what}
            options={[
              { id: 'upright', label: 'Things that stand: houses, trees' },
              { id: 'ground', label: 'Ground running back' },
              { id: 'sky', label: 'Sky low over the horizon' },
            ]}
            onChange={(what) => set('Behind', ['scene', 'background', 'what'], what)}
          />
          <Field of="Background.sunlit_percent" at={['scene', 'background', 'sunlit_percent']} />
        </>
      )}
    </Stack>
  );
});
