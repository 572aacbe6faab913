import { useState } from 'react';
import { Outlet, useParams } from 'react-router';
import { Header } from '../app/Header';
import { Button, ButtonLink } from '../ui/Button';
import { Notice, Row } from '../ui/Panel';
import { Conflict } from './Conflict';
import { History } from './History';
import { JobContext } from './JobContext';
import { useJobDocument } from './useJobDocument';

/** Opens a job for the pages under it. */
export function JobRoute() {
  const { id = '' } = useParams();
  return <Open key={id} id={id} />;
}

function Open({ id }: { id: string }) {
  const { document, error } = useJobDocument(id);
  const [past, setPast] = useState(false);
  if (error) {
    const unreadable = error.problem?.code === 'unreadable';
    return (
      <div>
        <Header />
        <main style={{ padding: 20 }}>
          <h1 style={{ fontSize: 22, marginBottom: 12 }}>This job cannot be opened</h1>
          <Notice role="alert">{error.message}</Notice>
          {unreadable && (
            <p style={{ marginTop: 12 }}>
              Go back to an earlier state of it that can be read, or keep what stands in the data file: another Tolva
              may be able to read it.
            </p>
          )}
          <Row style={{ marginTop: 12 }}>
            {unreadable && (
              <>
                <Button kind="strong" onPress={() => setPast(true)}>
                  What it was before
                </Button>
                <ButtonLink href={`/api/v1/jobs/${id}/raw`} download routerOptions={undefined} target="_self">
                  Export as it stands
                </ButtonLink>
              </>
            )}
            <ButtonLink href="/">All jobs</ButtonLink>
          </Row>
          {past && (
            <History
              id={id}
              revision={undefined}
              onClose={() => setPast(false)}
              onBack={() => window.location.reload()}
            />
          )}
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
