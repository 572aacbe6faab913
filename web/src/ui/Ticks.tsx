import { Check } from 'lucide-react';
import { Checkbox, CheckboxGroup, Label } from 'react-aria-components';
import styled from 'styled-components';
import { FieldName, fieldLook } from './field';

const Group = styled(CheckboxGroup)`
  ${fieldLook}
`;
const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`;
const Tick = styled(Checkbox)`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-height: 36px;
  padding: 4px 10px;
  border: 1px solid var(--control-line);
  border-radius: 7px;
  cursor: pointer;
  i {
    width: 16px;
    height: 16px;
    border: 1.5px solid var(--ink);
    border-radius: 4px;
    display: inline-flex;
  }
  &[data-selected] {
    background: var(--chosen);
    font-weight: 600;
  }
  &[data-focus-visible] {
    outline: 2.5px solid var(--focus);
    outline-offset: 2px;
  }
  @media (pointer: coarse) {
    min-height: 44px;
  }
`;

const Alone = styled(Tick)`
  width: fit-content;
`;

const Mark = () => <i>{<Check size={13} strokeWidth={3} aria-hidden />}</i>;

type Props = {
  name: string;
  value: string[];
  options: { id: string; label: string }[];
  onChange: (ids: string[]) => void;
};

/** Any of several. */
export function Ticks({ name, value, options, onChange }: Props) {
  return (
    <Group value={value} onChange={onChange}>
      <Label>
        <FieldName>{name}</FieldName>
      </Label>
      <Line>
        {options.map((option) => (
          <Tick key={option.id} value={option.id}>
            {({ isSelected }) => (
              <>
                {isSelected ? <Mark /> : <i />}
                {option.label}
              </>
            )}
          </Tick>
        ))}
      </Line>
    </Group>
  );
}

type BoxProps = {
  name: string;
  /** What it is about, where several are called the same. */
  of?: string;
  value: boolean;
  onChange: (is: boolean) => void;
};

/** One thing that is so or is not. */
export function TickBox({ name, of, value, onChange }: BoxProps) {
  return (
    <Alone isSelected={value} onChange={onChange} {...(of === undefined ? {} : { 'aria-label': `${name}: ${of}` })}>
      {({ isSelected }) => (
        <>
          {isSelected ? <Mark /> : <i />}
          {name}
        </>
      )}
    </Alone>
  );
}
