import { type KeyboardEvent, type PointerEvent, useRef, useState } from 'react';
import styled from 'styled-components';
import type { FrameMark, TakenFrame } from '../../api/client';
import { figures, radius, type } from '../../ui/tokens';

const Whole = styled.div.attrs<{ $wide: number }>(({ $wide }) => ({
  style: { aspectRatio: $wide, width: `min(100%, calc(58vh * ${$wide}))` },
}))`
  position: relative;
  margin: 0 auto;
  border-radius: ${radius.small}px;
  overflow: hidden;
  background: #000;
  touch-action: pan-y;
  > img {
    display: block;
    width: 100%;
    height: 100%;
  }
`;
const Missing = styled.div`
  width: min(100%, 560px);
  aspect-ratio: 3 / 2;
  background: var(--hair);
  display: grid;
  place-items: center;
  padding: 20px;
  margin: 0 auto;
  border-radius: ${radius.small}px;
`;
const One = styled.button.attrs<{ $at: FrameMark }>(({ $at: { left, top, width, height, round } }) => ({
  style: {
    left: `${left * 100}%`,
    top: `${top * 100}%`,
    width: `${width * 100}%`,
    height: `${height * 100}%`,
    borderRadius: round ? '50%' : '2px',
  },
}))`
  position: absolute;
  padding: 0;
  background: none;
  border: 2px solid #fff;
  box-shadow:
    0 0 0 1.5px #000,
    inset 0 0 0 1.5px #000;
  cursor: move;
  touch-action: none;
  /* A small mark is hit by a finger all the same. */
  &::before {
    content: '';
    position: absolute;
    inset: min(0px, calc((100% - 44px) / 2));
  }
  &[aria-pressed='true'] {
    border-style: dashed;
  }
  &:focus-visible {
    outline: 3px solid var(--focus);
    outline-offset: 3px;
  }
  span {
    ${figures}
    position: absolute;
    top: 50%;
    left: calc(100% + 8px);
    transform: translateY(-50%);
    font-size: ${type.small}px;
    font-weight: 650;
    color: #fff;
    background: rgb(0 0 0 / 78%);
    border-radius: ${radius.small}px;
    padding: 1px 6px;
    white-space: nowrap;
  }
  &[data-side='left'] span {
    left: auto;
    right: calc(100% + 8px);
  }
  &[data-side='below'] span {
    top: calc(100% + 8px);
    left: 50%;
    transform: translateX(-50%);
  }
`;

const within = (value: number, least: number, most: number) => Math.min(Math.max(value, least), most);
/** As small as a mark gets, as a part of the frame. */
const least = 0.01;
/** One press of an arrow key, and with Alt. */
const step = 0.01;
const fine = 0.002;

const held = (mark: FrameMark): FrameMark => {
  const width = within(mark.width, least, 1);
  const height = within(mark.height, least, 1);
  return { ...mark, width, height, left: within(mark.left, 0, 1 - width), top: within(mark.top, 0, 1 - height) };
};

/** Where the name of a mark stands, so that those of marks that lie close to each other do not cover each other. */
function sideOf(mark: FrameMark, all: FrameMark[]): 'left' | 'right' | 'below' {
  const close = all.filter(
    (other) => other !== mark && Math.abs(other.top - mark.top) < 0.12 && Math.abs(other.left - mark.left) < 0.35,
  );
  if (close.length === 0) return mark.left > 0.7 ? 'left' : 'right';
  if (close.every((other) => other.left >= mark.left)) return 'left';
  return close.every((other) => other.left <= mark.left) ? 'right' : 'below';
}

type Props = {
  frame: TakenFrame;
  chosen: string | undefined;
  choose: (region: string) => void;
  setMark: (mark: FrameMark) => void;
  missing: boolean;
};

/** The picture with a mark on each region: dragged, or moved by keys; let go, it is measured anew. */
export function Marks({ frame, chosen, choose, setMark, missing }: Props) {
  const picture = useRef<HTMLDivElement>(null);
  const [moving, setMoving] = useState<FrameMark>();
  const grip = useRef<{ x: number; y: number; mark: FrameMark } | undefined>(undefined);
  const timer = useRef<number>(undefined);
  if (missing) {
    return (
      <Missing role="status">
        The copy of this picture is no longer beside the data file. What was measured of it stays.
      </Missing>
    );
  }
  const marks = (frame.marks ?? []).map((mark) => (moving?.region_id === mark.region_id ? moving : mark));
  const name = (id: string) => frame.setup.regions.find((region) => region.id === id)?.name ?? id;
  const off = (id: string) => {
    const came = frame.came?.find((one) => one.region_id === id)?.off_stops;
    return came == null ? '' : ` ${came > 0.005 ? '+' : came < -0.005 ? '−' : ''}${Math.abs(came).toFixed(2)}`;
  };
  const settle = (mark: FrameMark) => {
    setMark(mark);
    setMoving(undefined);
  };
  const down = (event: PointerEvent<HTMLButtonElement>, mark: FrameMark) => {
    event.currentTarget.setPointerCapture(event.pointerId);
    grip.current = { x: event.clientX, y: event.clientY, mark };
    choose(mark.region_id);
  };
  const drag = (event: PointerEvent<HTMLButtonElement>) => {
    const box = picture.current?.getBoundingClientRect();
    if (!grip.current || !box) return;
    const { x, y, mark } = grip.current;
    const [right, below] = [(event.clientX - x) / box.width, (event.clientY - y) / box.height];
    setMoving(held({ ...mark, left: mark.left + right, top: mark.top + below }));
  };
  const up = () => {
    grip.current = undefined;
    if (moving) settle(moving);
  };
  const press = (event: KeyboardEvent, mark: FrameMark) => {
    const ways: Record<string, [number, number]> = {
      ArrowLeft: [-1, 0],
      ArrowRight: [1, 0],
      ArrowUp: [0, -1],
      ArrowDown: [0, 1],
    };
    const way = ways[event.key];
    if (!way) return;
    event.preventDefault();
    const by = event.altKey ? fine : step;
    const [right, below] = [way[0] * by, way[1] * by];
    const now = moving?.region_id === mark.region_id ? moving : mark;
    const next = event.shiftKey
      ? held({ ...now, width: now.width + right, height: now.height + below })
      : held({ ...now, left: now.left + right, top: now.top + below });
    setMoving(next);
    window.clearTimeout(timer.current);
    // Keys in a row are one move.
    timer.current = window.setTimeout(() => settle(next), 350);
  };
  return (
    <Whole ref={picture} $wide={frame.width / Math.max(frame.height, 1)}>
      <img
        src={`/api/v1/frames/${frame.id}/picture`}
        alt={`Frame ${frame.name}`}
        draggable={false}
        data-testid="frame"
      />
      {marks.map((mark) => (
        <One
          key={mark.region_id}
          $at={mark}
          type="button"
          aria-pressed={mark.region_id === chosen}
          aria-label={`${name(mark.region_id)}${off(mark.region_id)}: a mark, ${Math.round((mark.left + mark.width / 2) * 100)} % from the left, ${Math.round((mark.top + mark.height / 2) * 100)} % from the top. The arrow keys move it, with Shift they size it`}
          data-side={sideOf(mark, marks)}
          onClick={() => choose(mark.region_id)}
          onPointerDown={(event) => down(event, mark)}
          onPointerMove={drag}
          onPointerUp={up}
          onPointerCancel={up}
          onKeyDown={(event) => press(event, mark)}
        >
          <span>
            {name(mark.region_id)}
            {off(mark.region_id)}
          </span>
        </One>
      ))}
    </Whole>
  );
}
