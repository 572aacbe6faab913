import { Input, Label, TextArea, TextField as AriaTextField } from 'react-aria-components';
import styled from 'styled-components';
import { boxLook, fieldLook, FieldName, Wrong } from './field';

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

type Props = {
  name: string;
  value: string;
  onChange: (text: string) => void;
  lines?: boolean;
  placeholder?: string;
  wrong?: string | undefined;
  most?: number;
};

/** Plain words. */
export function TextField({ name, value, onChange, lines, placeholder, wrong, most = 120 }: Props) {
  return (
    <Whole value={value} onChange={onChange} isInvalid={wrong !== undefined} maxLength={most}>
      <Label>
        <FieldName>{name}</FieldName>
      </Label>
      {lines ? <Area placeholder={placeholder} /> : <Box placeholder={placeholder} />}
      {wrong && <Wrong role="alert">{wrong}</Wrong>}
    </Whole>
  );
}
