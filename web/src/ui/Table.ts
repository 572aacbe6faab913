import styled from 'styled-components';

/** Rows under quiet names of columns. */
export const Table = styled.table`
  width: 100%;
  border-collapse: collapse;
  th {
    text-align: left;
    font-weight: 600;
    font-size: 13px;
    color: var(--quiet);
    padding: 4px 10px 4px 0;
  }
  td {
    border-top: 1px solid var(--line);
    padding: 7px 10px 7px 0;
    vertical-align: top;
  }
`;
