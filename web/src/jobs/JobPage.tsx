import { Copy, Download, History as HistoryIcon, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-aria-components';
import { useNavigate } from 'react-router';
import styled from 'styled-components';
import type { Setup } from '../api/client';
import { Header } from '../app/Header';
import { usePreferences } from '../app/preferences';
import { useStart } from '../app/start';
import { usePlan } from '../instruments/usePlan';
import { freshId, useJobKit } from '../kit/KitContext';
import { Button, ButtonLink } from '../ui/Button';
import { Grid, Lead, Panel, Row } from '../ui/Panel';
import { KeptField } from '../ui/KeptField';
import { TextField } from '../ui/TextField';
import { History } from './History';
import { useJob } from './JobContext';
import { newSetup } from './newSetup';
import { bodyOf } from './useJobDocument';

const Main = styled.main`
  max-width: 1000px;
  margin: 0 auto;
  padding: 18px 16px 40px;
  display: flex;
  flex-direction: column;
  gap: 14px;
  h1 {
    font-size: 22px;
  }
  h2 {
    font-size: 17px;
  }
`;
const List = styled.ul`
  display: flex;
  flex-direction: column;
  margin-top: 10px;
`;
const Line = styled.li`
  border-top: 1px solid var(--line);
  padding: 10px 0;
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  > div {
    flex: 1 1 300px;
    min-width: 0;
  }
  a {
    font-size: 16px;
    font-weight: 650;
    color: inherit;
    text-underline-offset: 3px;
    border-radius: 4px;
  }
  p {
    color: var(--quiet);
  }
`;

const days = /^(\d{4}-\d{2}-\d{2})?$/;

/** A job: its facts and its setups. */
export function JobPage() {
  const document = useJob();
  const { id, job, edit } = document;
  const kit = useJobKit(job.kit);
  const { preferences } = usePreferences();
  const start = useStart();
  const navigate = useNavigate();
  const [past, setPast] = useState(false);
  const fact = (field: 'name' | 'client' | 'place' | 'date' | 'notes') => (text: string) =>
    edit(`Job: ${field}`, (one) => ({ ...one, [field]: text }));
  const add = (setup: Setup, change: string) => {
    edit(change, (one) => ({ ...one, setups: [...one.setups, setup] }));
    void navigate(`/jobs/${id}/setups/${setup.id}/place`);
  };
  const ids = job.setups.map((one) => one.id);
  const fresh = () => {
    const template = start?.new_job.setups[0];
    if (!template) return;
    const setup = newSetup(template, kit, preferences.defaults ?? {});
    // The next picture is most likely taken where the last one is.
    const scene = job.setups.at(-1)?.scene ?? null;
    add({ ...setup, id: freshId('setup', ids), name: `Setup ${ids.length + 1}`, scene }, 'New setup');
  };
  return (
    <div>
      <Header document={document} />
      <Main>
        <Row style={{ justifyContent: 'space-between' }}>
          <h1>{job.name}</h1>
          <Row>
            <Button onPress={() => setPast(true)}>
              <HistoryIcon size={17} aria-hidden /> What it was before
            </Button>
            <ButtonLink href={`/api/v1/jobs/${id}/file`} download routerOptions={undefined} target="_self">
              <Download size={17} aria-hidden /> Export as a file
            </ButtonLink>
            <ButtonLink href="/">All jobs</ButtonLink>
          </Row>
        </Row>
        {past && (
          <History
            id={id}
            revision={document.revision}
            onClose={() => setPast(false)}
            onBack={(body) => document.took(bodyOf(body))}
          />
        )}
        <Panel aria-labelledby="setups">
          <Row style={{ justifyContent: 'space-between' }}>
            <h2 id="setups">Setups</h2>
            <Button kind="strong" onPress={fresh}>
              <Plus size={17} aria-hidden /> New setup
            </Button>
          </Row>
          {job.setups.length === 0 && (
            <Lead style={{ marginTop: 10 }}>
              No setups yet. A setup is one lighting arrangement for one kind of picture.
            </Lead>
          )}
          <List>
            {job.setups.map((setup) => (
              <Line key={setup.id}>
                <SetupLine setup={setup} />
                <Button
                  kind="bare"
                  aria-label={`Duplicate ${setup.name}`}
                  onPress={() =>
                    add({ ...setup, id: freshId('setup', ids), name: `${setup.name}, copy` }, 'Setup duplicated')
                  }
                >
                  <Copy size={17} aria-hidden />
                </Button>
                <Button
                  kind="bare"
                  aria-label={`Delete ${setup.name} (undo brings it back)`}
                  onPress={() =>
                    edit('Setup deleted', (one) => ({
                      ...one,
                      setups: one.setups.filter((each) => each.id !== setup.id),
                    }))
                  }
                >
                  <Trash2 size={17} aria-hidden />
                </Button>
              </Line>
            ))}
          </List>
        </Panel>
        <Panel aria-labelledby="facts">
          <h2 id="facts" style={{ marginBottom: 10 }}>
            The job
          </h2>
          <Grid>
            <KeptField
              name="Name"
              value={job.name}
              put={fact('name')}
              good={(text) => text.trim() !== ''}
              wrong="A job needs a name."
              keptAs={`${id}/name`}
            />
            <TextField name="Client" value={job.client ?? ''} onChange={fact('client')} />
            <TextField name="Place" value={job.place ?? ''} onChange={fact('place')} />
            <KeptField
              name="Day"
              value={job.date ?? ''}
              put={fact('date')}
              good={(text) => days.test(text) && (text === '' || !Number.isNaN(Date.parse(text)))}
              wrong="Write the day as 2026-08-29, or leave it empty."
              keptAs={`${id}/date`}
              placeholder="2026-08-29"
            />
          </Grid>
          <div style={{ marginTop: 12 }}>
            <TextField name="Notes" value={job.notes ?? ''} onChange={fact('notes')} lines most={4000} />
          </div>
        </Panel>
        {job.setups.length > 0 && (
          <Panel aria-labelledby="names">
            <h2 id="names" style={{ marginBottom: 10 }}>
              Names and notes of the setups
            </h2>
            {job.setups.map((setup) => {
              const put = (to: Partial<Setup>) =>
                edit('Setup: words', (one) => ({
                  ...one,
                  setups: one.setups.map((each) => (each.id === setup.id ? { ...each, ...to } : each)),
                }));
              return (
                <Grid key={setup.id} $min={300} style={{ marginBottom: 10 }}>
                  <KeptField
                    name="Setup"
                    value={setup.name}
                    put={(name) => put({ name })}
                    good={(text) => text.trim() !== ''}
                    wrong="A setup needs a name."
                    keptAs={`${id}/${setup.id}/name`}
                  />
                  <TextField
                    name={`Notes on ${setup.name}`}
                    value={setup.notes ?? ''}
                    onChange={(notes) => put({ notes })}
                    most={4000}
                  />
                </Grid>
              );
            })}
          </Panel>
        )}
      </Main>
    </div>
  );
}

function SetupLine({ setup }: { setup: Setup }) {
  const { id, job } = useJob();
  const { show } = usePreferences();
  const kit = useJobKit(job.kit);
  const { plan } = usePlan(setup, kit, show);
  const card = plan?.dial_card;
  const settings = card ? [card.shutter.label, card.aperture.label, card.iso.label] : [];
  for (const light of card?.lights ?? []) if (light.power) settings.push(`${light.light_id} at ${light.power}`);
  return (
    <div>
      <Link href={`/jobs/${id}/setups/${setup.id}/place`}>{setup.name}</Link>
      <p>
        {settings.join(', ')}
        {plan && !plan.possible ? '. Not as wished.' : ''}
      </p>
    </div>
  );
}
