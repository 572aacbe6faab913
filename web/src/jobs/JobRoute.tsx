import { Outlet, useParams } from 'react-router';
import { Header } from '../app/Header';
import { ButtonLink } from '../ui/Button';
import { Notice } from '../ui/Panel';
import { Conflict } from './Conflict';
import { JobContext } from './JobContext';
import { useJobDocument } from './useJobDocument';

/** Opens a job for the pages under it. */
export function JobRoute() {
  const { id = '' } = useParams();
  return <Open key={id} id={id} />;
}

function Open({ id }: { id: string }) {
  const { document, error } = useJobDocument(id);
  if (error) {
    return (
      <div>
        <Header />
        <main style={{ padding: 20 }}>
          <Notice role="alert">
            <strong>This job cannot be opened. </strong>
            {error.message}
          </Notice>
          <p style={{ marginTop: 12 }}>
            <ButtonLink href="/">All jobs</ButtonLink>
          </p>
        </main>
      </div>
    );
  }
  if (!document) return <main aria-busy="true" aria-label="Opening" />;
  return (
    <JobContext.Provider value={document}>
      <Outlet />
      <Conflict document={document} what="This job" />
    </JobContext.Provider>
  );
}
