import styled from 'styled-components';
import type { Drills } from '../../api/client';
import { Button } from '../../ui/Button';
import { Slide } from '../../ui/Slide';
import { narrow, space, touch } from '../../ui/tokens';
import { Stepper } from './Stepper';
import { StopsRail } from './StopsRail';

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
  const set = done ? () => undefined : choose;
  return (
    <div role="group" aria-label="Your answer">
      <Stepper options={drill.options} value={chosen} isDisabled={done} onChange={set} large />
      {drill.by === 'stops' ? (
        <StopsRail options={drill.options} value={chosen} onChange={set} />
      ) : (
        <Slide name="Your answer" most={last} value={chosen} says={drill.options[chosen] ?? ''} onChange={set} />
      )}
    </div>
  );
}
