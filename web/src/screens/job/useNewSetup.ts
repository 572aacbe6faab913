import { useCallback } from 'react';
import { answered, api, type Setup } from '../../api/client';
import { useJobKit, useJobRunner } from '../../session/job';

/** Makes a setup of the open job: a new one with what is owned, or a copy of the one with this id. */
export function useNewSetup(): (copyOf: string | undefined) => Promise<Setup> {
  const session = useJobRunner();
  const kit = useJobKit();
  return useCallback(
    async (copyOf) => {
      session.send({ type: 'letGo' });
      const setups = session.store.getState().kept?.setups ?? [];
      const body = { kit, setups, ...(copyOf === undefined ? {} : { copy_of: copyOf }) };
      const setup = await answered(api.POST('/api/v1/new-setup', { body }));
      const says = copyOf === undefined ? 'New setup' : 'Setup duplicated';
      session.send({ type: 'edit', says, changes: [{ at: ['setups', { id: setup.id }], to: setup }] });
      return setup;
    },
    [session, kit],
  );
}
