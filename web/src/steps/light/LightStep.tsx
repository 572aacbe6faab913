import type { Plan } from '../../api/client';
import { Plus } from 'lucide-react';
import { freshId } from '../../kit/KitContext';
import { useSetup } from '../../jobs/JobContext';
import { Button } from '../../ui/Button';
import { Grid, Lead, Panel, Title } from '../../ui/Panel';
import { RegionCard } from './RegionCard';

/** Ambient first, flash off: readings for each region. */
export function LightStep({ plan }: { plan: Plan }) {
  const { setup, change } = useSetup();
  /** Another part of the picture: a second row, hair, a product's face. It begins with the light of the lit side. */
  const add = () => {
    const lit = setup.regions.find((region) => region.role === 'lit_side');
    const id = freshId(
      'part',
      setup.regions.map((region) => region.id),
    );
    change('Region added', (one) => ({
      ...one,
      regions: [
        ...one.regions,
        { id, name: 'Another part', role: 'part', ambient: { guess_ev100: lit?.ambient.guess_ev100 ?? 12 } },
      ],
    }));
  };
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
      {setup.regions.length < 12 && (
        <div style={{ marginTop: 12 }}>
          <Button onPress={add}>
            <Plus size={16} aria-hidden /> Add a region
          </Button>
        </div>
      )}
    </Panel>
  );
}
