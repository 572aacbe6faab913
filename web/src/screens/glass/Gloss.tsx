import styled from 'styled-components';
import type { GlassReport } from '../../api/client';
import { useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Panel, Part, Row } from '../../ui/Panel';
import { space } from '../../ui/tokens';

const One = styled.div`
  margin-top: ${space.gap}px;
`;

/** Shiny products: what they mirror, and the card that fills them from end to end. */
export function Gloss({ all }: { all: GlassReport['gloss'] }) {
  const { ask } = useSetup();
  return (
    <Panel>
      <Part>What shines mirrors</Part>
      {all.map((one) => (
        <One key={one.product_id}>
          <p>
            <strong>{one.name}. </strong>
            {one.says}
          </p>
          {one.card && (
            <Row $below>
              {(['white', 'black'] as const).map((kind) => (
                <Button
                  key={kind}
                  onPress={() =>
                    ask(
                      `A ${kind} card for ${one.name}`,
                      { set: { card_for_gloss: { product_id: one.product_id, kind } } },
                      'set/glass',
                    )
                  }
                >
                  Put a {kind} card there
                </Button>
              ))}
            </Row>
          )}
        </One>
      ))}
    </Panel>
  );
}
