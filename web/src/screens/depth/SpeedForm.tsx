import { begin } from '../../api/fields';
import { useStart } from '../../api/start';
import { Field } from '../../session/fields/Field';
import { useLivePlan, useSetup } from '../../session/job';
import { Choice } from '../../ui/Choice';
import { Facts } from '../../ui/Facts';
import { Grid, Panel, Part } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';

/** What keeps the camera still, and what moves before it. */
export function SpeedForm() {
  const { setup, set } = useSetup();
  const facts = useLivePlan((plan) => plan.speed) ?? [];
  const start = useStart();
  const { speed } = setup;
  if (!speed) return null;
  const { movement } = speed;
  const slowest = speed.slowest_shutter_s;
  const said = slowest !== null && slowest !== undefined;
  return (
    <Panel aria-labelledby="speed">
      <Part id="speed">Speed</Part>
      <Grid>
        <Segments
          name="The camera"
          value={speed.tripod ? 'tripod' : 'hand'}
          options={[
            { id: 'hand', label: 'By hand' },
            { id: 'tripod', label: 'On a tripod' },
          ]}
          onChange={(on) => set('Tripod', ['speed', 'tripod'], on === 'tripod')}
        />
        {!speed.tripod && (
          <Choice
            name="Slowest by hand"
            value={speed.school}
            options={(start?.handheld_rules ?? []).map((one) => ({ id: one.rule, label: one.name }))}
            onChange={(to) => set('Slowest by hand', ['speed', 'school'], to)}
          />
        )}
        <Choice
          name="What moves"
          value={typeof movement === 'string' ? movement : 'speed'}
          options={[
            ...(start?.movements ?? []).map((one) => ({ id: String(one.movement), label: one.name })),
            { id: 'speed', label: 'By its speed' },
          ]}
          onChange={(to) => set('What moves', ['speed', 'movement'], begin('Movement', to))}
        />
        {typeof movement === 'object' && (
          <Field of="Movement.speed.metres_per_s" at={['speed', 'movement', 'speed', 'metres_per_s']} says="Speed" />
        )}
        <Field of="Speed.blur_px" at={['speed', 'blur_px']} />
        <Field
          of="Speed.slowest_shutter_s"
          at={['speed', 'slowest_shutter_s']}
          says="Slowest shutter"
          placeholder="from hand and movement"
          action={
            said
              ? {
                  name: 'leave to Tolva',
                  run: () => set('Slowest shutter', ['speed', 'slowest_shutter_s'], null),
                }
              : undefined
          }
        />
      </Grid>
      <Grid $min={300} $below>
        <Facts name="Speed" facts={facts} />
      </Grid>
    </Panel>
  );
}
