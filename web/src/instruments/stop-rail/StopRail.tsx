import styled from 'styled-components';
import { Suspense, useState } from 'react';
import type { RegionOnRail } from '../../api/client';
import { useStart } from '../../api/start';
import { useLivePlan, useSetup } from '../../session/job';
import { Told } from '../Told';
import type { Tapped } from './Nudger';
import { usePinned } from './pinned';
import { Drawing } from '../Drawing';
import { useWidth } from '../useWidth';
import { markKey, type MarkOf, RailMark } from './RailMark';
import { Lozenge, Ring, Upright } from './shapes';
import { Button } from '../../ui/Button';
import { lazily } from '../../ui/lazily';
import { linear } from '../../ui/linear';
import { forFingers } from '../../ui/tokens';

// Only for a finger that has tapped a mark.
const Nudger = lazily(() => import('./Nudger'));

const Frame = styled.section`
  background: var(--panel);
  border-radius: 9px;
  padding: 10px 16px 8px;
`;
const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 14px;
  margin-bottom: 6px;
  h2 {
    font-size: 14.5px;
  }
  p {
    color: var(--quiet);
    font-size: 13px;
  }
`;
const Legend = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  font-size: 13px;
  color: var(--quiet);
  li {
    display: inline-flex;
    align-items: center;
    gap: 5px;
  }
  svg {
    overflow: visible;
  }
  &[hidden] {
    display: none;
  }
`;
const Tools = styled.div`
  display: flex;
  margin-left: auto;
`;
const Toggle = styled(Button)`
  min-height: 28px;
  ${forFingers}
`;
const least = -6;
const most = 4;
const stops = Array.from({ length: most - least + 1 }, (_, index) => least + index);

/** The regions of the picture on a scale of stops: what ambient and flash each give, and what they sum to. */
export function StopRail({ low = false }: { low?: boolean }) {
  const start = useStart();
  const rail = useLivePlan((plan) => plan.rail) ?? [];
  const [tapped, setTapped] = useState<Tapped[]>();
  const [open, setOpen] = useState(false);
  const { setup } = useSetup();
  const store = usePinned();
  const pinned = store.pinned?.setup === setup.id ? store.pinned.rail : undefined;
  // Under a drawing that is the instrument it stands low, and opens.
  const flat = low && !open;
  const { width, ref } = useWidth(760);

  const slim = width < 560;
  const left = slim ? 8 : 180;
  const right = slim ? 8 : 84;
  const laneHeight = slim ? 62 : flat ? 25 : rail.length > 3 ? 33 : 38;
  const wedgeHeight = 14;
  const top = wedgeHeight + 2;
  const height = top + laneHeight * rail.length + 24;
  const x = linear([least, most], [left, Math.max(left + 100, width - right)]);
  const laneY = (index: number) => top + laneHeight * index + (slim ? 40 : laneHeight / 2);
  const clip = start?.full_white_stops ?? most;

  return (
    <Frame aria-label="Stop rail">
      <Head>
        <h2>Stop rail</h2>
        <p>0 is mid grey, in stops.{!flat && ' Drag a mark, or use the arrow keys.'}</p>
        <Tools>
          <Toggle
            kind="bare"
            aria-pressed={pinned !== undefined}
            onPress={() => (pinned ? store.unpin() : store.pin(setup.id, rail))}
          >
            {pinned ? 'Unpin' : 'Pin'}
          </Toggle>
          {low && (
            <Toggle kind="bare" aria-expanded={open} onPress={() => setOpen(!open)}>
              {open ? 'Close' : 'Open'}
            </Toggle>
          )}
        </Tools>
        <Legend hidden={flat}>
          <li>
            <svg width="14" height="14" viewBox="-7 -7 14 14" aria-hidden>
              <Ring />
            </svg>
            ambient
          </li>
          <li>
            <svg width="14" height="14" viewBox="-7 -7 14 14" aria-hidden>
              <Lozenge />
            </svg>
            flash
          </li>
          <li>
            <svg width="8" height="14" viewBox="-4 -7 8 14" aria-hidden>
              <Upright half={6} />
            </svg>
            together
          </li>
          <li>band: how sure</li>
        </Legend>
      </Head>
      <div ref={ref}>
        <Drawing height={height} role="group" aria-label="Regions on a scale of stops">
          <defs>
            <pattern id="clip-hatch" width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
              <line x1="0" y1="0" x2="0" y2="6" stroke="var(--hatch)" strokeWidth="1.3" />
            </pattern>
          </defs>
          {start?.step_wedge.slice(0, -1).map((grey, index) => {
            const end = start.step_wedge[index + 1]?.stops ?? grey.stops;
            return (
              <rect
                key={grey.stops}
                x={x(grey.stops)}
                width={x(end) - x(grey.stops) + 0.5}
                y={0}
                height={wedgeHeight}
                fill={`rgb(${grey.level} ${grey.level} ${grey.level})`}
              />
            );
          })}
          <rect x={x(least)} y={0.5} width={x(most) - x(least)} height={wedgeHeight} fill="none" stroke="var(--line)" />
          <rect
            x={x(clip)}
            y={0}
            width={x(most) - x(clip)}
            height={height - 24}
            fill="url(#clip-hatch)"
            opacity={0.55}
          />
          {stops.map((at) => (
            <g key={at}>
              <line
                x1={x(at)}
                x2={x(at)}
                y1={top}
                y2={height - 22}
                stroke={at === 0 ? 'var(--ink)' : 'var(--hair)'}
                strokeWidth={at === 0 ? 1.6 : 1}
              />
              <text className="figure quiet" x={x(at)} y={height - 6} textAnchor="middle">
                {at > 0 ? `+${at}` : at < 0 ? `−${-at}` : '0'}
              </text>
            </g>
          ))}
          {rail.map((region, index) => (
            <Lane
              key={region.region_id}
              region={region}
              y={laneY(index)}
              x={x}
              slim={slim}
              flat={flat}
              before={pinned?.find((one) => one.region_id === region.region_id)}
              width={width}
              laneHeight={laneHeight}
              range={start?.marks_stops ?? [least, most]}
              onTap={setTapped}
            />
          ))}
        </Drawing>
      </div>
      <Suspense>{tapped && <Nudger tapped={tapped} rail={rail} onClose={() => setTapped(undefined)} />}</Suspense>
      <Told about="mark/" />
    </Frame>
  );
}

