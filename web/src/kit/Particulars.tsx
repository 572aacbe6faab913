import { Plus, Trash2 } from 'lucide-react';
import type { Camera, Flash, Kit, Modifier } from '../api/client';
import { Button } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Grid, Row } from '../ui/Panel';
import { Segments } from '../ui/Segments';
import { TextField } from '../ui/TextField';
import { TickBox } from '../ui/Ticks';
import { TypedField } from '../ui/TypedField';
import { defaultOf, rangeOf, type Ranged } from '../api/ranges';

type Edit<T> = (what: string, to: (thing: T) => T) => void;

const stepOptions = [
  { id: 'third' as const, label: 'Thirds of a stop' },
  { id: 'half' as const, label: 'Halves' },
  { id: 'whole' as const, label: 'Whole stops' },
];

/** What one click of each dial goes. */
export function CameraClicks({ camera, edit }: { camera: Camera; edit: Edit<Camera> }) {
  return (
    <Grid style={{ marginTop: 12 }}>
      <Choice
        name="Shutter clicks"
        value={camera.shutter.step}
        options={stepOptions}
        onChange={(step) => edit('shutter clicks', (one) => ({ ...one, shutter: { ...one.shutter, step } }))}
      />
      <Choice
        name="Aperture clicks"
        value={camera.aperture_step}
        options={stepOptions}
        onChange={(aperture_step) => edit('aperture clicks', (one) => ({ ...one, aperture_step }))}
      />
      <Choice
        name="ISO clicks"
        value={camera.iso.step}
        options={stepOptions}
        onChange={(step) => edit('ISO clicks', (one) => ({ ...one, iso: { ...one.iso, step } }))}
      />
    </Grid>
  );
}

type Shape = 'bare' | 'disc' | 'rectangle';
const begunSurface: Record<Shape, Modifier['surface']> = {
  bare: { bare: {} },
  disc: { disc: { diameter_m: defaultOf('DiscSurface.diameter_m') } },
  rectangle: {
    rectangle: { width_m: defaultOf('RectangleSurface.width_m'), height_m: defaultOf('RectangleSurface.height_m') },
  },
};

/** The size of a modifier's glowing surface. */
export function ModifierSurface({ modifier, edit }: { modifier: Modifier; edit: Edit<Modifier> }) {
  const surface = modifier.surface;
  const size = (name: string, value: number, to: (value: number) => Modifier['surface']) => (
    <TypedField
      name={name}
      as="length"
      value={value}
      keptAs={`kit/${modifier.id}/${name}`}
      {...rangeOf('DiscSurface.diameter_m')}
      onValue={(u) => edit(name.toLowerCase(), (one) => ({ ...one, surface: to(u.value) }))}
    />
  );
  return (
    <>
      <div style={{ margin: '14px 0' }}>
        <Segments
          name="Glowing surface"
          value={Object.keys(surface)[0] as Shape}
          options={[
            { id: 'disc', label: 'Round' },
            { id: 'rectangle', label: 'Rectangle' },
            { id: 'bare', label: 'A point' },
          ]}
          onChange={(shape) => edit('surface', (one) => ({ ...one, surface: begunSurface[shape] }))}
        />
      </div>
      <Grid>
        {'disc' in surface && size('Diameter', surface.disc.diameter_m, (diameter_m) => ({ disc: { diameter_m } }))}
        {'rectangle' in surface && (
          <>
            {size('Width', surface.rectangle.width_m, (width_m) => ({ rectangle: { ...surface.rectangle, width_m } }))}
            {size('Height', surface.rectangle.height_m, (height_m) => ({
              rectangle: { ...surface.rectangle, height_m },
            }))}
          </>
        )}
      </Grid>
    </>
  );
}

type KnownBy = 'guide_number_metres' | 'guide_number_feet' | 'guide_number_zoom' | 'measured' | 'continuous';

const begunZoom = {
  zoom_mm: defaultOf('ZoomGuideNumber.zoom_mm'),
  guide_number_m: defaultOf('ZoomGuideNumber.guide_number_m'),
};

