import styled from 'styled-components';
import { space } from './tokens';

/** What can be done, one under the other: each in words, with its button. */
export const Offers = styled.ol`
  margin: ${space.gap}px 0;
  li {
    border-top: 1px solid var(--line);
    padding: ${space.near}px 0;
    display: flex;
    flex-wrap: wrap;
    align-items: center;
    justify-content: space-between;
    gap: ${space.near}px ${space.part}px;
  }
  p {
    flex: 1 1 300px;
  }
  small {
    display: block;
    font-size: 13px;
    color: var(--quiet);
  }
`;
