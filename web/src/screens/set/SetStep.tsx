import { useCallback, useState } from 'react';
import styled from 'styled-components';
import type { OnSet } from '../../api/client';
import { MapOfLight } from '../../instruments/map-of-light/MapOfLight';
import { keyOfThing, lightOf } from '../../instruments/map-of-light/things';
import { useLivePlan, useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Notice, Panel, Row, Stack } from '../../ui/Panel';
import { space } from '../../ui/tokens';
import { Lights } from '../flashes/Lights';
import { StepTitle } from '../workbench/StepTitle';
import { AddMenu } from './AddMenu';
import { CardFill } from './CardFill';
import { Evenness } from './Evenness';
import { InWords } from './InWords';
import { Notices } from './Notices';
import { OtherThings } from './OtherThings';
import { SunOverTheDay } from './SunOverTheDay';

const Head = styled(Row)`
  margin-bottom: ${space.gap}px;
`;

/** The set to scale: who and what stands where, and what follows for the light. */
export default function SetStep() {
  const { setup, ask } = useSetup();
  const [chosen, setChosen] = useState<OnSet>();
  const says = useLivePlan((plan) => plan.set?.says);
  const choose = useCallback((thing: OnSet) => setChosen(thing), []);
  const used = Boolean(setup.set);
  return (
    <Stack>
      <Panel>
        <Head $apart>
          <StepTitle>Set</StepTitle>
          <AddMenu />
        </Head>
        <MapOfLight
          chosen={chosen && keyOfThing(chosen)}
          choose={choose}
          lights={setup.lights.map((light) => light.id)}
        />
        {!used && (
          <Notice>
            <strong>Not used yet. </strong>
            {says}
            <Row $below>
              <Button kind="strong" onPress={() => ask('Set used', { set: 'use' }, 'set/use')}>
                Work the light out from this set
              </Button>
            </Row>
          </Notice>
        )}
        <Notices choose={choose} />
      </Panel>
      <Lights shown={lightOf(chosen)} setShown={(id) => setChosen({ light: id })} />
      <OtherThings chosen={chosen} choose={choose} />
      <Evenness />
      <CardFill />
      <SunOverTheDay />
      <InWords />
    </Stack>
  );
}
