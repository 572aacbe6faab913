import styled from 'styled-components';
import type { GlassFinding, OnSet } from '../../api/client';
import { Button } from '../../ui/Button';
import { Panel, Part, Row } from '../../ui/Panel';
import { figures, space, type } from '../../ui/tokens';

const List = styled.ol`
  display: grid;
  gap: 0;
  li {
    border-top: 1px solid var(--line);
    padding: ${space.gap}px 0;
    display: grid;
    grid-template-columns: 1fr auto;
    gap: 2px ${space.part}px;
  }
  li > p {
    grid-column: 1;
  }
  b {
    ${figures} font-size: ${type.lead}px;
    grid-row: 1 / span 2;
    grid-column: 2;
    text-align: right;
  }
  small {
    display: block;
    font-size: ${type.small}px;
    font-weight: 400;
    color: var(--quiet);
  }
`;
const Dim = styled.p`
  color: var(--quiet);
`;

type Props = {
  all: GlassFinding[];
  pointed: string | undefined;
  point: (id: string | undefined) => void;
  choose: (thing: OnSet) => void;
};

/** What stands in which glass, in words, the strongest first: all that the drawing shows. */
export function Findings({ all, pointed, point, choose }: Props) {
  return (
    <Panel>
      <Part>What stands in the glass</Part>
      <List aria-label="What stands in the glass, the strongest first">
        {all.map((one) => (
          <li key={one.id}>
            <p>
              <strong>
                {one.name} in {one.glass_name}
              </strong>
              {!one.shows && ' (not seen)'}
            </p>
            <b>
              {one.over.stops === null ? 'nothing' : `${one.over.exact} stops`}
              <small>against what lies behind</small>
            </b>
            <Dim>{one.says}</Dim>
            <Row $gap={space.near}>
              <Button
                kind="bare"
                aria-pressed={one.id === pointed}
                onPress={() => {
                  point(one.id === pointed ? undefined : one.id);
                  choose(one.what);
                }}
              >
                Show it
              </Button>
            </Row>
          </li>
        ))}
      </List>
    </Panel>
  );
}
