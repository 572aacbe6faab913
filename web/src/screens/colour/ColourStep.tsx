import { keepPreviousData, useQuery } from '@tanstack/react-query';
import { memo } from 'react';
import styled from 'styled-components';
import { answered, api } from '../../api/client';
import { usePreferences } from '../../api/preferences';
import { ColourLine } from '../../instruments/colour-line/ColourLine';
import { Field } from '../../session/fields/Field';
import { useLivePlan, usePlan, useSetup } from '../../session/job';
import { Facts } from '../../ui/Facts';
import { Grid, Lead, Panel, Part, Stack } from '../../ui/Panel';
import { space, type } from '../../ui/tokens';
import { StepTitle } from '../workbench/StepTitle';
import { Balances } from './Balances';
import { Gels } from './Gels';
import { LightColour } from './LightColour';
import { OneLook } from './OneLook';
import { Strip } from './Strip';

const Now = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 18px;
  margin-top: 12px;
  li {
    font-size: ${type.note}px;
    min-width: 0;
  }
  b {
    font-weight: 650;
  }
  small {
    display: block;
    font-size: ${type.note}px;
    color: var(--quiet);
    max-width: 30ch;
  }
`;
const ByKelvin = styled.p`
  margin-top: ${space.near}px;
`;

/** What colour each light is, what the camera takes for white, and what becomes of it. */
export default function ColourStep() {
  const { setup, kit } = useSetup();
  const { show } = usePreferences();
  const { data: ways } = useQuery({
    // While something is dragged the comparison waits for it to be let go.
    queryKey: ['colour', setup, kit, show],
    queryFn: () => answered(api.POST('/api/v1/colour', { body: { setup, kit, show } })),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    retry: false,
  });
  return (
    <Stack>
      <Panel>
        <StepTitle>Colour</StepTitle>
        <Convention />
        <ColourLine />
        <Becomes />
      </Panel>
      <Balances ways={ways} />
      <ByHand />
      <LightColours />
      <Gels ways={ways} />
      <OneLook />
      <Automatic />
    </Stack>
  );
}

/** What the camera takes for white, under the pointer. */
function Convention() {
  const balance = useLivePlan((plan) => plan.colour.balance);
  return (
    <Lead>
      <strong>{balance?.convention}.</strong> {balance?.says} Drag the bar, a ring or a lozenge; up is green, down
      magenta.
    </Lead>
  );
}

/** What becomes of each region, under the pointer. */
function Becomes() {
  const colour = useLivePlan((plan) => plan.colour);
  if (!colour) return null;
  return (
    <>
      {colour.balance.by_kelvin && <ByKelvin>{colour.balance.by_kelvin}</ByKelvin>}
      <Now aria-label="What becomes of each region">
        {colour.regions.map((region) => (
          <li key={region.region_id}>
            <b>{region.name}</b>: {region.words}
            <Strip swatches={region.swatches} of={`${region.name}, as it comes out`} />
            <small>
              {region.cast}, Δu′v′ {region.off_grey}
            </small>
            <small>
              {region.light}: {region.shares}
            </small>
          </li>
        ))}
      </Now>
    </>
  );
}

/** What the camera would have done by itself. */
const Automatic = memo(function Automatic() {
  const plan = usePlan();
  return (
    <Panel aria-labelledby="automatic-balance">
      <h3 id="automatic-balance">What the automatic setting would have done</h3>
      <Lead>
        A demonstration: a camera that wants the mean of the frame grey, with half of it filled by what lies behind.
      </Lead>
      {plan && <Facts name="The automatic setting" facts={plan.colour.automatic} />}
    </Panel>
  );
});

/** The number on the camera, typed. */
const ByHand = memo(function ByHand() {
  const { setup } = useSetup();
  const balance = usePlan()?.colour.balance;
  const byHand = typeof setup.white_balance === 'object' && 'kelvin' in setup.white_balance;
  return (
    <Panel aria-labelledby="by-hand">
      <Part id="by-hand">On the camera</Part>
      <Grid>
        <Field
          of="WhiteBalance.kelvin.kelvin"
          at={['white_balance', 'kelvin', 'kelvin']}
          says="White balance by hand"
          {...(byHand || !balance ? {} : { shown: balance.kelvin_number })}
        />
        <Field
          of="WhiteBalance.kelvin.tint_duv"
          at={['white_balance', 'kelvin', 'tint_duv']}
          says="White balance by hand"
          {...(byHand || !balance ? {} : { shown: balance.tint_number })}
        />
      </Grid>
    </Panel>
  );
});

/** The colour of the light on each region. */
const LightColours = memo(function LightColours() {
  const { setup } = useSetup();
  return (
    <Panel aria-labelledby="light-colours">
      <h3 id="light-colours">What colour the light is</h3>
      <Lead>Each part of the picture has its own: lamps behind, a window on the face.</Lead>
      <Grid $min={230}>
        {setup.regions.map((region) => (
          <LightColour key={region.id} region={region} />
        ))}
      </Grid>
    </Panel>
  );
});
