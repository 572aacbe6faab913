import { useCallback, useState } from 'react';
import styled from 'styled-components';
import type { GlassReport, OnSet } from '../../api/client';
import { MapOfLight } from '../../instruments/map-of-light/MapOfLight';
import { keyOfThing } from '../../instruments/map-of-light/things';
import { useLivePlan, useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Facts } from '../../ui/Facts';
import { Lead, Panel, Part, Quiet, Row, Stack } from '../../ui/Panel';
import { space, type } from '../../ui/tokens';
import { AddMenu } from '../set/AddMenu';
import { Notices } from '../set/Notices';
import { OtherThings } from '../set/OtherThings';
import { StepTitle } from '../workbench/StepTitle';
import { Findings } from './Findings';
import { Frames } from './Frames';
import { Gloss } from './Gloss';
import { Remedies } from './Remedies';

const Head = styled(Row)`
  margin-bottom: ${space.gap}px;
`;
const Verdict = styled.p`
  font-size: ${type.lead}px;
  font-weight: 600;
  margin-bottom: ${space.gap}px;
`;

const First = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${space.near}px ${space.part}px;
  margin-bottom: ${space.gap}px;
  button {
    text-align: left;
  }
`;

type Looked = NonNullable<GlassReport['remedies']>;

/** What clears each thing. While something is held nobody looks for it: what was found last stands, and waits. */
function useRemedies(glass: GlassReport | undefined): { remedies: Looked; stale: boolean } {
  const [last, setLast] = useState<Looked>([]);
  const found = glass?.remedies ?? undefined;
  if (found && found !== last) setLast(found);
  return { remedies: found ?? last, stale: !found };
}

/** What shows in glass, the least that helps, and what can hurt. */
export default function GlassStep() {
  const { setup, ask, take } = useSetup();
  const [chosen, setChosen] = useState<OnSet>();
  const [pointed, setPointed] = useState<string>();
  const glass = useLivePlan((plan) => plan.glass) ?? undefined;
  const hurts = useLivePlan((plan) => plan.set?.notices.some((note) => note.can_hurt)) ?? false;
  const choose = useCallback((thing: OnSet) => setChosen(thing), []);
  // The trouble and its remedy stand together, before anything is scrolled.
  const { remedies, stale } = useRemedies(glass);
  const first = remedies[0]?.offers[0];
  const shown = glass?.findings.filter((one) => one.shows) ?? [];
  const mirrors = setup.set?.panes?.filter((pane) => pane.glazing === 'mirror').length ?? 0;
  return (
    <Stack>
      <Panel>
        <Head $apart>
          <StepTitle>Glass and hazards</StepTitle>
          <AddMenu only="glass" />
        </Head>
        <Verdict id="verdict-on-glass" role="status">
          {glass?.says}
        </Verdict>
        {first && (
          <First>
            <Button
              kind="strong"
              aria-label={`The least that helps: ${first.does}`}
              isDisabled={stale}
              onPress={() => take(first.does, first.setup)}
            >
              {first.does}
            </Button>
            <Quiet>{first.costs}</Quiet>
          </First>
        )}
        <MapOfLight
          chosen={chosen && keyOfThing(chosen)}
          choose={choose}
          lights={setup.lights.map((light) => light.id)}
          first="lens"
          glass={glass}
          remedies
          finding={pointed}
        />
      </Panel>
      <Remedies all={remedies} stale={stale} />
      {glass && glass.findings.length > 0 && (
        <Findings all={glass.findings} pointed={pointed} point={setPointed} choose={choose} />
      )}
      {mirrors > 1 && shown.length > 0 && (
        <Panel>
          <Part>A room of mirrors</Part>
          <Lead $tight>
            With several mirrors, a move that clears one shows in the next. Tolva looks through some six hundred places
            of camera and first light for the one that shows in none, or the least.
          </Lead>
          <Row $below>
            <Button onPress={() => ask('The place that shows least', { set: 'best_place' }, 'set/glass')}>
              Put camera and light where they show least
            </Button>
          </Row>
        </Panel>
      )}
      {glass && glass.shot_through.length > 0 && (
        <Panel>
          <Part>Photographed through glass</Part>
          <Facts name="Photographed through glass" facts={glass.shot_through} />
        </Panel>
      )}
      {glass && glass.gloss.length > 0 && <Gloss all={glass.gloss} />}
      <Frames />
      <OtherThings chosen={chosen} choose={choose} />
      {hurts && (
        <Panel>
          <Part>What can hurt</Part>
          <Notices choose={choose} hurting />
        </Panel>
      )}
    </Stack>
  );
}
