import { type KeyboardEvent, useState } from 'react';
import { mergeProps, useFocusWithin } from 'react-aria';
import { useStore } from 'zustand';
import styled from 'styled-components';
import { answered, api, ApiProblem, type LocalTime } from '../../api/client';
import { useHold, useJobRunner, useLivePlan, useSetup, useShownSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { DayField, HourField } from '../../ui/DayAndHour';
import { Wrong } from '../../ui/field';
import { Segments } from '../../ui/Segments';
import { space } from '../../ui/tokens';

const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(130px, 1fr) 84px auto;
  gap: ${space.near}px;
  align-items: end;
  > * {
    align-self: end;
  }
  margin-bottom: ${space.near}px;
`;

const written = (at: LocalTime) => `${at.date} ${at.time}`;

/**
 * The day and the hour by the clocks of the place. They show what they do while they are typed, and are set when the
 * fields are left or Enter is pressed. An hour that is none stays in the fields, with what is wrong.
 */
export function WhenFields() {
  const session = useJobRunner();
  const { set } = useSetup();
  const scene = useShownSetup().scene;
  const twice = useLivePlan((plan) => plan.sun_report?.comes_twice);
  const hold = useHold('when', 'Hour');
  const text = useStore(session.store, (state) => state.texts[hold.target]);
  const [wrong, setWrong] = useState<string>();
  const finish = () => {
    if (session.store.getState().held?.target === hold.target) hold.letGo();
  };
  const { focusWithinProps } = useFocusWithin({ onBlurWithin: finish });
  // Before the segments hear it: they keep what they know to themselves.
  const keys = {
    onKeyDownCapture: (event: KeyboardEvent) => {
      if (event.key === 'Enter') finish();
      if (event.key === 'Escape') hold.cancel();
    },
  };
  if (!scene) return null;
  const [date = scene.at.date, time = scene.at.time] = text?.text.split(' ') ?? [];

  const type = (part: Partial<LocalTime>) => {
    const to = { date, time, second_time: false, ...part };
    const { held } = session.store.getState();
    const again = held?.target === hold.target ? (held.text?.split(' ') ?? []) : [];
    // The other of the two may have been typed since this was drawn.
    const at = {
      ...to,
      ...(part.date ? {} : { date: again[0] ?? to.date }),
      ...(part.time ? {} : { time: again[1] ?? to.time }),
    };
    hold.type({ hour: at }, written(at));
  };
  const now = async () => {
    try {
      const { at } = await answered(api.POST('/api/v1/moment', { body: { time_zone: scene.site.time_zone } }));
      set('Hour', ['scene', 'at'], at);
      hold.cancel();
      setWrong(undefined);
    } catch (failure) {
      setWrong(failure instanceof ApiProblem ? failure.message : 'Tolva does not answer.');
    }
  };
  const told = wrong ?? (text?.state === 'wrong' ? text.message : undefined);

  return (
    <div {...mergeProps(focusWithinProps, keys)}>
      <Line>
        <DayField name="Day" date={date} onDate={(to) => type({ date: to })} />
        <HourField name="Hour" time={time} onTime={(to) => type({ time: to })} />
        <Button onPress={() => void now()} aria-label="Now: today, and the hour it is there">
          Now
        </Button>
      </Line>
      {told && <Wrong role="alert">{told}</Wrong>}
      {twice && (
        <Segments
          name="Clocks show this hour twice"
          value={scene.at.second_time ? 'second' : 'first'}
          options={[
            { id: 'first', label: 'First time' },
            { id: 'second', label: 'Second time' },
          ]}
          onChange={(which) => set('Hour', ['scene', 'at', 'second_time'], which === 'second')}
        />
      )}
    </div>
  );
}
