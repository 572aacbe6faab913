import type { ColourMark } from '../../api/client';
import { useStart } from '../../api/start';
import { useLivePlan } from '../../session/job';
import { Lozenge, Ring } from '../stop-rail/shapes';
import { Drawing } from '../Drawing';
import { Told } from '../Told';
import { useWidth } from '../useWidth';
import { ColourHandle } from './ColourHandle';
import { linear } from '../../ui/linear';

const cool = 70;
const warm = 526;
/** Half the height of the tint's axis, in Duv. */
const tintEnd = 0.02;
const stripHeight = 16;
const top = 34;
const half = 56;

/**
 * The lights and the camera on a scale of mired: rings for ambient, lozenges for flashes, a bar for the white balance.
 * Across it runs the tint, from magenta to green.
 */
export function ColourLine() {
  const start = useStart();
  const colour = useLivePlan((plan) => plan.colour);
  const { width, ref } = useWidth(720);
  const slim = width < 520;
  const x = linear([cool, warm], [8, Math.max(120, width - 8)]);
  const y = linear([tintEnd, -tintEnd], [top, top + 2 * half]);
  const middle = y(0);
  const bottom = top + 2 * half;
  const stripTop = bottom + 10;
  const height = stripTop + stripHeight + 24;
  if (!colour) return null;
  const balance = colour.balance;
  const [low = cool, high = warm] = start?.colours_mired ?? [];
  const scales = { x, y, range: [low, high] as const };
  const placed = spread(colour.marks, x, y);
  const at = x(balance.mired);
  const side = at > width - 130 ? 'end' : 'start';
  const written = start?.colour_line.filter((_, index) => !slim || index % 2 === 0);

  return (
    <div ref={ref}>
      <Drawing height={height} role="group" aria-label="Colour line">
        <defs>
          <linearGradient id="colour-strip">
            {colour.strip.map((grey) => (
              <stop key={grey.mired} offset={(x(grey.mired) - x(cool)) / (x(warm) - x(cool))} stopColor={grey.hex} />
            ))}
          </linearGradient>
        </defs>
        <rect
          x={x(cool)}
          width={x(warm) - x(cool)}
          y={stripTop}
          height={stripHeight}
          fill="url(#colour-strip)"
          stroke="var(--control-line)"
        />
        {written?.map((mark) => (
          <g key={mark.label}>
            <line x1={x(mark.mired)} x2={x(mark.mired)} y1={top} y2={stripTop} stroke="var(--hair)" />
            <text className="figure quiet" x={x(mark.mired)} y={height - 6} textAnchor="middle">
              {mark.label}
              {slim ? '' : ' K'}
            </text>
          </g>
        ))}
        <line x1={x(cool)} x2={x(warm)} y1={middle} y2={middle} stroke="var(--line)" strokeWidth={1.4} />
        {at > 108 && (
          <text className="quiet" x={x(cool)} y={14}>
            ← cool
          </text>
        )}
        {at < width - 108 && (
          <text className="quiet" x={x(warm)} y={14} textAnchor="end">
            warm →
          </text>
        )}
        <line x1={at} x2={at} y1={top - 6} y2={stripTop + stripHeight} stroke="var(--ink)" strokeDasharray="2 3" />
        <text className="quiet" x={at + (side === 'end' ? -7 : 7)} y={top + 2} textAnchor={side}>
          green
        </text>
        <text className="quiet" x={at + (side === 'end' ? -7 : 7)} y={bottom + 4} textAnchor={side}>
          magenta
        </text>
        <ColourHandle
          what="balance"
          name="White balance: moves what the camera takes for white"
          says={`${balance.label}, ${balance.convention}`}
          mired={balance.mired}
          tint={balance.tint_duv}
          dy={0}
          {...scales}
        >
          <rect x={-3} y={-24} width={6} height={48} fill="var(--ink)" stroke="var(--panel)" />
          <path d="M -8 -24 h 16 l -8 9 z" fill="var(--ink)" stroke="var(--panel)" />
        </ColourHandle>
        {colour.marks.map((mark) => (
          <Steps key={`${mark.kind}${mark.id}`} mark={mark} x={x} y={y(mark.tint_duv)} />
        ))}
        {placed.map(({ mark, dy }) => (
          <ColourHandle
            key={`${mark.kind}${mark.id}`}
            what={mark.kind === 'ambient' ? { region: mark.id } : { light: mark.id }}
            name={`${mark.name}: moves ${mark.kind === 'ambient' ? 'the colour it is said to have' : 'its gels'}`}
            says={`${mark.label}${mark.tint ? `, ${mark.tint}` : ''}, ${mark.source}`}
            mired={mark.mired}
            tint={mark.tint_duv}
            dy={dy}
            {...scales}
          >
            {mark.kind === 'flash' ? <Lozenge letter={mark.id} /> : <Ring />}
            <title>{`${mark.name}, ${mark.label}`}</title>
          </ColourHandle>
        ))}
        <text
          className="figure"
          x={Math.min(Math.max(at, 60), width - 60)}
          y={14}
          textAnchor="middle"
          fontWeight={650}
          fontSize={14.5}
        >
          {balance.label}
        </text>
      </Drawing>
      <Told about="colour-mark/" />
    </div>
  );
}

/** The gels of a light, as steps between where it was and where it is. */
function Steps({ mark, x, y }: { mark: ColourMark; x: (mired: number) => number; y: number }) {
  if (mark.native_mired === null || mark.native_mired === undefined) return null;
  return (
    <g aria-hidden>
      <line
        x1={x(mark.native_mired)}
        x2={x(mark.mired)}
        y1={y}
        y2={y}
        stroke={mark.kind === 'flash' ? 'var(--flash)' : 'var(--ambient)'}
        strokeWidth={2}
      />
      <circle cx={x(mark.native_mired)} cy={y} r={3.4} fill="var(--panel)" stroke="var(--flash)" strokeWidth={1.6} />
      {mark.steps.map((step) => (
        <path
          key={step.name}
          d={`M ${x(step.mired)} ${y - 8} v 16`}
          stroke={mark.kind === 'flash' ? 'var(--flash)' : 'var(--ambient)'}
          strokeWidth={2}
        >
          <title>
            {step.name}, {step.shift}
          </title>
        </path>
      ))}
    </g>
  );
}

/** Marks that would hide each other stand a little up and down. */
function spread(marks: ColourMark[], x: (mired: number) => number, y: (duv: number) => number) {
  const placed: { mark: ColourMark; dy: number }[] = [];
  for (const mark of marks) {
    const here = placed.filter(
      (other) =>
        Math.abs(x(other.mark.mired) - x(mark.mired)) < 13 && Math.abs(y(other.mark.tint_duv) - y(mark.tint_duv)) < 14,
    ).length;
    const dy = here === 0 ? 0 : Math.ceil(here / 2) * 15 * (here % 2 === 0 ? 1 : -1);
    placed.push({ mark, dy });
  }
  return placed;
}
