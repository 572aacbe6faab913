import type { Depth, Plan } from '../../api/client';
import { useJob, useSetup } from '../../jobs/JobContext';
import { Choice } from '../../ui/Choice';
import { Facts } from '../../ui/Facts';
import { Grid, Panel } from '../../ui/Panel';
import { TickBox } from '../../ui/Ticks';
import { TypedField } from '../../ui/TypedField';
import { defaultOf, rangeOf, type Ranged } from '../../api/ranges';

const kinds = [
  { id: 'free', label: 'Whatever the light gives' },
  { id: 'one_head', label: 'One head, soft behind' },
  { id: 'rows', label: 'People in rows' },
  { id: 'deep', label: 'A subject so deep' },
  { id: 'close_up', label: 'Close up' },
] as const;
type DepthKind = (typeof kinds)[number]['id'];

const begun: Record<DepthKind, Depth> = {
  free: 'free',
  one_head: 'one_head',
  rows: { rows: { rows: defaultOf('Depth.rows.rows'), apart_m: defaultOf('Depth.rows.apart_m') } },
  deep: { deep: { depth_m: defaultOf('Depth.deep.depth_m') } },
  close_up: {
    close_up: {
      magnification: defaultOf('Depth.close_up.magnification'),
      depth_mm: defaultOf('Depth.close_up.depth_mm'),
      stacked: false,
      overlap: defaultOf('Depth.close_up.overlap'),
    },
  },
};

/** What is to be sharp, and what counts as sharp. */
export function Depths({ plan }: { plan: Plan }) {
  const { id } = useJob();
  const { setup, change } = useSetup();
  const depth = setup.depth ?? 'free';
  const circle = setup.circle_of_confusion ?? 'sensor_diagonal';
  const kept = `${id}/${setup.id}/depths`;
  const put = (what: string, to: Depth) => change(what, (one) => ({ ...one, depth: to }));
  const kind = (typeof depth === 'string' ? depth : Object.keys(depth)[0]) as DepthKind;
  const number = (
    name: string,
    value: number,
    range: Ranged,
    to: (value: number) => Depth,
    as: 'number' | 'length' = 'number',
    hint?: string,
  ) => (
    <TypedField
      name={name}
      as={as}
      value={value}
      keptAs={`${kept}/${name}`}
      {...rangeOf(range)}
      hint={hint}
      onValue={(u) => put(name, to(u.value))}
    />
  );
  const print = typeof circle === 'object' ? circle.print.long_side_cm : undefined;
  return (
    <Panel aria-labelledby="depth">
      <h3 id="depth" style={{ marginBottom: 8 }}>
        Depth
      </h3>
      <Grid style={{ marginBottom: 12 }}>
        <Choice
          name="What is to be sharp"
          value={kind}
          options={[...kinds]}
          onChange={(to) => put('What is to be sharp', begun[to])}
        />
        {typeof depth === 'object' && 'rows' in depth && (
          <>
            {number('Rows', depth.rows.rows, 'Depth.rows.rows', (rows) => ({
              rows: { ...depth.rows, rows: Math.round(rows) },
            }))}
            {number(
              'From row to row',
              depth.rows.apart_m,
              'Depth.rows.apart_m',
              (apart_m) => ({ rows: { ...depth.rows, apart_m } }),
              'length',
            )}
          </>
        )}
        {typeof depth === 'object' &&
          'deep' in depth &&
          number('How deep', depth.deep.depth_m, 'Depth.deep.depth_m', (depth_m) => ({ deep: { depth_m } }), 'length')}
        {typeof depth === 'object' && 'close_up' in depth && (
          <>
            {number(
              'Magnification',
              depth.close_up.magnification,
              'Depth.close_up.magnification',
              (magnification) => ({ close_up: { ...depth.close_up, magnification } }),
              'number',
              '1 is life size.',
            )}
            {number('Depth of the subject, mm', depth.close_up.depth_mm, 'Depth.close_up.depth_mm', (depth_mm) => ({
              close_up: { ...depth.close_up, depth_mm },
            }))}
            <TickBox
              name="Taken as a stack of frames"
              value={depth.close_up.stacked}
              onChange={(stacked) => put('Stack', { close_up: { ...depth.close_up, stacked } })}
            />
            {depth.close_up.stacked &&
              number('Overlap of frames, as a part', depth.close_up.overlap, 'Depth.close_up.overlap', (overlap) => ({
                close_up: { ...depth.close_up, overlap },
              }))}
          </>
        )}
        <Choice
          name="What counts as sharp"
          value={typeof circle === 'string' ? circle : 'print'}
          options={[
            { id: 'sensor_diagonal', label: 'A screen or small print' },
            { id: 'two_pixels', label: 'Two pixels' },
            { id: 'print', label: 'A print of its size' },
          ]}
          onChange={(to) =>
            change('What counts as sharp', (one) => ({
              ...one,
              circle_of_confusion:
                to === 'print' ? { print: { long_side_cm: defaultOf('CircleOfConfusion.print.long_side_cm') } } : to,
            }))
          }
        />
        {print !== undefined && (
          <TypedField
            name="Print, long side, cm"
            as="number"
            value={print}
            keptAs={`${kept}/print`}
            {...rangeOf('CircleOfConfusion.print.long_side_cm')}
            onValue={(u) =>
              change('Print', (one) => ({ ...one, circle_of_confusion: { print: { long_side_cm: u.value } } }))
            }
          />
        )}
      </Grid>
      <Facts name="Depth" facts={plan.depth} />
    </Panel>
  );
}