/** How each way of knowing a flash begins. */
const begun: Record<KnownBy, Flash['output']> = {
  guide_number_metres: {
    guide_number_metres: { guide_number_m: defaultOf('GuideNumberMetres.guide_number_m'), holds_for: '' },
  },
  guide_number_feet: {
    guide_number_feet: { guide_number_ft: defaultOf('GuideNumberFeet.guide_number_ft'), holds_for: '' },
  },
  guide_number_zoom: { guide_number_zoom: { table: [begunZoom] } },
  measured: {
    measured: {
      f_number: defaultOf('MeasuredOutput.f_number'),
      iso: defaultOf('MeasuredOutput.iso'),
      distance_m: defaultOf('MeasuredOutput.distance_m'),
      power_stops: defaultOf('MeasuredOutput.power_stops'),
      modifier_id: null,
    },
  },
  continuous: { continuous: { lux_at_1_m: defaultOf('ContinuousOutput.lux_at_1_m') } },
};

/** How strong a flash is: by its guide number, over its zoom, or better, by a reading of it. */
export function FlashOutput(props: { flash: Flash; modifiers: Kit['modifiers']; edit: Edit<Flash> }) {
  const { flash, modifiers, edit } = props;
  const kept = `kit/${flash.id}`;
  const output = flash.output;
  const set = (what: string, to: Flash['output']) => edit(what, (one) => ({ ...one, output: to }));
  return (
    <>
      <Grid style={{ marginTop: 12 }}>
        <Choice
          name="Power clicks"
          value={flash.power.step}
          options={[
            { id: 'tenth', label: 'Tenths of a stop' },
            { id: 'third', label: 'Thirds' },
            { id: 'half', label: 'Halves' },
            { id: 'whole', label: 'Whole stops' },
          ]}
          onChange={(step) => edit('power clicks', (one) => ({ ...one, power: { ...one.power, step } }))}
        />
        <TickBox
          name="The camera can meter it"
          value={flash.ttl}
          onChange={(ttl) => edit('automatic control', (one) => ({ ...one, ttl }))}
        />
        <Choice
          name="Its output is known by"
          value={Object.keys(output)[0] as KnownBy}
          options={[
            { id: 'guide_number_metres', label: 'Guide number, m' },
            { id: 'guide_number_feet', label: 'Guide number, ft' },
            { id: 'guide_number_zoom', label: 'Guide numbers over its zoom' },
            { id: 'measured', label: 'A reading' },
            { id: 'continuous', label: 'It burns on: lux at 1 m' },
          ]}
          onChange={(kind) => set('output', begun[kind])}
        />
      </Grid>
      <Grid style={{ marginTop: 12 }}>
        {'guide_number_metres' in output && (
          <GuideNumber
            unit="m"
            value={output.guide_number_metres.guide_number_m}
            holdsFor={output.guide_number_metres.holds_for ?? ''}
            range="GuideNumberMetres.guide_number_m"
            kept={kept}
            put={(guide_number_m, holds_for) =>
              set('guide number', { guide_number_metres: { guide_number_m, holds_for } })
            }
          />
        )}
        {'guide_number_feet' in output && (
          <GuideNumber
            unit="ft"
            value={output.guide_number_feet.guide_number_ft}
            holdsFor={output.guide_number_feet.holds_for ?? ''}
            range="GuideNumberFeet.guide_number_ft"
            kept={kept}
            put={(guide_number_ft, holds_for) =>
              set('guide number', { guide_number_feet: { guide_number_ft, holds_for } })
            }
          />
        )}
        {'continuous' in output && (
          <TypedField
            name="Lux at 1 m, full power, bare"
            as="number"
            value={output.continuous.lux_at_1_m}
            keptAs={`${kept}/lux`}
            {...rangeOf('ContinuousOutput.lux_at_1_m')}
            onValue={(u) => set('output', { continuous: { lux_at_1_m: u.value } })}
          />
        )}
        {'measured' in output && <Measured flash={flash} read={output.measured} modifiers={modifiers} set={set} />}
      </Grid>
      {'guide_number_zoom' in output && (
        <Table
          name="Guide numbers over the zoom"
          rows={output.guide_number_zoom.table}
          columns={[
            { field: 'zoom_mm', name: 'Zoom, mm', range: 'ZoomGuideNumber.zoom_mm' },
            { field: 'guide_number_m', name: 'Guide number, m', range: 'ZoomGuideNumber.guide_number_m' },
          ]}
          kept={`${kept}/zoom`}
          least={1}
          put={(table) => set('guide numbers', { guide_number_zoom: { table } })}
        />
      )}
      {!('continuous' in output) && (
        <Table
          name="How long it burns"
          rows={flash.durations ?? []}
          columns={[
            { field: 'power_stops', name: 'Power, stops under full', range: 'Duration.power_stops' },
            { field: 't01_s', name: 't₀.₁', range: 'Duration.t01_s', as: 'shutter' },
          ]}
          kept={`${kept}/duration`}
          least={0}
          begin={{ power_stops: defaultOf('Duration.power_stops'), t01_s: defaultOf('Duration.t01_s') }}
          put={(durations) => edit('duration', (one) => ({ ...one, durations }))}
        />
      )}
    </>
  );
}

