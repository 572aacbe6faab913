import { Minus, Plus, X } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import type { RegionOnRail } from '../../api/client';
import { useHold } from '../../session/job';
import { Button } from '../../ui/Button';
import { figures, space } from '../../ui/tokens';
import { markKey, type MarkOf } from './RailMark';

/** A mark that may have been meant. */
export type Tapped = { of: MarkOf; name: string };

const Bar = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${space.near}px;
  border-top: 1px solid var(--line);
  padding-top: ${space.near}px;
  margin-top: ${space.near}px;
  > span {
    flex: 1 1 140px;
    min-width: 0;
  }
  b {
    ${figures}
    white-space: nowrap;
  }
`;

type Props = { tapped: Tapped[]; rail: RegionOnRail[]; onClose: () => void };

/** Where a finger pressed a mark: which one is meant, and a third of a stop to either side. */
export default function Nudger({ tapped, rail, onClose }: Props) {
  const [chosen, setChosen] = useState<Tapped>();
  const one =
    tapped.length === 1 ? tapped[0] : chosen && tapped.find((each) => markKey(each.of) === markKey(chosen.of));
  if (one) return <Steps of={one} rail={rail} onClose={onClose} />;
  return (
    <Bar role="group" aria-label="Which mark?">
      <span>Which mark?</span>
      {tapped.map((each) => (
        <Button key={markKey(each.of)} onPress={() => setChosen(each)}>
          {each.name}
        </Button>
      ))}
      <Button kind="bare" aria-label="Neither" onPress={onClose}>
        <X size={16} aria-hidden />
      </Button>
    </Bar>
  );
}

function Steps({ of, rail, onClose }: { of: Tapped; rail: RegionOnRail[]; onClose: () => void }) {
  const hold = useHold(markKey(of.of), 'Mark moved');
  const region = rail.find((one) => one.region_id === of.of.region_id);
  const { grip, light_id } = of.of;
  const mark =
    grip === 'flash'
      ? region?.flashes.find((one) => one.light_id === light_id)?.mark
      : grip === 'ambient'
        ? region?.ambient
        : region?.together;
  const step = (by: number) => {
    hold.move({ mark: { ...of.of, by } });
    hold.letGo();
  };
  return (
    <Bar role="group" aria-label={of.name}>
      <span>
        {of.name} <b>{mark?.at.label} stops</b>
      </span>
      <Button aria-label="A third less" onPress={() => step(-1)}>
        <Minus size={16} aria-hidden />
      </Button>
      <Button aria-label="A third more" onPress={() => step(1)}>
        <Plus size={16} aria-hidden />
      </Button>
      <Button onPress={onClose}>Done</Button>
    </Bar>
  );
}
