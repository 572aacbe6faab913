import { Minus, Plus } from 'lucide-react';
import styled from 'styled-components';
import { Button } from '../../ui/Button';
import { figures, space, touch } from '../../ui/tokens';

const Whole = styled.div<{ $large?: boolean }>`
  --side: ${({ $large }) => touch + ($large ? 12 : 0)}px;
  display: grid;
  grid-template-columns: var(--side) 1fr var(--side);
  gap: ${space.gap}px;
  align-items: center;
  output {
    ${figures}
    font-size: ${({ $large }) => ($large ? 34 : 22)}px;
    font-weight: 700;
    text-align: center;
    white-space: nowrap;
  }
  button {
    min-height: var(--side);
    justify-content: center;
  }
`;

type Props = {
  options: string[];
  value: number;
  isDisabled?: boolean;
  onChange: (to: number) => void;
  /** By itself on its page, for a thumb. */
  large?: boolean;
  /** What it is called, where it is one of several. */
  name?: string;
};

/** A dial, click by click. */
export function Stepper({ options, value, isDisabled, onChange, large, name }: Props) {
  const last = options.length - 1;
  const step = (by: number) => onChange(Math.min(last, Math.max(0, value + by)));
  const of = name ? ` of ${name}` : '';
  return (
    <Whole $large={large ?? false}>
      <Button aria-label={`One less${of}`} isDisabled={isDisabled === true || value === 0} onPress={() => step(-1)}>
        <Minus size={22} aria-hidden />
      </Button>
      <output aria-label={name ? `${name}: ${options[value] ?? ''}` : undefined}>{options[value]}</output>
      <Button aria-label={`One more${of}`} isDisabled={isDisabled === true || value === last} onPress={() => step(1)}>
        <Plus size={22} aria-hidden />
      </Button>
    </Whole>
  );
}
