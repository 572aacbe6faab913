import { Plus, Trash2 } from 'lucide-react';
import { memo, useState } from 'react';
import styled from 'styled-components';
import type { Obstacle } from '../../api/client';
import { useJob } from '../../jobs/JobContext';
import { Button } from '../../ui/Button';
import { Lead, Notice, Row } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { TextField } from '../../ui/TextField';
import { TypedField } from '../../ui/TypedField';
import { useScene } from './useScene';
import { rangeOf } from '../../api/ranges';

const One = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(158px, 1fr));
  gap: 10px;
  align-items: end;
  border-top: 1px solid var(--line);
  padding: 10px 0;
`;

const fresh: Obstacle = { name: '', from_deg: 240, to_deg: 300, height: { size: { height_m: 12, distance_m: 30 } } };

/** Hills and houses that stand in the way of the sun. */
export const Horizon = memo(function Horizon() {
  const { id } = useJob();
  const { scene, put, attempt } = useScene();
  const [wrong, setWrong] = useState<string>();
  const horizon = scene?.horizon ?? [];
  const change = async (what: string, to: Obstacle[]) => setWrong(await attempt(what, { horizon: to }));
  const set = (index: number, part: Partial<Obstacle>) =>
    attempt('Horizon', { horizon: horizon.map((one, at) => (at === index ? { ...one, ...part } : one)) });
  return (
    <div>
      <Row style={{ justifyContent: 'space-between', alignItems: 'center' }}>
        <h3>In the way of the sun</h3>
        <Button onPress={() => void change('Something in the way', [...horizon, fresh])}>
          <Plus size={16} aria-hidden /> Add a hill or a house
        </Button>
      </Row>
      {horizon.length === 0 && <Lead>A level horizon. Add what the sun goes behind, and Tolva says when.</Lead>}
      {wrong && (
        <Notice role="alert" style={{ margin: '8px 0' }}>
          <strong>Not put in. </strong>
          {wrong}
        </Notice>
      )}
      {horizon.map((one, index) => {
        const bearing = (name: string, field: 'from_deg' | 'to_deg') => (
          <TypedField
            name={name}
            as="number"
            value={one[field]}
            keptAs={`${id}/horizon/${index}/${field}`}
            {...rangeOf(`Obstacle.${field}`)}
            onValue={({ value }) => set(index, { [field]: value })}
          />
        );
        const { height } = one;
        return (
          <One key={index}>
            <TextField
              name="What"
              value={one.name ?? ''}
              placeholder="the hill"
              // Words are put in as they are typed; only numbers wait for the core.
              onChange={(name) =>
                put('Horizon', { horizon: horizon.map((each, at) => (at === index ? { ...each, name } : each)) })
              }
            />
            {bearing('From, degrees', 'from_deg')}
            {bearing('To, degrees', 'to_deg')}
            <Segments
              name="Height as"
              value={'size' in height ? 'size' : 'angle'}
              options={[
                { id: 'size', label: 'Metres' },
                { id: 'angle', label: 'Angle' },
              ]}
              onChange={(as) => set(index, { height: as === 'size' ? fresh.height : { angle: { altitude_deg: 10 } } })}
            />
            {'size' in height ? (
              <>
                <TypedField
                  name="So high"
                  as="length"
                  value={height.size.height_m}
                  keptAs={`${id}/horizon/${index}/high`}
                  {...rangeOf('SizeHeight.height_m')}
                  onValue={({ value }) => set(index, { height: { size: { ...height.size, height_m: value } } })}
                />
                <TypedField
                  name="So far away"
                  as="length"
                  value={height.size.distance_m}
                  keptAs={`${id}/horizon/${index}/far`}
                  {...rangeOf('SizeHeight.distance_m')}
                  onValue={({ value }) => set(index, { height: { size: { ...height.size, distance_m: value } } })}
                />
              </>
            ) : (
              <TypedField
                name="Height, degrees"
                as="number"
                value={height.angle.altitude_deg}
                keptAs={`${id}/horizon/${index}/angle`}
                {...rangeOf('AngleHeight.altitude_deg')}
                onValue={({ value }) => set(index, { height: { angle: { altitude_deg: value } } })}
              />
            )}
            <Button
              kind="bare"
              aria-label={`Delete ${one.name || 'this'} from the horizon`}
              onPress={() =>
                void change(
                  'Horizon',
                  horizon.filter((_, at) => at !== index),
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
