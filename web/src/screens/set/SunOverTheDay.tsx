import { DayStrip } from '../../instruments/day-strip/DayStrip';
import { useDay } from '../../instruments/day-strip/useDay';
import { useLivePlan, useSetup } from '../../session/job';
import { Facts } from '../../ui/Facts';
import { Panel, Part } from '../../ui/Panel';

/** The sun's shadows at the hour, which is dragged along the day: the map follows. */
export function SunOverTheDay() {
  const { setup, kit } = useSetup();
  const day = useDay(setup, kit);
  const sun = useLivePlan((plan) => plan.set?.sun);
  if (!setup.scene || !day) return null;
  return (
    <Panel>
      <Part>The sun on the set</Part>
      {sun && sun.length > 0 ? (
        <Facts name="The sun on the set" facts={sun} />
      ) : (
        <p>At this hour the sun throws no shadow here.</p>
      )}
      <DayStrip day={day} />
    </Panel>
  );
}
