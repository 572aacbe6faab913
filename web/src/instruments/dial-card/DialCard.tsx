import styled from 'styled-components';
import type { LightCard, Plan } from '../../api/client';
import { figures } from '../../app/theme';
import { useSetup } from '../../jobs/JobContext';
import { Lozenge } from '../stop-rail/shapes';
import { DialSelect } from './DialSelect';

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
  padding: 9px 12px 7px;
  span {
    display: block;
    font-size: 13px;
    color: var(--quiet);
  }
  strong {
    ${figures} font-size: 22px;
    font-weight: 620;
    line-height: 1.5;
    white-space: nowrap;
  }
  strong.none {
    color: var(--quiet);
    font-weight: 450;
  }
`;
const Lamp = styled(Box)`
  padding: 10px 12px;
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
export function DialCard({ plan }: { plan: Plan }) {
  const { setup, kit } = useSetup();
  const camera = kit.cameras.find((one) => one.id === setup.camera_id);
  const card = plan.dial_card;
  const fixed = setup.fixed ?? {};
  if (!camera) return null;
  return (
    <Whole aria-label="Dial card">
      <h2>Dial card</h2>
      <Cells>
        <DialSelect which="shutter" camera={camera} label={card.shutter.label} fixed={fixed.shutter_s} />
        <DialSelect which="aperture" camera={camera} label={card.aperture.label} fixed={fixed.f_number} />
        <DialSelect which="iso" camera={camera} label={card.iso.label} fixed={fixed.iso} />
        <Filter>
          <span>Filter</span>
          <strong className={card.filter ? '' : 'none'}>{card.filter ?? 'none'}</strong>
        </Filter>
      </Cells>
      {card.lights.map((light) => (
        <Unit key={light.light_id} light={light} plan={plan} />
      ))}
      {card.lights.length === 0 && <Lamp>No flash in this setup.</Lamp>}
    </Whole>
  );
}

function Unit({ light, plan }: { light: LightCard; plan: Plan }) {
  const on = light.power !== null && light.power !== undefined;
  const automatic = light.control === 'automatic';
  const compensation = light.compensation?.label;
  return (
    <Lamp aria-label={`Flash ${light.light_id}`}>
      <header>
        <svg width="16" height="16" viewBox="-8 -8 16 16" aria-hidden>
          <Lozenge />
        </svg>
        <span className="letter">{light.light_id}</span>
        <span className="power">{on ? (automatic ? `${compensation}` : light.power) : 'off'}</span>
        <span className="control">{on ? (automatic ? 'stops, automatic' : 'manual') : 'not used here'}</span>
      </header>
      <p>
        {light.flash}
        {light.power_fixed ? ', power fixed' : ''}
      </p>
      <dl>
        <dt>{light.modifier}</dt>
        <dd>{light.loss} stops</dd>
        {on && (
          <>
            <dt>To the subject</dt>
            <dd>{light.distance}</dd>
            <dt>Large and near</dt>
            <dd>{light.near_field} stops</dd>
            <dt>Exact power</dt>
            <dd>{light.power_exact} stops</dd>
            <dt>{automatic ? 'By hand instead' : 'Automatic instead'}</dt>
            <dd>{automatic ? light.power : `${compensation} stops`}</dd>
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
    </Lamp>
  );
}
