import { useMutation } from '@tanstack/react-query';
import { useState } from 'react';
import { answered, api, type FrameLine, type TakenFrame } from '../../api/client';
import { useSetup } from '../../session/job';
import { useKitRunner, useOwned } from '../../session/kit';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Wrong } from '../../ui/field';
import { Lead, Panel, Part, Quiet, Row } from '../../ui/Panel';
import { Ticks } from '../../ui/Ticks';
import { editOf, saveFrame } from './OneFrame';

type Props = { frames: FrameLine[]; frame: TakenFrame; changed: () => void };

/** What else frames say: of a two-tone target, of the camera's own curve, of a sunset. */
export function More({ frames, frame, changed }: Props) {
  return (
    <>
      <TwoTone frame={frame} changed={changed} />
      <Several frames={frames} />
    </>
  );
}

function TwoTone({ frame, changed }: { frame: TakenFrame; changed: () => void }) {
  const { setup, set } = useSetup();
  const [region, setRegion] = useState(frame.setup.regions[1]?.id ?? frame.setup.regions[0]?.id ?? '');
  const params = { path: { id: frame.id } };
  const mark = frame.marks?.find((one) => one.region_id === region);
  const find = useMutation({
    mutationFn: (within: boolean) =>
      answered(
        api.POST('/api/v1/frames/{id}/target', {
          params,
          body:
            within && mark
              ? { within: { left: mark.left, top: mark.top, width: mark.width, height: mark.height } }
              : {},
        }),
      ),
  });
  const target = find.data?.target;
  const use = useMutation({
    mutationFn: async () => {
      if (!target) return;
      const edit = editOf(frame);
      const marks = edit.marks.filter((one) => one.region_id !== region);
      const surface_stops = Number(target.light_surface_stops.toFixed(3));
      await saveFrame(frame.id, {
        ...edit,
        marks: [...marks, { region_id: region, ...target.light_at, round: false, surface_stops }],
      });
      changed();
    },
  });
  const name = frame.setup.regions.find((one) => one.id === region)?.name ?? '';
  const there = setup.regions.some((one) => one.id === region);
  return (
    <Panel>
      <Part>A two-tone target</Part>
      <Lead $tight>
        Light and dark grey side by side, in the light of a region: it tells the exposure to a tenth of a stop.
      </Lead>
      <Row $below>
        <Choice
          name="It is in the light of"
          value={region}
          options={frame.setup.regions.map((one) => ({ id: one.id, label: one.name }))}
          onChange={setRegion}
        />
        <Button onPress={() => find.mutate(false)}>Look for it</Button>
        {mark && <Button onPress={() => find.mutate(true)}>Read it within the mark of {name}</Button>}
      </Row>
      {find.isPending && <p role="status">Looking…</p>}
      {find.data && !target && (
        <Quiet role="status">None was found. Put a mark round both its halves, and read it within that.</Quiet>
      )}
      {target && (
        <>
          <p data-testid="target">
            <strong>{target.says}</strong> Its light: {target.balance}.
          </p>
          <Row $below>
            <Button kind="strong" onPress={() => use.mutate()}>
              Measure {name} on it
            </Button>
            {there && (
              <Button
                onPress={() =>
                  set(`Colour of ${name} off a target`, ['regions', { id: region }, 'ambient', 'colour'], target.colour)
                }
              >
                Its colour into step 4
              </Button>
            )}
          </Row>
          {frame.settings.flash !== false && (
            <Quiet>The flash fired: its colour is that of both lights together there.</Quiet>
          )}
        </>
      )}
      {(find.error ?? use.error) && <Wrong role="alert">{(find.error ?? use.error)?.message}</Wrong>}
    </Panel>
  );
}

function Several({ frames }: { frames: FrameLine[] }) {
  const { setup, kit, set } = useSetup();
  const owned = useOwned();
  const session = useKitRunner();
  const [ids, setIds] = useState<string[]>([]);
  const chosen = frames.filter((frame) => ids.includes(frame.id)).map((frame) => frame.id);
  const [region, setRegion] = useState(setup.regions[0]?.id ?? '');
  const curve = useMutation({
    mutationFn: () => answered(api.POST('/api/v1/frames/curve', { body: { frames: chosen } })),
  });
  const sunset = useMutation({
    mutationFn: () => answered(api.POST('/api/v1/frames/sunset', { body: { frames: chosen, region_id: region } })),
  });
  const camera = kit.cameras.find((one) => one.id === setup.camera_id);
  const mine = owned?.cameras.some((one) => one.id === setup.camera_id);
  if (frames.length < 2) return null;
  return (
    <Panel>
      <Part>Several frames together</Part>
      <Ticks
        name="Which"
        value={ids}
        options={frames.map((frame, index) => ({ id: frame.id, label: `${index + 1} ${frame.settings}` }))}
        onChange={(to) => {
          setIds(to);
          curve.reset();
          sunset.reset();
        }}
      />
      <Row $below>
        <Button isDisabled={chosen.length < 3} onPress={() => curve.mutate()}>
          Find the camera’s own curve
        </Button>
        <Quiet>From three to eleven frames of one still scene, about a stop apart.</Quiet>
      </Row>
      {curve.data && (
        <>
          <p role="status">{curve.data.says}</p>
          {mine && camera ? (
            <Button
              onPress={() =>
                session.send({
                  type: 'edit',
                  says: `Curve of ${camera.name}`,
                  changes: [{ at: ['cameras', { id: camera.id }, 'curve'], to: curve.data.levels }],
                })
              }
            >
              Keep it with {camera.name}
            </Button>
          ) : (
            <Quiet>The camera of this setup is not in your kit, so that it can keep no curve.</Quiet>
          )}
        </>
      )}
      <Row $below>
        <Choice
          name="The sunset is in"
          value={region}
          options={setup.regions.map((one) => ({ id: one.id, label: one.name }))}
          onChange={setRegion}
        />
        <Button isDisabled={chosen.length < 2} onPress={() => sunset.mutate()}>
          Read it by the clipping warning
        </Button>
      </Row>
      <Quiet>
        Two or three frames, some clipped there and some not. Never look at the sun through an optical finder.
      </Quiet>
      {sunset.data && (
        <>
          <p role="status">{sunset.data.says}</p>
          <Button
            onPress={() =>
              set(
                'A sunset, read by the clipping warning',
                ['regions', { id: region }, 'ambient', 'readings'],
                [{ reading: { ev: { ev100: sunset.data.ev100 } } }],
              )
            }
          >
            Use as the reading
          </Button>
        </>
      )}
      {(curve.error ?? sunset.error) && <Wrong role="alert">{(curve.error ?? sunset.error)?.message}</Wrong>}
    </Panel>
  );
}
