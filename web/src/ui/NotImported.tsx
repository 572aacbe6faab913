import styled from 'styled-components';
import { Notice } from './Panel';
import { space } from './tokens';

const Below = styled(Notice)`
  margin-top: ${space.part}px;
`;

/** What is wrong with a file that was to be read, line by line. */
export const NotImported = ({ file, problems }: { file: string; problems: string[] }) => (
  <Below role="alert">
    <strong>“{file}” was not imported.</strong>
    <ul>
      {problems.map((problem) => (
        <li key={problem}>{problem}</li>
      ))}
    </ul>
  </Below>
);
