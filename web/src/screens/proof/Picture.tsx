import { type KeyboardEvent, type PointerEvent, useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { answered, api, type ProofRegion } from '../../api/client';
import { figures, radius, space, type } from '../../ui/tokens';
import type { Shown } from './useProof';

const Frame = styled.div`
  position: relative;
  width: fit-content;
  max-width: 100%;
  margin: 0 auto;
  border-radius: ${radius.small}px;
  overflow: hidden;
  background: #000;
  cursor: crosshair;
  &:focus-visible {
    outline: 2.5px solid var(--focus);
    outline-offset: 2px;
  }
  img {
    display: block;
    width: 100%;
    height: auto;
    max-height: 62vh;
    object-fit: contain;
  }
  img.over {
    position: absolute;
    inset: 0;
    height: 100%;
    image-rendering: pixelated;
  }
`;
const Cross = styled.svg`
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
  path {
    fill: none;
    stroke: #fff;
    stroke-width: 1.5;
    vector-effect: non-scaling-stroke;
  }
  path.dark {
    stroke: #000;
    stroke-width: 3.5;
  }
`;
const Region = styled.span.attrs<{ $left: number; $down: number }>(({ $left, $down }) => ({
  style: { left: `${$left * 100}%`, top: `${$down * 100}%` },
}))`
  position: absolute;
  pointer-events: none;
  ${figures}
  font-size: ${type.small}px;
  font-weight: 650;
  &::before {
    content: '';
    position: absolute;
    inset: -17px auto auto -17px;
    width: 34px;
    height: 34px;
    border: 2px solid #fff;
    border-radius: 50%;
    box-shadow:
      0 0 0 1.5px #000,
      inset 0 0 0 1.5px #000;
  }
  span {
    position: absolute;
    top: -11px;
    left: 22px;
    color: #fff;
    background: rgb(0 0 0 / 78%);
    border-radius: ${radius.small}px;
    padding: 1px 6px;
    white-space: nowrap;
  }
  &[data-left] span {
    left: auto;
    right: 22px;
  }
`;
const Says = styled.p`
  ${figures}
  font-size: ${type.lead}px;
  min-height: 1.5em;
  margin-top: ${space.near}px;
`;

/** Labels stand away from each other: the left one of two goes to the left. */
const isLeft = (one: ProofRegion, all: ProofRegion[]): boolean =>
  one.left > 0.8 ||
  all.some((other) => other !== one && Math.abs(other.down - one.down) < 0.08 && other.left > one.left);

type At = { left: number; down: number };
/** So many places of the grid lie from edge to edge, for the keyboard. */
const places = 24;
const within = (value: number) => Math.min(Math.max(value, 0), 1);

type Props = { shown: Shown; clipped: boolean; regions: boolean; name: string };

/** The proof itself, with a pointer that reads what each place gets of which light. */
export function Picture({ shown, clipped, regions, name }: Props) {
  const [at, setAt] = useState<At>();
  const says = useReading(shown.id, at);
  const place = ({ currentTarget, clientX, clientY }: PointerEvent<HTMLDivElement>) => {
    const box = currentTarget.getBoundingClientRect();
    setAt({ left: within((clientX - box.left) / box.width), down: within((clientY - box.top) / box.height) });
  };
  const move = (event: KeyboardEvent) => {
    const by = (event.shiftKey ? 4 : 1) / places;
    const to: { [key: string]: (now: At) => At } = {
      ArrowLeft: (now) => ({ ...now, left: now.left - by }),
      ArrowRight: (now) => ({ ...now, left: now.left + by }),
      ArrowUp: (now) => ({ ...now, down: now.down - by }),
      ArrowDown: (now) => ({ ...now, down: now.down + by }),
    };
    const go = to[event.key];
    if (event.key === 'Escape') setAt(undefined);
    if (!go) return;
    event.preventDefault();
    const next = go(at ?? { left: 0.5, down: 0.5 });
    setAt({ left: within(next.left), down: within(next.down) });
  };
  const { width, height } = shown;
  return (
    <>
      <Frame
        role="application"
        aria-roledescription="picture with a pointer"
        aria-label={`${name}. The arrow keys move a pointer that reads the light`}
        tabIndex={0}
        onPointerMove={place}
        onPointerDown={place}
        onPointerLeave={() => setAt(undefined)}
        onKeyDown={move}
      >
        <img src={shown.src} width={width} height={height} alt="" data-fine={shown.fine} data-testid="proof" />
        {clipped && <img className="over" src={`/api/v1/proof/${shown.id}/clipped`} alt="" />}
        {regions &&
          shown.report.regions.map((region) => (
            <Region
              key={region.region_id}
              $left={region.left}
              $down={region.down}
              data-left={isLeft(region, shown.report.regions) || undefined}
            >
              <span>
                {region.name} {region.stands.label}
              </span>
            </Region>
          ))}
        {at && (
          <Cross viewBox="0 0 1000 1000" preserveAspectRatio="none" aria-hidden>
            {['dark', ''].map((kind) => (
              <path
                key={kind}
                className={kind}
                d={`M${at.left * 1000 - 14} ${at.down * 1000}h28M${at.left * 1000} ${at.down * 1000 - 20}v40`}
              />
            ))}
          </Cross>
        )}
      </Frame>
      <Says role="status" data-testid="reading">
        {says ?? 'Point at the picture to read it, in stops from mid grey, light by light.'}
      </Says>
    </>
  );
}

/** What a place is, asked one at a time; the newest next. */
function useReading(id: string, at: At | undefined): string | undefined {
  const [says, setSays] = useState<string>();
  const state = useRef<{ busy: boolean; next: (At & { id: string }) | undefined }>({ busy: false, next: undefined });
  useEffect(() => {
    const now = state.current;
    now.next = at && { ...at, id };
    const ask = async (): Promise<void> => {
      const wanted = now.next;
      if (!wanted) return;
      now.next = undefined;
      now.busy = true;
      const { id, left, down } = wanted;
      try {
        const params = { path: { id }, query: { left, down } };
        const reading = await answered(api.GET('/api/v1/proof/{id}/reading', { params }));
        setSays(reading.says);
      } catch {
        // A picture that is no longer kept is asked for anew by whoever shows it.
      }
      now.busy = false;
      return ask();
    };
    if (!now.busy) void ask();
  }, [id, at]);
  return at && says;
}
