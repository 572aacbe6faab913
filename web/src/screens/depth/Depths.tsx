import { begin, type FieldName } from '../../api/fields';
import { Field } from '../../session/fields/Field';
import { useLivePlan, useSetup } from '../../session/job';
import { Choice } from '../../ui/Choice';
import { Facts } from '../../ui/Facts';
import { Grid, Panel, Part } from '../../ui/Panel';
import { TickBox } from '../../ui/Ticks';
import { DepthLane } from './DepthLane';

const kinds = [
  { id: 'free', label: 'Whatever the light gives' },
  { id: 'one_head', label: 'One head, soft behind' },
  { id: 'rows', label: 'People in rows' },
  { id: 'deep', label: 'A subject so deep' },
  { id: 'close_up', label: 'Close up' },
] as const;
type DepthKind = (typeof kinds)[number]['id'];

/** The numbers of each kind. */
const numbers: { [kind in DepthKind]?: string[] } = {
  rows: ['rows', 'apart_m'],
  deep: ['depth_m'],
  close_up: ['magnification', 'depth_mm'],
};

/** What is to be sharp, and what counts as sharp. */
export function Depths() {
  const { setup, set } = useSetup();
  const facts = useLivePlan((plan) => plan.depth) ?? [];
  const depth = setup.depth ?? 'free';
  const circle = setup.circle_of_confusion ?? 'sensor_diagonal';
  const kind = (typeof depth === 'string' ? depth : Object.keys(depth)[0]) as DepthKind;
  const stacked = typeof depth === 'object' && 'close_up' in depth ? depth.close_up.stacked : undefined;
  const field = (name: string) => (
    <Field key={name} of={`Depth.${kind}.${name}` as FieldName} at={['depth', kind, name]} />
  );
  return (
    <Panel aria-labelledby="depth">
      <Part id="depth">Depth</Part>
      <Grid>
        <Choice
          name="What is to be sharp"
          value={kind}
          options={[...kinds]}
          onChange={(to) => set('What is to be sharp', ['depth'], begin('Depth', to))}
        />
        {numbers[kind]?.map(field)}
        {stacked !== undefined && (
          <TickBox
            name="Taken as a stack of frames"
            value={stacked}
            onChange={(to) => set('Stack', ['depth', 'close_up', 'stacked'], to)}
          />
        )}
        {stacked && field('overlap')}
        <Choice
          name="What counts as sharp"
          value={typeof circle === 'string' ? circle : 'print'}
          options={[
            { id: 'sensor_diagonal', label: 'A screen or small print' },
            { id: 'two_pixels', label: 'Two pixels' },
            { id: 'print', label: 'A print of its size' },
          ]}
          onChange={(to) => set('What counts as sharp', ['circle_of_confusion'], begin('CircleOfConfusion', to))}
        />
        {typeof circle === 'object' && (
          <Field
            of="CircleOfConfusion.print.long_side_cm"
            at={['circle_of_confusion', 'print', 'long_side_cm']}
            says="Print"
          />
        )}
      </Grid>
      <DepthLane />
      <Facts name="Depth" facts={facts} />
    </Panel>
  );
}
