import { useEffect, useRef } from 'react';
import styled from 'styled-components';
import { Radio, RadioGroup } from 'react-aria-components';
import type { FrameLine } from '../../api/client';
import { radius, space, type } from '../../ui/tokens';

const Line = styled(RadioGroup)`
  display: flex;
  gap: ${space.near}px;
  overflow-x: auto;
  padding: 4px 2px 8px;
  margin-top: ${space.gap}px;
`;
const One = styled(Radio)`
  flex: none;
  width: 132px;
  border: 1.5px solid var(--line);
  border-radius: ${radius.card}px;
  padding: 5px;
  cursor: pointer;
  display: grid;
  gap: 2px;
  font-size: ${type.small}px;
  line-height: 1.3;
  img,
  i {
    display: block;
    width: 100%;
    height: 80px;
    object-fit: contain;
    background: #000;
    border-radius: ${radius.small}px;
  }
  i {
    display: grid;
    place-items: center;
    background: var(--hair);
    font-style: normal;
  }
  &[data-selected] {
    border-color: var(--ink);
    background: var(--chosen);
  }
  &[data-focus-visible] {
    outline: 2.5px solid var(--focus);
    outline-offset: 1px;
  }
`;
const Name = styled.span`
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;
const Quiet = styled.span`
  color: var(--quiet);
`;

/** How much the region that is off most is off, as it stands in a list. */
export function worst(frame: FrameLine): string {
  const off = frame.came.flatMap(({ name, off_stops }) => (off_stops == null ? [] : [{ name, off: off_stops }]));
  const most = off.sort((a, b) => Math.abs(b.off) - Math.abs(a.off))[0];
  if (!most) return 'nothing told';
  const much = `${most.off > 0 ? '+' : most.off < 0 ? '−' : ''}${Math.abs(most.off).toFixed(1)}`;
  return `${most.name} ${much} stop`;
}

type Props = {
  frames: FrameLine[];
  /** How many came before them. */
  before: number;
  chosen: string | undefined;
  choose: (id: string) => void;
};

/** The frames in the order they came, the last one last. */
export function Strip({ frames, before, chosen, choose }: Props) {
  const line = useRef<HTMLDivElement>(null);
  // The chosen one is in sight, the last one first.
  useEffect(() => {
    const one = line.current?.querySelector('[data-selected]');
    if (!line.current || !one) return;
    const [whole, part] = [line.current.getBoundingClientRect(), one.getBoundingClientRect()];
    if (part.left < whole.left) line.current.scrollLeft += part.left - whole.left;
    if (part.right > whole.right) line.current.scrollLeft += part.right - whole.right;
  }, [chosen]);
  return (
    <Line
      ref={line}
      aria-label="Frames of this setup"
      orientation="horizontal"
      value={chosen ?? null}
      onChange={choose}
    >
      {frames.map((frame, index) => (
        <One
          key={frame.id}
          value={frame.id}
          aria-label={`Frame ${before + index + 1}, ${frame.name}, ${frame.settings}`}
        >
          {frame.missing ? (
            <i>Picture missing</i>
          ) : (
            <img src={`/api/v1/frames/${frame.id}/small`} alt="" loading="lazy" />
          )}
          <Name>
            {before + index + 1} {frame.simulated ? 'Simulated' : frame.name}
          </Name>
          <Quiet>{worst(frame)}</Quiet>
        </One>
      ))}
    </Line>
  );
}
