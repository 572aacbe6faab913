import { useCallback, useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { answered, api, ApiProblem, type SunReport, type LocalTime, type Scene } from '../../api/client';
import { useJob } from '../../jobs/JobContext';
import { readTyped, writeTyped } from '../../jobs/drafts';
import { Button } from '../../ui/Button';
import { DayField, HourField } from '../../ui/DayAndHour';
import { Wrong } from '../../ui/field';
import { Segments } from '../../ui/Segments';
import { useScene } from './useScene';

const Line = styled.div`
  display: grid;
  grid-template-columns: minmax(130px, 1fr) 84px auto;
  gap: 8px;
  align-items: end;
`;

/** The day and the hour by the clocks of the place. An hour that is none stays in the fields, with what is wrong. */
export function WhenFields({ scene, here }: { scene: Scene; here: SunReport | null | undefined }) {
  const { id } = useJob();
  const { put } = useScene();
  const keptAs = `${id}/when`;
  const [tried, setTried] = useState<LocalTime | undefined>(() => {
    const [date, time] = (readTyped(keptAs) ?? '').split(' ');
    return date && time ? { date, time, second_time: false } : undefined;
  });
  const [wrong, setWrong] = useState<string>();
  const shown = tried ?? scene.at;

  const go = async (at: LocalTime | undefined) => {
    try {
      const body = { time_zone: scene.site.time_zone, ...(at ? { at } : {}) };
      const moment = await answered(api.POST('/api/v1/moment', { body }));
      put('Hour', { at: moment.at });
      setTried(undefined);
      setWrong(undefined);
      writeTyped(keptAs, undefined);
    } catch (failure) {
      setWrong(failure instanceof ApiProblem ? failure.message : 'Tolva does not answer.');
      if (at) writeTyped(keptAs, `${at.date} ${at.time}`);
    }
  };

  // The day's field need not be made anew while the hour is dragged.
  const latest = useRef({ shown, go });
  useEffect(() => {
    latest.current = { shown, go };
  });
  const timer = useRef<number>(undefined);
  /** Digits typed in a row are one hour: it counts when the typing rests. */
  const type = useCallback((part: Partial<LocalTime>) => {
    const at = { ...latest.current.shown, ...part, second_time: false };
    setTried(at);
    window.clearTimeout(timer.current);
    timer.current = window.setTimeout(() => void latest.current.go(at), 400);
  }, []);
  const onDate = useCallback((date: string) => type({ date }), [type]);

  return (
    <div>
      <Line>
        <DayField name="Day" date={shown.date} onDate={onDate} />
        <HourField name="Hour" time={shown.time} onTime={(time) => type({ time })} />
        <Button onPress={() => void go(undefined)} aria-label="Now: today, and the hour it is there">
          Now
        </Button>
      </Line>
      {wrong && <Wrong role="alert">{wrong}</Wrong>}
      {here?.comes_twice && (
        <div style={{ marginTop: 8 }}>
          <Segments
            name="Clocks show this hour twice"
            value={scene.at.second_time ? 'second' : 'first'}
            options={[
              { id: 'first', label: 'First time' },
              { id: 'second', label: 'Second time' },
            ]}
            onChange={(which) => put('Hour', { at: { ...scene.at, second_time: which === 'second' } })}
          />
        </div>
      )}
    </div>
  );
}
