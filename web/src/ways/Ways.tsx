import { useQuery } from '@tanstack/react-query';
import { ArrowDown, ArrowUp } from 'lucide-react';
import styled from 'styled-components';
import { answered, api, type Preference } from '../api/client';
import { usePreferences } from '../app/preferences';
import { useStart } from '../app/start';
import { useSetup } from '../jobs/JobContext';
import { Button } from '../ui/Button';
import { Facts } from '../ui/Facts';
import { Lead, Row } from '../ui/Panel';
import { Sheet } from '../ui/Sheet';
import { figures } from '../app/theme';

const List = styled.ol`
  display: grid;
  gap: 10px;
  grid-template-columns: repeat(auto-fill, minmax(min(100%, 300px), 1fr));
  li {
    border: 1px solid var(--line);
    border-radius: 9px;
    padding: 11px 13px;
    display: flex;
    flex-direction: column;
    gap: 6px;
  }
  li[data-current] {
    border: 2px solid var(--ink);
  }
  h3 {
    font-size: 15px;
  }
  .settings {
    ${figures} font-size: 16px;
    font-weight: 620;
  }
  .use {
    margin-top: auto;
    padding-top: 4px;
  }
`;
const Order = styled.ol`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-bottom: 14px;
  li {
    display: inline-flex;
    align-items: center;
    gap: 2px;
    border: 1px solid var(--line);
    border-radius: 7px;
    padding: 0 4px 0 10px;
  }
`;

/** A few truly different ways to the same wish: what each costs, and a click to take it. */
export function Ways({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { setup, kit, change } = useSetup();
  const { show, preferences, set } = usePreferences();
  const start = useStart();
  const { data } = useQuery({
    queryKey: ['ways', setup, kit, show],
    queryFn: () => answered(api.POST('/api/v1/alternatives', { body: { setup, kit, show } })),
    enabled: open,
    placeholderData: (before) => before,
    staleTime: Infinity,
  });
  const names = start?.preferences ?? [];
  const order = setup.preferences ?? names.map((one) => one.preference);
  const move = (preference: Preference, by: number) => {
    const from = order.indexOf(preference);
    const to = [...order];
    to.splice(from, 1);
    to.splice(from + by, 0, preference);
    change('Order of preference', (one) => ({ ...one, preferences: to }));
  };
  return (
    <Sheet title="Other ways" open={open} onClose={onClose} width={960}>
      {data && <Lead style={{ color: 'var(--ink)' }}>{data.why}</Lead>}
      {data?.active_limit && <Lead>What binds: {data.active_limit}</Lead>}
      <h3 style={{ fontSize: 13.5, marginBottom: 5 }}>What is kept first</h3>
      <Order>
        {order.map((preference, index) => {
          const name = names.find((one) => one.preference === preference)?.name ?? preference;
          return (
            <li key={preference}>
              {index + 1}. {name}
              <Button
                kind="bare"
                aria-label={`${name}: earlier`}
                isDisabled={index === 0}
                onPress={() => move(preference, -1)}
              >
                <ArrowUp size={15} aria-hidden />
              </Button>
              <Button
                kind="bare"
                aria-label={`${name}: later`}
                isDisabled={index === order.length - 1}
                onPress={() => move(preference, 1)}
              >
                <ArrowDown size={15} aria-hidden />
              </Button>
            </li>
          );
        })}
        <li style={{ border: 'none', padding: 0 }}>
          <Button
            onPress={() => set({ defaults: { ...preferences.defaults, preferences: order } })}
            isDisabled={JSON.stringify(preferences.defaults?.preferences) === JSON.stringify(order)}
          >
            Remember for new setups
          </Button>
        </li>
      </Order>
      <List aria-label="Ways">
        {data?.options.map((way) => (
          <li key={way.name} data-current={way.current || undefined}>
            <h3>{way.name}</h3>
            <p className="settings">{way.settings}</p>
            {!way.possible && <p>Not as wished.</p>}
            {way.current ? <p>Chosen now.</p> : <Facts name={`${way.name}: against now`} facts={way.costs} />}
            {!way.current && (
              <Row className="use">
                <Button
                  aria-label={`Take this way: ${way.name}`}
                  onPress={() => {
                    change(way.name, () => way.setup);
                    onClose();
                  }}
                >
                  Take this way
                </Button>
              </Row>
            )}
          </li>
        ))}
      </List>
    </Sheet>
  );
}
