import { Check, ChevronDown } from 'lucide-react';
import { Button, Label, ListBox, ListBoxItem, Popover, Select, SelectValue } from 'react-aria-components';
import styled from 'styled-components';
import type { ChoiceProps } from './Choice';
import { choiceLook, fieldLook, FieldName } from './field';

const Whole = styled(Select)`
  ${fieldLook}
`;
const Box = styled(Button)`
  ${choiceLook}
`;
const Value = styled(SelectValue)`
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;
export const Floating = styled(Popover)`
  background: var(--raised);
  border: 1px solid var(--control-line);
  border-radius: 9px;
  min-width: var(--trigger-width);
  max-width: min(420px, 96vw);
  overflow: auto;
  box-shadow: 0 6px 22px rgb(0 0 0 / 0.28);
  padding: 4px;
`;
export const Item = styled(ListBoxItem)`
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 7px 10px;
  border-radius: 6px;
  cursor: pointer;
  min-height: 34px;
  &[data-focused] {
    background: var(--chosen);
    outline: none;
  }
  &[data-focus-visible] {
    outline: 2.5px solid var(--focus);
    outline-offset: -2px;
  }
  @media (pointer: coarse) {
    min-height: 44px;
  }
`;
const Tick = styled.span`
  width: 16px;
  flex: none;
  display: inline-flex;
`;

/** One of several, with the list it is chosen from. */
export default function ChoiceList<T extends string>({ name, unseenName, value, options, onChange }: ChoiceProps<T>) {
  return (
    <Whole
      value={value}
      onChange={(key) => key !== null && onChange(String(key) as T)}
      aria-label={unseenName ? name : undefined}
    >
      {!unseenName && (
        <Label>
          <FieldName>{name}</FieldName>
        </Label>
      )}
      <Box>
        <Value>{({ selectedText }) => selectedText}</Value>
        <ChevronDown size={16} aria-hidden />
      </Box>
      <Floating>
        <ListBox>
          {options.map((option) => (
            <Item key={option.id} id={option.id} textValue={option.label}>
              {({ isSelected }) => (
                <>
                  <Tick>{isSelected && <Check size={15} aria-hidden />}</Tick>
                  {option.label}
                </>
              )}
            </Item>
          ))}
        </ListBox>
      </Floating>
    </Whole>
  );
}
