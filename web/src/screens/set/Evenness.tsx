import styled from 'styled-components';
import { useLivePlan, useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Panel, Part, Row } from '../../ui/Panel';
import { figures, space } from '../../ui/tokens';

const List = styled.ol`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(170px, 1fr));
  gap: 2px ${space.wide}px;
  margin: ${space.gap}px 0;
  li {
    display: flex;
    justify-content: space-between;
    gap: ${space.gap}px;
    border-bottom: 1px solid var(--hair);
    padding: 3px 0;
  }
  b {
    ${figures} font-weight: 650;
  }
`;

/** Who gets how much of the flash, the worst named, and what would bring all within a third. */
export function Evenness() {
  const { ask } = useSetup();
  const even = useLivePlan((plan) => plan.set?.evenness);
  if (!even) return null;
  return (
    <Panel>
      <Part>How evenly the group is lit</Part>
      <p>{even.says}</p>
      <List aria-label="Each person against the middle, in stops">
        {even.people.map((person) => (
          <li key={person.person_id}>
            <span>
              {person.name}
              {person.worst ? ', the worst' : ''}
            </span>
            <b>{person.stops.stops === null ? 'none' : `${person.stops.exact} stops`}</b>
          </li>
        ))}
      </List>
      {even.moves.length > 0 && (
        <Row>
          <Button
            kind="strong"
            onPress={() => ask('Lit evenly', { set: { even: { light_ids: even.moves } } }, 'set/even')}
          >
            Put {even.moves.join(' and ')} there
          </Button>
        </Row>
      )}
    </Panel>
  );
}
