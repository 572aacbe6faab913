import { useQuery } from '@tanstack/react-query';
import styled from 'styled-components';
import { answered, api } from '../api/client';
import { usePreferences } from '../app/preferences';
import { figures } from '../app/theme';
import { useSetup } from '../jobs/JobContext';
import { Button } from '../ui/Button';
import { Lead, Row } from '../ui/Panel';
import { Sheet } from '../ui/Sheet';

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
export function Schools({ open, onClose }: { open: boolean; onClose: () => void }) {
  const { setup, kit, change } = useSetup();
  const { show, preferences, set } = usePreferences();
  const { data } = useQuery({
    queryKey: ['schools', setup, kit, show],
    queryFn: () => answered(api.POST('/api/v1/conventions', { body: { setup, kit, show } })),
    enabled: open,
    placeholderData: (before) => before,
    staleTime: Infinity,
  });
  const now = {
    blend: setup.blend,
    control: setup.lights[0]?.control ?? 'manual',
    school: setup.speed?.school ?? 'one_over_focal',
    exposure: setup.exposure ?? 'trust_the_meter',
    automatic_exposure: setup.automatic_exposure ?? 'nothing',
    depth: setup.depth ?? 'free',
    white_balance: setup.white_balance ?? 'flash',
  } as const;
  return (
    <Sheet title="Schools" open={open} onClose={onClose} width={860}>
      <Lead>Practitioners disagree. What each would set here:</Lead>
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
                    onPress={() => change(matter.matter, () => school.setup)}
                  >
                    Choose
                  </Button>
                )}
              </li>
            ))}
          </ul>
        </Matter>
      ))}
      <Row style={{ justifyContent: 'space-between' }}>
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
