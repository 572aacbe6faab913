import { Slider, SliderThumb, SliderTrack } from 'react-aria-components';
import styled from 'styled-components';
import { touch } from './tokens';

const Whole = styled(Slider)`
  flex: 1 1 160px;
  min-width: 120px;
`;
const Track = styled(SliderTrack)`
  height: ${touch}px;
  width: 100%;
  cursor: pointer;
  &::before {
    content: '';
    position: absolute;
    inset: calc(50% - 2px) 0 auto;
    height: 4px;
    border-radius: 2px;
    background: var(--control-line);
  }
`;
const Thumb = styled(SliderThumb)`
  top: 50%;
  width: 22px;
  height: 22px;
  border-radius: 50%;
  background: var(--ink);
  border: 2px solid var(--panel);
  &[data-focus-visible] {
    outline: 2.5px solid var(--focus);
    outline-offset: 2px;
  }
`;

type Props = { name: string; most: number; value: number; says: string; onChange: (to: number) => void };

/** A whole number from 0 on, slid along a line. */
export function Slide({ name, most, value, says, onChange }: Props) {
  return (
    <Whole aria-label={name} minValue={0} maxValue={most} value={value} onChange={(to) => onChange(to as number)}>
      <Track>
        <Thumb aria-label={name} aria-valuetext={says} />
      </Track>
    </Whole>
  );
}
