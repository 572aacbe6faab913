import { Radio, Zap } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { answered, api, ApiProblem, type Heard } from '../../api/client';
import '../../api/moreFields';
import { fieldOf } from '../../api/fields';
import { LooseField } from '../../session/fields/LooseField';
import { useJob, useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Lead, Panel, Row } from '../../ui/Panel';
import { Wrong } from '../../ui/field';

const List = styled.ul`
  margin-top: 10px;
  li {
    border-top: 1px solid var(--line);
    padding: 6px 0;
    display: flex;
    gap: 12px;
    align-items: baseline;
  }
  b {
    min-width: 118px;
    font-weight: 650;
  }
`;

const Channel = styled.div`
  width: 150px;
`;

const words: Record<Heard['state'], string> = {
  ready: 'Ready',
  off: 'Off',
  recycling: 'Recycling',
  out_of_reach: 'Out of reach',
  empty: 'Battery empty',
  overheated: 'Too hot',
};

/** The radio trigger: powers go to the units, and each reports back. A stand-in for the real one. */
export function TriggerPanel() {
  const { id } = useJob();
  const { setup, kit } = useSetup();
  const [channel, setChannel] = useState(1);
  const [heard, setHeard] = useState<Heard[]>();
  const [failed, setFailed] = useState<string>();
  const trigger = kit.triggers[0];
  const send = async (does: 'send' | 'fire') => {
    try {
      setHeard(await answered(api.POST('/api/v1/trigger', { body: { setup, kit, does, channel } })));
      setFailed(undefined);
    } catch (failure) {
      setFailed(failure instanceof ApiProblem ? failure.message : 'The trigger does not answer.');
    }
  };
  return (
    <Panel aria-labelledby="trigger">
      <h3 id="trigger">Trigger</h3>
      <Lead>
        {trigger?.name ?? 'Radio trigger'}, simulated: receivers with groups of their own that can be out of reach,
        empty, still recycling or too hot.
      </Lead>
      <Row>
        <Channel>
          <LooseField
            name="Channel"
            as="number"
            value={channel}
            keptAs={`${id}/trigger/channel`}
            least={fieldOf('Trigger.channels').least}
            most={trigger?.channels ?? fieldOf('Trigger.channels').most}
            whole
            onValue={setChannel}
          />
        </Channel>
        <Button onPress={() => void send('send')}>
          <Radio size={16} aria-hidden /> Send the powers
        </Button>
        <Button onPress={() => void send('fire')}>
          <Zap size={16} aria-hidden /> Take a test frame
        </Button>
      </Row>
      {failed && <Wrong role="alert">{failed}</Wrong>}
      {heard && (
        <List aria-label="What the units report" aria-live="polite">
          {heard.map((one) => (
            <li key={one.light_id}>
              <b>{words[one.state]}</b>
              <span>
                {one.says} Group {one.group}.{one.flashed ? ' It flashed.' : ''}
              </span>
            </li>
          ))}
        </List>
      )}
    </Panel>
  );
}
