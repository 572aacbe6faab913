import { memo } from 'react';
import styled from 'styled-components';
import type { Surroundings } from '../../api/client';
import { useStart } from '../../app/start';
import { useJob } from '../../jobs/JobContext';
import { Choice } from '../../ui/Choice';
import { Hint } from '../../ui/field';
import { Segments } from '../../ui/Segments';
import { TypedField } from '../../ui/TypedField';
import { useScene } from './useScene';
import { defaultOf, rangeOf } from '../../api/ranges';

const Stack = styled.div`
  display: flex;
  flex-direction: column;
  gap: 10px;
`;

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

const fresh = (kind: Kind): Surroundings => {
  if (kind === 'open_shade') return { open_shade: { sky_percent: defaultOf('OpenShade.sky_percent') } };
  if (kind === 'artificial') return { artificial: { light: 'home', mains_hz: defaultOf('Artificial.mains_hz') } };
  return kind;
};

/** What is around the subject, and what lies behind it. */
export const SurroundingsForm = memo(function SurroundingsForm({ sky }: { sky: string }) {
  const { id } = useJob();
  const { scene, put } = useScene();
  const start = useStart();
  if (!scene) return null;
  const { surroundings, background } = scene;
  const shade = typeof surroundings === 'object' && 'open_shade' in surroundings ? surroundings.open_shade : undefined;
  const lamps = typeof surroundings === 'object' && 'artificial' in surroundings ? surroundings.artificial : undefined;
  const set = (to: Surroundings) => put('Surroundings', { surroundings: to });
  return (
    <Stack>
      <h3>Around and behind</h3>
      <Choice
        name="Around the subject"
        value={kindOf(surroundings)}
        options={[...kinds]}
        onChange={(kind) => set(fresh(kind))}
      />
      {shade && (
        <TypedField
          name="Sky seen overhead, percent"
          as="number"
          value={shade.sky_percent}
          keptAs={`${id}/sky`}
          {...rangeOf('OpenShade.sky_percent')}
          hint="Open shade has at least half of the sky overhead."
          onValue={({ value }) => set({ open_shade: { sky_percent: value } })}
        />
      )}
      {lamps && (
        <>
          <Choice
            name="Kind of light"
            value={lamps.light}
            options={(start?.typical_lights ?? []).map((one) => ({ id: one.light, label: one.name }))}
            onChange={(light) => set({ artificial: { ...lamps, light } })}
          />
          <Segments
            name="Mains"
            value={String(lamps.mains_hz ?? defaultOf('Artificial.mains_hz'))}
            options={[
              { id: '50', label: '50 Hz' },
              { id: '60', label: '60 Hz' },
            ]}
            onChange={(hz) => set({ artificial: { ...lamps, mains_hz: Number(hz) } })}
          />
        </>
      )}
      {!lamps && (
        <>
          <Hint>{sky} reaches the subject.</Hint>
          <Choice
            name="Behind the subject"
            value={background.what}
            options={[
              { id: 'upright', label: 'Things that stand: houses, trees' },
              { id: 'ground', label: 'Ground running back' },
              { id: 'sky', label: 'Sky low over the horizon' },
            ]}
            onChange={(what) => put('Behind', { background: { ...background, what } })}
          />
          <TypedField
            name="Sunlit part of the frame behind, percent"
            as="number"
            value={background.sunlit_percent}
            keptAs={`${id}/sunlit`}
            {...rangeOf('Background.sunlit_percent')}
            hint="Up to 15 to 20 %: a shaded subject counts as in shade. More: as in sun."
            onValue={({ value }) => put('Behind', { background: { ...background, sunlit_percent: value } })}
          />
        </>
      )}
    </Stack>
  );
});
