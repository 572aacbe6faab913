import { useCallback, useMemo, useState } from 'react';
import styled from 'styled-components';
import type { OnSet } from '../../api/client';
import { usePreferences } from '../../api/preferences';
import { ColourLine } from '../../instruments/colour-line/ColourLine';
import { DayStrip } from '../../instruments/day-strip/DayStrip';
import { useDay } from '../../instruments/day-strip/useDay';
import { MapOfLight } from '../../instruments/map-of-light/MapOfLight';
import { keyOfThing } from '../../instruments/map-of-light/things';
import type { Setup } from '../../api/client';
import { useJob, useSetup, useShownSetup } from '../../session/job';
import { Choice } from '../../ui/Choice';
import { Notice, Panel, Quiet, Row, Stack } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { TickBox } from '../../ui/Ticks';
import { phone, space } from '../../ui/tokens';
import { useMedia } from '../../ui/useMedia';
import { useFrameList } from '../frames/useFrames';
import { StepTitle } from '../workbench/StepTitle';
import { Compare, mostPinned, type Pinned } from './Compare';
import { Histogram } from './Histogram';
import { Picture } from './Picture';
import { TakeOut } from './TakeOut';
import { askProof, newAsker, useProof } from './useProof';
import { type Way, waysOf } from './ways';

const Head = styled(Row)`
  margin-bottom: ${space.gap}px;
`;
const Pair = styled.div<{ $two: boolean }>`
  display: grid;
  gap: ${space.part}px;
  align-items: start;
  grid-template-columns: ${({ $two }) => ($two ? 'minmax(0, 1fr) minmax(0, 1fr)' : 'minmax(0, 1fr)')};
`;
const Under = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.gap}px ${space.part}px;
  align-items: flex-start;
  margin-top: ${space.gap}px;
`;
const Coming = styled.div`
  aspect-ratio: 3 / 2;
  background: var(--hair);
  border-radius: 4px;
  display: grid;
  place-items: center;
`;
const Notes = styled.ul`
  color: var(--quiet);
  flex: 2 1 260px;
  display: grid;
  gap: ${space.hair}px;
  max-width: 68ch;
