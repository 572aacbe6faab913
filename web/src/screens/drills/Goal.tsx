import type { DrillProgress } from '../../api/client';
import { usePreferences } from '../../api/preferences';
import { Choice } from '../../ui/Choice';
import { Quiet, Row } from '../../ui/Panel';

const goals = [0, 10, 20, 30, 50, 100];

/** How many were done this week, and how many somebody wants to do. */
export function Goal({ progress }: { progress: DrillProgress }) {
  const { preferences, set } = usePreferences();
  const { this_week } = progress;
  const a_week = preferences.drills_a_week ?? 0;
  return (
    <Row $apart $below>
      <Quiet>
        {this_week} answered this week
        {a_week > 0 &&
          (this_week >= a_week ? `: the ${a_week} you set yourself are done.` : ` of the ${a_week} you set yourself.`)}
        {a_week === 0 && '.'}
      </Quiet>
      <Choice
        name="A week"
        value={String(a_week)}
        options={[...new Set([...goals, a_week])]
          .sort((a, b) => a - b)
          .map((one) => ({ id: String(one), label: one === 0 ? 'No goal' : `${one} drills` }))}
        onChange={(to) => set({ drills_a_week: Number(to) })}
      />
    </Row>
  );
}
