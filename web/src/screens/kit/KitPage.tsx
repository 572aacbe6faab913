import { Copy, Download, Plus, Trash2, Upload } from 'lucide-react';
import { Suspense, useState } from 'react';
import { FileTrigger } from 'react-aria-components';
import styled from 'styled-components';
import { answered, api, type Kit, linesOf } from '../../api/client';
import { useStart } from '../../api/start';
import { bodyOf, type Kind, kinds, newId, useKitRunner, useKitState } from '../../session/kit';
import { Button, ButtonLink } from '../../ui/Button';
import { NotImported } from '../../ui/NotImported';
import { Lead, Panel, Quiet, Row } from '../../ui/Panel';
import { narrow, space } from '../../ui/tokens';
import { Connection } from '../frame/Connection';
import { Header } from '../frame/Header';
import { NotOpen } from '../frame/NotOpen';
import { summary, things } from './fields';
import { lazily } from '../../ui/lazily';

const ThingSheet = lazily(() => import('./ThingSheet'));

const Main = styled.main`
  max-width: 1080px;
  margin: 0 auto;
  padding: 18px 16px 40px;
  h1 {
    font-size: 22px;
  }
`;
const About = styled(Lead)`
  ${narrow} {
    margin-top: ${space.part}px;
  }
`;
const Shelves = styled.div`
  margin-top: 14px;
  columns: 2 420px;
  column-gap: 14px;
  > section {
    break-inside: avoid;
    margin-bottom: ${space.part}px;
  }
  > section > :first-child {
    margin-bottom: ${space.near}px;
  }
  h2 {
    font-size: 16.5px;
  }
`;
const Line = styled.li`
  display: flex;
  align-items: center;
  gap: 4px;
  border-top: 1px solid var(--line);
  padding: 3px 0;
  > :first-child {
    flex: 1;
    min-width: 0;
    justify-content: flex-start;
    text-align: left;
    flex-wrap: wrap;
    gap: 0 10px;
  }
  strong {
    font-weight: 600;
  }
  small {
    font-size: 13px;
    color: var(--quiet);
  }
`;

type Thing = { kind: Kind; id: string };

/** What the person owns: each thing once, used in every job. */
export default function KitPage() {
  const session = useKitRunner();
  const kit = useKitState((state) => state.kept);
  const closed = useKitState((state) => state.closed);
  const start = useStart();
  const [open, setOpen] = useState<Thing>();
  const [wrong, setWrong] = useState<{ file: string; problems: string[] }>();
  if (!kit) return <NotOpen what="The kit" problem={closed} />;

  const importFile = async (files: FileList | null) => {
    const file = files?.item(0);
    if (!file) return;
    setWrong(undefined);
    try {
      const now = await answered(api.GET('/api/v1/kit'));
      const body = await answered(
        api.POST('/api/v1/kit/file', {
          params: { query: { based_on: now.revision } },
          body: file as never,
          bodySerializer: () => file,
          headers: { 'Content-Type': 'application/octet-stream' },
        }),
      );
      session.send({ type: 'took', body: bodyOf(body) });
    } catch (failure) {
      setWrong({ file: file.name, problems: linesOf(failure, 'It cannot be read.') });
    }
  };
  const add = (kind: Kind, like: Kit[Kind][number], name: string) => {
    const id = newId();
    const says = `${things[kind].one} added`;
    session.send({ type: 'edit', says, changes: [{ at: [kind, { id }], to: { ...like, id, name } }] });
    setOpen({ kind, id });
  };
  const thing = open && (kit[open.kind] as { id: string }[]).find((one) => one.id === open.id);

  return (
    <div>
      <Header of={session} />
      <Connection of={session} />
      <Main>
        <Row $apart>
          <h1>Kit</h1>
          <Row>
            <FileTrigger
              acceptedFileTypes={['.json', '.csv', 'application/json', 'text/csv']}
              onSelect={(files) => void importFile(files)}
            >
              <Button>
                <Upload size={17} aria-hidden /> Import
              </Button>
            </FileTrigger>
            <ButtonLink href="/api/v1/kit/file?format=json" download routerOptions={undefined} target="_self">
              <Download size={17} aria-hidden /> As JSON
            </ButtonLink>
            <ButtonLink href="/api/v1/kit/file?format=csv" download routerOptions={undefined} target="_self">
              <Download size={17} aria-hidden /> As CSV
            </ButtonLink>
            <ButtonLink href="/">All jobs</ButtonLink>
          </Row>
        </Row>
        <About $tight>
          Each thing once, used in every job. Change it here and every setup follows; remove it and the setups that use
          it go on, and say so. The generic figures are a start: your own readings are better.
        </About>
        {wrong && <NotImported {...wrong} />}
        <Shelves>
          {kinds.map((kind) => {
            const about = things[kind];
            const like = kit[kind][0] ?? start?.new_job.kit[kind][0];
            // A job needs a camera and a lens.
            const needed = (kind === 'cameras' || kind === 'lenses') && kit[kind].length === 1;
            return (
              <Panel key={kind} aria-labelledby={`kit-${kind}`}>
                <Row $apart>
                  <h2 id={`kit-${kind}`}>{about.many}</h2>
                  {like && (
                    <Button
                      aria-label={`Add: ${about.one}`}
                      onPress={() => add(kind, like, `New ${about.one.toLowerCase()}`)}
                    >
                      <Plus size={16} aria-hidden /> Add
                    </Button>
                  )}
                </Row>
                {kit[kind].length === 0 && <Quiet>None yet.</Quiet>}
                <ul>
                  {kit[kind].map((one) => (
                    <Line key={one.id}>
                      <Button
                        kind="bare"
                        aria-label={`Edit ${one.name} ${summary(kind, one as never)}`.trim()}
                        onPress={() => setOpen({ kind, id: one.id })}
                      >
                        <strong>{one.name}</strong> <small>{summary(kind, one as never)}</small>
                      </Button>
                      <Button
                        kind="bare"
                        aria-label={`Duplicate ${one.name}`}
                        onPress={() => add(kind, one, `${one.name}, copy`)}
                      >
                        <Copy size={16} aria-hidden />
                      </Button>
                      <Button
                        kind="bare"
                        aria-label={`Remove ${one.name} (undo brings it back)`}
                        isDisabled={needed}
                        onPress={() =>
                          session.send({
                            type: 'edit',
                            says: `${one.name} removed`,
                            changes: [{ at: [kind, { id: one.id }] }],
                          })
                        }
                      >
                        <Trash2 size={16} aria-hidden />
                      </Button>
                    </Line>
                  ))}
                </ul>
              </Panel>
            );
          })}
        </Shelves>
      </Main>
      <Suspense>
        {open && <ThingSheet kind={open.kind} thing={thing as never} onClose={() => setOpen(undefined)} />}
      </Suspense>
    </div>
  );
}
