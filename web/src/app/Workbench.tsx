import { useCallback, useEffect, useMemo, useRef } from 'react';
import { useNavigate, useParams } from 'react-router';
import { VisuallyHidden } from 'react-aria';
import { Link } from 'react-aria-components';
import styled from 'styled-components';
import type { Setup } from '../api/client';
import { Answer } from '../instruments/dial-card/Answer';
import { DialCard } from '../instruments/dial-card/DialCard';
import { StopRail } from '../instruments/stop-rail/StopRail';
import { useMoving, usePlan } from '../instruments/usePlan';
import { KeptSetupContext, SetupContext, useJob, useSetup } from '../jobs/JobContext';
import { useJobKit } from '../kit/KitContext';
import { blendKind } from '../steps/blend/blend';
import { BlendStep } from '../steps/blend/BlendStep';
import { ColourStep } from '../steps/colour/ColourStep';
import { DepthStep } from '../steps/depth/DepthStep';
import { FallingStep } from '../steps/falling/FallingStep';
import { LightStep } from '../steps/light/LightStep';
import { LightsStep } from '../steps/lights/LightsStep';
import { PlaceStep } from '../steps/place/PlaceStep';
import { isStep, steps } from '../steps/steps';
import { ButtonLink } from '../ui/Button';
import { Choice } from '../ui/Choice';
import { Notice } from '../ui/Panel';
import { Header } from './Header';
import { useShortcuts } from './keys';
import { OrderOfWork } from './OrderOfWork';
import { usePreferences } from './preferences';
import { useStart } from './start';
import { narrow, phone, wide } from './theme';

const Page = styled.div`
  display: grid;
  min-height: 100vh;
  grid-template: 'header header header' auto 'nav main card' 1fr / 204px minmax(0, 1fr) 288px;
  ${wide} {
    height: 100vh;
    > :not(header) {
      overflow: auto;
    }
  }
  @media (min-width: 821px) and (max-width: 1080px) {
    grid-template-columns: 176px minmax(0, 1fr) 252px;
  }
  @media print {
    display: block;
    height: auto !important;
    > :not(main) {
      display: none;
    }
  }
  ${narrow} {
    grid-template: 'header' auto 'card' auto 'rail' auto 'nav' auto 'main' auto 'answer' auto / minmax(0, 1fr);
    gap: 10px;
    padding-bottom: 16px;
    > :not(header) {
      margin: 0 10px;
    }
  }
`;
const Main = styled.main`
  grid-area: main;
  min-width: 0;
  display: flex;
  flex-direction: column;
  && {
    ${wide} {
      overflow: hidden;
    }
    @media print {
      overflow: visible;
    }
  }
  ${narrow} {
    display: contents;
  }
`;
const Step = styled.div`
  flex: 1;
  min-height: 0;
  overflow: auto;
  padding: 12px;
  /* What is hidden in it but heard stays in its place. */
  position: relative;
  @media print {
    overflow: visible;
  }
  ${narrow} {
    grid-area: main;
    overflow: visible;
    padding: 0;
    margin: 0 10px;
  }
`;
const Rail = styled.div`
  padding: 0 12px 12px;
  @media print {
    display: none;
  }
  ${narrow} {
    grid-area: rail;
    padding: 0;
    margin: 0 10px;
  }
`;
const Side = styled.aside`
  grid-area: card;
  background: var(--panel);
  border-left: 1px solid var(--line);
  padding: 12px 14px;
  display: flex;
  flex-direction: column;
  gap: 12px;
  ${narrow} {
    border: none;
    border-radius: 9px;
  }
`;
const JobLink = styled(Link)`
  color: inherit;
  font-weight: 600;
  text-underline-offset: 4px;
  border-radius: 4px;
  padding: 7px 2px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  min-width: 60px;
`;
const Setups = styled.div`
  min-width: 0;
  flex: 0 1 340px;
`;

const SunBox = styled.p`
  flex: none;
  font-size: 13.5px;
  background: var(--chosen);
  border-radius: 7px;
  padding: 5px 10px;
  white-space: nowrap;
  @media (max-width: 1180px) {
    display: none;
  }
`;

/** Where the sun stands at the hour of the setup. */
function SunNow() {
  const says = useSetup().plan?.sun_report?.says;
  return says ? <SunBox>{says}</SunBox> : null;
}

/** One setup: the order of work, the step, the stop rail and the dial card. */
export function Workbench() {
  const { setup: setupId } = useParams();
  const { job } = useJob();
  const setup = job.setups.find((one) => one.id === setupId);
  if (!setup) return <Missing />;
  return <Bench key={setup.id} setup={setup} />;
}

