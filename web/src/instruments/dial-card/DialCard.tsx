import { Suspense } from 'react';
import styled from 'styled-components';
import type { LightCard, Plan } from '../../api/client';
import { useJobState, useLivePlan, useSetup } from '../../session/job';
import { lazily } from '../../ui/lazily';
import { figures, type } from '../../ui/tokens';
import { clockOf } from '../../ui/when';
import { Lozenge, Ring } from '../stop-rail/shapes';
import { dialNames, fixedAs, whichDials } from './dials';
import { cellLook, cellValueLook } from './look';

const DialSelect = lazily(() => import('./DialSelect'));
const BalanceSelect = lazily(() => import('./BalanceSelect'));

const Still = styled.div`
  ${cellLook}
  span {
    font-size: ${type.note}px;
    color: var(--quiet);
  }
  strong {
    ${cellValueLook}
  }
`;

/** A setting before its list has come. */
function Reads({ name, label }: { name: string; label: string }) {
  return (
    <Still>
      <span>{name}</span>
      <strong>{label}</strong>
    </Still>
  );
}

const Whole = styled.section`
  display: flex;
  flex-direction: column;
  gap: 10px;
  h2 {
    font-size: 13.5px;
    color: var(--quiet);
    font-weight: 600;
  }
`;
const Box = styled.div`
  border: 1px solid var(--line);
  border-radius: 9px;
  background: var(--panel);
`;
const Cells = styled(Box)`
  display: grid;
  grid-template-columns: 1fr 1fr;
  > * {
    border-top: 1px solid var(--line);
    border-left: 1px solid var(--line);
    margin: -1px 0 0 -1px;
  }
  overflow: hidden;
`;
const Filter = styled.div`
  grid-column: 1 / -1;
  padding: 4px 12px;
  display: flex;
  align-items: baseline;
  gap: 12px;
  span {
    font-size: 13px;
    color: var(--quiet);
  }
  strong {
    ${figures} font-size: 22px;
    font-weight: 620;
    line-height: 1.5;
    white-space: nowrap;
  }
`;
const Lamp = styled(Box)`
  padding: 10px 12px;
  &[data-slim] {
    padding: 5px 12px 7px;
    .power {
      font-size: 25px;
    }
    > p {
      margin-top: 0;
      font-size: 13px;
      color: var(--quiet);
    }
  }
  header {
    display: flex;
    align-items: baseline;
    gap: 7px;
  }
  header svg {
    align-self: center;
    overflow: visible;
  }
  .letter {
    color: var(--flash);
    font-weight: 700;
  }
  .power {
    ${figures} font-size: 31px;
    font-weight: 620;
    line-height: 1.15;
    white-space: nowrap;
  }
  .control {
    margin-left: auto;
    color: var(--quiet);
    font-size: 13px;
  }
  > p {
    font-size: 13.5px;
    margin-top: 3px;
  }
  dl {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 1px 10px;
    margin-top: 1px;
    font-size: 13.5px;
  }
  dt {
    color: var(--quiet);
  }
  dd {
    ${figures} text-align: right;
  }
`;

/** What to set on the camera and the flashes, on screen at every step. */
export function DialCard() {
  const { setup, kit } = useSetup();
  const plan = useLivePlan((one) => one);
  const old = useOld();
  const camera = kit.cameras.find((one) => one.id === setup.camera_id);
  if (!plan) return null;
  const card = plan.dial_card;
  const fixed = setup.fixed ?? {};
  const lens = kit.lenses.find((one) => one.id === setup.lens_id);
  if (!camera || !lens) return null;
  const dials = { camera, lens };
  return (
    <Whole aria-label="Dial card">
      <h2>Dial card{old !== undefined && <strong> of {clockOf(old)}: older than what is set</strong>}</h2>
      <Cells>
        {whichDials.map((which) => (
          <Suspense key={which} fallback={<Reads name={dialNames[which]} label={card[which].label} />}>
            <DialSelect
              which={which}
              {...dials}
              label={card[which].label}
              fixed={fixed[fixedAs[which]]}
              note={card[which].note}
            />
          </Suspense>
        ))}
        <Suspense fallback={<Reads name="White balance" label={card.white_balance} />}>
          <BalanceSelect label={card.white_balance} />
        </Suspense>
        {card.filter && (
          <Filter>
            <span>Filter</span>
            <strong>{card.filter}</strong>
          </Filter>
        )}
      </Cells>
      {card.lights.map((light) => (
        <Unit key={light.light_id} light={light} plan={plan} slim={card.lights.length > 1} />
      ))}
      {card.lights.length > 1 && plan.ratio && (
        <Lamp as="p">
          Lit over shadow {plan.ratio.before.label} → {plan.ratio.after.label} stops
        </Lamp>
      )}
      {card.lights.length === 0 && <Lamp>No flash in this setup.</Lamp>}
    </Whole>
  );
}

/** When the plan that is shown was made, where it is not of what is shown. */
function useOld(): number | undefined {
  return useJobState((state) => (state.lost || state.unplanned ? state.plan?.at : undefined));
}

/** A unit: all there is to know of it where it is the only one, and what is to be set where there are more. */
function Unit({ light, plan, slim }: { light: LightCard; plan: Plan; slim: boolean }) {
  const on = light.power !== null && light.power !== undefined;
  const automatic = light.control === 'ttl';
  const compensation = light.compensation?.label;
  const control = light.continuous ? 'lamp' : on ? (automatic ? 'stops, automatic' : 'manual') : 'not used here';
  return (
    <Lamp aria-label={`Flash ${light.light_id}`} data-slim={slim || undefined}>
      <header>
        <svg width="16" height="16" viewBox="-8 -8 16 16" aria-hidden>
          {light.continuous ? <Ring /> : <Lozenge />}
        </svg>
        <span className="letter">{light.light_id}</span>
        <span className="power">{on ? (automatic ? `${compensation}` : light.power) : 'off'}</span>
        <span className="control">{slim ? `${light.role}${automatic ? ', automatic' : ''}` : control}</span>
      </header>
      {slim ? (
        <p>
          {light.flash}
          {on ? `, ${light.distance}` : ''}
          {light.power_fixed && !light.continuous ? ', power fixed' : ''}
        </p>
      ) : (
        <>
          <p>
            {light.flash}
            {light.power_fixed && !light.continuous ? ', power fixed' : ''}
          </p>
          <dl>
            <dt>{light.modifier}</dt>
            <dd>{light.loss} stops</dd>
            {on && (
              <>
                <dt>To the subject</dt>
                <dd>{light.distance}</dd>
              </>
            )}
            {on && !light.continuous && (
              <>
                {light.near_field && (
                  <>
                    <dt>Large and near</dt>
                    <dd>{light.near_field} stops</dd>
                  </>
                )}
                <dt>Exact power</dt>
                <dd>{light.power_exact} stops</dd>
                {compensation && (
                  <>
                    <dt>{automatic ? 'By hand instead' : 'Automatic instead'}</dt>
                    <dd>{automatic ? light.power : `${compensation} stops`}</dd>
                  </>
                )}
              </>
            )}
            {plan.ratio && (
              <>
                <dt>Lit over shadow</dt>
                <dd>
                  {plan.ratio.before.label}
                  {on ? ` → ${plan.ratio.after.label}` : ''} stops
                </dd>
              </>
            )}
          </dl>
        </>
      )}
    </Lamp>
  );
}
