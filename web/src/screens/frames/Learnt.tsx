import { useQuery } from '@tanstack/react-query';
import styled from 'styled-components';
import { answered, api, type BeliefSaid, type Kit } from '../../api/client';
import '../../api/moreFields';
import { fieldOf } from '../../api/fields';
import { useSetup } from '../../session/job';
import { useKitRunner, useOwned } from '../../session/kit';
import { Button } from '../../ui/Button';
import { Lead, Panel, Part, Quiet, Row } from '../../ui/Panel';
import { Table } from '../../ui/Table';
import { figures } from '../../ui/tokens';

const Scroll = styled.div`
  overflow-x: auto;
`;
const Figures = styled(Table)`
  ${figures}
  td:first-child {
    font-family: inherit;
    font-stretch: normal;
  }
`;

/** What frames have taught of a setup; what is of the kit can be kept there, for every job. */
export function Learnt() {
  const { setup, kit, set } = useSetup();
  const { data } = useQuery({
    queryKey: ['beliefs', setup, kit],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/beliefs', { body: { setup, kit }, signal })),
    placeholderData: (before) => before,
  });
  const frames = data?.frames ?? 0;
  const shown = data?.beliefs.filter((one) => one.moved) ?? [];
  return (
    <Panel>
      <Part>What Tolva has learnt</Part>
      {shown.length === 0 ? (
        <Quiet>Nothing yet: it goes by figures, and by how well such figures are known.</Quiet>
      ) : (
        <>
          <Lead $tight>
            {frames === 0 ? 'From the kit.' : `From ${frames} ${frames === 1 ? 'frame' : 'frames'} of this setup.`}{' '}
            Stops against the figures; ± is one standard deviation.
          </Lead>
          <Scroll>
            <Figures aria-label="What was believed, and what is believed now">
              <thead>
                <tr>
                  <th scope="col">Of</th>
                  <th scope="col">By figures</th>
                  <th scope="col">Now</th>
                  <th scope="col">In the kit</th>
                </tr>
              </thead>
              <tbody>
                {shown.map((one) => (
                  <tr key={one.name}>
                    <td>{one.name}</td>
                    <td>0 {one.before_sure}</td>
                    <td>
                      <strong>{one.now.exact}</strong> {one.now_sure}
                    </td>
                    <td>{one.of_kit && <Keep of={one} frames={frames} />}</td>
                  </tr>
                ))}
              </tbody>
            </Figures>
          </Scroll>
          {setup.learnt && (
            <Row $below>
              <Button onPress={() => set('Forget what frames have taught', ['learnt'], undefined)}>
                Forget it for this setup
              </Button>
            </Row>
          )}
        </>
      )}
    </Panel>
  );
}

type Tuned = { more_stops: number; sure_stops: number };

/** What a meter is that nobody has checked: what a new one of the kit is. */
const unchecked: Tuned = { more_stops: 0, sure_stops: fieldOf('Meter.sure_stops').default as number };

/** What is kept in the kit of something, and whose. */
function keptOf(
  kit: Kit,
  of: NonNullable<BeliefSaid['of_kit']>,
): { name: string; kept: Tuned | undefined } | undefined {
  if ('camera' in of) {
    const camera = kit.cameras.find((one) => one.id === of.camera.camera_id);
    return camera && { name: camera.name, kept: camera.tuned?.find((one) => one.lens_id === of.camera.lens_id) };
  }
  if ('meter' in of) {
    const meter = kit.meters.find((one) => one.id === of.meter.meter_id);
    return meter && { name: meter.name, kept: { ...unchecked, ...meter } };
  }
  const flash = kit.flashes.find((one) => one.id === of.flash.flash_id);
  const through = of.flash.modifier_id ?? null;
  return flash && { name: flash.name, kept: flash.tuned?.find((one) => (one.modifier_id ?? null) === through) };
}

function Keep({ of, frames }: { of: BeliefSaid; frames: number }) {
  const owned = useOwned();
  const session = useKitRunner();
  const about = of.of_kit;
  const found = owned && about && keptOf(owned, about);
  if (!found || !about) return <Quiet>not yours</Quiet>;
  const put = (tuned: Tuned | undefined) => {
    const says = tuned ? `Keep with ${found.name} what frames have taught` : `Forget what is kept with ${found.name}`;
    if ('camera' in about) {
      const { camera_id, lens_id } = about.camera;
      const others = owned.cameras.find((one) => one.id === camera_id)?.tuned?.filter((one) => one.lens_id !== lens_id);
      const to = [...(others ?? []), ...(tuned ? [{ lens_id, ...tuned }] : [])];
      session.send({ type: 'edit', says, changes: [{ at: ['cameras', { id: camera_id }, 'tuned'], to }] });
    } else if ('meter' in about) {
      const at = (field: keyof Tuned) => ['meters', { id: about.meter.meter_id }, field];
      const { more_stops, sure_stops } = tuned ?? unchecked;
      const changes = [
        { at: at('more_stops'), to: more_stops },
        { at: at('sure_stops'), to: sure_stops },
      ];
      session.send({ type: 'edit', says, changes });
    } else {
      const { flash_id, modifier_id } = about.flash;
      const through = modifier_id ?? null;
      const list = owned.flashes.find((one) => one.id === flash_id)?.tuned;
      const others = list?.filter((one) => (one.modifier_id ?? null) !== through);
      const to = [...(others ?? []), ...(tuned ? [{ ...(modifier_id ? { modifier_id } : {}), ...tuned }] : [])];
      session.send({ type: 'edit', says, changes: [{ at: ['flashes', { id: flash_id }, 'tuned'], to }] });
    }
  };
  const now = of.now.stops ?? 0;
  const same = found.kept && Math.abs(found.kept.more_stops - now) < 0.005;
  if (same) {
    return (
      <Button aria-label={`Forget in the kit: ${of.name}`} onPress={() => put(undefined)}>
        Kept. Forget
      </Button>
    );
  }
  if (frames === 0) return null;
  return (
    <Button
      aria-label={`Keep in the kit: ${of.name}`}
      onPress={() => put({ more_stops: now, sure_stops: of.now_sure_stops })}
    >
      Keep
    </Button>
  );
}
