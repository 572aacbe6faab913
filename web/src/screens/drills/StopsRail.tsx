import { Slider, SliderThumb, SliderTrack } from 'react-aria-components';
import styled from 'styled-components';
import { Drawing } from '../../instruments/Drawing';
import { useWidth } from '../../instruments/useWidth';
import { space, touch } from '../../ui/tokens';

const high = 46;
/** Room at the ends for a mark that is held there. */
const aside = 16;

const Whole = styled.div`
  margin-top: ${space.gap}px;
`;
const Track = styled(SliderTrack)`
  height: ${high}px;
  margin: 0 ${aside}px;
  cursor: pointer;
`;
/** As wide as a thumb needs it, and drawn as a mark on the rail is. */
const Mark = styled(SliderThumb)`
  top: 50%;
  width: ${touch}px;
  height: ${high}px;
  display: flex;
  justify-content: center;
  &::before {
    content: '';
    width: 10px;
    background: var(--ink);
    border: 2px solid var(--panel);
    border-radius: 3px;
  }
  &[data-focus-visible]::before {
    outline: 2.5px solid var(--focus);
    outline-offset: 1px;
  }
`;
/** How bright each stop comes out: from black to white over ten stops, where it is a matter of that. */
const Wedge = styled.div`
  position: absolute;
  inset: 16px 0;
  border: 1px solid var(--line);
  background: var(--raised);
  &[data-grey] {
    background: linear-gradient(90deg, #000, #1c1c1c 20%, #4a4a4a 35%, #777 50%, #b9b9b9 70%, #fff 92%);
  }
`;
const Scale = styled(Drawing)`
  text {
    font-size: 13px;
    fill: var(--ink);
  }
`;

type Props = { options: string[]; value: number; onChange: (to: number) => void };

/** A rail of stops to drag a mark along: the answer is where it is let go. */
export function StopsRail({ options, value, onChange }: Props) {
  const { width, ref } = useWidth(320);
  const most = Math.max(1, options.length - 1);
  const signed = options[0]?.startsWith('−') ?? false;
  const x = (at: number) => aside + (at / most) * (width - 2 * aside);
  // Whole stops are named; what lies between is a click each.
  const named = options
    .map((option, at) => ({ at, label: /^[−+]?\d+(?= stops?$|$)/.exec(option)?.[0] }))
    .filter(({ label }) => label);
  return (
    <Whole ref={ref}>
      <Slider
        aria-label="Your answer"
        minValue={0}
        maxValue={most}
        value={value}
        onChange={(to) => onChange(to as number)}
      >
        <Track>
          <Wedge data-grey={signed || undefined} aria-hidden />
          <Mark data-testid="rail-mark" aria-label="Your answer" aria-valuetext={options[value] ?? ''} />
        </Track>
      </Slider>
      <Scale height={26} aria-hidden>
        {options.map((option, at) => (
          <line key={option} x1={x(at)} x2={x(at)} y1={0} y2={4} stroke="var(--quiet)" />
        ))}
        {named.map(({ at, label }) => (
          <g key={at}>
            <line x1={x(at)} x2={x(at)} y1={0} y2={8} stroke="var(--ink)" strokeWidth={2} />
            <text x={x(at)} y={22} textAnchor="middle">
              {label}
            </text>
          </g>
        ))}
      </Scale>
    </Whole>
  );
}
