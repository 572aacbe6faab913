import { type KeyboardEvent, type PointerEvent, useRef } from 'react';
import { useMove } from 'react-aria';
import type { SetupCommand, useHold } from '../session/job';

type By = { x: number; y: number };

type Moves<P> = {
  /** Where the hand takes it, so many pixels from where it was taken hold of. */
  drag: (from: P, by: By) => SetupCommand;
  /** Where keys take it, so many steps from where it stands. */
  nudge: (steps: By) => SetupCommand;
  /** So many steps a key goes with Shift, and with Page up and Page down. */
  shift: number;
  page: number;
  /** To either end. */
  ends?: { home: SetupCommand; end: SetupCommand };
  /** A finger pressed it and did not move it. */
  onTap?: () => void;
};

/** Keys pressed in a row are one move, which ends when they rest for so long, in milliseconds. */
const rests = 400;
/** Less than so many pixels is a press and no drag. */
const still = 4;

/** How far each key goes, in steps. */
function stepsOf(key: string, { shift, page }: { shift: number; page: number }, shifted: boolean): By | undefined {
  const far = shifted ? shift : 1;
  switch (key) {
    case 'ArrowRight':
      return { x: far, y: 0 };
    case 'ArrowLeft':
      return { x: -far, y: 0 };
    case 'ArrowUp':
      return { x: 0, y: far };
    case 'ArrowDown':
      return { x: 0, y: -far };
    case 'PageUp':
      return { x: page, y: 0 };
    case 'PageDown':
      return { x: -page, y: 0 };
    default:
      return undefined;
  }
}

/** A mark that is dragged or nudged: it is held while it moves, and let go as one change. */
export function useMark<P>(at: P, hold: ReturnType<typeof useHold>, moves: Moves<P>) {
  const from = useRef<P>(at);
  const gone = useRef<By>({ x: 0, y: 0 });
  const nudged = useRef<By>({ x: 0, y: 0 });
  const { moveProps } = useMove({
    onMoveStart(event) {
      if (event.pointerType === 'keyboard') return;
      from.current = at;
      gone.current = { x: 0, y: 0 };
    },
    onMove(event) {
      if (event.pointerType === 'keyboard') return;
      gone.current = { x: gone.current.x + event.deltaX, y: gone.current.y + event.deltaY };
      hold.move(moves.drag(from.current, gone.current));
    },
    onMoveEnd(event) {
      if (event.pointerType !== 'keyboard') hold.letGo();
    },
  });
  const onKeyDown = (event: KeyboardEvent) => {
    if (event.key === 'Escape' && hold.held() !== undefined) {
      event.preventDefault();
      hold.cancel();
      return;
    }
    const end = { Home: moves.ends?.home, End: moves.ends?.end }[event.key];
    const by = stepsOf(event.key, moves, event.shiftKey);
    if (!end && !by) return;
    event.preventDefault();
    if (end) return hold.move(end, rests);
    if (!by) return;
    const before = hold.held() === undefined ? { x: 0, y: 0 } : nudged.current;
    nudged.current = { x: before.x + by.x, y: before.y + by.y };
    hold.move(moves.nudge(nudged.current), rests);
  };
  const pressed = useRef<By>({ x: 0, y: 0 });
  return {
    ...moveProps,
    onKeyDown,
    onPointerDownCapture: (event: PointerEvent) => {
      pressed.current = { x: event.clientX, y: event.clientY };
    },
    onPointerUpCapture: (event: PointerEvent) => {
      const far = Math.hypot(event.clientX - pressed.current.x, event.clientY - pressed.current.y);
      if (event.pointerType !== 'mouse' && far < still) moves.onTap?.();
    },
  };
}
