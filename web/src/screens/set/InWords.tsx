import { Download } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { answered, api, linesOf } from '../../api/client';
import { usePreferences } from '../../api/preferences';
import { useLivePlan, useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Wrong } from '../../ui/field';
import { Panel, Part, Row } from '../../ui/Panel';
import { space } from '../../ui/tokens';

const List = styled.ol`
  display: grid;
  gap: ${space.hair}px;
  margin-bottom: ${space.gap}px;
  list-style: decimal inside;
`;

/** The set as one would tell a helper, and as a drawing to scale to take along. */
export function InWords() {
  const { setup, kit, ask } = useSetup();
  const { show } = usePreferences();
  const set = useLivePlan((plan) => plan.set);
  const [wrong, setWrong] = useState<string>();
  if (!set) return null;
  const take = async () => {
    try {
      const { drawing } = await answered(api.POST('/api/v1/set', { body: { setup, kit, show } }));
      const link = document.createElement('a');
      link.href = URL.createObjectURL(new Blob([drawing], { type: 'image/svg+xml' }));
      link.download = `${setup.name.replace(/[^\p{L}\p{N}]+/gu, '-')}-set.svg`;
      link.click();
      URL.revokeObjectURL(link.href);
      setWrong(undefined);
    } catch (failure) {
      setWrong(linesOf(failure, 'The drawing did not come.')[0]);
    }
  };
  return (
    <Panel>
      <Part>The set in words</Part>
      <List aria-label="The set in words">
        {set.moves.map((move) => (
          <li key={move}>{move}</li>
        ))}
      </List>
      <Row $below>
        <Button onPress={() => void take()}>
          <Download size={16} aria-hidden /> Drawing to scale, SVG
        </Button>
        {setup.set && (
          <Button kind="bare" onPress={() => ask('Set put aside', { set: 'put_aside' }, 'set/aside')}>
            Put the set aside: back to what was typed
          </Button>
        )}
      </Row>
      {wrong && <Wrong role="alert">{wrong}</Wrong>}
    </Panel>
  );
}
