import { memo, useState } from 'react';
import { answered, api, ApiProblem, type Region, type Setup } from '../../api/client';
import { useStart } from '../../app/start';
import { useJob, useKeptSetup } from '../../jobs/JobContext';
import { useOptions } from '../../kit/KitContext';
import { Choice } from '../../ui/Choice';
import { Card, Grid } from '../../ui/Panel';
import { Ticks } from '../../ui/Ticks';
import { TypedField } from '../../ui/TypedField';
import { Button } from '../../ui/Button';
import { defaultOf, rangeOf, type Ranged } from '../../api/ranges';

type Said = NonNullable<Region['ambient']['colour']>;
type Kind = 'from_place' | 'named' | 'kelvin' | 'meter' | 'grey_patch';
type Patch = Extract<Said, { grey_patch: unknown }>['grey_patch'];

const kindOf = (said: Said): Kind => (typeof said === 'string' ? said : (Object.keys(said)[0] as Kind));

/** The colour of the light that is there on a region: from the place, by name, by hand, or read. */
export const LightColour = memo(function LightColour({ region }: { region: Region }) {
  const { id } = useJob();
  const { setup, kit, plan, change } = useKeptSetup();
  const start = useStart();
  const gels = useOptions(kit, 'gels');
  const [films, setFilms] = useState((region.ambient.film_ids ?? []).length > 0);
  const said: Said = region.ambient.colour ?? 'from_place';
  const kind = kindOf(said);
  const mark = plan?.colour.marks.find((one) => one.kind === 'ambient' && one.id === region.id);
  const kept = `${id}/${setup.id}/${region.id}/colour`;
  const edit = (what: string, part: Partial<Region['ambient']>) =>
    change(`${what} of ${region.name}`, (one: Setup) => ({
      ...one,
      regions: one.regions.map((each) =>
        each.id === region.id ? { ...each, ambient: { ...each.ambient, ...part } } : each,
      ),
    }));
  const say = (colour: Said) => edit('Colour', { colour });
  const kelvin = mark ? Math.round(1e5 / mark.mired) * 10 : 5600;
  const begun: Record<Kind, Said> = {
    from_place: 'from_place',
    named: { named: 'house_lamp' },
    kelvin: { kelvin: { kelvin, tint_duv: 0 } },
    meter: { meter: { kelvin, duv: 0 } },
    grey_patch: {
      grey_patch: {
        red: defaultOf('StatedColour.grey_patch.red'),
        green: defaultOf('StatedColour.grey_patch.green'),
        blue: defaultOf('StatedColour.grey_patch.blue'),
        kelvin,
        tint_duv: 0,
      },
    },
  };
  const number = (name: string, value: number, range: Ranged, put: (value: number) => unknown) => (
    <TypedField
      name={name}
      as="number"
      value={value}
      keptAs={`${kept}/${kind}/${name}`}
      {...rangeOf(range)}
      onValue={(u) => put(u.value)}
    />
  );
  const temperature = (value: number, put: (value: number) => unknown, name = 'Temperature, K') =>
    number(name, value, 'StatedColour.kelvin.kelvin', put);
  const tint = (value: number, put: (value: number) => unknown, name = 'Tint, Duv') =>
    number(name, value, 'StatedColour.kelvin.tint_duv', put);
  /** A patch is tried before it stands: one that is clipped or no grey stays in its field, with what is wrong. */
  const patch = async (to: Patch) => {
    const colour = { grey_patch: to };
    const tried = {
      ...setup,
      regions: setup.regions.map((each) =>
        each.id === region.id ? { ...each, ambient: { ...each.ambient, colour } } : each,
      ),
    };
    try {
      await answered(api.POST('/api/v1/solve', { body: { setup: tried, kit } }));
    } catch (failure) {
      if (failure instanceof ApiProblem && failure.status === 422) return failure.message;
    }
    say(colour);
    return undefined;
  };

  return (
    <Card>
      <h4>
        {region.name} <span>{mark?.label}</span>
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
        onChange={(to) => say(begun[to])}
      />
      {typeof said === 'object' && 'named' in said && (
        <Choice
          name="Which"
          value={said.named}
          options={(start?.named_lights ?? []).map((one) => ({ id: one.light, label: one.name }))}
          onChange={(named) => say({ named })}
        />
      )}
      {typeof said === 'object' && 'kelvin' in said && (
        <Grid $min={120}>
          {temperature(said.kelvin.kelvin, (value) => say({ kelvin: { ...said.kelvin, kelvin: value } }))}
          {tint(said.kelvin.tint_duv ?? 0, (tint_duv) => say({ kelvin: { ...said.kelvin, tint_duv } }))}
        </Grid>
      )}
      {typeof said === 'object' && 'meter' in said && (
        <Grid $min={120}>
          {temperature(said.meter.kelvin, (value) => say({ meter: { ...said.meter, kelvin: value } }))}
          {tint(said.meter.duv ?? 0, (duv) => say({ meter: { ...said.meter, duv } }), 'Duv, as the meter says')}
        </Grid>
      )}
      {typeof said === 'object' && 'grey_patch' in said && (
        <>
          <Grid $min={84}>
            {(['red', 'green', 'blue'] as const).map((field) => (
              <div key={field}>
                {number(
                  `${field[0]?.toUpperCase()}${field.slice(1)}, 0 to 255`,
                  said.grey_patch[field],
                  `StatedColour.grey_patch.${field}`,
                  (value) => patch({ ...said.grey_patch, [field]: value }),
                )}
              </div>
            ))}
          </Grid>
          <Grid $min={120}>
            {temperature(
              said.grey_patch.kelvin,
              (value) => patch({ ...said.grey_patch, kelvin: value }),
              'Camera at, K',
            )}
            {tint(
              said.grey_patch.tint_duv ?? 0,
              (tint_duv) => patch({ ...said.grey_patch, tint_duv }),
              'Camera’s tint, Duv',
            )}
          </Grid>
        </>
      )}
      {films ? (
        <Ticks
          name="Film on the window"
          value={region.ambient.film_ids ?? []}
          options={gels}
          onChange={(film_ids) => edit('Film', { film_ids })}
        />
      ) : (
        <Button kind="bare" onPress={() => setFilms(true)} aria-label={`Film on a window: ${region.name}`}>
          Film on a window
        </Button>
      )}
    </Card>
  );
});
