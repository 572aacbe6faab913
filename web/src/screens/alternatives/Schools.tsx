import { useQuery } from '@tanstack/react-query';
import styled from 'styled-components';
import { answered, api } from '../../api/client';
import { usePreferences } from '../../api/preferences';
import { useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Wrong } from '../../ui/field';
import { Lead, Row } from '../../ui/Panel';
import { Sheet } from '../../ui/Sheet';
import { figures } from '../../ui/tokens';

const Matter = styled.section`
  margin-bottom: 14px;
  h3 {
    font-size: 15px;
    margin-bottom: 2px;
  }
  li {
    display: grid;
    grid-template-columns: minmax(0, 1.1fr) minmax(0, 1.4fr) 84px;
    gap: 4px 14px;
    align-items: center;
    border-top: 1px solid var(--line);
    padding: 4px 0;
    min-height: 40px;
  }
  li[data-chosen] > :first-child {
    font-weight: 650;
  }
  .settings {
    ${figures}
  }
  small {
    display: block;
    font-size: 13px;
    color: var(--quiet);
  }
  @media (max-width: 560px) {
    li {
      grid-template-columns: 1fr auto;
    }
    .settings {
      grid-column: 1 / -1;
      grid-row: 2;
    }
  }
`;

/** What each school would set, side by side. */
export default function Schools({ onClose }: { onClose: () => void }) {
  const { setup, kit, take } = useSetup();
  const { show, preferences, set, failed } = usePreferences();
  const { data, error } = useQuery({
    queryKey: ['schools', setup, kit, show],
    queryFn: () => answered(api.POST('/api/v1/conventions', { body: { setup, kit, show } })),
    placeholderData: (before) => before,
    staleTime: Infinity,
  });
  // What is not said is not remembered: it stays as Tolva has it.
  const now = {
    blend: setup.blend,
    control: setup.lights[0]?.control,
    school: setup.speed?.school,
    exposure: setup.exposure,
    automatic_exposure: setup.automatic_exposure,
    depth: setup.depth,
    white_balance: setup.white_balance,
  };
  return (
    <Sheet title="Schools" open onClose={onClose} width={860}>
      <Lead>Practitioners disagree. What each would set here:</Lead>
      {error && <Wrong role="alert">This could not be worked out. {error.message}</Wrong>}
      {failed && <Wrong role="alert">This was not remembered. {failed.message}</Wrong>}
      {data?.map((matter) => (
        <Matter key={matter.matter} aria-label={matter.matter}>
          <h3>{matter.matter}</h3>
          <ul>
            {matter.conventions.map((school) => (
              <li key={school.name} data-chosen={school.chosen || undefined}>
                <span>{school.name}</span>
                <span className="settings">
                  {school.settings}
                  {school.says && <small>{school.says}</small>}
                </span>
                {school.chosen ? (
                  <span>chosen</span>
                ) : (
                  <Button
                    aria-label={`Choose ${matter.matter}: ${school.name}`}
                    onPress={() => take(matter.matter, school.setup, setup)}
                  >
                    Choose
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </Matter>
      ))}
      <Row $apart>
        <Button onPress={() => set({ defaults: { ...preferences.defaults, ...now } })}>
          Remember these for new setups
        </Button>
        <Button kind="strong" onPress={onClose}>
          Done
        </Button>
      </Row>
    </Sheet>
  );
}
