import styled from 'styled-components';
import type { Light } from '../../api/client';
import { Field } from '../../session/fields/Field';
import { type SetupCommand, useLivePlan, useSetup } from '../../session/job';
import type { Path } from '../../session/machine/change';
import { Choice } from '../../ui/Choice';
import { Facts } from '../../ui/Facts';
import { Grid } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { space } from '../../ui/tokens';

const Fields = styled(Grid)`
  margin-bottom: ${space.part}px;
`;

const Told = styled.div`
  margin-bottom: ${space.part}px;
`;

type Holds = 'stand' | 'boom' | 'held' | 'clamped';

/** Where a light stands on the set, in numbers: everything the drawing does is done here too. */
export function LightOnSet({ light }: { light: Light }) {
  const { setup, kit, ask, set: put } = useSetup();
  const here = useLivePlan((plan) => plan.set?.lights.find((one) => one.light_id === light.id));
  const place = light.place;
  if (!place) return null;
  const about = `lights/${light.id}`;
  const at: Path = ['lights', { id: light.id }, 'place'];
  const typed = (what: 'over' | 'round') => (text: string) => ({ set: { typed: { light_id: light.id, what, text } } });
  const surfaces = [
    ...(setup.set?.walls ?? []).map((wall) => ({ id: `wall/${wall.id}`, label: wall.name })),
    ...(setup.set?.cards ?? []).map((card) => ({ id: `card/${card.id}`, label: card.name })),
    ...(setup.set?.ceiling ? [{ id: 'ceiling', label: 'The ceiling' }] : []),
  ];
  const lit = setup.regions.find((region) => region.role === 'lit_side')?.id ?? '';
  const aim = (to: string) => {
    const [kind = '', id = ''] = to.split('/');
    const thing = to === 'ceiling' ? to : to === 'subject' ? { region: light.aimed_at ?? lit } : { [kind]: id };
    const command = { set: { aim: { light_id: light.id, at: thing } } } as SetupCommand;
    ask(`${light.id}: looks at`, command, about);
  };
  const holds = (typeof place.support === 'string' ? place.support : place.support ? 'boom' : 'stand') as Holds;
  return (
    <>
      <Fields $min={220}>
        <Field
          of="LightPlace.direction_deg"
          name="Round it, degrees to its right"
          hint="Minus is to its left."
          at={[...at, 'round']}
          typed={typed('round')}
          shown={here?.round ?? ''}
          still
        />
        <Field
          of="Card.z_m"
          name="Over what it is aimed at"
          hint="Minus is under it."
          at={[...at, 'over']}
          typed={typed('over')}
          shown={here?.over ?? ''}
          still
        />
        <Choice
          name="Its head looks"
          value={place.head ? 'elsewhere' : 'subject'}
          options={[
            { id: 'subject', label: 'At what it is aimed at' },
            ...(place.head ? [{ id: 'elsewhere', label: 'Where it was turned' }] : []),
            ...surfaces.map((one) => ({ ...one, label: `At ${one.label}, to bounce` })),
          ]}
          onChange={(to) => to !== 'elsewhere' && aim(to)}
        />
        {place.head ? (
          <>
            <Field of="Head.azimuth_deg" at={[...at, 'head', 'azimuth_deg']} />
            <Field of="Head.elevation_deg" at={[...at, 'head', 'elevation_deg']} />
          </>
        ) : (
          <Segments
            name="Turned away"
            value={place.feather_to ?? 'camera'}
            options={[
              { id: 'camera', label: 'To the camera' },
              { id: 'away', label: 'From it' },
              { id: 'up', label: 'Up' },
              { id: 'down', label: 'Down' },
            ]}
            onChange={(to) => put(`${light.id}: turned away`, [...at, 'feather_to'], to)}
          />
        )}
        <Field of="LightPlace.roll_deg" at={[...at, 'roll_deg']} />
        <Segments
          name="Held by"
          value={holds}
          options={[
            { id: 'stand', label: 'Its stand' },
            { id: 'boom', label: 'A boom' },
            { id: 'held', label: 'A helper' },
            { id: 'clamped', label: 'A clamp' },
          ]}
          onChange={(to) =>
            put(`${light.id}: held by`, [...at, 'support'], to === 'boom' ? { boom: { arm_m: 1.2 } } : to)
          }
        />
        {holds === 'boom' && (
          <>
            <Choice
              name="Which boom"
              value={light.boom_id ?? ''}
              options={[{ id: '', label: 'Not said' }, ...kit.booms.map(({ id, name }) => ({ id, label: name }))]}
              onChange={(to) => put(`${light.id}: boom`, [...at.slice(0, -1), 'boom_id'], to === '' ? null : to)}
            />
            <Field of="Support.boom.arm_m" at={[...at, 'support', 'boom', 'arm_m']} />
          </>
        )}
      </Fields>
      {here && (
        <Told>
          <Facts name={`Where ${light.id} stands`} facts={here.facts} />
        </Told>
      )}
    </>
  );
}
