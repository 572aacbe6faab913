import { Plus, Trash2 } from 'lucide-react';
import styled from 'styled-components';
import type { Camera, Flash, Kit, Modifier } from '../../api/client';
import '../../api/moreFields';
import { cardKinds } from '../../api/cards';
import { useStart } from '../../api/start';
import { begin, fieldOf, type FieldName, mostOf } from '../../api/fields';
import { Field } from '../../session/fields/Field';
import { Words } from '../../session/fields/Words';
import type { Path } from '../../session/machine/change';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Grid } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { TickBox } from '../../ui/Ticks';
import { space, type } from '../../ui/tokens';

/** Puts something into the thing, in words for undo. */
type Put = (says: string, at: string[], to: unknown) => void;

const Block = styled.div`
  margin: ${space.part}px 0;
`;

const clicks = [
  { id: 'third' as const, label: 'Thirds of a stop' },
  { id: 'half' as const, label: 'Halves' },
  { id: 'whole' as const, label: 'Whole stops' },
];

/** What one click of each dial goes. */
export function CameraClicks({ camera, put }: { camera: Camera; put: Put }) {
  return (
    <Grid $below>
      <Choice
        name="Shutter clicks"
        value={camera.shutter.step}
        options={clicks}
        onChange={(step) => put('shutter clicks', ['shutter', 'step'], step)}
      />
      <Choice
        name="Aperture clicks"
        value={camera.aperture_step}
        options={clicks}
        onChange={(step) => put('aperture clicks', ['aperture_step'], step)}
      />
      <Choice
        name="ISO clicks"
        value={camera.iso.step}
        options={clicks}
        onChange={(step) => put('ISO clicks', ['iso', 'step'], step)}
      />
    </Grid>
  );
}

/** What a card is of. */
export function BoardKind({ board, put }: { board: Kit['boards'][number]; put: Put }) {
  return (
    <Grid $below>
      <Choice
        name="What it is of"
        value={board.kind}
        options={cardKinds}
        onChange={(to) => put('what of', ['kind'], to)}
      />
    </Grid>
  );
}

/** The colour of a backdrop. */
export function BackdropColour({ backdrop, put }: { backdrop: Kit['backdrops'][number]; put: Put }) {
  const colours = (useStart()?.surface_colours ?? []).map((one) => ({ id: one.colour, label: one.name }));
  return (
    <Grid $below>
      <Choice
        name="Its colour"
        value={backdrop.colour}
        options={colours}
        onChange={(to) => put('colour', ['colour'], to)}
      />
    </Grid>
  );
}

type Shape = 'bare' | 'disc' | 'rectangle';

/** The size of a modifier's glowing surface. */
export function ModifierSurface({ modifier, put }: { modifier: Modifier; put: Put }) {
  const shape = Object.keys(modifier.surface)[0] as Shape;
  const at: Path = ['modifiers', { id: modifier.id }, 'surface', shape];
  return (
    <>
      <Block>
        <Segments
          name="Glowing surface"
          value={shape}
          options={[
            { id: 'disc', label: 'Round' },
            { id: 'rectangle', label: 'Rectangle' },
            { id: 'bare', label: 'A point' },
          ]}
          onChange={(to) => put('surface', ['surface'], begin('ModifierSurface', to))}
        />
      </Block>
      <Grid>
        {shape === 'disc' && <Field of="DiscSurface.diameter_m" at={[...at, 'diameter_m']} />}
        {shape === 'rectangle' && (
          <>
            <Field of="RectangleSurface.width_m" at={[...at, 'width_m']} />
            <Field of="RectangleSurface.height_m" at={[...at, 'height_m']} />
          </>
        )}
      </Grid>
    </>
  );
}

type KnownBy = 'guide_number_metres' | 'guide_number_feet' | 'guide_number_zoom' | 'measured' | 'continuous';

