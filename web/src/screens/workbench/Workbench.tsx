import { Suspense, useEffect } from 'react';
import { VisuallyHidden } from 'react-aria';
import { useLocation, useParams } from 'wouter';
import styled from 'styled-components';
import { useStart } from '../../api/start';
import { SetupProvider, useJob, useJobState, useSetup } from '../../session/job';
import { Boundary } from '../../ui/Boundary';
import { Button, ButtonLink } from '../../ui/Button';
import { Notice, Row } from '../../ui/Panel';
import { useShortcuts } from '../../ui/shortcuts';
import { phone, space } from '../../ui/tokens';
import { useMedia } from '../../ui/useMedia';
import { Connection } from '../frame/Connection';
import { Header } from '../frame/Header';
import { Naming } from './Naming';
import { OnADesk } from './OnADesk';
import { OnAPhone } from './OnAPhone';
import { type StepId, stepOf, steps } from './steps';
import { useSetupMenu, Where } from './Where';
import { lazily } from '../../ui/lazily';

const screens = {
  place: lazily(() => import('../place/PlaceStep')),
  light: lazily(() => import('../ambient/AmbientStep')),
  blend: lazily(() => import('../blend/BlendStep')),
  colour: lazily(() => import('../colour/ColourStep')),
  depth: lazily(() => import('../depth/DepthStep')),
  set: lazily(() => import('../set/SetStep')),
  glass: lazily(() => import('../glass/GlassStep')),
  proof: lazily(() => import('../proof/ProofStep')),
  frames: lazily(() => import('../frames/FramesStep')),
  falling: lazily(() => import('../falling/FallingStep')),
} satisfies Record<StepId, unknown>;

const Message = styled.main`
  padding: ${space.wide}px;
  display: grid;
  gap: ${space.part}px;
`;

/** One setup: the order of work, the step, the stop rail and the dial card. */
export default function Workbench() {
  const { setup: id = '' } = useParams<{ setup: string }>();
  const there = useJobState((state) => state.kept?.setups.some((one) => one.id === id));
  if (!there) return <Missing />;
  return (
    <SetupProvider key={id} id={id}>
      <Bench />
    </SetupProvider>
  );
}

function Missing() {
  const { id, session } = useJob();
  return (
    <div>
      <Header of={session} />
      <Message>
        <h1>This setup is not there</h1>
        <Notice>It may have been deleted: undo brings it back.</Notice>
        <Row>
          <ButtonLink href={`/jobs/${id}`}>To the job</ButtonLink>
        </Row>
      </Message>
    </div>
  );
}

function Bench() {
  const params = useParams<{ step?: string }>();
  const [, navigate] = useLocation();
  const { id, job, session } = useJob();
  const { setup, set } = useSetup();
  const start = useStart();
  const step = stepOf(params.step);
  const base = `/jobs/${id}/setups/${setup.id}`;
  const small = useMedia(phone);
  const planned = useJobState((state) => state.settled !== undefined);
  const name = steps.find((one) => one.id === step)?.name ?? '';
  useEffect(() => {
    document.title = `${name}: ${setup.name}, ${job.name}`;
    return () => {
      document.title = 'Tolva';
    };
  }, [name, setup.name, job.name]);

  useShortcuts([
    ...steps.map((one) => ({
      key: one.key,
      name: one.key,
      does: one.name,
      run: () => navigate(`${base}/${one.id}`),
    })),
    ...(start?.blends ?? []).map((offer) => ({
      key: `blend ${offer.kind}`,
      name: 'Blend',
      does: `Blend: ${offer.name}`,
      run: () => set(`Blend: ${offer.name}`, ['blend'], offer.blend),
    })),
  ]);

  const menu = useSetupMenu(step);
  const Screen = screens[step];
  const Layout = small ? OnAPhone : OnADesk;
  return (
    <Layout
      base={base}
      step={step}
      header={
        <>
          <Header of={session} more={menu.entries}>
            <VisuallyHidden elementType="h1">
              {setup.name}, {job.name}
            </VisuallyHidden>
            <Where step={step} entries={menu.entries} />
          </Header>
          {menu.open}
          <Connection of={session} />
        </>
      }
    >
      <Naming />
      {planned ? (
        <Boundary key={step} otherwise={(again, error) => <StepBroken again={again} error={error} />}>
          <Suspense fallback={<div role="status" aria-busy="true" aria-label="Opening" />}>
            <Screen />
          </Suspense>
        </Boundary>
      ) : (
        <NoPlanYet />
      )}
    </Layout>
  );
}

/** Where there is no plan to begin with: why, or that it is on its way. */
function NoPlanYet() {
  const { session } = useJob();
  const lost = useJobState((state) => state.lost);
  const wrong = useJobState((state) => state.unplanned);
  if (wrong) {
    return (
      <Notice role="alert">
        <strong>This setup cannot be planned as it stands. </strong>
        Take the last change back, or open what it was before on the job’s page.
        <Row>
          <Button onPress={() => session.send({ type: 'undo' })}>Take it back</Button>
        </Row>
      </Notice>
    );
  }
  return lost ? (
    <p>The first plan comes when Tolva answers.</p>
  ) : (
    <div role="status" aria-busy="true" aria-label="Planning" />
  );
}

function StepBroken({ again, error }: { again: () => void; error: Error }) {
  return (
    <Notice role="alert">
      <strong>This step broke: a fault of ours. </strong>
      Nothing typed is lost. It says: {error.message}
      <Row>
        <Button onPress={again}>Try again</Button>
      </Row>
    </Notice>
  );
}
