import { useMutation } from '@tanstack/react-query';
import styled from 'styled-components';
import { answered, api, type RunSheet } from '../../api/client';
import { usePreferences } from '../../api/preferences';
import { useJob, useJobKit } from '../../session/job';
import { changesBetween } from '../../session/machine/change';
import { Button } from '../../ui/Button';
import { Wrong } from '../../ui/field';
import { Notice, Panel, Part } from '../../ui/Panel';
import { space, touch } from '../../ui/tokens';

const Lines = styled.div`
  display: grid;
  grid-template-columns: minmax(84px, 1fr) minmax(0, 1.2fr) minmax(0, 1.2fr);
  gap: ${space.gap}px;
  align-items: center;
  margin-bottom: ${space.gap}px;
  button {
    min-height: ${touch + 8}px;
    font-size: 16px;
  }
`;

/** A frame looked too dark or too bright somewhere: one tap puts a third into the right dial, and says why that one. */
export function Looked({ sheet, at }: { sheet: RunSheet; at: number | undefined }) {
  const { job, session } = useJob();
  const kit = useJobKit();
  const { show } = usePreferences();
  const setup = job.setups.find((one) => one.id === sheet.setup_id);
  const look = useMutation({
    mutationFn: async ({ region, thirds }: { region: string; thirds: number }) => {
      if (!setup) throw new Error('This setup is not there any more.');
      const when = at === undefined || sheet.steps.length === 0 ? {} : { at: new Date(at).toISOString() };
      const body = { setup, kit, show, region_id: region, thirds, ...when };
      const said = await answered(api.POST('/api/v1/run/looked', { body }));
      session.send({
        type: 'edit',
        says: said.change,
        changes: changesBetween(setup, said.setup, ['setups', { id: setup.id }]),
      });
      return said;
    },
  });
  if (sheet.regions.length === 0) return null;
  return (
    <Panel aria-label="The frame was too">
      <Part as="h2">The frame was too</Part>
      {sheet.regions.map(({ region_id, name }) => (
        <Lines key={region_id}>
          <span>{name}</span>
          <Button
            aria-label={`too dark ⅓: ${name}`}
            isDisabled={look.isPending}
            onPress={() => look.mutate({ region: region_id, thirds: 1 })}
          >
            dark ⅓
          </Button>
          <Button
            aria-label={`too bright ⅓: ${name}`}
            isDisabled={look.isPending}
            onPress={() => look.mutate({ region: region_id, thirds: -1 })}
          >
            bright ⅓
          </Button>
        </Lines>
      ))}
      {look.data && (
        <Notice role="status">
          <strong>{look.data.does || 'Nothing turns'}. </strong>
          {look.data.why} <br />
          <Button
            onPress={() => {
              session.send({ type: 'undo' });
              look.reset();
            }}
          >
            Take it back
          </Button>
        </Notice>
      )}
      {look.error && <Wrong role="alert">{look.error.message}</Wrong>}
    </Panel>
  );
}
