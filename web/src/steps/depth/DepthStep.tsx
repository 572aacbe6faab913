import { useState } from 'react';
import { CameraForm } from '../../kit/CameraForm';
import { useJob, useSetup } from '../../jobs/JobContext';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Grid, Lead, Panel, Row, Title } from '../../ui/Panel';
import { TypedField, useLabel } from '../../ui/TypedField';

/** The camera and what its shutter, aperture and ISO may do. */
export function DepthStep() {
  const { id } = useJob();
  const { setup, kit, change } = useSetup();
  const [editing, setEditing] = useState(false);
  const camera = kit.cameras.find((one) => one.id === setup.camera_id);
  const rated = useLabel('shutter', camera?.sync_rated_s);
  const safe = useLabel('shutter', camera?.sync_safe_s);
  const kept = `${id}/${setup.id}/depth`;
  const fixed = setup.fixed ?? {};
  const fixing = (field: 'shutter_s' | 'f_number' | 'iso', name: string, as: 'shutter' | 'aperture' | 'iso') => (
    <TypedField
      name={`${name}, fixed`}
      as={as}
      value={fixed[field]}
      placeholder="left to Tolva"
      keptAs={`${kept}/${field}`}
      onValue={(understood) =>
        change(`${name} fixed`, (one) => ({ ...one, fixed: { ...one.fixed, [field]: understood.value } }))
      }
      action={
        fixed[field] === null || fixed[field] === undefined
          ? undefined
          : {
              name: 'leave to Tolva',
              run: () =>
                change(`${name} left to Tolva`, (one) => ({ ...one, fixed: { ...one.fixed, [field]: undefined } })),
            }
      }
    />
  );
  return (
    <Panel>
      <Title>Depth and speed</Title>
      <Lead>Fix what the picture needs; Tolva finds the rest. The same can be done on the dial card.</Lead>
      <Row style={{ marginBottom: 14 }}>
        <div style={{ minWidth: 240 }}>
          <Choice
            name="Camera"
            value={setup.camera_id}
            options={kit.cameras.map((one) => ({ id: one.id, label: one.name }))}
            onChange={(camera_id) => change('Camera', (one) => ({ ...one, camera_id }))}
          />
        </div>
        <Button onPress={() => setEditing(true)}>Edit this camera</Button>
        <p style={{ color: 'var(--quiet)' }}>
          Sync {rated}, safe {safe}
        </p>
      </Row>
      <Grid>
        {fixing('shutter_s', 'Shutter', 'shutter')}
        {fixing('f_number', 'Aperture', 'aperture')}
        {fixing('iso', 'ISO', 'iso')}
        <TypedField
          name="Slowest shutter allowed"
          as="shutter"
          value={setup.slowest_shutter_s}
          keptAs={`${kept}/slowest`}
          hint="Hand-held, or for a subject that moves."
          onValue={(understood) =>
            change('Slowest shutter', (one) => ({ ...one, slowest_shutter_s: understood.value }))
          }
        />
        <TypedField
          name="Neutral filter on the lens, stops"
          as="stops"
          value={setup.filter_stops ?? 0}
          keptAs={`${kept}/filter`}
          step={1}
          least={0}
          most={15}
          hint="0 without one."
          onValue={(understood) => change('Filter', (one) => ({ ...one, filter_stops: understood.value }))}
        />
      </Grid>
      {camera && <CameraForm camera={camera} open={editing} onClose={() => setEditing(false)} />}
    </Panel>
  );
}
