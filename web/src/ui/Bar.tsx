import { ProgressBar } from 'react-aria-components';
import styled from 'styled-components';
import { space } from './tokens';

const Whole = styled(ProgressBar)`
  flex: 1 1 180px;
  height: 10px;
  background: var(--line);
  border-radius: 5px;
  overflow: hidden;
  margin-block: ${space.gap}px;
`;
const Done = styled.div.attrs<{ $part: number }>(({ $part }) => ({ style: { width: `${$part}%` } }))`
  height: 100%;
  background: var(--ink);
`;

/** How far something has come, in percent. */
export function Bar({ name, percent }: { name: string; percent: number }) {
  return (
    <Whole aria-label={name} value={percent}>
      <Done $part={percent} />
    </Whole>
  );
}
