import type { Plan } from '../../api/client';
import { useSetup } from '../../jobs/JobContext';
import { Grid, Lead, Panel, Title } from '../../ui/Panel';
import { RegionCard } from './RegionCard';

/** Ambient first, flash off: readings for each region. */
export function LightStep({ plan }: { plan: Plan }) {
  const { setup } = useSetup();
  return (
    <Panel>
      <Title>Light that is there</Title>
      <Lead>
        Read it with the flash off: an EV (12.6), lux (8000 lx), or what the meter or camera said (1/250, f/8, ISO 100).
        {setup.scene
          ? ' A reading beats the estimate from place and hour, and goes on with the sun from when it was taken.'
          : ' With a place and an hour, Tolva estimates it and follows the sun from your reading on.'}
      </Lead>
      <Grid $min={216}>
        {setup.regions.map((region) => (
          <RegionCard key={region.id} region={region} plan={plan} />
        ))}
      </Grid>
    </Panel>
  );
}