type Read = Extract<Flash['output'], { measured: unknown }>['measured'];

function Measured(props: {
  flash: Flash;
  read: Read;
  modifiers: Kit['modifiers'];
  set: (what: string, to: Flash['output']) => void;
}) {
  const { flash, read, modifiers, set } = props;
  const kept = `kit/${flash.id}`;
  const put = (to: Partial<Read>) => set('reading', { measured: { ...read, ...to } });
  return (
    <>
      <TypedField
        name="The meter said"
        as="aperture"
        value={read.f_number}
        keptAs={`${kept}/measured_f`}
        onValue={(u) => put({ f_number: u.value })}
      />
      <TypedField
        name="Set to"
        as="iso"
        value={read.iso}
        keptAs={`${kept}/measured_iso`}
        onValue={(u) => put({ iso: u.value })}
      />
      <TypedField
        name="From the light to the meter"
        as="length"
        value={read.distance_m}
        keptAs={`${kept}/measured_d`}
        {...rangeOf('MeasuredOutput.distance_m')}
        onValue={(u) => put({ distance_m: u.value })}
      />
      <TypedField
        name="At this power, stops under full"
        as="stops"
        value={read.power_stops}
        keptAs={`${kept}/measured_p`}
        {...rangeOf('MeasuredOutput.power_stops')}
        onValue={(u) => put({ power_stops: u.value })}
      />
      <Choice
        name="Through"
        value={read.modifier_id ?? 'bare-head'}
        options={[
          { id: 'bare-head', label: 'Nothing, bare head' },
          ...modifiers.map((one) => ({ id: one.id, label: one.name })),
        ]}
        onChange={(chosen) => put({ modifier_id: chosen === 'bare-head' ? null : chosen })}
      />
    </>
  );
}

type GuideNumberProps = {
  unit: string;
  value: number;
  holdsFor: string;
  range: Ranged;
  kept: string;
  put: (value: number, holdsFor: string) => void;
};

function GuideNumber({ unit, value, holdsFor, range, kept, put }: GuideNumberProps) {
  return (
    <>
      <TypedField
        name={`Guide number, ${unit} at ISO 100, full power`}
        as="number"
        value={value}
        keptAs={`${kept}/gn_${unit}`}
        {...rangeOf(range)}
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

type Column<R> = { field: keyof R & string; name: string; range: Ranged; as?: 'shutter' | 'number' };

type TableProps<R> = {
  name: string;
  rows: R[];
  columns: Column<R>[];
  kept: string;
  /** Fewer than this there are not. */
  least: number;
  begin?: R;
  put: (rows: R[]) => void;
};

/** A short table of numbers. */
function Table<R extends { [key: string]: number }>({ name, rows, columns, kept, least, begin, put }: TableProps<R>) {
  const fresh = rows.at(-1) ?? begin;
  return (
    <fieldset style={{ border: 'none', padding: 0, margin: '14px 0 0' }}>
      <legend style={{ fontSize: 13, color: 'var(--quiet)', padding: 0, marginBottom: 4 }}>{name}</legend>
      {rows.map((row, index) => (
        <Row key={index} style={{ marginBottom: 6, flexWrap: 'nowrap' }}>
          {columns.map((column) => (
            <div key={column.field} style={{ flex: 1, minWidth: 0 }}>
              <TypedField
                name={`${column.name}, line ${index + 1}`}
                as={column.as ?? 'number'}
                value={row[column.field]}
                keptAs={`${kept}/${index}/${column.field}`}
                {...rangeOf(column.range)}
                onValue={(u) => put(rows.map((one, at) => (at === index ? { ...one, [column.field]: u.value } : one)))}
              />
            </div>
          ))}
          <Button
            kind="bare"
            aria-label={`${name}: remove line ${index + 1}`}
            isDisabled={rows.length <= least}
            onPress={() => put(rows.filter((_, at) => at !== index))}
          >
            <Trash2 size={16} aria-hidden />
          </Button>
        </Row>
      ))}
      {fresh && rows.length < 20 && (
        <Button aria-label={`${name}: add a line`} onPress={() => put([...rows, fresh])}>
          <Plus size={16} aria-hidden /> Add a line
        </Button>
      )}
    </fieldset>
  );
}
