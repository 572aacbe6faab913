import type { FloorPart } from '../../api/client';

/** A part of the floor on a drawing: how large a metre is, and where each place is drawn. */
export type Floor = {
  perMetre: number;
  x: (right: number) => number;
  y: (forwards: number) => number;
};

/** A part of the floor grown to the shape of its drawing, so that all of it is filled. */
export function grown(part: FloorPart, width: number, height: number): FloorPart {
  const [wide, deep] = [part.right_m - part.left_m, part.far_m - part.near_m];
  const ratio = width / Math.max(1, height);
  const [w, d] = wide / deep < ratio ? [deep * ratio, deep] : [wide, wide / ratio];
  return around((part.left_m + part.right_m) / 2, (part.near_m + part.far_m) / 2, w, d);
}

/** A part so wide and deep round a middle, held to what may be drawn. */
export function around(x: number, y: number, wide: number, deep: number): FloorPart {
  const held = (at: number) => Math.max(-200, Math.min(200, Math.round(at * 1000) / 1000));
  return {
    left_m: held(x - wide / 2),
    right_m: held(x + wide / 2),
    near_m: held(y - deep / 2),
    far_m: held(y + deep / 2),
  };
}

/** The same part so many times nearer, about a point of it. */
export function nearer(part: FloorPart, times: number, at?: { x: number; y: number }): FloorPart {
  const [wide, deep] = [part.right_m - part.left_m, part.far_m - part.near_m];
  // From half a metre across to a hundred.
  const by = Math.min(Math.max(times, wide / 100), wide / 0.5);
  const x = at?.x ?? (part.left_m + part.right_m) / 2;
  const y = at?.y ?? (part.near_m + part.far_m) / 2;
  const left = x - (x - part.left_m) / by;
  const near = y - (y - part.near_m) / by;
  return around(left + wide / by / 2, near + deep / by / 2, wide / by, deep / by);
}

/** The same part moved by so many metres. */
export function moved(part: FloorPart, right: number, forwards: number): FloorPart {
  const [wide, deep] = [part.right_m - part.left_m, part.far_m - part.near_m];
  return around((part.left_m + part.right_m) / 2 + right, (part.near_m + part.far_m) / 2 + forwards, wide, deep);
}

/** How a part of the floor is drawn: forwards is up. */
export function floorOf(part: FloorPart, width: number, height: number): Floor {
  const perMetre = Math.min(width / (part.right_m - part.left_m), height / (part.far_m - part.near_m));
  const [x0, y0] = [(part.left_m + part.right_m) / 2, (part.near_m + part.far_m) / 2];
  return {
    perMetre,
    x: (right) => width / 2 + (right - x0) * perMetre,
    y: (forwards) => height / 2 - (forwards - y0) * perMetre,
  };
}

/** An outline as a path: closed, where it has a width. */
export function pathOf(points: readonly (readonly number[])[], x: (at: number) => number, y: (at: number) => number) {
  const steps = points.map(
    ([a = 0, b = 0], index) => `${index === 0 ? 'M' : 'L'}${x(a).toFixed(1)} ${y(b).toFixed(1)}`,
  );
  return steps.join('') + (points.length > 2 ? 'Z' : '');
}
