import styled from 'styled-components';
import type { Light } from '../../api/client';
import { Field } from '../../session/fields/Field';
import { useLivePlan, useSetup } from '../../session/job';
import { Facts } from '../../ui/Facts';
import { Grid } from '../../ui/Panel';
import { space } from '../../ui/tokens';

const Fields = styled(Grid)`
  margin-bottom: ${space.part}px;
`;

const Below = styled.div`
  margin-bottom: ${space.part}px;
`;

/** What a light gives the regions it is not aimed at. */
export function Reaches({ light }: { light: Light }) {
  const { setup, set } = useSetup();
  const aimed = light.aimed_at ?? setup.regions.find((region) => region.role === 'lit_side')?.id;
  const spill = light.spill ?? [];
  const worked = useLivePlan((plan) => plan.set?.reaches)?.filter((one) => one.light_id === light.id && one.from_set);
  if (setup.set) {
    const facts = (worked ?? []).flatMap((reach) => {
      const region = setup.regions.find((one) => one.id === reach.region_id);
      if (!region || region.id === aimed) return [];
      const given = reach.spill.stops === null ? 'nothing' : `${reach.spill.label} stops`;
      const typed = spill.find((one) => one.region_id === region.id);
      const before = typed ? ' (typed before the set was used; it is kept, and not reckoned with)' : '';
      const bounced = reach.bounced ? `, ${reach.bounced} of it bounced` : '';
      return [{ about: `On ${region.name.toLowerCase()}`, says: `${given}${bounced}, from the set${before}` }];
    });
    return (
      <Below>
        <Facts name={`What ${light.id} reaches`} facts={facts} />
      </Below>
    );
  }
  return (
    <Fields $min={220}>
      {setup.regions
        .filter((region) => region.id !== aimed)
        .map((region) => {
          const index = spill.findIndex((one) => one.region_id === region.id);
          const at = ['lights', { id: light.id }, 'spill'];
          const without = () =>
            set(
              `${light.id}: on ${region.name}`,
              at,
              spill.filter((one) => one.region_id !== region.id),
            );
          return (
            <Field
              key={region.id}
              of="Spill.stops"
              name={`On ${region.name.toLowerCase()}, stops`}
              at={[...at, index < 0 ? spill.length : index, 'stops']}
              {...(index < 0
                ? { typed: (text: string) => ({ reach: { light_id: light.id, region_id: region.id, text } }) }
                : {})}
              placeholder="not at all"
              action={index < 0 ? undefined : { name: 'not at all', run: without }}
            />
          );
        })}
    </Fields>
  );
}
