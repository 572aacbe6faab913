import { ChevronDown } from 'lucide-react';
import { Suspense } from 'react';
import styled from 'styled-components';
import { choiceLook, fieldLook, FieldName } from './field';
import { lazily } from './lazily';

const ChoiceList = lazily(() => import('./ChoiceList'));

const Whole = styled.div`
  ${fieldLook}
`;
const Box = styled.div`
  ${choiceLook}
`;
const Value = styled.span`
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;

export type ChoiceProps<T extends string> = {
  name: string;
  /** Only for those who hear the page: where its place says what it is. */
  unseenName?: boolean;
  value: T;
  options: { id: T; label: string }[];
  onChange: (id: T) => void;
};

/** One of several. What is chosen is seen at once; the list it is chosen from comes a moment later. */
export function Choice<T extends string>(props: ChoiceProps<T>) {
  const { name, unseenName, value, options } = props;
  const still = (
    <Whole>
      {!unseenName && <FieldName>{name}</FieldName>}
      <Box>
        <Value>{options.find((one) => one.id === value)?.label}</Value>
        <ChevronDown size={16} aria-hidden />
      </Box>
    </Whole>
  );
  return (
    <Suspense fallback={still}>
      <ChoiceList {...props} onChange={(id: string) => props.onChange(id as T)} />
    </Suspense>
  );
}
