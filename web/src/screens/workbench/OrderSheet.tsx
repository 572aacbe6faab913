import { Sheet } from '../../ui/Sheet';
import { OrderOfWork } from './OrderOfWork';
import type { StepId } from './steps';

/** The order of work over the step, where there is no room beside it. */
export default function OrderSheet({ base, step, onClose }: { base: string; step: StepId; onClose: () => void }) {
  return (
    <Sheet title="Order of work" open onClose={onClose} width={480}>
      <OrderOfWork base={base} step={step} untitled />
    </Sheet>
  );
}
