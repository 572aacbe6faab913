import styled from 'styled-components';
import type { OnSet, SetNote } from '../../api/client';
import { lightOf } from '../../instruments/map-of-light/things';
import { useLivePlan, useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Notice, Row } from '../../ui/Panel';
import { space } from '../../ui/tokens';

const List = styled.ul`
  display: grid;
  gap: ${space.near}px;
  margin-top: ${space.gap}px;
`;

const Line = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: ${space.near}px ${space.part}px;
  p {
    flex: 1 1 320px;
  }
`;

/** What there is to say of the set: what cannot stand so, what can hurt, what stands in the frame; or only what can hurt. */
export function Notices({ choose, hurting = false }: { choose: (thing: OnSet) => void; hurting?: boolean }) {
  const all = useLivePlan((plan) => plan.set?.notices) ?? [];
  const notices = hurting ? all.filter((note) => note.can_hurt) : all;
  if (notices.length === 0) return null;
  return (
    <List aria-label="What there is to say of the set">
      {notices.map((note, index) => (
        <li key={`${note.code}/${index}`}>
          <Notice>
            <Line>
              <p>
                <strong>{note.heading}. </strong>
                {note.says}
              </p>
              <Act note={note} choose={choose} />
            </Line>
          </Notice>
        </li>
      ))}
    </List>
  );
}

/** What can be done about it with one press. */
function Act({ note, choose }: { note: SetNote; choose: (thing: OnSet) => void }) {
  const { ask } = useSetup();
  const { about } = note;
  const light = lightOf(about ?? undefined);
  return (
    <Row $gap={6}>
      {note.code === 'other_side_lit' && (
        <Button onPress={() => ask('The other side is lit', { set: 'other_side' }, 'set/side')}>
          Let the other side be the lit one
        </Button>
      )}
      {light && note.away && (
        <Button
          onPress={() =>
            ask(
              `${light}: out of the frame`,
              { edit: { type: { at: ['lights', { id: light }, 'distance_m'], text: note.away?.label ?? '' } } },
              'set/frame',
            )
          }
        >
          Take {light} to {note.away.label}
        </Button>
      )}
      {light && note.up && (
        <Button
          onPress={() =>
            ask(
              `${light}: out of the frame`,
              { set: { raise: { thing: { light }, to_m: note.up?.at_m ?? null } } },
              'set/frame',
            )
          }
        >
          Raise {light} to {note.up.label}
        </Button>
      )}
      {note.code === 'flare' && (
        <Button onPress={() => ask('Flag', { set: { add_flag: light ? { light_id: light } : {} } }, 'set/flag')}>
          Put a flag there
        </Button>
      )}
      {about && (
        <Button kind="bare" onPress={() => choose(about)}>
          Show it
        </Button>
      )}
    </Row>
  );
}
