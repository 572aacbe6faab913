import { Camera, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { answered, api, type OnSetSaid } from '../../api/client';
import { newId } from '../../session/kit';
import { Button } from '../../ui/Button';
import { Notice, Panel, Quiet, Row } from '../../ui/Panel';
import { figures, narrow, space, touch } from '../../ui/tokens';
import { Stepper } from './Stepper';
import { today } from './today';

const Whole = styled(Panel)`
  display: flex;
  flex-direction: column;
  gap: ${space.part}px;
`;
/** The frame beside the dials; on a phone over them. */
const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 480px) minmax(260px, 1fr);
  gap: ${space.part}px;
  align-items: start;
  ${narrow} {
    grid-template-columns: minmax(0, 1fr);
  }
  figure {
    margin: 0;
  }
  img,
  [data-none] {
    display: grid;
    place-items: center;
    width: 100%;
    aspect-ratio: 3 / 2;
    background: var(--raised);
    color: var(--quiet);
  }
`;
const Dials = styled.div`
  display: grid;
  gap: ${space.gap}px;
  > div {
    display: grid;
    grid-template-columns: 76px 1fr;
    align-items: center;
  }
`;
const Frames = styled.ol`
  ${figures}
  li {
    border-top: 1px solid var(--line);
    padding: ${space.near}px 0;
  }
  li > span {
    display: block;
    color: var(--quiet);
  }
`;
const Take = styled(Button)`
  min-height: ${touch + 8}px;
  justify-content: center;
  font-size: 18px;
`;
const Hidden = styled.ul`
  ${figures}
  margin-top: ${space.near}px;
`;

type Dialled = { shutter: number; aperture: number; iso: number; power: number };
const parts = ['shutter', 'aperture', 'iso', 'power'] as const;

type Props = { level: number; end: () => void; again: () => void };

/** A set with hidden faults: dials, frames, and how many it took. */
export function OnSet({ level, end, again }: Props) {
  const [seed] = useState(() => Math.floor(Math.random() * 1_000_000));
  const [said, setSaid] = useState<OnSetSaid>();
  const [frames, setFrames] = useState<Dialled[]>([]);
  const [dials, setDials] = useState<Dialled>();
  const [wrong, setWrong] = useState<string>();
  const [busy, setBusy] = useState(false);
  const key = useRef(newId());
  const ask = (taken: Dialled[], giveUp = false) => {
    setBusy(true);
    setWrong(undefined);
    const body = { level, seed, frames: taken, give_up: giveUp, today: today() };
    answered(api.POST('/api/v1/drills/set', { body, headers: { 'Idempotency-Key': key.current } }))
      .then(
        (set) => {
          setSaid(set);
          setFrames(taken);
          const [shutter = 0, aperture = 0, iso = 0, power = 0] = set.dials.map((dial) => dial.begins_at);
          setDials((now) => now ?? { shutter, aperture, iso, power });
        },
        (failure: Error) => setWrong(failure.message),
      )
      .finally(() => setBusy(false));
  };
  const first = useRef(ask);
  useEffect(() => first.current([]), []);
  const last = frames.at(-1);
  const at = last && new URLSearchParams(Object.entries({ level, seed, ...last }).map(([name, of]) => [name, `${of}`]));
  return (
    <Whole as="section" aria-label="On the set">
      <Row $apart>
        <Quiet>On the set with the stand-in camera, level {level}</Quiet>
        <Button kind="bare" aria-label="Leave the set" onPress={end}>
          <X size={18} aria-hidden />
        </Button>
      </Row>
      {wrong && (
        <Notice role="alert">
          <strong>No frame came of it. </strong>
          {wrong} <Button onPress={() => ask(frames)}>Try again</Button>
        </Notice>
      )}
      {said && dials && (
        <>
          <h1>{said.wish}</h1>
          <ul>
            {said.stands.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
          <Two>
            <figure>
              {at ? (
                <img src={`/api/v1/drills/set.jpg?${at}`} alt={`Frame ${frames.length}`} />
              ) : (
                <div data-none>No frame yet</div>
              )}
              <Quiet as="figcaption">{at ? `Frame ${frames.length}, computed: an estimate.` : said.tells}</Quiet>
            </figure>
            <Dials>
              {said.dials.map((dial, index) => {
                const part = parts[index] ?? 'shutter';
                return (
                  <div key={dial.name}>
                    <span aria-hidden>{dial.name}</span>
                    <Stepper
                      name={dial.name}
                      options={dial.options}
                      value={dials[part]}
                      isDisabled={Boolean(said.end)}
                      onChange={(to) => setDials({ ...dials, [part]: to })}
                    />
                  </div>
                );
              })}
              {!said.end && (
                <Take kind="strong" isDisabled={busy} onPress={() => ask([...frames, dials])}>
                  <Camera size={20} aria-hidden /> Take frame {frames.length + 1}
                </Take>
              )}
              {!said.end && frames.length > 0 && (
                <Button onPress={() => ask(frames, true)}>Show what was hidden</Button>
              )}
            </Dials>
          </Two>
          <Frames aria-label="Frames" aria-live="polite">
            {said.frames.map((frame, index) => (
              <li key={index}>
                <strong>
                  {index + 1}. {frame.says.join(' · ')}
                </strong>
                <span>{frame.taken}</span>
              </li>
            ))}
          </Frames>
          {said.end && (
            <Notice role="status">
              <strong>{said.end.says}</strong>
              <Hidden aria-label="What was hidden">
                {said.end.hidden.map((one) => (
                  <li key={one.name}>
                    {one.name}: {one.more.exact} stop against its figures
                  </li>
                ))}
              </Hidden>
              <Row $below>
                <Button kind="strong" onPress={again} autoFocus>
                  Another set
                </Button>
                <Button onPress={end}>Enough for now</Button>
              </Row>
            </Notice>
          )}
        </>
      )}
    </Whole>
  );
}
