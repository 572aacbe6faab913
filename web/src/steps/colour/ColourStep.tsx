import { memo } from 'react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import styled from 'styled-components';
import { answered, api, type Plan, type Setup } from '../../api/client';
import { usePreferences } from '../../app/preferences';
import { ColourLine } from '../../instruments/colour-line/ColourLine';
import { useJob, useKeptSetup, useSetup } from '../../jobs/JobContext';
import { Facts } from '../../ui/Facts';
import { Grid, Lead, Panel, Stack, Title } from '../../ui/Panel';
import { TypedField } from '../../ui/TypedField';
import { Balances } from './Balances';
import { Gels } from './Gels';
import { LightColour } from './LightColour';
import { OneLook } from './OneLook';
import { Strip } from './Strip';
import { rangeOf } from '../../api/ranges';

const Now = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 18px;
  margin-top: 12px;
  li {
    font-size: 13.5px;
    min-width: 0;
  }
  b {
    font-weight: 650;
  }
  small {
    display: block;
    font-size: 13px;
    color: var(--quiet);
    max-width: 30ch;
  }
`;

/** What colour each light is, what the camera takes for white, and what becomes of it. */
export function ColourStep({ plan }: { plan: Plan }) {
  const { kit, move, letGo } = useSetup();
  const { setup: kept, plan: settled } = useKeptSetup();
  const { show } = usePreferences();
  const colour = plan.colour;
  const { data: ways } = useQuery({
    // While something is dragged the comparison waits for it to be let go.
    queryKey: ['colour', kept, kit, show],
    queryFn: () => answered(api.POST('/api/v1/colour', { body: { setup: kept, kit, show } })),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    retry: false,
  });
  return (
    <Stack>
      <Panel>
        <Title>Colour</Title>
        <Lead>
          <strong>{colour.balance.convention}.</strong> {colour.balance.says} Drag the bar, a ring or a lozenge; up is
          green, down magenta.
        </Lead>
        <ColourLine colour={colour} onMove={(to) => move({ colour: to })} onEnd={letGo} />
        {colour.balance.by_kelvin && <p style={{ marginTop: 8 }}>{colour.balance.by_kelvin}</p>}
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
      </Panel>
      <Balances ways={ways} />
      <ByHand />
      <LightColours />
      <Gels ways={ways} />
      <OneLook />
      <Panel aria-labelledby="automatic-balance">
        <h3 id="automatic-balance">What the automatic setting would have done</h3>
        <Lead>
          A demonstration: a camera that wants the mean of the frame grey, with half of it filled by what lies behind.
        </Lead>
        {settled && <Facts name="The automatic setting" facts={settled.colour.automatic} />}
      </Panel>
    </Stack>
  );
}

/** The number on the camera, typed. */
const ByHand = memo(function ByHand() {
  const { id } = useJob();
  const { setup, plan, change } = useKeptSetup();
  if (!plan) return null;
  const colour = plan.colour;
  const balance = (part: { kelvin?: number; tint_duv?: number }) =>
    change('White balance by hand', (one: Setup) => ({
      ...one,
      white_balance: {
        kelvin: {
          kelvin: part.kelvin ?? colour.balance.kelvin,
          tint_duv: part.tint_duv ?? colour.balance.tint_duv,
          reason: 'by_hand' as const,
        },
      },
    }));
  return (
    <Panel aria-labelledby="by-hand">
      <h3 id="by-hand" style={{ marginBottom: 8 }}>
        On the camera
      </h3>
      <Grid>
        <TypedField
          name="White balance, K"
          as="number"
          value={Math.round(colour.balance.kelvin)}
          keptAs={`${id}/${setup.id}/balance/kelvin`}
          {...rangeOf('WhiteBalance.kelvin.kelvin')}
          onValue={(u) => balance({ kelvin: u.value })}
        />
        <TypedField
          name="Its tint, Duv"
          as="number"
          value={Math.round(colour.balance.tint_duv * 10000) / 10000 || 0}
          keptAs={`${id}/${setup.id}/balance/tint`}
          {...rangeOf('WhiteBalance.kelvin.tint_duv')}
          hint="0 for the usual white of that temperature; positive for a green light."
          onValue={(u) => balance({ tint_duv: u.value })}
        />
      </Grid>
    </Panel>
  );
});

/** The colour of the light on each region. */
const LightColours = memo(function LightColours() {
  const { setup } = useKeptSetup();
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
