import type { Plan, Speed } from '../../api/client';
import { useStart } from '../../app/start';
import { useJob, useSetup } from '../../jobs/JobContext';
import { Choice } from '../../ui/Choice';
import { Facts } from '../../ui/Facts';
import { Grid, Panel } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { TypedField } from '../../ui/TypedField';
import { defaultOf, rangeOf } from '../../api/ranges';

const usual: Speed = {
  tripod: false,
  school: 'one_over_focal',
  movement: 'held_pose',
  blur_px: defaultOf('Speed.blur_px'),
};

/** What keeps the camera still, and what moves before it. */
export function SpeedForm({ plan }: { plan: Plan }) {
  const { id } = useJob();
  const { setup, change } = useSetup();
  const start = useStart();
  const speed = setup.speed ?? usual;
  const kept = `${id}/${setup.id}/speed`;
  const put = (what: string, to: Partial<Speed>) => change(what, (one) => ({ ...one, speed: { ...speed, ...to } }));
  const movement = speed.movement;
  const own = typeof movement === 'object' ? movement.speed.metres_per_s : undefined;
  return (
    <Panel aria-labelledby="speed">
      <h3 id="speed" style={{ marginBottom: 8 }}>
        Speed
      </h3>
      <Grid style={{ marginBottom: 12 }}>
        <Segments
          name="The camera"
          value={speed.tripod ? 'tripod' : 'hand'}
          options={[
            { id: 'hand', label: 'By hand' },
            { id: 'tripod', label: 'On a tripod' },
          ]}
          onChange={(on) => put('Tripod', { tripod: on === 'tripod' })}
        />
        {!speed.tripod && (
          <Choice
            name="Slowest by hand"
            value={speed.school}
            options={(start?.handheld_rules ?? []).map((one) => ({ id: one.rule, label: one.name }))}
            onChange={(school) => put('Slowest by hand', { school })}
          />
        )}
        <Choice
          name="What moves"
          value={typeof movement === 'string' ? movement : 'speed'}
          options={[
            ...(start?.movements ?? []).map((one) => ({ id: String(one.movement), label: one.name })),
            { id: 'speed', label: 'By its speed' },
          ]}
          onChange={(to) =>
            put('What moves', {
              movement:
                to === 'speed'
                  ? { speed: { metres_per_s: defaultOf('Movement.speed.metres_per_s') } }
                  : (to as Speed['movement']),
            })
          }
        />
        {own !== undefined && (
          <TypedField
            name="Speed across the view, m/s"
            as="number"
            value={own}
            keptAs={`${kept}/own`}
            {...rangeOf('Movement.speed.metres_per_s')}
            onValue={(u) => put('Speed', { movement: { speed: { metres_per_s: u.value } } })}
          />
        )}
        <TypedField
          name="Blur allowed, pixels"
          as="number"
          value={speed.blur_px}
          keptAs={`${kept}/blur`}
          {...rangeOf('Speed.blur_px')}
          onValue={(u) => put('Blur allowed', { blur_px: u.value })}
        />
        <TypedField
          name="Slowest shutter allowed"
          as="shutter"
          value={speed.slowest_shutter_s}
          placeholder="from hand and movement"
          keptAs={`${kept}/slowest`}
          onValue={(u) => put('Slowest shutter', { slowest_shutter_s: u.value })}
          action={
            speed.slowest_shutter_s === null || speed.slowest_shutter_s === undefined
              ? undefined
              : { name: 'leave to Tolva', run: () => put('Slowest shutter', { slowest_shutter_s: null }) }
          }
        />
      </Grid>
      <Facts name="Speed" facts={plan.speed} />
    </Panel>
  );
}
