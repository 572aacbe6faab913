import { memo } from 'react';
import styled from 'styled-components';
import type { DayTimeline } from '../../api/client';
import { useLivePlan } from '../../session/job';
import { Grid } from '../../ui/Panel';
import { figures } from '../../ui/tokens';

const List = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 3px 12px;
  margin-top: 6px;
  dt {
    ${figures}
    font-size: 15px;
  }
  div {
    display: contents;
  }
  div[aria-current] > * {
    font-weight: 650;
  }
`;

/** When the sun comes and goes on this day, and how long each kind of light lasts. */
export const Times = memo(function Times({ day }: { day: DayTimeline }) {
  const now = useLivePlan((plan) => {
    const minute = plan.sun_report?.minute ?? 0;
    return day.phases.findIndex((phase) => minute >= phase.from_minute && minute < phase.to_minute);
  });
  return (
    <Grid $min={280}>
      <section aria-labelledby="sun-times">
        <h3 id="sun-times">The sun on this day</h3>
        <List>
          {day.events.map((event) => (
            <div key={event.utc + event.event}>
              <dt>{event.clock}</dt>
              <dd>{event.says}</dd>
            </div>
          ))}
        </List>
      </section>
      <section aria-labelledby="kinds-of-light">
        <h3 id="kinds-of-light">Kinds of light</h3>
        <List>
          {day.phases.map((phase, index) => (
            <div key={phase.from_minute} aria-current={index === now ? 'time' : undefined}>
              <dt>{phase.says}</dt>
              <dd>{phase.name}</dd>
            </div>
          ))}
        </List>
      </section>
    </Grid>
  );
});
