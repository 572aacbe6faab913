import { memo } from 'react';
import { Link } from 'react-aria-components';
import styled from 'styled-components';
import type { Plan, Setup } from '../api/client';
import { type StepId, steps, summary } from '../steps/steps';
import { narrow } from './theme';

const Nav = styled.nav`
  grid-area: nav;
  background: var(--panel);
  border-right: 1px solid var(--line);
  padding: 14px 0;
  h2 {
    font-size: 13.5px;
    color: var(--quiet);
    font-weight: 600;
    padding: 0 16px 8px;
  }
  ${narrow} {
    border: none;
    border-radius: 9px;
    padding: 10px 0;
  }
`;
const Step = styled(Link)`
  display: grid;
  grid-template-columns: 20px 1fr;
  gap: 0 9px;
  padding: 7px 14px 7px 13px;
  color: inherit;
  text-decoration: none;
  border-left: 3px solid transparent;
  outline-offset: -3px;
  > span {
    color: var(--quiet);
  }
  strong {
    font-weight: 650;
    font-size: 15px;
  }
  small {
    font-size: 13px;
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

type Props = { base: string; step: StepId; setup: Setup; plan: Plan | undefined; blendName: string };

/** The order of work is the navigation, and each step shows its present value. */
export function OrderOfWork({ base, step, setup, plan, blendName }: Props) {
  return (
    <Nav aria-label="Order of work">
      <h2>Order of work</h2>
      <ol>
        {steps.map((one, index) => (
          <Item
            key={one.id}
            href={`${base}/${one.id}`}
            current={one.id === step}
            number={index + 1}
            name={one.name}
            says={summary(one.id, setup, plan, blendName)}
          />
        ))}
      </ol>
    </Nav>
  );
}

type ItemProps = { href: string; current: boolean; number: number; name: string; says: string };

const Item = memo(function Item({ href, current, number, name, says }: ItemProps) {
  return (
    <li>
      <Step href={href} aria-current={current ? 'step' : undefined}>
        <span>{number}</span>
        <span style={{ color: 'inherit' }}>
          <strong>{name}</strong>
          <small>{says}</small>
        </span>
      </Step>
    </li>
  );
});