`;

/** What stands beside the proof and can be moved there. */
type Beside = 'nothing' | 'map' | 'day' | 'colour';

/** The longer side of a proof on screen, in pixels. */
const onScreen = 640;
const onPhone = 480;

/** The frame before it is taken: computed from the set, it follows every dial and everything that is moved. */
export default function ProofStep() {
  const { setup, kit, take } = useSetup();
  const live = useShownSetup();
  const { show } = usePreferences();
  const small = useMedia(phone);
  const [clipped, setClipped] = useState(true);
  const [regions, setRegions] = useState(false);
  const [grain, setGrain] = useState(false);
  const [movement, setMovement] = useState(false);
  const [beside, setBeside] = useState<Beside>('nothing');
  const [chosen, setChosen] = useState<OnSet>();
  const choose = useCallback((thing: OnSet) => setChosen(thing), []);
  const longest = small ? onPhone : onScreen;
  const photos = usePhotos(setup.id);
  const [photo, setPhoto] = useState('');
  const behind = photos.some((one) => one.id === photo) ? photo : null;
  const { shown, wrong } = useProof(live, kit, show, { longest, grain, movement, behind });
  const { pinned, pin, refine, unpin } = usePinned();
  const ways = useMemo(() => waysOf(setup, kit, show), [setup, kit, show]);

  const finely = (one: Setup) =>
    askProof(one, kit, show, { longest, grain, movement, behind, fine: true, asker: newAsker() });
  const pinThis = async () => {
    if (!shown) return;
    const key = await pin(shown.src, { name: nameOf(pinned), settings: shown.report.settings, setup: live });
    // What was pinned while it was coarse gets fine where it is pinned; where that fails it stays as it was seen.
    if (!shown.fine)
      await finely(live).then(
        ({ src }) => refine(key, src),
        () => undefined,
      );
  };
  const compare = async (way: Way) => {
    const room = mostPinned - pinned.length;
    const made = (await way.make()).slice(0, room);
    for (const one of made) {
      const ready = await finely(one.setup);
      await pin(ready.src, { name: one.name, settings: ready.report.settings, setup: one.setup });
    }
  };
  return (
    <Stack>
      <Panel>
        <Head $apart>
          <StepTitle>Proof</StepTitle>
          <Quiet data-testid="proof-settings">{shown?.report.settings}</Quiet>
        </Head>
        {wrong && (
          <Notice role="alert">
            <strong>No proof came. </strong>
            {wrong}
          </Notice>
        )}
        <Pair $two={beside === 'map' && !small}>
          <div>
            {shown ? (
              <Picture shown={shown} clipped={clipped} regions={regions} name={`Proof of ${setup.name}`} />
            ) : (
              !wrong && (
                <Coming role="status" aria-busy="true">
                  The first proof is rendered…
                </Coming>
              )
            )}
          </div>
          {beside === 'map' && (
            <MapOfLight
              chosen={chosen && keyOfThing(chosen)}
              choose={choose}
              lights={setup.lights.map((light) => light.id)}
            />
          )}
        </Pair>
        {beside === 'day' && <Day />}
        {beside === 'colour' && <ColourLine />}
        <Row $gap={6} $below>
          <TickBox name="Hatch what is clipped" value={clipped} onChange={setClipped} />
          <TickBox name="Regions" value={regions} onChange={setRegions} />
          <TickBox name="Grain of its ISO" value={grain} onChange={setGrain} />
          <TickBox name="What moves, smeared" value={movement} onChange={setMovement} />
        </Row>
        <Row $below>
          <Segments<Beside>
            name="Beside it"
            value={beside}
            options={[
              { id: 'nothing', label: 'Nothing' },
              { id: 'map', label: 'The map' },
              ...(setup.scene ? [{ id: 'day' as const, label: 'The day' }] : []),
              { id: 'colour', label: 'The colour line' },
            ]}
            onChange={setBeside}
          />
        </Row>
        {photos.length > 0 && (
          <Row $below>
            <Choice
              name="The place behind"
              value={behind ?? ''}
              options={[
                { id: '', label: 'Computed' },
                ...photos.map(({ id, name }) => ({ id, label: `Photo: ${name}` })),
              ]}
              onChange={setPhoto}
            />
          </Row>
        )}
        {shown && (
          <Under>
            <Histogram counted={shown.histogram} clipped={shown.clipped_percent} />
            <Notes aria-label="About this proof">
              <li>An estimate, computed from the set.</li>
              {shown.report.notes.map((note) => (
                <li key={note}>{note}</li>
              ))}
              {grain && <li>The grain is a model of ours, as it looks at full size on a screen.</li>}
              {behind && (
                <li>
                  The place behind is a frame taken without flash, in the light that is there; the flash on floor and
                  walls is left out.
                </li>
              )}
              {movement && <li>What moves is smeared as far as it goes, under the light that is there.</li>}
            </Notes>
          </Under>
        )}
      </Panel>
      <Compare
        shown={shown}
        pinned={pinned}
        pin={() => void pinThis()}
        unpin={unpin}
        back={(one) => take(`As pinned: ${one.name}`, one.setup, setup)}
        ways={ways}
        compare={compare}
      />
      <TakeOut shown={shown} setup={setup} kit={kit} show={show} behind={behind} pinned={pinned} />
    </Stack>
  );
}

/** The frames of a setup that can stand for the place behind: those without flash. */
function usePhotos(setup: string): { id: string; name: string }[] {
  const { id: job } = useJob();
  const { data } = useFrameList(job, setup);
  return data?.frames.filter((frame) => frame.flash === false && !frame.missing) ?? [];
}

/** The hour, to be dragged along its day. */
function Day() {
  const { setup, kit } = useSetup();
  const day = useDay(setup, kit);
  return day ? <DayStrip day={day} /> : null;
}

/** The first number that no pinned one has. */
function nameOf(pinned: Pinned[]): string {
  const free = [1, 2, 3, 4].find((number) => !pinned.some((one) => one.name === `Pin ${number}`));
  return `Pin ${free ?? pinned.length + 1}`;
}

/** A picture as text, which stays when the server has forgotten it. Only pictures of this Tolva and such texts are let in. */
async function copied(src: string): Promise<string> {
  const picture = await (await fetch(src)).blob();
  return new Promise((done, fail) => {
    const reader = new FileReader();
    reader.onload = () => done(String(reader.result));
    reader.onerror = () => fail(new Error('The picture could not be kept.'));
    reader.readAsDataURL(picture);
  });
}

/** What is pinned, each with a copy of its picture. */
function usePinned() {
  const [pinned, setPinned] = useState<Pinned[]>([]);
  const pin = async (src: string, of: Omit<Pinned, 'key' | 'src'>) => {
    const one = { ...of, key: newAsker(), src: await copied(src) };
    setPinned((now) => (now.length < mostPinned ? [...now, one] : now));
    return one.key;
  };
  const refine = async (key: string, src: string) => {
    const fine = await copied(src);
    setPinned((now) => now.map((one) => (one.key === key ? { ...one, src: fine } : one)));
  };
  const unpin = (key: string) => setPinned((now) => now.filter((one) => one.key !== key));
  return { pinned, pin, refine, unpin };
}
