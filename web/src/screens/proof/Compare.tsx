import { Columns2, Pin, X } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import type { Setup } from '../../api/client';
import { Button } from '../../ui/Button';
import Menu from '../../ui/Menu';
import { Lead, Panel, Part, Quiet, Row } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { Slide } from '../../ui/Slide';
import { figures, radius, space, type } from '../../ui/tokens';
import { Wrong } from '../../ui/field';
import type { Shown } from './useProof';
import type { Way } from './ways';

/** A proof that stays while the setup changes. */
export type Pinned = { key: string; name: string; settings: string; src: string; setup: Setup };

/** So many are pinned at most. */
export const mostPinned = 4;

const Side = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 260px), 1fr));
  gap: ${space.gap}px;
  margin-top: ${space.gap}px;
  img {
    width: 100%;
    height: auto;
    display: block;
    border-radius: ${radius.small}px;
    background: #000;
  }
  strong {
    display: block;
    margin-top: ${space.hair}px;
  }
  small {
    ${figures}
    font-size: ${type.note}px;
    color: var(--quiet);
    display: block;
    overflow-wrap: anywhere;
  }
`;
const Over = styled.div`
  position: relative;
  margin-top: ${space.gap}px;
  overflow: hidden;
  border-radius: ${radius.small}px;
  background: #000;
  img {
    display: block;
    width: 100%;
    height: auto;
  }
`;
const Cut = styled.img.attrs<{ $to: number }>(({ $to }) => ({
  style: { clipPath: `inset(0 ${100 - $to}% 0 0)` },
}))`
  position: absolute;
  inset: 0;
`;

type How = 'side' | 'halves' | 'slider';
type Props = {
  shown: Shown | undefined;
  pinned: Pinned[];
  pin: () => void;
  unpin: (key: string) => void;
  back: (one: Pinned) => void;
  ways: Way[];
  compare: (way: Way) => Promise<void>;
};

/** Proofs side by side, in halves or along a slider; one press takes a pinned one back. */
export function Compare({ shown, pinned, pin, unpin, back, ways, compare }: Props) {
  const [how, setHow] = useState<How>('side');
  const [against, setAgainst] = useState<string>();
  const [to, setTo] = useState(50);
  const [wrong, setWrong] = useState<string>();
  const other = pinned.find((one) => one.key === against) ?? pinned[0];
  const full = pinned.length >= mostPinned;
  const run = (way: Way) => {
    setWrong(undefined);
    compare(way).catch((failure: unknown) => setWrong(failure instanceof Error ? failure.message : 'It did not come.'));
  };
  return (
    <Panel>
      <Row $apart>
        <Part>Compare</Part>
        <Row>
          <Button onPress={pin} isDisabled={full || !shown}>
            <Pin size={17} aria-hidden /> Pin this one
          </Button>
          {!full && (
            <Menu
              name="Compare with"
              icon={
                <>
                  <Columns2 size={17} aria-hidden /> Compare with…
                </>
              }
              entries={ways.map((way) => ({ id: way.id, name: way.name, run: () => run(way) }))}
            />
          )}
        </Row>
      </Row>
      {wrong && <Wrong role="alert">{wrong}</Wrong>}
      {pinned.length === 0 ? (
        <Lead $tight $below>
          Pin this proof and change something, or compare with the same setup without its cards, at another fill, under
          another white balance or later in the day. Up to {mostPinned} stay.
        </Lead>
      ) : (
        <>
          <Row $below>
            <Segments<How>
              name="Show them"
              value={how}
              options={[
                { id: 'side', label: 'Side by side' },
                { id: 'halves', label: 'In halves' },
                { id: 'slider', label: 'Along a slider' },
              ]}
              onChange={setHow}
            />
            {how !== 'side' && pinned.length > 1 && other && (
              <Segments
                name="Against"
                value={other.key}
                options={pinned.map((one) => ({ id: one.key, label: one.name }))}
                onChange={setAgainst}
              />
            )}
          </Row>
          {how === 'side' || !other || !shown ? (
            <Side aria-label="Pinned proofs">
              {pinned.map((one) => (
                <li key={one.key}>
                  <img src={one.src} alt={`Proof: ${one.name}`} />
                  <strong>{one.name}</strong>
                  <small>{one.settings}</small>
                  <Row $gap={6} $below>
                    <Button onPress={() => back(one)}>Take this one</Button>
                    <Button kind="bare" aria-label={`Unpin ${one.name}`} onPress={() => unpin(one.key)}>
                      <X size={17} aria-hidden />
                    </Button>
                  </Row>
                </li>
              ))}
            </Side>
          ) : (
            <>
              <Over>
                <img src={other.src} alt={`Proof: ${other.name}`} />
                <Cut src={shown.src} $to={how === 'halves' ? 50 : to} alt="Proof as it is now" />
              </Over>
              {how === 'slider' && (
                <Slide name="How much of it as it is now" most={100} value={to} says={`${to} %`} onChange={setTo} />
              )}
              <Quiet>
                Left: as it is now, {shown.report.settings}. Right: {other.name}, {other.settings}.
              </Quiet>
            </>
          )}
        </>
      )}
    </Panel>
  );
}
