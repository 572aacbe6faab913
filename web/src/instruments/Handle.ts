import styled from 'styled-components';

/** Something drawn that is dragged or nudged: what has the class `focus` shows while the keyboard is on it. */
export const Handle = styled.g<{ $cursor: string }>`
  cursor: ${({ $cursor }) => $cursor};
  touch-action: none;
  &:focus {
    outline: none;
  }
  .focus {
    visibility: hidden;
  }
  &:focus-visible .focus {
    visibility: visible;
  }
`;
