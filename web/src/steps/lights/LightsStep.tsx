import { Plus } from 'lucide-react';
import { useState } from 'react';
import { Tab, TabList, TabPanel, Tabs } from 'react-aria-components';
import styled from 'styled-components';
import type { Light, Plan } from '../../api/client';
import { useSetup } from '../../jobs/JobContext';
import { Button } from '../../ui/Button';
import { Lead, Panel, Row, Stack, Title } from '../../ui/Panel';
import { OneLight } from './OneLight';
import { TriggerPanel } from './TriggerPanel';
import { defaultOf } from '../../api/ranges';

const Letters = styled(TabList)`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
`;
const Letter = styled(Tab)`
  min-height: 36px;
  padding: 4px 12px;
  border: 1px solid var(--control-line);
  border-radius: 7px;
  cursor: pointer;
  display: inline-flex;
  align-items: center;
  gap: 7px;
  b {
    font-weight: 700;
  }
  &[data-selected] {
    background: var(--ink);
    color: var(--panel);
  }
  &[data-focus-visible] {
    outline: 2.5px solid var(--focus);
    outline-offset: 2px;
  }
  @media (pointer: coarse) {
    min-height: 44px;
  }
`;

const letters = 'ABCDEFGH';

/** Which units, what each is there for, where, and what power. */
export function LightsStep({ plan }: { plan: Plan }) {
  const { setup, kit, change } = useSetup();
  const [shown, setShown] = useState<string>();
  const flash = kit.flashes.find((one) => !('continuous' in one.output)) ?? kit.flashes[0];
  const free = [...letters].find((letter) => !setup.lights.some((light) => light.id === letter));
  const selected = setup.lights.find((light) => light.id === shown) ?? setup.lights[0];
  const add = () => {
    if (!flash || !free) return;
    const shadow = setup.regions.find((region) => region.role === 'shadow_side');
    const first = setup.lights.length === 0;
    const light: Light = {
      id: free,
      flash_id: flash.id,
      modifier_id: kit.modifiers[0]?.id ?? null,
      distance_m: 1.5,
      group: setup.lights.length + 1,
      // The first is the key; another one is most likely to open the shadow.
      ...(first || !shadow
        ? {}
        : { wish: { fill: { ratio_stops: defaultOf('LightWish.fill.ratio_stops') } }, aimed_at: shadow.id }),
    };
    change('Light added', (one) => ({ ...one, lights: [...one.lights, light] }));
    setShown(free);
  };
  return (
    <Stack>
      <Panel>
        <Title>Lights</Title>
        <Lead>
          {setup.lights.length === 0
            ? 'There is no flash in this setup. Ambient only and silhouette need none.'
            : 'Each light reaches every region it is said to; their powers are found together.'}
        </Lead>
        {flash ? (
          <Tabs {...(selected ? { selectedKey: selected.id } : {})} onSelectionChange={(key) => setShown(String(key))}>
            <Row style={{ marginBottom: setup.lights.length > 0 ? 14 : 0 }}>
              {setup.lights.length > 0 && (
                <Letters aria-label="Lights">
                  {setup.lights.map((light) => {
                    const card = plan.dial_card.lights.find((one) => one.light_id === light.id);
                    return (
                      <Letter key={light.id} id={light.id}>
                        <b>{light.id}</b> {card?.role}
                      </Letter>
                    );
                  })}
                </Letters>
              )}
              {free && (
                <Button kind={setup.lights.length === 0 ? 'strong' : 'plain'} onPress={add}>
                  <Plus size={16} aria-hidden /> {setup.lights.length === 0 ? 'Add a flash' : 'Add a light'}
                </Button>
              )}
            </Row>
            {setup.lights.map((light) => (
              <TabPanel key={light.id} id={light.id}>
                <OneLight light={light} plan={plan} />
              </TabPanel>
            ))}
          </Tabs>
        ) : (
          <p>The kit has no flash: add one there.</p>
        )}
      </Panel>
      {setup.lights.length > 0 && <TriggerPanel />}
    </Stack>
  );
}
