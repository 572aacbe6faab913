import { memo } from 'react';
import { keepPreviousData, useQuery } from '@tanstack/react-query';
import styled from 'styled-components';
import { answered, api } from '../../api/client';
import { useJob, useSetup } from '../../session/job';
import { Wrong } from '../../ui/field';
import { Button } from '../../ui/Button';
import { Lead, Panel, Row } from '../../ui/Panel';

const List = styled.ul`
  li {
    border-top: 1px solid var(--line);
    padding: 7px 0;
    display: grid;
    grid-template-columns: minmax(0, 1.4fr) minmax(0, 1fr) minmax(0, 1fr) 92px;
    gap: 2px 12px;
    align-items: center;
    min-height: 44px;
  }
  small {
    font-size: 13px;
    color: var(--quiet);
  }
  @media (max-width: 560px) {
    li {
      grid-template-columns: 1fr auto;
    }
    li > :nth-child(2),
    li > :nth-child(3) {
      grid-column: 1;
    }
    li > :last-child {
      grid-column: 2;
      grid-row: 1 / span 3;
    }
  }
`;

/** One white balance over several setups of the job: which of them differ, and by how much. */
export const OneLook = memo(function OneLook() {
  const { job, session } = useJob();
  const { setup, kit } = useSetup();
  const { data, error } = useQuery({
    queryKey: ['look', job.setups, kit, setup.id],
    queryFn: () => answered(api.POST('/api/v1/look', { body: { setups: job.setups, kit, of: setup.id } })),
    placeholderData: keepPreviousData,
    staleTime: Infinity,
    retry: false,
  });
  if (job.setups.length < 2) return null;
  if (!data) return error ? <Wrong role="alert">The look could not be compared. {error.message}</Wrong> : null;
  const hold = (ids: string[]) =>
    session.send({
      type: 'edit',
      says: 'White balance held',
      changes: data.lines.flatMap(({ setup_id: id, held }) =>
        held && ids.includes(id) ? [{ at: ['setups', { id }, 'white_balance'], to: held.white_balance }] : [],
      ),
    });
  const others = data.lines.filter((line) => !line.same).map((line) => line.setup_id);
  return (
    <Panel aria-labelledby="look">
      <h3 id="look">One look</h3>
      <Lead>{data.says} Held over a sequence, one correction fits every frame.</Lead>
      <List aria-label="Setups of the job">
        {data.lines.map((line) => (
          <li key={line.setup_id}>
            <strong>{line.name}</strong>
            <span>
              {line.balance}
              {line.setup_id === setup.id ? ', this one' : ''}
            </span>
            <small>
              {line.setup_id === setup.id ? '' : `${line.differs}; `}face {line.face}
            </small>
            {line.held ? (
              <Button aria-label={`Hold it in ${line.name}`} onPress={() => hold([line.setup_id])}>
                Hold it
              </Button>
            ) : (
              <span />
            )}
          </li>
        ))}
      </List>
      {others.length > 0 && (
        <Row $below>
          <Button onPress={() => hold(others)}>Hold it over the whole job</Button>
        </Row>
      )}
    </Panel>
  );
});
