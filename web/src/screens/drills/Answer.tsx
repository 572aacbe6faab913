import { Minus, Plus } from 'lucide-react';
import styled from 'styled-components';
import type { Drills } from '../../api/client';
import { Button } from '../../ui/Button';
import { Slide } from '../../ui/Slide';
import { figures, narrow, space, touch } from '../../ui/tokens';

const Dial = styled.div`
  display: grid;
  grid-template-columns: ${touch + 12}px 1fr ${touch + 12}px;
  gap: ${space.gap}px;
  align-items: center;
  output {
    ${figures}
    font-size: 34px;
    font-weight: 700;
    text-align: center;
  }
  button {
    min-height: ${touch + 12}px;
    justify-content: center;
  }
`;
const Choices = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(240px, 1fr));
  gap: ${space.gap}px;
  ${narrow} {
    grid-template-columns: 1fr 1fr;
  }
  button {
    min-height: ${touch + 8}px;
    justify-content: center;
    font-size: 17px;
    &[data-right] {
      outline: 3px solid var(--ink);
    }
  }
`;
/** How bright each stop comes out: from black to white over ten stops. */
const Wedge = styled.div`
  height: 14px;
  margin-top: ${space.gap}px;
  border: 1px solid var(--line);
  background: linear-gradient(90deg, #000, #1c1c1c 20%, #4a4a4a 35%, #777 50%, #b9b9b9 70%, #fff 92%);
`;

type Props = {
  drill: Drills['drills'][number];
  chosen: number;
  choose: (to: number) => void;
  send: (answer: number) => void;
  /** Which is right, once it was answered. */
  right: number | undefined;
};

/** What is answered: on a dial click by click, along the scale of stops, or one of a few. */
export function Answer({ drill, chosen, choose, send, right }: Props) {
  const done = right !== undefined;
  const last = drill.options.length - 1;
  if (drill.by === 'choice') {
    return (
      <Choices role="group" aria-label={drill.asks}>
        {drill.options.map((option, index) => (
          <Button
            key={option}
            isDisabled={done}
            kind={index === chosen ? 'strong' : undefined}
            data-right={index === right || undefined}
            onPress={() => send(index)}
          >
            {option}
          </Button>
        ))}
      </Choices>
    );
  }
  const step = (by: number) => choose(Math.min(last, Math.max(0, chosen + by)));
  return (
    <div role="group" aria-label="Your answer">
      <Dial>
        <Button aria-label="One less" isDisabled={done || chosen === 0} onPress={() => step(-1)}>
          <Minus size={22} aria-hidden />
        </Button>
        <output>{drill.options[chosen]}</output>
        <Button aria-label="One more" isDisabled={done || chosen === last} onPress={() => step(1)}>
          <Plus size={22} aria-hidden />
        </Button>
      </Dial>
      {drill.by === 'stops' && drill.options[0]?.startsWith('−') && <Wedge aria-hidden />}
      <Slide
        name="Your answer"
        most={last}
        value={chosen}
        says={drill.options[chosen] ?? ''}
        onChange={done ? () => undefined : choose}
      />
    </div>
  );
}
