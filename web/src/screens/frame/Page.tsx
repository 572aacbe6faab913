import type { ReactNode } from 'react';
import styled from 'styled-components';
import { narrow, space } from '../../ui/tokens';
import { Header } from './Header';

const Main = styled.main`
  max-width: 940px;
  margin: 0 auto;
  padding: 22px 16px 40px;
  display: flex;
  flex-direction: column;
  gap: ${space.part}px;
  h1 {
    font-size: 24px;
  }
  h2 {
    font-size: 17px;
  }
  code {
    font:
      600 14px/1.6 ui-monospace,
      monospace;
    overflow-wrap: anywhere;
  }
  ${narrow} {
    padding: ${space.gap}px;
  }
`;

/** A page beside the jobs: the header with the page's name, and one panel under the other. */
export const Page = ({ name, children }: { name?: string; children: ReactNode }) => (
  <div>
    <Header>{name}</Header>
    <Main>{children}</Main>
  </div>
);
