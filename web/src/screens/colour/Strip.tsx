import styled from 'styled-components';
import type { Swatch } from '../../api/client';

/* The surround is the same mid grey in both themes: a colour is judged by what lies around it. */
const Line = styled.ul<{ $wide: number }>`
  display: flex;
  gap: 3px;
  background: #777777;
  padding: 6px;
  border-radius: 6px;
  width: fit-content;
  max-width: 100%;
  li {
    width: ${({ $wide }) => $wide}px;
    height: ${({ $wide }) => $wide + 7}px;
    flex: 0 1 ${({ $wide }) => $wide}px;
  }
  svg {
    display: block;
    width: 100%;
    height: 100%;
    /* A neutral grey goes under in its surround: its edge stays. */
    outline: 1px solid rgb(0 0 0 / 0.28);
    outline-offset: -1px;
  }
`;

/** A grey, a white shirt and skins, as the picture has them. */
export function Strip({ swatches, of, small }: { swatches: Swatch[]; of: string; small?: boolean }) {
  return (
    <Line aria-label={of} $wide={small ? 22 : 27}>
      {swatches.map((one) => {
        const says = `${one.name} ${one.hex}${one.shown_true ? '' : ', beyond what this screen shows'}`;
        return (
          <li key={one.name}>
            <svg role="img" aria-label={says}>
              <title>{says}</title>
              <rect width="100%" height="100%" fill={one.hex} />
            </svg>
          </li>
        );
      })}
    </Line>
  );
}
