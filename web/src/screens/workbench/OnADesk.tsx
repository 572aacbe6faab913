import type { ReactNode } from 'react';
import styled from 'styled-components';
import { DialCard } from '../../instruments/dial-card/DialCard';
import { StopRail } from '../../instruments/stop-rail/StopRail';
import { space, wide } from '../../ui/tokens';
import { Answer } from './Answer';
import { OrderOfWork } from './OrderOfWork';
import type { StepId } from './steps';

const Page = styled.div`
  display: grid;
  min-height: 100vh;
  grid-template: 'header header header' auto 'nav main card' minmax(0, 1fr) / 204px minmax(0, 1fr) 288px;
  ${wide} {
    height: 100vh;
  }
  @media (max-width: 1080px) {
    grid-template-columns: 176px minmax(0, 1fr) 252px;
  }
  @media print {
    display: block;
    height: auto !important;
    > :not(main) {
      display: none;
    }
  }
`;
const Top = styled.div`
  grid-area: header;
`;
const Nav = styled.div`
  grid-area: nav;
  overflow: auto;
  background: var(--panel);
  border-right: 1px solid var(--line);
  padding: ${space.part}px 0;
`;
const Main = styled.main`
  grid-area: main;
  min-width: 0;
  min-height: 0;
  display: flex;
  flex-direction: column;
  overflow: hidden;
  @media print {
    overflow: visible;
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
`;
const Rail = styled.div`
  padding: 0 12px 12px;
  @media print {
    display: none;
  }
`;
const Side = styled.aside`
  grid-area: card;
  background: var(--panel);
  border-left: 1px solid var(--line);
  padding: 12px ${space.part}px;
  display: flex;
  flex-direction: column;
  gap: 12px;
  overflow: auto;
`;

type Props = { base: string; step: StepId; header: ReactNode; children: ReactNode };

/** Everything at once: the order of work, the step over the rail, the dial card with the answer. */
export function OnADesk({ base, step, header, children }: Props) {
  return (
    <Page>
      <Top>{header}</Top>
      <Side>
        <DialCard />
        <Answer />
      </Side>
      <Nav>
        <OrderOfWork base={base} step={step} />
      </Nav>
      <Main>
        <Step>{children}</Step>
        <Rail>
          <StopRail low={step === 'set' || step === 'glass' || step === 'proof'} />
        </Rail>
      </Main>
    </Page>
  );
}
