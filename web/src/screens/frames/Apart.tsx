import { useQuery } from '@tanstack/react-query';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { answered, api, type FrameLine, type Mixture } from '../../api/client';
import { useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Wrong } from '../../ui/field';
import { Lead, Panel, Part, Quiet, Row } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { Slide } from '../../ui/Slide';
import { Table } from '../../ui/Table';
import { figures, radius, space } from '../../ui/tokens';

const Shown = styled.figure`
  margin: ${space.gap}px 0 0;
  img {
    display: block;
    width: min(100%, 640px);
    height: auto;
    border-radius: ${radius.small}px;
    background: #000;
  }
  figcaption {
    color: var(--quiet);
    margin-top: ${space.hair}px;
  }
`;
const Slides = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 250px), 1fr));
  gap: 0 ${space.wide}px;
  margin-top: ${space.gap}px;
  label {
    display: block;
  }
  span {
    ${figures}
    font-weight: 650;
  }
`;

const asItWas: Mixture = { ambient_stops: 0, flash_stops: 0, gel_mired: 0, kelvin: null };

/** A slide goes in whole steps from 0 on: what each is in the mixture, and how it is said. */
const signed = (value: number) => `${value > 0 ? '+' : value < 0 ? '−' : ''}${Math.abs(value)}`;
const thirds = (step: number) => `${signed(Number(((step - 9) / 3).toFixed(2)))} stops`;
const kelvins = [null, 2800, 3200, 3800, 4200, 4600, 5000, 5200, 5600, 6000, 6500, 7500, 9000];

type Props = { frames: FrameLine[]; chosen: FrameLine };

/** Two frames of one place: the flash and the light that is there apart, and mixed anew. */
export function Apart({ frames, chosen }: Props) {
  const others = frames.filter((frame) => frame.id !== chosen.id && !frame.missing);
  const usual =
    [...others].reverse().find((frame) => frame.flash === false && chosen.flash !== false) ??
    [...others].reverse().find((frame) => frame.flash !== false && chosen.flash === false) ??
    others[0];
  const [other, setOther] = useState<string>();
  const pair = others.find((frame) => frame.id === other) ?? usual;
  if (!pair) {
    return (
      <Panel>
        <Part>Flash and the light that is there, apart</Part>
        <Quiet>
          It takes two frames of one place: one without the flash and one with it, the camera held still. Their
          exposures may differ.
        </Quiet>
      </Panel>
    );
  }
  // The one without flash is the one that says so; where neither does, the other one.
  const [withFlash, without] = chosen.flash === false ? [pair, chosen] : [chosen, pair];
  return (
    <Panel>
      <Part>Flash and the light that is there, apart</Part>
      <Row>
        <Choice
          name={chosen.flash === false ? 'The frame with flash' : 'The frame without flash'}
          value={pair.id}
          options={others.map((frame) => ({
            id: frame.id,
            label: `${frames.indexOf(frame) + 1} ${frame.name}, ${frame.settings}`,
          }))}
          onChange={setOther}
        />
      </Row>
      <Mixed key={`${withFlash.id}/${without.id}`} withFlash={withFlash.id} without={without.id} />
    </Panel>
  );
}

function Mixed({ withFlash, without }: { withFlash: string; without: string }) {
  const { setup, kit, take } = useSetup();
  const [view, setView] = useState<'mixed' | 'map'>('mixed');
  const [mixture, setMixture] = useState<Mixture>(asItWas);
  const [wrong, setWrong] = useState<string>();
  const params = { path: { id: withFlash, without } };
  const { data, error } = useQuery({
    queryKey: ['apart', withFlash, without],
    queryFn: ({ signal }) => answered(api.GET('/api/v1/frames/{id}/without/{without}', { params, signal })),
    retry: false,
  });
  const picture = usePicture(`/api/v1/frames/${withFlash}/without/${without}`, view, mixture, !!data);
  if (error) return <Wrong role="alert">{error.message}</Wrong>;
  const put = (part: Partial<Mixture>) => setMixture((now) => ({ ...now, ...part }));
  const use = async () => {
    try {
      const done = await answered(
        api.POST('/api/v1/frames/{id}/mixed', {
          params: { path: { id: withFlash } },
          body: { setup, kit, mixture },
        }),
      );
      take('As mixed from two frames', done.setup, setup);
      setWrong(undefined);
    } catch (failure) {
      setWrong(failure instanceof Error ? failure.message : 'Tolva does not answer.');
    }
  };
  const step = (stops: number | undefined) => Math.round((stops ?? 0) * 3) + 9;
  const kelvin = kelvins.indexOf(mixture.kelvin ?? null);
  return (
    <>
      <Row $below>
        <Segments
          name="Show"
          value={view}
          options={[
            { id: 'mixed', label: 'The picture, mixed anew' },
            { id: 'map', label: 'Where the flash is' },
          ]}
          onChange={setView}
        />
      </Row>
      <Shown>
        {picture && (
          <img
            src={picture}
            alt={view === 'map' ? 'Map of the share of flash, a line at each quarter' : 'The frame as mixed'}
            data-testid={`apart-${view}`}
          />
        )}
        <figcaption>
          {data &&
            (view === 'map'
              ? `The flash is ${Math.round(data.flash_percent)} % of the light; a line at each quarter. ${Math.round(data.told_percent)} % of the frame can be told.`
              : 'The real frame, its two lights weighed anew. What was clipped stays clipped.')}
        </figcaption>
      </Shown>
      {view === 'mixed' && (
        <Slides>
          <div>
            <label>
              Light that is there, by the shutter: <span>{thirds(step(mixture.ambient_stops))}</span>
            </label>
            <Slide
              name="Light that is there"
              most={18}
              value={step(mixture.ambient_stops)}
              says={thirds(step(mixture.ambient_stops))}
              onChange={(to) => put({ ambient_stops: (to - 9) / 3 })}
            />
          </div>
          <div>
            <label>
              Flash, by its power: <span>{thirds(step(mixture.flash_stops))}</span>
            </label>
            <Slide
              name="Flash"
              most={18}
              value={step(mixture.flash_stops)}
              says={thirds(step(mixture.flash_stops))}
              onChange={(to) => put({ flash_stops: (to - 9) / 3 })}
            />
          </div>
          <div>
            <label>
              Gel on the flash: <span>{signed(mixture.gel_mired ?? 0)} mired</span>
            </label>
            <Slide
              name="Gel on the flash"
              most={20}
              value={(mixture.gel_mired ?? 0) / 20 + 10}
              says={`${signed(mixture.gel_mired ?? 0)} mired`}
              onChange={(to) => put({ gel_mired: (to - 10) * 20 })}
            />
          </div>
          <div>
            <label>
              White balance: <span>{mixture.kelvin ? `${mixture.kelvin} K` : 'as it was'}</span>
            </label>
            <Slide
              name="White balance"
              most={kelvins.length - 1}
              value={Math.max(kelvin, 0)}
              says={mixture.kelvin ? `${mixture.kelvin} K` : 'as it was'}
              onChange={(to) => put({ kelvin: kelvins[to] ?? null })}
            />
          </div>
        </Slides>
      )}
      {view === 'mixed' && (
        <Row $below>
          <Button kind="strong" onPress={() => void use()}>
            Use this
          </Button>
          <Button onPress={() => setMixture(asItWas)}>As it was</Button>
          <Quiet>Shutter, powers and white balance go onto the dials; a gel is yours to choose.</Quiet>
        </Row>
      )}
      {wrong && <Wrong role="alert">{wrong}</Wrong>}
      {data && data.regions.length > 0 && (
        <Table aria-label="Each light on each region">
          <thead>
            <tr>
              <th scope="col">Region</th>
              <th scope="col">There, stops</th>
              <th scope="col">Flash, stops</th>
              <th scope="col">Of it flash</th>
            </tr>
          </thead>
          <tbody>
            {data.regions.map((region) => (
              <tr key={region.region_id}>
                <td>
                  {region.name}
                  {region.trouble && <Lead $tight>{region.trouble}</Lead>}
                </td>
                <td>{region.ambient?.exact ?? '–'}</td>
                <td>{region.flash?.exact ?? '–'}</td>
                <td>{Math.round(region.flash_percent)} %</td>
              </tr>
            ))}
          </tbody>
        </Table>
      )}
    </>
  );
}

/** The picture of a mixture: one is asked for at a time, the newest next, and the one before stays until it is there. */
function usePicture(base: string, view: 'mixed' | 'map', mixture: Mixture, ready: boolean): string | undefined {
  const [shown, setShown] = useState<string>();
  const state = useRef<{ busy: boolean; next: string | undefined }>({ busy: false, next: undefined });
  useEffect(() => {
    if (!ready) return undefined;
    const asked = Object.entries(mixture).flatMap(([key, value]) => (value == null ? [] : [`${key}=${value}`]));
    const now = state.current;
    now.next = view === 'map' ? `${base}/map` : `${base}/mix?${asked.join('&')}`;
    const ask = async (): Promise<void> => {
      const src = now.next;
      if (!src) return undefined;
      now.next = undefined;
      now.busy = true;
      try {
        const picture = new Image();
        picture.src = src;
        await picture.decode();
        setShown(src);
      } catch {
        // What is wrong with the two frames is told beside the picture.
      }
      now.busy = false;
      return ask();
    };
    if (!now.busy) void ask();
    return undefined;
  }, [base, view, mixture, ready]);
  return shown;
}
