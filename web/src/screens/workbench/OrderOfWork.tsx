import { memo } from 'react';
import { Link } from 'react-aria-components';
import styled from 'styled-components';
import { useStart } from '../../api/start';
import { useJobState, useLivePlan, useShownSetup } from '../../session/job';
import { space, type } from '../../ui/tokens';
import { blendKind, type StepId, steps, summaries } from './steps';

const Nav = styled.nav`
  h2 {
    font-size: ${type.note}px;
    color: var(--quiet);
    font-weight: 600;
    padding: 0 16px ${space.near}px;
  }
`;
const Step = styled(Link)`
  display: grid;
  grid-template-columns: 20px 1fr;
  gap: 0 9px;
  padding: 7px ${space.part}px;
  min-height: 44px;
  color: inherit;
  text-decoration: none;
  border-left: 3px solid transparent;
  outline-offset: -3px;
  > :first-child {
    color: var(--quiet);
  }
  strong {
    font-weight: 650;
    font-size: 15px;
  }
  small {
    font-size: ${type.note}px;
    color: var(--quiet);
    display: block;
  }
  &[data-hovered] {
    background: var(--chosen);
  }
  &[aria-current] {
    background: var(--chosen);
    border-left-color: var(--ink);
  }
`;

type Props = { base: string; step: StepId; untitled?: boolean };

/** The order of work is the navigation, and each step shows its present value. */
export function OrderOfWork({ base, step, untitled }: Props) {
  const start = useStart();
  const setup = useShownSetup();
  const blend = start?.blends.find((one) => one.kind === blendKind(setup.blend))?.name ?? '';
  // One text, so that the list renders again only when it says something else.
  const said = useLivePlan((plan) => summaries(setup, plan, blend).join('\n'))?.split('\n');
  const place = useJobState((state) => state.plan === undefined) ? summaries(setup, undefined, blend) : said;
  return (
    <Nav aria-label="Order of work">
      {!untitled && <h2>Order of work</h2>}
      <ol>
        {steps.map((one, index) => (
          <Item
            key={one.id}
            href={`${base}/${one.id}`}
            current={one.id === step}
            number={one.key}
            name={one.name}
            says={place?.[index] ?? ''}
          />
        ))}
      </ol>
    </Nav>
  );
}

type ItemProps = { href: string; current: boolean; number: string; name: string; says: string };

const Item = memo(function Item({ href, current, number, name, says }: ItemProps) {
  return (
    <li>
      <Step href={href} aria-current={current ? 'step' : undefined}>
        <span>{number}</span>
        <span>
          <strong>{name}</strong>
          <small>{says}</small>
        </span>
      </Step>
    </li>
  );
});
