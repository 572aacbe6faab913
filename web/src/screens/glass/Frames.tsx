import { Trash2 } from 'lucide-react';
import styled from 'styled-components';
import { Words } from '../../session/fields/Words';
import { useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Lead, Panel, Part } from '../../ui/Panel';
import { space } from '../../ui/tokens';

const List = styled.ol`
  display: grid;
  gap: ${space.gap}px;
  margin-top: ${space.gap}px;
  li {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 2px ${space.gap}px;
    align-items: end;
  }
  p {
    grid-column: 1 / -1;
    color: var(--quiet);
    font-size: 13px;
  }
`;

/** The frames that are taken, in order: the picture, and its clean plates at exactly the same settings. */
export function Frames() {
  const { setup, set } = useSetup();
  const frames = setup.shots ?? [];
  if (frames.length === 0) return null;
  return (
    <Panel>
      <Part>Frames to take</Part>
      <Lead $tight>
        In this order, from a tripod: aperture, shutter, ISO, focus and white balance stay as they are for all of them.
      </Lead>
      <List aria-label="Frames to take, in order">
        {frames.map((frame, index) => (
          <li key={frame.id}>
            <Words
              name={`Frame ${index + 1}`}
              at={['shots', { id: frame.id }, 'name']}
              says="Name of a frame"
              good={(text) => text.trim() !== ''}
              wrong="A frame needs a name."
            />
            <Button
              kind="bare"
              aria-label={`Take ${frame.name} off the list`}
              onPress={() => set('Frame taken off the list', ['shots', { id: frame.id }], undefined)}
            >
              <Trash2 size={17} aria-hidden />
            </Button>
            <p>{about(frame)}</p>
          </li>
        ))}
      </List>
    </Panel>
  );
}

type Frame = { kind?: string; lights_off?: string[]; people_out?: boolean };

function about({ kind, lights_off = [], people_out = false }: Frame): string {
  if (kind !== 'clean_plate') return 'With everything on.';
  const off = lights_off.length > 0 ? `${lights_off.join(', ')} off` : 'All lights as they are';
  return `${off}${people_out ? ', nobody in the frame' : ''}.`;
}
