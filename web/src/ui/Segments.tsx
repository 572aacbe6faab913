import { Label, Radio, RadioGroup } from 'react-aria-components';
import styled from 'styled-components';
import { FieldName, fieldLook } from './field';

const Group = styled(RadioGroup)`
  ${fieldLook}
`;
const Line = styled.div`
  display: inline-flex;
  flex-wrap: wrap;
  gap: 2px;
  background: var(--hair);
  padding: 2px;
  border-radius: 8px;
  width: fit-content;
`;
const Segment = styled(Radio)`
  padding: 5px 12px;
  border-radius: 6px;
  cursor: pointer;
  min-height: 32px;
  display: inline-flex;
  align-items: center;
  &[data-selected] {
    background: var(--ink);
    color: var(--panel);
    font-weight: 600;
  }
  &[data-focus-visible] {
    outline: 2.5px solid var(--focus);
    outline-offset: 2px;
  }
  @media (pointer: coarse) {
    min-width: 44px;
    justify-content: center;
    min-height: 44px;
  }
`;

type Props<T extends string> = {
  name: string;
  value: T;
  options: { id: T; label: string }[];
  onChange: (id: T) => void;
};

/** A few that exclude each other, all in sight. */
export function Segments<T extends string>({ name, value, options, onChange }: Props<T>) {
  return (
    <Group value={value} onChange={(id) => onChange(id as T)} orientation="horizontal">
      <Label>
        <FieldName>{name}</FieldName>
      </Label>
      <Line>
        {options.map((option) => (
          <Segment key={option.id} value={option.id}>
            {option.label}
          </Segment>
        ))}
      </Line>
    </Group>
  );
}
