import { contours } from 'd3-contour';
import { memo, useMemo } from 'react';
import type { LightMap } from '../../api/client';
import type { Floor } from './floor';

type Line = { stops: number; label: string; path: string; at: [number, number] | undefined };

/** Lines of equal stops, like heights on a map. The core says how much light there is; here lines are drawn through it. */
export const Contours = memo(function Contours({ map, floor }: { map: LightMap; floor: Floor }) {
  const lines = useMemo(() => drawn(map, floor), [map, floor]);
  // What is there is no flash's alone.
  const together = map.whose === 'together';
  const colour = together ? 'var(--ink)' : 'var(--flash)';
  return (
    <g aria-hidden>
      {lines.map((line) => (
        <path
          key={line.stops}
          className="contour"
          d={line.path}
          fill="none"
          stroke={colour}
          strokeWidth={line.stops === 0 ? 2.4 : 1.2}
          opacity={line.stops === 0 ? 1 : 0.75}
        />
      ))}
      {lines.map(
        (line) =>
          line.at && (
            <text
              key={line.stops}
              className={together ? 'figure' : 'figure flash'}
              x={line.at[0]}
              y={line.at[1] + 4}
              textAnchor="middle"
              fontWeight={700}
              stroke="var(--panel)"
              strokeWidth={4}
              paintOrder="stroke"
            >
              {line.label}
            </text>
          ),
      )}
    </g>
  );
});

function drawn(map: LightMap, floor: Floor): Line[] {
  const { columns, rows, part, levels } = map;
  const lines = contours()
    .size([columns, rows])
    .thresholds(levels.map((level) => level.stops * 100))(map.hundredths);
  // A value stands in the middle of its cell.
  const right = (column: number) => part.left_m + ((column - 0.5) / (columns - 1)) * (part.right_m - part.left_m);
  const forwards = (row: number) => part.near_m + ((row - 0.5) / (rows - 1)) * (part.far_m - part.near_m);
  const inside = ([column = 0, row = 0]: number[]) => column > 2 && column < columns - 2 && row > 2 && row < rows - 2;
  return lines.map((line, index) => {
    const rings = line.coordinates.flat();
    const path = rings
      .map((ring) => {
        const points = ring.map(
          ([column = 0, row = 0]) => `${floor.x(right(column)).toFixed(1)} ${floor.y(forwards(row)).toFixed(1)}`,
        );
        return `M${points.join('L')}Z`;
      })
      .join('');
    // Its label stands where it lies farthest back, within what is drawn.
    const best = rings.flat().reduce<number[] | undefined>((high, point) => {
      if (!inside(point)) return high;
      return high === undefined || (point[1] ?? 0) > (high[1] ?? 0) ? point : high;
    }, undefined);
    const at: [number, number] | undefined = best && [floor.x(right(best[0] ?? 0)), floor.y(forwards(best[1] ?? 0))];
    return { stops: levels[index]?.stops ?? 0, label: levels[index]?.label ?? '', path, at };
  });
}
