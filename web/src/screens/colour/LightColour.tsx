import { memo, useState } from 'react';
import type { Region } from '../../api/client';
import type { FieldName } from '../../api/fields';
import { useStart } from '../../api/start';
import { Told } from '../../instruments/Told';
import { Field } from '../../session/fields/Field';
import { usePlan, useSetup } from '../../session/job';
import { useOptions } from '../../session/kit';
import type { Path } from '../../session/machine/change';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Card, Grid } from '../../ui/Panel';
import { Ticks } from '../../ui/Ticks';

type Kind = 'from_place' | 'named' | 'kelvin' | 'meter' | 'grey_patch';

/** The numbers each way of saying a colour has, in rows. */
const numbers: { [kind in Kind]?: string[][] } = {
  kelvin: [['kelvin', 'tint_duv']],
  meter: [['kelvin', 'duv']],
  grey_patch: [
    ['red', 'green', 'blue'],
    ['kelvin', 'tint_duv'],
  ],
};

/** The colour of the light that is there on a region: from the place, by name, by hand, or read. */
export const LightColour = memo(function LightColour({ region }: { region: Region }) {
  const { setup, kit, set, ask } = useSetup();
  const plan = usePlan();
  const start = useStart();
  const gels = useOptions(kit, 'gels');
  const [films, setFilms] = useState((region.ambient.film_ids ?? []).length > 0);
  const said = region.ambient.colour ?? 'from_place';
  const kind = (typeof said === 'string' ? said : Object.keys(said)[0]) as Kind;
  const mark = plan?.colour.marks.find((one) => one.kind === 'ambient' && one.id === region.id);
  const at: Path = ['regions', { id: region.id }, 'ambient'];
  const about = `colour/${region.id}`;
  return (
    <Card>
      <h4>
        {region.name}
        <small>{mark?.label}</small>
      </h4>
      <p>{mark && `${mark.source[0]?.toUpperCase()}${mark.source.slice(1)}${mark.tint ? `, ${mark.tint}` : ''}.`}</p>
      <Choice
        name={`Colour of ${region.name}`}
        value={kind}
        options={[
          { id: 'from_place', label: setup.scene ? 'From place and hour' : 'Midday sun, not said yet' },
          { id: 'named', label: 'A light by name' },
          { id: 'kelvin', label: 'By hand' },
          { id: 'meter', label: 'Read by a colour meter' },
          { id: 'grey_patch', label: 'Read off a grey patch' },
        ]}
        onChange={(to) => ask(`Colour of ${region.name}`, { colour: { region_id: region.id, kind: to } }, about)}
      />
      <Told about={about} />
      {typeof said === 'object' && 'named' in said && (
        <Choice
          name="Which"
          value={said.named}
          options={(start?.named_lights ?? []).map((one) => ({ id: one.light, label: one.name }))}
          onChange={(named) => set(`Colour of ${region.name}`, [...at, 'colour'], { named })}
        />
      )}
      {numbers[kind]?.map((row) => (
        <Grid key={row[0]} $min={row.length > 2 ? 84 : 120}>
          {row.map((field) => (
            <Field
              key={field}
              of={`StatedColour.${kind}.${field}` as FieldName}
              at={[...at, 'colour', kind, field]}
              says={`Colour of ${region.name}`}
            />
          ))}
        </Grid>
      ))}
      {films ? (
        <Ticks
          name="Film on the window"
          value={region.ambient.film_ids ?? []}
          options={gels}
          onChange={(to) => set(`Film of ${region.name}`, [...at, 'film_ids'], to)}
        />
      ) : (
        <Button kind="bare" onPress={() => setFilms(true)} aria-label={`Film on a window: ${region.name}`}>
          Film on a window
        </Button>
      )}
    </Card>
  );
});
