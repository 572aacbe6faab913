import { useQuery } from '@tanstack/react-query';
import { ArrowDown, ArrowUp } from 'lucide-react';
import styled from 'styled-components';
import { answered, api, type Preference } from '../../api/client';
import { usePreferences } from '../../api/preferences';
import { useStart } from '../../api/start';
import { useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Facts } from '../../ui/Facts';
import { Wrong } from '../../ui/field';
import { Lead, Row } from '../../ui/Panel';
import { Sheet } from '../../ui/Sheet';
import { figures } from '../../ui/tokens';

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
const Why = styled(Lead)`
  color: var(--ink);
`;
const First = styled.h3`
  font-size: 13.5px;
  margin-bottom: 5px;
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
  li.bare {
    border: none;
    padding: 0;
  }
`;

/** A few truly different ways to the same wish: what each costs, and a click to take it. */
export default function Ways({ onClose }: { onClose: () => void }) {
  const { setup, kit, set, take } = useSetup();
  const { show, preferences, set: keep, failed } = usePreferences();
  const start = useStart();
  const { data, error } = useQuery({
    queryKey: ['ways', setup, kit, show],
    queryFn: () => answered(api.POST('/api/v1/alternatives', { body: { setup, kit, show } })),
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
    set('Order of preference', ['preferences'], to);
  };
  return (
    <Sheet title="Other ways" open onClose={onClose} width={960}>
      {error && <Wrong role="alert">No ways were found. {error.message}</Wrong>}
      {failed && <Wrong role="alert">The order was not remembered. {failed.message}</Wrong>}
      {data && <Why>{data.why}</Why>}
      {data?.active_limit && <Lead>What binds: {data.active_limit}</Lead>}
      <First>What is kept first</First>
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
        <li className="bare">
          <Button
            onPress={() => keep({ defaults: { ...preferences.defaults, preferences: order } })}
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
                    take(way.name, way.setup, setup);
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
