import { FieldError, Input, Label, TextArea, TextField as AriaTextField } from 'react-aria-components';
import type { KeyboardEvent } from 'react';
import styled from 'styled-components';
import { boxLook, fieldLook, FieldName, wrongLook } from './field';

const Whole = styled(AriaTextField)`
  ${fieldLook}
`;
const Box = styled(Input)`
  ${boxLook}
`;
const Area = styled(TextArea)`
  ${boxLook} min-height: 70px;
  resize: vertical;
`;
const Error = styled(FieldError)`
  ${wrongLook}
`;

type Props = {
  name: string;
  /** Only for those who hear the page: where its place says what it is. */
  unseenName?: boolean | undefined;
  value: string;
  onChange: (text: string) => void;
  /** The field was left, or Enter was pressed. */
  onFinish?: () => void;
  onEscape?: () => void;
  lines?: boolean | undefined;
  placeholder?: string | undefined;
  wrong?: string | undefined;
  most?: number | undefined;
};

/** Plain words. */
export function TextField({
  name,
  unseenName,
  value,
  onChange,
  onFinish,
  onEscape,
  lines,
  placeholder,
  wrong,
  most = 120,
}: Props) {
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Enter' && !lines) onFinish?.();
    if (event.key === 'Escape') onEscape?.();
  };
  return (
    <Whole
      value={value}
      onChange={onChange}
      onBlur={() => onFinish?.()}
      onKeyDown={onKeyDown}
      isInvalid={wrong !== undefined}
      maxLength={most}
      aria-label={unseenName ? name : undefined}
    >
      {!unseenName && (
        <Label>
          <FieldName>{name}</FieldName>
        </Label>
      )}
      {lines ? <Area placeholder={placeholder} /> : <Box placeholder={placeholder} />}
      <Error>{wrong !== undefined && <span role="alert">{wrong}</span>}</Error>
    </Whole>
  );
}
