import { Words } from '../../session/fields/Words';
import { useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Grid, Row } from '../../ui/Panel';
import { Sheet } from '../../ui/Sheet';
import { filled, JobName } from './Naming';

/** What the job and the setup are called. */
export default function Names({ onClose }: { onClose: () => void }) {
  const { setup } = useSetup();
  return (
    <Sheet title="Names" open onClose={onClose} width={480}>
      <Grid $min={300}>
        <JobName />
        <Words name="Name of the setup" at={['name']} says="Setup: words" good={filled} wrong="A setup needs a name." />
        <Words name={`Notes on ${setup.name}`} at={['notes']} says="Setup: words" most={4000} lines />
      </Grid>
      <Row>
        <Button kind="strong" onPress={onClose}>
          Done
        </Button>
      </Row>
    </Sheet>
  );
}
