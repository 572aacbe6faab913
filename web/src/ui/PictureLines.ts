import styled from 'styled-components';
import { space } from './tokens';

/** Lines with a small picture, words, and what to do with each. */
export const PictureLines = styled.ul`
  margin-top: ${space.gap}px;
  li {
    border-top: 1px solid var(--line);
    padding: ${space.near}px 0;
    display: flex;
    flex-wrap: wrap;
    gap: ${space.near}px ${space.part}px;
    align-items: center;
    > :nth-child(2) {
      flex: 1 1 260px;
    }
  }
`;