function Missing() {
  const document = useJob();
  return (
    <div>
      <Header document={document} />
      <main style={{ padding: 20 }}>
        <Notice>
          <strong>This setup is not there. </strong>It may have been deleted.
        </Notice>
        <p style={{ marginTop: 12 }}>
          <ButtonLink href={`/jobs/${document.id}`}>To the job</ButtonLink>
        </p>
      </main>
    </div>
  );
}

function Bench({ setup: kept }: { setup: Setup }) {
  const params = useParams();
  const navigate = useNavigate();
  const document = useJob();
  const { id, job, edit } = document;
  const { show } = usePreferences();
  const start = useStart();
  const step = isStep(params.step) ? params.step : 'place';
  const base = `/jobs/${id}/setups/${kept.id}`;
  const panel = useRef<HTMLDivElement>(null);
  const shown = useRef(step);
  useEffect(() => {
    // On a phone the step stands under the card, the rail and the list: choosing one goes there.
    if (shown.current !== step && matchMedia(phone).matches) panel.current?.scrollIntoView({ block: 'start' });
    shown.current = step;
  }, [step]);

  const change = useCallback(
    (what: string, to: (setup: Setup) => Setup) =>
      edit(what, (whole) => ({
        ...whole,
        setups: whole.setups.map((one) => (one.id === kept.id ? to(one) : one)),
      })),
    [edit, kept.id],
  );
  const kit = useJobKit(job.kit);
  const moved = useCallback((what: string, to: Setup) => change(what, () => to), [change]);
  const { live, move, end } = useMoving(kept, kit, show, moved);
  const setup = live?.setup ?? kept;
  const { plan: settled, problem } = usePlan(kept, kit, show);
  const plan = live?.plan ?? settled;
  const open = useMemo(() => ({ setup, kit, plan, change, move, letGo: end }), [setup, kit, plan, change, move, end]);
  const keptOpen = useMemo(
    () => ({ setup: kept, kit, plan: settled, change, move, letGo: end }),
    [kept, kit, settled, change, move, end],
  );
  const blendName = start?.blends.find((one) => one.kind === blendKind(setup.blend))?.name ?? '';

  // Made anew only when the job changes, not at every frame of a drag.
  const header = useMemo(
    () => (
      <Header document={document}>
        <VisuallyHidden elementType="h1">
          {kept.name}, {job.name}
        </VisuallyHidden>
        <JobLink href={`/jobs/${id}`}>{job.name}</JobLink>
        <span aria-hidden>/</span>
        <Setups>
          <Choice
            name="Setup"
            unseenName
            value={kept.id}
            options={job.setups.map((one) => ({ id: one.id, label: one.name }))}
            onChange={(other) => void navigate(`/jobs/${id}/setups/${other}/${step}`)}
          />
        </Setups>
        <SunNow />
      </Header>
    ),
    [document, kept, job, id, step, navigate],
  );

  useShortcuts([
    ...steps.map((one, index) => ({
      key: String(index + 1),
      name: String(index + 1),
      does: one.name,
      run: () => void navigate(`${base}/${one.id}`),
    })),
    ...(start?.blends ?? []).map((offer) => ({
      key: `blend ${offer.kind}`,
      name: 'Blend',
      does: `Blend: ${offer.name}`,
      run: () => change(`Blend: ${offer.name}`, (one) => ({ ...one, blend: offer.blend })),
    })),
  ]);

  return (
    <KeptSetupContext.Provider value={keptOpen}>
      <SetupContext.Provider value={open}>
        <Page>
          {header}
          <Side>
            {plan && <DialCard plan={plan} />}
            {problem && (
              <Notice role="alert">
                <strong>{problem.status === 0 ? 'Tolva does not answer. ' : 'No plan. '}</strong>
                {problem.status === 0
                  ? 'Is it still running? What you type is kept in this browser.'
                  : problem.problem?.errors?.map((one) => `${one.pointer}: ${one.message}`).join('; ')}
              </Notice>
            )}
            {plan && <Answer plan={plan} />}
          </Side>
          <OrderOfWork base={base} step={step} setup={setup} plan={plan} blendName={blendName} />
          <Main>
            {plan && (
              <>
                <Step ref={panel}>
                  {step === 'place' && <PlaceStep plan={plan} />}
                  {step === 'light' && <LightStep plan={plan} />}
                  {step === 'blend' && <BlendStep plan={plan} />}
                  {step === 'colour' && <ColourStep plan={plan} />}
                  {step === 'depth' && <DepthStep plan={plan} />}
                  {step === 'lights' && <LightsStep plan={plan} />}
                  {step === 'falling' && <FallingStep />}
                </Step>
                <Rail>
                  <StopRail plan={plan} onMove={(place) => move({ place })} onEnd={end} />
                </Rail>
              </>
            )}
          </Main>
        </Page>
      </SetupContext.Provider>
    </KeptSetupContext.Provider>
  );
}
