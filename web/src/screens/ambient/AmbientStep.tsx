import { Plus } from 'lucide-react';
import { mostOf } from '../../api/fields';
import { Told } from '../../instruments/Told';
import { useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Grid, Lead, Panel, Row } from '../../ui/Panel';
import { StepTitle } from '../workbench/StepTitle';
import { RegionCard } from './RegionCard';

/** Ambient first, flash off: readings for each region. */
export default function AmbientStep() {
  const { setup, ask } = useSetup();
  return (
    <Panel>
      <StepTitle>Light that is there</StepTitle>
      <Lead>
        Read it with the flash off: an EV (12.6), lux (8000 lx), or what the meter or camera said (1/250, f/8, ISO 100).
        {setup.scene
          ? ' A reading beats the estimate from place and hour, and goes on with the sun from when it was taken.'
          : ' With a place and an hour, Tolva estimates it and follows the sun from your reading on.'}
      </Lead>
      <Grid $min={216}>
        {setup.regions.map((region) => (
          <RegionCard key={region.id} region={region} />
        ))}
      </Grid>
      {setup.regions.length < mostOf('Setup.regions') && (
        <Row $below>
          <Button onPress={() => ask('Region added', 'add_region', 'regions')}>
            <Plus size={16} aria-hidden /> Add a region
          </Button>
        </Row>
      )}
      <Told about="regions" />
    </Panel>
  );
}