/** How strong a flash is: by its guide number, over its zoom, or better, by a reading of it. */
export function FlashOutput({ flash, modifiers, put }: { flash: Flash; modifiers: Kit['modifiers']; put: Put }) {
  const { output } = flash;
  const known = Object.keys(output)[0] as KnownBy;
  const thing: Path = ['flashes', { id: flash.id }];
  const at: Path = [...thing, 'output', known];
  return (
    <>
      <Grid $below>
        <Choice
          name="Power clicks"
          value={flash.power.step}
          options={[
            { id: 'tenth', label: 'Tenths of a stop' },
            { id: 'third', label: 'Thirds' },
            { id: 'half', label: 'Halves' },
            { id: 'whole', label: 'Whole stops' },
          ]}
          onChange={(step) => put('power clicks', ['power', 'step'], step)}
        />
        <TickBox
          name="The camera can meter it"
          value={flash.ttl}
          onChange={(ttl) => put('automatic control', ['ttl'], ttl)}
        />
        <Choice
          name="Its output is known by"
          value={known}
          options={[
            { id: 'guide_number_metres', label: 'Guide number, m' },
            { id: 'guide_number_feet', label: 'Guide number, ft' },
            { id: 'guide_number_zoom', label: 'Guide numbers over its zoom' },
            { id: 'measured', label: 'A reading' },
            { id: 'continuous', label: 'It burns on: lux at 1 m' },
          ]}
          onChange={(to) => put('output', ['output'], begin('FlashOutput', to))}
        />
      </Grid>
      <Grid $below>
        {known === 'guide_number_metres' && (
          <Field of="GuideNumberMetres.guide_number_m" at={[...at, 'guide_number_m']} />
        )}
        {known === 'guide_number_feet' && (
          <Field of="GuideNumberFeet.guide_number_ft" at={[...at, 'guide_number_ft']} />
        )}
        {(known === 'guide_number_metres' || known === 'guide_number_feet') && (
          <Words
            name="Holds for (zoom or reflector)"
            at={[...at, 'holds_for']}
            says="Flash: guide number"
            placeholder="35 mm zoom"
          />
        )}
        {known === 'continuous' && (
          <>
            <Field of="ContinuousOutput.lux_at_1_m" at={[...at, 'lux_at_1_m']} />
            <Field of="ContinuousOutput.battery_full_min" at={[...at, 'battery_full_min']} placeholder="on mains" />
          </>
        )}
        {'measured' in output && (
          <>
            <Field of="MeasuredOutput.f_number" at={[...at, 'f_number']} />
            <Field of="MeasuredOutput.iso" at={[...at, 'iso']} />
            <Field of="MeasuredOutput.distance_m" at={[...at, 'distance_m']} />
            <Field of="MeasuredOutput.power_stops" at={[...at, 'power_stops']} />
            <Choice
              name="Through"
              value={output.measured.modifier_id ?? 'bare-head'}
              options={[
                { id: 'bare-head', label: 'Nothing, bare head' },
                ...modifiers.map((one) => ({ id: one.id, label: one.name })),
              ]}
              onChange={(to) => put('reading', ['output', 'measured', 'modifier_id'], to === 'bare-head' ? null : to)}
            />
          </>
        )}
      </Grid>
      {'guide_number_zoom' in output && (
        <Table
          name="Guide numbers over the zoom"
          rows={output.guide_number_zoom.table}
          columns={['ZoomGuideNumber.zoom_mm', 'ZoomGuideNumber.guide_number_m']}
          thing={thing}
          at={['output', 'guide_number_zoom', 'table']}
          least={1}
          most={mostOf('GuideNumberZoom.table')}
          put={put}
        />
      )}
      {known !== 'continuous' && (
        <Table
          name="How long it burns"
          rows={flash.durations ?? []}
          columns={['Duration.power_stops', 'Duration.t01_s']}
          thing={thing}
          at={['durations']}
          least={0}
          most={mostOf('Flash.durations')}
          put={put}
        />
      )}
    </>
  );
}

const Lines = styled.fieldset`
  border: none;
  padding: 0;
  margin: ${space.part}px 0 0;
  legend {
    font-size: ${type.note}px;
    color: var(--quiet);
    padding: 0;
    margin-bottom: 4px;
  }
`;
const Line = styled.div`
  display: flex;
  align-items: flex-end;
  gap: ${space.gap}px;
  margin-bottom: ${space.near}px;
  > div {
    flex: 1;
    min-width: 0;
  }
`;

type TableProps = {
  name: string;
  rows: { [key: string]: number }[];
  columns: FieldName[];
  thing: Path;
  at: string[];
  /** Fewer than this there are not. */
  least: number;
  most: number;
  put: Put;
};

/** A short table of numbers. */
function Table({ name, rows, columns, thing, at, least, most, put }: TableProps) {
  const fieldIn = (column: FieldName) => column.split('.')[1] ?? '';
  const fresh = rows.at(-1) ?? Object.fromEntries(columns.map((one) => [fieldIn(one), fieldOf(one).default]));
  return (
    <Lines>
      <legend>{name}</legend>
      {rows.map((_, index) => (
        <Line key={index}>
          {columns.map((column) => (
            <Field
              key={column}
              of={column}
              name={`${fieldOf(column).name}, line ${index + 1}`}
              at={[...thing, ...at, index, fieldIn(column)]}
            />
          ))}
          <Button
            kind="bare"
            aria-label={`${name}: remove line ${index + 1}`}
            isDisabled={rows.length <= least}
            onPress={() =>
              put(
                name.toLowerCase(),
                at,
                rows.filter((_, other) => other !== index),
              )
            }
          >
            <Trash2 size={16} aria-hidden />
          </Button>
        </Line>
      ))}
      {rows.length < most && (
        <Button aria-label={`${name}: add a line`} onPress={() => put(name.toLowerCase(), at, [...rows, fresh])}>
          <Plus size={16} aria-hidden /> Add a line
        </Button>
      )}
    </Lines>
  );
}
