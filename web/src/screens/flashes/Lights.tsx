import { Plus } from 'lucide-react';
import { Tab, TabList, TabPanel, Tabs } from 'react-aria-components';
import styled from 'styled-components';
import { mostOf } from '../../api/fields';
import { Told } from '../../instruments/Told';
import { useLivePlan, useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Lead, Panel, Part, Row, Stack } from '../../ui/Panel';
import { chipLook } from '../../ui/field';
import { space } from '../../ui/tokens';
import { OneLight } from './OneLight';
import { TriggerPanel } from './TriggerPanel';

const Letters = styled(TabList)`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`;
const Letter = styled(Tab)`
  ${chipLook}
  gap: 7px;
  b {
    font-weight: 700;
  }
`;
const Line = styled(Row)`
  margin-bottom: ${space.part}px;
`;
/** The tabs and what one shows are as large as the panel: their parts show where the focus is. */
const Flashes = styled(Tabs)`
  outline: none;
`;
const Shown = styled(TabPanel)`
  outline: none;
`;

type Props = { shown: string | undefined; setShown: (light: string) => void };

/** Which units, what each is there for, and what power. */
export function Lights({ shown, setShown }: Props) {
  const { setup, kit, ask } = useSetup();
  const roles = useLivePlan((plan) => plan.dial_card.lights.map((one) => `${one.light_id} ${one.role}`).join('\n'));
  const { lights } = setup;
  const selected = lights.find((light) => light.id === shown) ?? lights.at(shown === 'new' ? -1 : 0);
  const roleOf = (id: string) =>
    roles
      ?.split('\n')
      .find((one) => one.startsWith(`${id} `))
      ?.slice(id.length + 1);
  return (
    <Stack>
      <Panel>
        <Part as="h3">Lights</Part>
        <Lead>
          {lights.length === 0
            ? 'There is no flash in this setup. Ambient only and silhouette need none.'
            : setup.set
              ? 'What each light reaches is worked out from where it stands; their powers are found together.'
              : 'Each light reaches every region it is said to; their powers are found together.'}
        </Lead>
        {kit.flashes.length > 0 ? (
          <Flashes
            {...(selected ? { selectedKey: selected.id } : {})}
            onSelectionChange={(key) => setShown(String(key))}
          >
            <Line>
              {lights.length > 0 && (
                <Letters aria-label="Lights">
                  {lights.map((light) => (
                    <Letter key={light.id} id={light.id}>
                      <b>{light.id}</b> {roleOf(light.id)}
                    </Letter>
                  ))}
                </Letters>
              )}
              {lights.length < mostOf('Setup.lights') && (
                <Button
                  kind={lights.length === 0 ? 'strong' : 'plain'}
                  onPress={() => {
                    ask('Light added', 'add_light', 'lights');
                    setShown('new');
                  }}
                >
                  <Plus size={16} aria-hidden /> {lights.length === 0 ? 'Add a flash' : 'Add a light'}
                </Button>
              )}
            </Line>
            <Told about="lights" />
            {lights.map((light) => (
              <Shown key={light.id} id={light.id}>
                <OneLight light={light} />
              </Shown>
            ))}
          </Flashes>
        ) : (
          <p>The kit has no flash: add one there.</p>
        )}
      </Panel>
      {lights.length > 0 && <TriggerPanel />}
    </Stack>
  );
}
