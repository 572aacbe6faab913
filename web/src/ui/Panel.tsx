import styled from 'styled-components';
import { radius, space, type } from './tokens';

export const Panel = styled.section`
  background: var(--panel);
  border-radius: ${radius.card}px;
  padding: ${space.part}px 16px;
`;

export const Title = styled.h2`
  font-size: ${type.title}px;
  margin-bottom: 4px;
  &:focus {
    outline: none;
  }
`;

/** The heading of a part of a panel. */
export const Part = styled.h3`
  margin-bottom: 8px;
`;

export const Lead = styled.p<{ $tight?: boolean; $below?: boolean }>`
  color: var(--quiet);
  ${({ $below }) => ($below ? 'margin-top: 12px;' : '')}
  margin-bottom: ${({ $tight }) => ($tight ? 0 : space.part)}px;
  max-width: 68ch;
`;

/** Something said quietly. */
export const Quiet = styled.p<{ $below?: boolean }>`
  color: var(--quiet);
  ${({ $below }) => ($below ? 'margin-top: 12px;' : '')}
`;

export const Row = styled.div<{ $gap?: number; $apart?: boolean; $below?: boolean }>`
  display: flex;
  flex-wrap: wrap;
  align-items: flex-end;
  gap: ${({ $gap = 12 }) => $gap}px;
  ${({ $apart }) => ($apart ? 'justify-content: space-between; align-items: center;' : '')}
  ${({ $below }) => ($below ? 'margin-top: 12px;' : '')}
`;

export const Grid = styled.div<{ $min?: number; $below?: boolean }>`
  ${({ $below }) => ($below ? 'margin-top: 12px;' : '')}
  display: grid;
  gap: 12px;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, ${({ $min = 210 }) => $min}px), 1fr));
  align-items: start;
`;

/** Panels one under the other. */
export const Stack = styled.div`
  display: flex;
  flex-direction: column;
  gap: 12px;
`;

/** One thing among its like: what it is called and what it comes to in a line, and what there is to say of it. */
export const Card = styled.div`
  border: 1px solid var(--line);
  border-radius: 9px;
  padding: 11px 13px;
  display: flex;
  flex-direction: column;
  gap: 10px;
  :is(h3, h4) {
    font-size: 15px;
    margin: 0;
    display: flex;
    justify-content: space-between;
    gap: 8px;
    align-items: baseline;
  }
  :is(h3, h4) small {
    font-weight: 600;
    font-size: 15px;
    white-space: nowrap;
  }
  > p {
    font-size: 13px;
    color: var(--quiet);
  }
`;

/** A warning is an outlined box with a heading in words, never told by colour alone. */
export const Notice = styled.div`
  border: 1.5px solid var(--ink);
  border-radius: 8px;
  padding: 9px 12px;
  font-size: 13.5px;
  strong {
    font-weight: 650;
  }
`;
