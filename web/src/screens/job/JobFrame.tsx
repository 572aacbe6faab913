import { type ReactNode, useEffect } from 'react';
import { Link } from 'react-aria-components';
import styled from 'styled-components';
import { useJob } from '../../session/job';
import { Row } from '../../ui/Panel';
import { narrow, space, touch } from '../../ui/tokens';
import { Connection } from '../frame/Connection';
import { Header } from '../frame/Header';

const Main = styled.main`
  max-width: 1000px;
  margin: 0 auto;
  padding: ${space.wide}px 16px 40px;
  display: flex;
  flex-direction: column;
  gap: ${space.part}px;
  h1 {
    font-size: 22px;
  }
  h2 {
    font-size: 17px;
  }
  ${narrow} {
    padding: ${space.gap}px;
  }
`;
const Pages = styled.nav`
  display: flex;
  gap: ${space.hair}px;
  overflow-x: auto;
  border-bottom: 1px solid var(--line);
  a {
    color: inherit;
    text-decoration: none;
    padding: ${space.near}px ${space.part}px;
    border-radius: 6px 6px 0 0;
    min-height: 36px;
    display: inline-flex;
    align-items: center;
    font-weight: 600;
    white-space: nowrap;
    ${narrow} {
      min-height: ${touch}px;
      padding: ${space.near}px ${space.gap}px;
    }
    &[aria-current] {
      background: var(--panel);
      box-shadow: inset 0 -3px var(--ink);
    }
  }
`;

const pages = [
  { id: '', name: 'Job' },
  { id: 'day', name: 'Day' },
  { id: 'shots', name: 'Shots' },
  { id: 'pack', name: 'Pack list' },
  { id: 'log', name: 'Log' },
] as const;
type PageId = (typeof pages)[number]['id'];

/** A page of a job: what it is called, and the ways to its other pages. */
export function JobFrame({ here, actions, children }: { here: PageId; actions?: ReactNode; children: ReactNode }) {
  const { id, job, session } = useJob();
  const page = pages.find((one) => one.id === here);
  const title = here === '' ? job.name : `${page?.name ?? ''}: ${job.name}`;
  useEffect(() => {
    document.title = title;
    return () => {
      document.title = 'Tolva';
    };
  }, [title]);
  return (
    <div>
      <Header of={session} />
      <Connection of={session} />
      <Main>
        <Row $apart>
          <h1>{job.name}</h1>
          <Row>{actions}</Row>
        </Row>
        <Pages aria-label="Pages of the job">
          {pages.map((one) => (
            <Link
              key={one.id}
              href={one.id === '' ? `/jobs/${id}` : `/jobs/${id}/${one.id}`}
              {...(one.id === here ? { 'aria-current': 'page' as const } : {})}
            >
              {one.name}
            </Link>
          ))}
        </Pages>
        {children}
      </Main>
    </div>
  );
}
