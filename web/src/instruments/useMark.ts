import { useRef } from 'react';
import { useMove } from 'react-aria';

type By = { x: number; y: number };
type KeyStep = By & { shift: boolean };

type Steps<P> = {
  /** Where a press of an arrow key takes it; x and y are −1, 0 or 1. */
  key: (from: P, by: KeyStep) => P;
  /** Where the pointer takes it, so many pixels from where it was taken hold of. */
  pointer: (from: P, by: By) => P;
};

/** A mark that is dragged or nudged: from where it stands to wherever hand or keys take it. */
export function useMark<P>(at: P, steps: Steps<P>, onMove: (to: P) => void, onEnd: () => void) {
  const from = useRef<P>(undefined);
  const pointer = useRef<By>({ x: 0, y: 0 });
  const timer = useRef<number>(undefined);
  return useMove({
    onMoveStart() {
      from.current ??= at;
      pointer.current = { x: 0, y: 0 };
      window.clearTimeout(timer.current);
    },
    onMove(event) {
      if (from.current === undefined) return;
      if (event.pointerType === 'keyboard') {
        const by = { x: Math.sign(event.deltaX), y: Math.sign(event.deltaY), shift: event.shiftKey };
        from.current = steps.key(from.current, by);
        onMove(from.current);
      } else {
        pointer.current = { x: pointer.current.x + event.deltaX, y: pointer.current.y + event.deltaY };
        onMove(steps.pointer(from.current, pointer.current));
      }
    },
    onMoveEnd(event) {
      const finish = () => {
        from.current = undefined;
        onEnd();
      };
      // Keys pressed in a row are one move.
      if (event.pointerType === 'keyboard') timer.current = window.setTimeout(finish, 250);
      else finish();
    },
  }).moveProps;
}
