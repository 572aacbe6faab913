import type { ReactNode } from 'react';
import { ComboBox, Input, Label, ListBox, ListBoxItem, Popover } from 'react-aria-components';
import styled from 'styled-components';
import { boxLook, fieldLook, FieldName, Hint, Wrong } from './field';

const Whole = styled(ComboBox)`
  ${fieldLook}
`;
const Box = styled(Input)`
  ${boxLook} font-size: 16px;
`;
const Floating = styled(Popover)`
  width: max(var(--trigger-width), 300px);
  max-width: calc(100vw - 24px);
  background: var(--panel);
  border: 1px solid var(--control-line);
  border-radius: 9px;
  padding: 5px;
  max-height: 320px;
  overflow: auto;
`;
const Item = styled(ListBoxItem)`
  padding: 7px 10px;
  border-radius: 6px;
  cursor: pointer;
  outline: none;
  strong {
    font-weight: 650;
  }
  small {
    display: block;
    font-size: 13px;
    color: var(--quiet);
  }
  &[data-focused] {
    background: var(--chosen);
    box-shadow: inset 3px 0 var(--ink);
  }
  @media (pointer: coarse) {
    min-height: 44px;
  }
`;

const None = styled(Hint)`
  padding: 8px;
`;

export type Suggestion = { id: string; name: string; more: string };

type Props = {
  name: string;
  text: string;
  onText: (text: string) => void;
  found: Suggestion[];
  onPick: (id: string) => void;
  placeholder?: string;
  wrong?: string | undefined;
  hint?: ReactNode;
};

/** A field that offers what begins as it was typed. */
export function Suggest({ name, text, onText, found, onPick, placeholder, wrong, hint }: Props) {
  return (
    <Whole
      inputValue={text}
      onInputChange={onText}
      items={found}
      // The server has done the filtering.
      defaultFilter={() => true}
      allowsCustomValue
      allowsEmptyCollection
      menuTrigger="input"
      selectedKey={null}
      onSelectionChange={(key) => key !== null && onPick(String(key))}
    >
      <Label>
        <FieldName>{name}</FieldName>
      </Label>
      <Box placeholder={placeholder} spellCheck={false} />
      {wrong ? <Wrong role="alert">{wrong}</Wrong> : hint && <Hint>{hint}</Hint>}
      <Floating>
        <ListBox renderEmptyState={() => <None>Nothing has that name.</None>}>
          {(one: Suggestion) => (
            <Item id={one.id} textValue={one.name}>
              <strong>{one.name}</strong>
              <small>{one.more}</small>
            </Item>
          )}
        </ListBox>
      </Floating>
    </Whole>
  );
}