type LaneProps = {
  region: RegionOnRail;
  y: number;
  x: (stops: number) => number;
  slim: boolean;
  flat: boolean;
  /** How it stood when it was pinned. */
  before: RegionOnRail | undefined;
  width: number;
  laneHeight: number;
  range: readonly number[];
  onTap: (tapped: Tapped[]) => void;
};

/** A name cut to what fits beside the lane; the whole one is its title. */
function fitted(name: string, most: number) {
  return name.length > most ? `${name.slice(0, most - 1)}…` : name;
}

/** Lozenges that would hide each other, or the ring, stand a little up and down. */
function aside(region: RegionOnRail, index: number, x: (stops: number) => number): number {
  const at = region.flashes.map((flash) => x(flash.mark.at.stops ?? 0));
  const here = at[index] ?? 0;
  const ring = x(region.ambient.at.stops ?? -99);
  const near = at.filter((other, each) => each !== index && Math.abs(other - here) < 17);
  if (near.length === 0) return Math.abs(ring - here) < 13 ? -7 : 0;
  const before = at.filter(
    (other, each) => Math.abs(other - here) < 17 && (other < here || (other === here && each < index)),
  );
  return before.length % 2 === 0 ? -6 : 6;
}

/** A finger covers so much to either side, in pixels. */
const finger = 22;

/** The marks of a region that can be moved, with where each stands. */
function marksOf(region: RegionOnRail): (Tapped & { stops: number })[] {
  const { region_id, name } = region;
  const all = [
    { of: { region_id, grip: 'ambient' as const }, name: `${name}, ambient`, mark: region.ambient },
    { of: { region_id, grip: 'together' as const }, name: `${name}, together`, mark: region.together },
    ...region.flashes.map(({ light_id, mark }) => ({
      of: { region_id, grip: 'flash' as const, light_id },
      name: `${name}, flash ${light_id}`,
      mark,
    })),
  ];
  return all.flatMap(({ of, name, mark }) =>
    mark.grip && mark.at.stops !== null && mark.at.stops !== undefined ? [{ of, name, stops: mark.at.stops }] : [],
  );
}

