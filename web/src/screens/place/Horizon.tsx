import { Plus, Trash2 } from 'lucide-react';
import { memo } from 'react';
import styled from 'styled-components';
import type { ObstacleHeight } from '../../api/client';
import { begin } from '../../api/fields';
import { Told } from '../../instruments/Told';
import { Field } from '../../session/fields/Field';
import { Words } from '../../session/fields/Words';
import { useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Lead, Row } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { useScene } from './useScene';

const One = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(158px, 1fr));
  gap: 10px;
  align-items: end;
  border-top: 1px solid var(--line);
  padding: 10px 0;
`;

/** Hills and houses that stand in the way of the sun. */
export const Horizon = memo(function Horizon() {
  const { ask, set } = useSetup();
  const { scene, put } = useScene();
  const horizon = scene?.horizon ?? [];
  return (
    <div>
      <Row $apart>
        <h3>In the way of the sun</h3>
        <Button onPress={() => ask('Something in the way', 'add_obstacle', 'horizon')}>
          <Plus size={16} aria-hidden /> Add a hill or a house
        </Button>
      </Row>
      {horizon.length === 0 && <Lead>A level horizon. Add what the sun goes behind, and Tolva says when.</Lead>}
      <Told about="horizon" />
      {horizon.map((one, index) => {
        const at = ['scene', 'horizon', index];
        return (
          <One key={index}>
            <Words name="What" at={[...at, 'name']} says="Horizon" placeholder="the hill" />
            <Field of="Obstacle.from_deg" at={[...at, 'from_deg']} />
            <Field of="Obstacle.to_deg" at={[...at, 'to_deg']} />
            <Segments
              name="Height as"
              value={'size' in one.height ? 'size' : 'angle'}
              options={[
                { id: 'size', label: 'Metres' },
                { id: 'angle', label: 'Angle' },
              ]}
              onChange={(as) =>
                set('Horizon', [...at, 'height'], begin<'ObstacleHeight', ObstacleHeight>('ObstacleHeight', as))
              }
            />
            {'size' in one.height ? (
              <>
                <Field of="SizeHeight.height_m" at={[...at, 'height', 'size', 'height_m']} />
                <Field of="SizeHeight.distance_m" at={[...at, 'height', 'size', 'distance_m']} />
              </>
            ) : (
              <Field of="AngleHeight.altitude_deg" at={[...at, 'height', 'angle', 'altitude_deg']} />
            )}
            <Button
              kind="bare"
              aria-label={`Delete ${one.name || 'this'} from the horizon`}
              onPress={() =>
                put(
                  'Horizon',
                  'horizon',
                  horizon.filter((_, other) => other !== index),
                )
              }
            >
              <Trash2 size={17} aria-hidden />
            </Button>
          </One>
        );
      })}
    </div>
  );
});
