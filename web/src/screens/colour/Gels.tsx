import { memo } from 'react';
import styled from 'styled-components';
import type { ColourOptions } from '../../api/client';
import { usePlan, useSetup } from '../../session/job';
import { useOptions } from '../../session/kit';
import { Button } from '../../ui/Button';
import { Lead, Panel } from '../../ui/Panel';
import { Ticks } from '../../ui/Ticks';

const One = styled.div`
  border-top: 1px solid var(--line);
  padding: 10px 0;
  display: flex;
  flex-direction: column;
  gap: 8px;
  .offer {
    display: flex;
    flex-wrap: wrap;
    gap: 4px 12px;
    align-items: center;
  }
`;

/** The gels on each light, and those that bring it to the light that is there. */
export const Gels = memo(function Gels({ ways }: { ways: ColourOptions | undefined }) {
  const { setup, kit, set, take } = useSetup();
  const plan = usePlan();
  const gels = useOptions(kit, 'gels');
  if (setup.lights.length === 0) return null;
  return (
    <Panel aria-labelledby="gels">
      <h3 id="gels">Gels</h3>
      <Lead>What a gel takes goes into the power at once. Keep gels off hot modelling lamps and bare tubes.</Lead>
      {setup.lights.map((light) => {
        const card = plan?.dial_card.lights.find((one) => one.light_id === light.id);
        const offer = ways?.gels.find((one) => one.light_id === light.id);
        const mark = plan?.colour.marks.find((one) => one.kind !== 'ambient' && one.id === light.id);
        return (
          <One key={light.id}>
            <strong>
              {light.id}, {card?.flash}: {mark?.label}
              {card?.power ? `, ${card.power}` : ''}
            </strong>
            {gels.length > 0 ? (
              <Ticks
                name={`Gels on ${light.id}`}
                value={light.gel_ids ?? []}
                options={gels}
                onChange={(gel_ids) => set(`${light.id}: gels`, ['lights', { id: light.id }, 'gel_ids'], gel_ids)}
              />
            ) : (
              <p>There is no gel in the kit.</p>
            )}
            {offer && (
              <div className="offer">
                <span>
                  Nearest to the ambient: <strong>{offer.gels}</strong>. {offer.says}.
                </span>
                {offer.chosen ? (
                  <span>On it now.</span>
                ) : (
                  <Button
                    aria-label={`Use that: gel ${light.id} to the ambient`}
                    onPress={() => take(`${light.id}: gelled to the ambient`, offer.setup, setup)}
                  >
                    Use that
                  </Button>
                )}
              </div>
            )}
          </One>
        );
      })}
    </Panel>
  );
});
