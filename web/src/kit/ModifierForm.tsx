import type { Modifier } from '../api/client';
import { useJob, useSetup } from '../jobs/JobContext';
import { Grid, Lead } from '../ui/Panel';
import { Segments } from '../ui/Segments';
import { Sheet } from '../ui/Sheet';
import { TextField } from '../ui/TextField';
import { TypedField } from '../ui/TypedField';
import { Another } from './Another';

type Shape = 'bare' | 'disc' | 'rectangle';

const begun: Record<Shape, Modifier['surface']> = {
  bare: { bare: {} },
  disc: { disc: { diameter_m: 0.9 } },
  rectangle: { rectangle: { width_m: 0.6, height_m: 0.9 } },
};

/** A modifier of the job's kit: the size of its surface and what it takes. */
export function ModifierForm({ modifier, open, onClose }: { modifier: Modifier; open: boolean; onClose: () => void }) {
  const { id } = useJob();
  const { changeKit, change } = useSetup();
  const kept = `${id}/kit/${modifier.id}`;
  const surface = modifier.surface;
  const edit = (what: string, to: Partial<Modifier>) =>
    changeKit(`Modifier: ${what}`, (kit) => ({
      ...kit,
      modifiers: kit.modifiers.map((one) => (one.id === modifier.id ? { ...one, ...to } : one)),
    }));
  const size = (name: string, field: string, value: number, put: (value: number) => Modifier['surface']) => (
    <TypedField
      name={name}
      as="length"
      value={value}
      keptAs={`${kept}/${field}`}
      least={0.02}
      most={10}
      allowed="from 2 cm to 10 m"
      onValue={(u) => edit(name.toLowerCase(), { surface: put(u.value) })}
    />
  );
  return (
    <Sheet title="Modifier" open={open} onClose={onClose}>
      <Lead>
        Its size decides how the light falls off close by. Your own measurement of its loss is better than a usual
        figure.
      </Lead>
      <Grid>
        <TextField
          name="Called"
          value={modifier.name}
          onChange={(name) => name.trim() !== '' && edit('name', { name })}
        />
        <TypedField
          name="Takes on its axis, stops"
          as="stops"
          value={modifier.loss_stops}
          keptAs={`${kept}/loss`}
          step={1 / 3}
          least={-3}
          most={8}
          allowed="from −3 to +8 stops"
          hint="Negative where a reflector gathers the light."
          onValue={(u) => edit('loss', { loss_stops: u.value })}
        />
      </Grid>
      <div style={{ margin: '14px 0' }}>
        <Segments
          name="Glowing surface"
          value={Object.keys(surface)[0] as Shape}
          options={[
            { id: 'disc', label: 'Round' },
            { id: 'rectangle', label: 'Rectangle' },
            { id: 'bare', label: 'A point' },
          ]}
          onChange={(shape) => edit('surface', { surface: begun[shape] })}
        />
      </div>
      <Grid>
        {'disc' in surface &&
          size('Diameter', 'diameter', surface.disc.diameter_m, (diameter_m) => ({ disc: { diameter_m } }))}
        {'rectangle' in surface && (
          <>
            {size('Width', 'width', surface.rectangle.width_m, (width_m) => ({
              rectangle: { ...surface.rectangle, width_m },
            }))}
            {size('Height', 'height', surface.rectangle.height_m, (height_m) => ({
              rectangle: { ...surface.rectangle, height_m },
            }))}
          </>
        )}
      </Grid>
      <Another
        of="modifiers"
        thing={modifier}
        onAdded={(added) =>
          change('Modifier', (one) => ({
            ...one,
            lights: one.lights.map((light) => ({ ...light, modifier_id: added })),
          }))
        }
        onClose={onClose}
      />
    </Sheet>
  );
}
