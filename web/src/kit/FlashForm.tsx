import type { Flash } from '../api/client';
import { useJob, useSetup } from '../jobs/JobContext';
import { Choice } from '../ui/Choice';
import { Grid, Lead } from '../ui/Panel';
import { Segments } from '../ui/Segments';
import { Sheet } from '../ui/Sheet';
import { TextField } from '../ui/TextField';
import { TypedField } from '../ui/TypedField';
import { Another } from './Another';

type Known = 'guide_number_metres' | 'guide_number_feet' | 'measured';

/** How each way of knowing a flash begins. */
const begun: Record<Known, Flash['output']> = {
  guide_number_metres: { guide_number_metres: { guide_number_m: 40, holds_for: '' } },
  guide_number_feet: { guide_number_feet: { guide_number_ft: 130, holds_for: '' } },
  measured: { measured: { f_number: 8, iso: 100, distance_m: 2, power_stops: 0, modifier_id: null } },
};

/** A flash unit of the job's kit: its guide number, or better, a reading of it. */
export function FlashForm({ flash, open, onClose }: { flash: Flash; open: boolean; onClose: () => void }) {
  const { id } = useJob();
  const { kit, changeKit, change } = useSetup();
  const kept = `${id}/kit/${flash.id}`;
  const output = flash.output;
  const known = Object.keys(output)[0] as Known;
  const edit = (what: string, to: Partial<Flash>) =>
    changeKit(`Flash: ${what}`, (all) => ({
      ...all,
      flashes: all.flashes.map((one) => (one.id === flash.id ? { ...one, ...to } : one)),
    }));
  return (
    <Sheet title="Flash unit" open={open} onClose={onClose}>
      <Lead>As it stands in this job. A reading of your own unit is better than its guide number.</Lead>
      <Grid>
        <TextField name="Called" value={flash.name} onChange={(name) => name.trim() !== '' && edit('name', { name })} />
        <TypedField
          name="Lowest power, stops under full"
          as="stops"
          value={flash.power.lowest_stops}
          keptAs={`${kept}/lowest`}
          step={1}
          least={-12}
          most={0}
          hint="−7 is 1/128."
          onValue={(u) => edit('lowest power', { power: { ...flash.power, lowest_stops: u.value } })}
        />
        <Choice
          name="Power clicks"
          value={flash.power.step}
          options={[
            { id: 'tenth', label: 'Tenths of a stop' },
            { id: 'third', label: 'Thirds' },
            { id: 'half', label: 'Halves' },
            { id: 'whole', label: 'Whole stops' },
          ]}
          onChange={(step) => edit('power clicks', { power: { ...flash.power, step } })}
        />
      </Grid>
      <div style={{ margin: '14px 0' }}>
        <Segments
          name="Its output is known by"
          value={known}
          options={[
            { id: 'guide_number_metres', label: 'Guide number, m' },
            { id: 'guide_number_feet', label: 'Guide number, ft' },
            { id: 'measured', label: 'A reading' },
          ]}
          onChange={(kind) => edit('output', { output: begun[kind] })}
        />
      </div>
      <Grid>
        {'guide_number_metres' in output && (
          <GuideNumber
            unit="m"
            value={output.guide_number_metres.guide_number_m}
            holdsFor={output.guide_number_metres.holds_for ?? ''}
            most={1000}
            least={1}
            kept={kept}
            put={(value, holds_for) =>
              edit('guide number', { output: { guide_number_metres: { guide_number_m: value, holds_for } } })
            }
          />
        )}
        {'guide_number_feet' in output && (
          <GuideNumber
            unit="ft"
            value={output.guide_number_feet.guide_number_ft}
            holdsFor={output.guide_number_feet.holds_for ?? ''}
            most={3300}
            least={3}
            kept={kept}
            put={(value, holds_for) =>
              edit('guide number', { output: { guide_number_feet: { guide_number_ft: value, holds_for } } })
            }
          />
        )}
        {'measured' in output && (
          <>
            <TypedField
              name="The meter said"
              as="aperture"
              value={output.measured.f_number}
              keptAs={`${kept}/measured_f`}
              onValue={(u) => edit('reading', { output: { measured: { ...output.measured, f_number: u.value } } })}
            />
            <TypedField
              name="Set to"
              as="iso"
              value={output.measured.iso}
              keptAs={`${kept}/measured_iso`}
              onValue={(u) => edit('reading', { output: { measured: { ...output.measured, iso: u.value } } })}
            />
            <TypedField
              name="From the light to the meter"
              as="length"
              value={output.measured.distance_m}
              keptAs={`${kept}/measured_d`}
              least={0.1}
              most={50}
              allowed="from 0.1 to 50 m"
              onValue={(u) => edit('reading', { output: { measured: { ...output.measured, distance_m: u.value } } })}
            />
            <TypedField
              name="At this power, stops under full"
              as="stops"
              value={output.measured.power_stops}
              keptAs={`${kept}/measured_p`}
              step={1 / 3}
              least={-12}
              most={0}
              onValue={(u) => edit('reading', { output: { measured: { ...output.measured, power_stops: u.value } } })}
            />
            <Choice
              name="Through"
              value={output.measured.modifier_id ?? 'bare-head'}
              options={[
                { id: 'bare-head', label: 'Nothing, bare head' },
                ...kit.modifiers.map((one) => ({ id: one.id, label: one.name })),
              ]}
              onChange={(chosen) =>
                edit('reading', {
                  output: { measured: { ...output.measured, modifier_id: chosen === 'bare-head' ? null : chosen } },
                })
              }
            />
          </>
        )}
      </Grid>
      <Another
        of="flashes"
        thing={flash}
        onAdded={(added) =>
          change('Unit', (one) => ({ ...one, lights: one.lights.map((light) => ({ ...light, flash_id: added })) }))
        }
        onClose={onClose}
      />
    </Sheet>
  );
}

type GuideNumberProps = {
  unit: string;
  value: number;
  holdsFor: string;
  least: number;
  most: number;
  kept: string;
  put: (value: number, holdsFor: string) => void;
};

function GuideNumber({ unit, value, holdsFor, least, most, kept, put }: GuideNumberProps) {
  return (
    <>
      <TypedField
        name={`Guide number, ${unit} at ISO 100, full power`}
        as="number"
        value={value}
        keptAs={`${kept}/gn_${unit}`}
        step={1}
        least={least}
        most={most}
        onValue={(u) => put(u.value, holdsFor)}
      />
      <TextField
        name="Holds for (zoom or reflector)"
        value={holdsFor}
        onChange={(text) => put(value, text)}
        placeholder="35 mm zoom"
      />
    </>
  );
}
