import { ChevronDown, ChevronLeft, ChevronRight, ChevronUp, ListOrdered } from 'lucide-react';
import { type ReactNode, Suspense, useRef, useState } from 'react';
import { mergeProps, useMove } from 'react-aria';
import { Button as AriaButton } from 'react-aria-components';
import styled from 'styled-components';
import type { Plan } from '../../api/client';
import { DialCard } from '../../instruments/dial-card/DialCard';
import { StopRail } from '../../instruments/stop-rail/StopRail';
import { useLivePlan } from '../../session/job';
import { ButtonLink } from '../../ui/Button';
import { lazily } from '../../ui/lazily';
import { figures, radius, space, touch, type } from '../../ui/tokens';
import { Answer } from './Answer';
import { type StepId, steps } from './steps';

const OrderSheet = lazily(() => import('./OrderSheet'));

const Page = styled.div`
  display: flex;
  flex-direction: column;
  min-height: 100dvh;
  padding-bottom: ${touch + 16}px;
  @media print {
    padding: 0;
    > :not(main) {
      display: none;
    }
  }
`;
const Top = styled.section`
  position: sticky;
  top: 0;
  z-index: 5;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
`;
const Settings = styled(AriaButton)`
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: ${space.gap}px;
  width: 100%;
  min-height: 52px;
  padding: 4px 12px 2px;
  border: none;
  background: none;
  text-align: left;
  cursor: pointer;
  strong {
    ${figures} display: block;
    font-size: 19px;
    font-weight: 650;
    line-height: 1.2;
    text-wrap: balance;
  }
  small {
    display: block;
    font-size: ${type.note}px;
    color: var(--quiet);
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;
const Grip = styled(AriaButton)`
  display: flex;
  align-items: center;
  justify-content: center;
  gap: ${space.near}px;
  width: 100%;
  min-height: ${touch}px;
  border: none;
  border-top: 1px solid var(--hair);
  background: none;
  color: var(--quiet);
  font-size: ${type.note}px;
  cursor: pointer;
  /* The one place here that is dragged up and down. */
  touch-action: none;
`;
const Opened = styled.div`
  max-height: 64dvh;
  overflow: auto;
  padding: 0 12px 12px;
  display: grid;
  gap: 12px;
`;
const Main = styled.main`
  flex: 1;
  padding: ${space.gap}px;
  min-width: 0;
  display: grid;
  gap: ${space.gap}px;
  align-content: start;
  grid-template-columns: minmax(0, 1fr);
`;
const Words = styled.div`
  background: var(--panel);
  border-radius: ${radius.card}px;
  padding: 12px ${space.part}px;
  @media print {
    display: none;
  }
`;
const Bottom = styled.nav`
  position: fixed;
  inset: auto 0 0;
  z-index: 5;
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: ${space.near}px;
  padding: ${space.near}px ${space.gap}px calc(${space.near}px + env(safe-area-inset-bottom));
  background: var(--panel);
  border-top: 1px solid var(--line);
`;
const Here = styled(AriaButton)`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: ${space.near}px;
  min-height: ${touch}px;
  border: 1px solid var(--control-line);
  border-radius: ${radius.control}px;
  background: var(--chosen);
  font-weight: 650;
  cursor: pointer;
  min-width: 0;
  span {
    overflow: hidden;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

type Props = { base: string; step: StepId; header: ReactNode; children: ReactNode };

/** One hand: what to set at the top, the step, and the way to the next at the bottom. */
export function OnAPhone({ base, step, header, children }: Props) {
  return (
    <Page>
      {header}
      <WhatToSet />
      <Main>
        <div>{children}</div>
        <Words>
          <Answer />
        </Words>
      </Main>
      <WhichStep key={step} base={base} step={step} />
    </Page>
  );
}

/** What to set in a line, and of the answer in another. */
function inShort({ dial_card: card, possible, shortfalls }: Plan): { settings: string; answer: string } {
  // What belongs together is not broken over two lines.
  const whole = (text: string) => text.replaceAll(' ', '\u00a0');
  const lights = card.lights.map((light) => whole(`${light.light_id} ${light.power ?? 'off'}`));
  const camera = [card.shutter.label, card.aperture.label, whole(card.iso.label)].join(' ');
  const missing = shortfalls[0]?.says;
  return {
    settings: [camera, ...lights].join(' · '),
    answer: [card.white_balance, card.filter, possible ? 'As wished' : `Not as wished: ${missing ?? ''}`]
      .filter(Boolean)
      .join(' · '),
  };
}

/** How far the bar is pulled before the rail opens, in pixels. */
const pull = 24;

function WhatToSet() {
  const short = useLivePlan((plan) => JSON.stringify(inShort(plan)));
  const [open, setOpen] = useState<'card' | 'rail'>();
  const toggle = (what: 'card' | 'rail') => setOpen(open === what ? undefined : what);
  const pulled = useRef(0);
  const { moveProps } = useMove({
    onMoveStart() {
      pulled.current = 0;
    },
    onMove(event) {
      if (event.pointerType === 'keyboard') return;
      pulled.current += event.deltaY;
      if (pulled.current > pull) setOpen('rail');
      if (pulled.current < -pull) setOpen(undefined);
    },
  });
  if (short === undefined) return null;
  const { settings, answer } = JSON.parse(short) as ReturnType<typeof inShort>;
  const Arrow = open === 'card' ? ChevronUp : ChevronDown;
  return (
    <Top aria-label="What to set">
      <Settings aria-expanded={open === 'card'} onPress={() => toggle('card')}>
        <span>
          <strong>{settings}</strong>
          <small>{answer}</small>
        </span>
        <Arrow size={20} aria-hidden />
      </Settings>
      {open && <Opened>{open === 'card' ? <DialCard /> : <StopRail />}</Opened>}
      <div {...mergeProps(moveProps)}>
        <Grip aria-expanded={open === 'rail'} onPress={() => Math.abs(pulled.current) < pull && toggle('rail')}>
          {open === 'rail' ? <ChevronUp size={16} aria-hidden /> : <ChevronDown size={16} aria-hidden />}
          Stop rail
        </Grip>
      </div>
    </Top>
  );
}

function WhichStep({ base, step }: { base: string; step: StepId }) {
  const [open, setOpen] = useState(false);
  const here = steps.findIndex((one) => one.id === step);
  const [before, after] = [steps[here - 1], steps[here + 1]];
  return (
    <Bottom aria-label="Steps">
      <ButtonLink
        href={`${base}/${before?.id ?? ''}`}
        isDisabled={!before}
        aria-label={before ? `Before: ${before.name}` : 'This is the first step'}
      >
        <ChevronLeft size={20} aria-hidden />
      </ButtonLink>
      <Here aria-expanded={open} aria-haspopup="dialog" onPress={() => setOpen(true)}>
        <ListOrdered size={18} aria-hidden />
        <span>
          {steps[here]?.key} {steps[here]?.name}
        </span>
      </Here>
      <ButtonLink
        href={`${base}/${after?.id ?? ''}`}
        isDisabled={!after}
        aria-label={after ? `Next: ${after.name}` : 'This is the last step'}
      >
        <ChevronRight size={20} aria-hidden />
      </ButtonLink>
      <Suspense>{open && <OrderSheet base={base} step={step} onClose={() => setOpen(false)} />}</Suspense>
    </Bottom>
  );
}
