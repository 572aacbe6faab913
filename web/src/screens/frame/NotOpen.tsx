import { type ReactNode } from 'react';
import styled from 'styled-components';
import { ApiProblem } from '../../api/client';
import { ButtonLink } from '../../ui/Button';
import { Notice, Row } from '../../ui/Panel';
import { space } from '../../ui/tokens';
import { Header } from './Header';

const Page = styled.main`
  padding: ${space.wide}px;
  display: grid;
  gap: ${space.part}px;
  max-width: 720px;
`;

type Props = { what: string; problem: unknown; children?: ReactNode };

/** Something that is not open yet, or cannot be opened: why, and the ways on. */
export function NotOpen({ what, problem, children }: Props) {
  if (problem === undefined) return <main aria-busy="true" aria-label="Opening" />;
  const lost = problem instanceof ApiProblem && problem.status === 0;
  const says = problem instanceof Error ? problem.message : String(problem);
  return (
    <div>
      <Header />
      <Page>
        <h1>{what} cannot be opened</h1>
        <Notice role="alert">
          {lost ? 'Tolva does not answer. It is opened by itself as soon as it does.' : says}
        </Notice>
        {children}
        <Row>
          <ButtonLink href="/">All jobs</ButtonLink>
        </Row>
      </Page>
    </div>
  );
}
