import styled from 'styled-components';
import type { Camera, Flash, Kit } from '../../api/client';
import { useLabel } from '../../session/fields/useLabel';
import { Button } from '../../ui/Button';
import { Part, Quiet, Row } from '../../ui/Panel';
import { space } from '../../ui/tokens';

/** Puts something into the thing, in words for undo. */
type Put = (says: string, at: string[], to: unknown) => void;

const Block = styled.div`
  margin-top: ${space.part}px;
`;

type LineProps = { of: string; more: number; sure: number; forget: () => void };

function Line({ of, more, sure, forget }: LineProps) {
  const [is, about] = [useLabel('stops', more), useLabel('stops', sure)];
  return (
    <Row $apart>
      <Quiet>
        {of}: {is} stops, ±{about.replace('+', '')}
      </Quiet>
      <Button aria-label={`Forget what frames have taught: ${of}`} onPress={forget}>
        Forget
      </Button>
    </Row>
  );
}

/** What frames have taught of a camera with each lens, and its own curve. */
export function CameraTaught({ camera, lenses, put }: { camera: Camera; lenses: Kit['lenses']; put: Put }) {
  const { tuned = [], curve = [] } = camera;
  if (tuned.length === 0 && curve.length === 0) return null;
  return (
    <Block>
      <Part>What frames have taught</Part>
      {tuned.map((one) => (
        <Line
          key={one.lens_id}
          of={`With ${lenses.find((lens) => lens.id === one.lens_id)?.name ?? 'a lens that has gone'}`}
          more={one.more_stops}
          sure={one.sure_stops}
          forget={() =>
            put(
              'forget what frames have taught',
              ['tuned'],
              tuned.filter((other) => other !== one),
            )
          }
        />
      ))}
      {curve.length > 0 && (
        <Row $apart>
          <Quiet>A curve of its own, found from a bracket, is undone in every frame.</Quiet>
          <Button aria-label="Forget its curve" onPress={() => put('forget its curve', ['curve'], [])}>
            Forget
          </Button>
        </Row>
      )}
    </Block>
  );
}

/** What frames have taught of a unit through each modifier. */
export function FlashTaught({ flash, modifiers, put }: { flash: Flash; modifiers: Kit['modifiers']; put: Put }) {
  const { tuned = [] } = flash;
  if (tuned.length === 0) return null;
  const through = (id: string | null | undefined) =>
    id ? `Through ${modifiers.find((one) => one.id === id)?.name ?? 'a modifier that has gone'}` : 'Bare';
  return (
    <Block>
      <Part>What frames have taught</Part>
      {tuned.map((one) => (
        <Line
          key={one.modifier_id ?? ''}
          of={through(one.modifier_id)}
          more={one.more_stops}
          sure={one.sure_stops}
          forget={() =>
            put(
              'forget what frames have taught',
              ['tuned'],
              tuned.filter((other) => other !== one),
            )
          }
        />
      ))}
    </Block>
  );
}