function Lane({ region, y, x, slim, flat, before, width, laneHeight, range, onTap }: LaneProps) {
  const together = region.together.at.stops ?? undefined;
  const spread = region.uncertainty_stops;
  const { region_id } = region;
  /** A press on a mark that others lie under asks which is meant. */
  const tap = (of: MarkOf) => () => {
    const marks = marksOf(region);
    const here = marks.find((one) => markKey(one.of) === markKey(of));
    if (here) onTap(marks.filter((one) => Math.abs(x(one.stops) - x(here.stops)) < finger));
  };
  const [low = least, high = most] = range;
  const shared = { x, y, height: Math.min(44, laneHeight), range: [low, high] as const };
  const marked = (of: MarkOf) => ({ ...shared, of, onTap: tap(of) });
  const ends = `${region.together.at.label} ${region.uncertainty}`;
  const made = region.flashes.length > 0 ? `${region.flash_share} flash` : 'no flash';
  return (
    <g>
      {slim ? (
        <>
          <text x={8} y={y - 23} fontWeight={600}>
            {fitted(region.name, 26)}
          </text>
          <text className="figure" x={width - 8} y={y - 23} textAnchor="end">
            ends {ends}
          </text>
        </>
      ) : (
        <>
          <text x={0} y={flat ? y + 4 : y - 2} fontWeight={600}>
            <title>{region.name}</title>
            {fitted(region.name, 22)}
          </text>
          {!flat && (
            <text className="quiet" x={0} y={y + 13}>
              {region.ev}
              {region.estimated ? ', estimate' : ''} · {made}
            </text>
          )}
          <text className="figure" x={width} y={y + 5} textAnchor="end">
            {ends}
          </text>
        </>
      )}
      <line x1={x(least)} x2={x(most)} y1={y} y2={y} stroke="var(--hair)" />
      {together !== undefined && (
        <rect
          x={x(together - spread)}
          width={Math.max(0, x(together + spread) - x(together - spread))}
          y={y - 8}
          height={16}
          rx={8}
          fill="var(--band)"
        />
      )}
      {region.wish?.stops !== null && region.wish?.stops !== undefined && (
        <path
          d={`M ${x(region.wish.stops)} ${y + 14} l 4.5 5.5 h -9 z`}
          fill="none"
          stroke="var(--ink)"
          strokeWidth={1.4}
        >
          <title>wished: {region.wish.label}</title>
        </path>
      )}
      {before && <Before region={before} now={region} y={y} x={x} />}
      <RailMark
        {...marked({ region_id, grip: 'ambient' })}
        mark={region.ambient}
        name={`${region.name}, ambient`}
        shape={<Ring />}
      />
      <RailMark
        {...marked({ region_id, grip: 'together' })}
        mark={region.together}
        name={`${region.name}, together`}
        shape={<Upright half={flat ? 10 : 13} />}
      />
      {region.flashes.map((flash, index) => (
        <RailMark
          {...marked({ region_id, grip: 'flash', light_id: flash.light_id })}
          y={y + aside(region, index, x)}
          // The bar behind it is taken hold of above and below.
          height={slim ? shared.height : Math.min(24, laneHeight)}
          key={flash.light_id}
          mark={flash.mark}
          name={`${region.name}, flash ${flash.light_id}`}
          shape={<Lozenge letter={flash.light_id} />}
        />
      ))}
    </g>
  );
}

/** How a region stood when the rail was pinned: hollow marks under those of now, with what that was. */
function Before({
  region,
  now,
  y,
  x,
}: {
  region: RegionOnRail;
  now: RegionOnRail;
  y: number;
  x: (at: number) => number;
}) {
  const together = region.together.at.stops ?? undefined;
  const ambient = region.ambient.at.stops ?? undefined;
  const says = `${now.name}, pinned: together ${region.together.at.label}, ambient ${region.ambient.at.label} stops`;
  return (
    <g role="img" aria-label={says}>
      <title>{says}</title>
      {ambient !== undefined && (
        <circle cx={x(ambient)} cy={y} r={8.5} fill="none" stroke="var(--ambient)" strokeDasharray="2.5 2.5" />
      )}
      {together !== undefined && (
        <rect
          x={x(together) - 4.5}
          y={y - 11}
          width={9}
          height={22}
          fill="none"
          stroke="var(--ink)"
          strokeDasharray="2.5 2.5"
        />
      )}
    </g>
  );
}
