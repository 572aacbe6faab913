import type { SameSaid } from '../../api/client';
import { Notice, Quiet } from '../../ui/Panel';

/** Whether a plate, a pair or a stack came at the settings of its picture. */
export function PlateNote({ same }: { same: SameSaid }) {
  if (same.good) return <Quiet data-testid="plate">{same.says}</Quiet>;
  return (
    <Notice data-testid="plate">
      <strong>Look at this one. </strong>
      {same.says}
    </Notice>
  );
}
