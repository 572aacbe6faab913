import { useQuery } from '@tanstack/react-query';
import { CalendarPlus, Download, Pause, Play, Printer } from 'lucide-react';
import { useEffect, useState } from 'react';
import styled from 'styled-components';
import { answered, api, type ApiProblem, type FallingStep as Change, type Timetable } from '../../api/client';
import { usePreferences } from '../../api/preferences';
import { useStart } from '../../api/start';
import { useJob, useSetup } from '../../session/job';
import { Button, ButtonLink } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Lead, Notice, Panel, Row } from '../../ui/Panel';
import { Segments } from '../../ui/Segments';
import { Slide } from '../../ui/Slide';
import { Table } from '../../ui/Table';
import { figures, narrow, space, type } from '../../ui/tokens';
import { StepTitle } from '../workbench/StepTitle';

const Next = styled.section`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 10px;
  margin: 12px 0;
  > div {
    border: 1px solid var(--line);
    border-radius: 9px;
    padding: 9px 13px;
  }
  h3 {
    font-size: 13.5px;
    color: var(--quiet);
    font-weight: 600;
  }
  strong {
    ${figures}
    font-size: 21px;
    line-height: 1.25;
    text-wrap: balance;
    display: block;
  }
  ${narrow} {
    grid-template-columns: minmax(0, 1fr);
  }
`;
const Timings = styled(Table)`
  td.figure {
    ${figures}
    white-space: nowrap;
    font-size: 15px;
  }
  small {
    display: block;
    font-size: 13px;
    color: var(--quiet);
  }
  tr[aria-current] td {
    background: var(--chosen);
  }
  tr[aria-current] td:first-child {
    box-shadow: inset 3px 0 var(--ink);
  }
  td:first-child,
  th:first-child {
    padding-left: 9px;
  }
  ${narrow} {
    td.wide,
    th.wide {
      display: none;
    }
  }
`;
const Wide = styled.div`
  flex: 1 1 200px;
`;
const Meaning = styled.p`
  font-size: ${type.note}px;
  color: var(--quiet);
  margin-top: ${space.near}px;
`;
const Below = styled(Notice)`
  margin-top: 12px;
`;

/** Minutes of the timetable that pass in a second of replay. */
const speeds = [
  { id: '1', label: '1 min/s' },
  { id: '5', label: '5 min/s' },
  { id: '15', label: '15 min/s' },
];

/** The timetable of falling light: when to change what, so that the blend stays as it is wished. */
export default function FallingStep() {
  const { setup, kit } = useSetup();
  const { show } = usePreferences();
  const { data, error } = useQuery<Timetable, ApiProblem>({
    queryKey: ['falling', setup, kit, show],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/falling', { body: { setup, kit, show }, signal })),
    enabled: Boolean(setup.scene),
    placeholderData: (previous) => previous,
    retry: false,
    staleTime: Infinity,
    gcTime: 30_000,
  });
  if (!setup.scene) {
    return (
      <Panel>
        <StepTitle>Falling light</StepTitle>
        <Lead>
          Say where and when first, under Place and hour: then Tolva follows the sun, and says when to change what so
          that the blend stays as you want it.
        </Lead>
      </Panel>
    );
  }
  return (
    <Panel>
      <StepTitle>Falling light</StepTitle>
      {error && (
        <Notice role="alert">
          <strong>No timetable. </strong>
          {error.message}
        </Notice>
      )}
      {data && <Falling table={data} />}
    </Panel>
  );
}

function useClock(replayed: boolean): number {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    if (replayed) return undefined;
    const tick = window.setInterval(() => setNow(Date.now()), 1000);
    return () => window.clearInterval(tick);
  }, [replayed]);
  return now;
}

function Falling({ table }: { table: Timetable }) {
  const { id, job } = useJob();
  const { setup, set } = useSetup();
  const start = useStart();
  const end = table.end_minute;
  const begin = Date.parse(table.steps[0]?.utc ?? '');
  const [mode, setMode] = useState<'clock' | 'replay'>('replay');
  const [replay, setReplay] = useState(0);
  const [playing, setPlaying] = useState(false);
  const [speed, setSpeed] = useState('5');
  const clock = useClock(mode === 'replay');
  const minute = mode === 'replay' ? Math.min(replay, end) : (clock - begin) / 60_000;

  useEffect(() => {
    if (!playing || mode !== 'replay') return undefined;
    const tick = window.setInterval(() => {
      setReplay((at) => {
        const to = at + Number(speed) / 5;
        if (to >= end) setPlaying(false);
        return Math.min(end, to);
      });
    }, 200);
    return () => window.clearInterval(tick);
  }, [playing, mode, speed, end]);

  const at = table.steps.findLastIndex((step) => step.minute <= minute + 1e-6);
  const file = `/api/v1/jobs/${id}/setups/${encodeURIComponent(setup.id)}/falling`;
  const order = start?.falling_orders.find((one) => one.order === table.order);
  return (
    <>
      <p className="only-print">
        {job.name}: <strong>{setup.name}</strong>. {setup.scene?.site.name}, {setup.scene?.at.date}, clocks of{' '}
        {table.time_zone}.
      </p>
      <Lead>
        {table.says} {table.simulated && <strong>Simulated: cloud or a reading in it is made up.</strong>}
      </Lead>
      <Row className="no-print">
        <Wide>
          <Choice
            name="What gives way first"
            value={table.order}
            options={(start?.falling_orders ?? []).map((one) => ({ id: one.order, label: one.name }))}
            onChange={(to) => set('Order of falling light', ['falling_order'], to)}
          />
        </Wide>
        <ButtonLink href={`${file}.ics`} download routerOptions={undefined} target="_self">
          <CalendarPlus size={16} aria-hidden /> Calendar
        </ButtonLink>
        <ButtonLink href={`${file}.csv`} download routerOptions={undefined} target="_self">
          <Download size={16} aria-hidden /> CSV
        </ButtonLink>
        <Button onPress={() => window.print()}>
          <Printer size={16} aria-hidden /> Paper
        </Button>
      </Row>
      {order && <Meaning>{order.meaning}</Meaning>}
      <Row className="no-print" $below>
        <Segments
          name="Against"
          value={mode}
          options={[
            { id: 'replay', label: 'Replay' },
            { id: 'clock', label: 'The clock' },
          ]}
          onChange={setMode}
        />
        {mode === 'replay' && (
          <>
            <Button
              onPress={() => {
                if (minute >= end) setReplay(0);
                setPlaying(!playing);
              }}
              aria-label={playing ? 'Pause the replay' : 'Play the replay'}
            >
              {playing ? <Pause size={16} aria-hidden /> : <Play size={16} aria-hidden />}
            </Button>
            <Slide
              name="Minutes into the timetable"
              most={Math.round(end)}
              value={Math.round(minute)}
              says={`${Math.round(minute)} minutes in`}
              onChange={(to) => {
                setPlaying(false);
                setReplay(to);
              }}
            />
            <Segments name="Speed" value={speed} options={speeds} onChange={setSpeed} />
          </>
        )}
      </Row>
      <NowAndNext table={table} at={at} minute={minute} />
      <Steps table={table} at={at} />
      {table.last && (
        <Below>
          <strong>Last usable minute {table.last.clock}. </strong>
          {table.last.says}
        </Below>
      )}
    </>
  );
}

const settings = (step: Change) => [step.shutter, step.aperture, step.iso, step.flash].filter(Boolean).join(', ');

/** Whole minutes and seconds until something, as a clock counts down. */
function until(minutes: number): string {
  const seconds = Math.max(0, Math.round(minutes * 60));
  return `${Math.floor(seconds / 60)} min ${String(seconds % 60).padStart(2, '0')} s`;
}

function NowAndNext({ table, at, minute }: { table: Timetable; at: number; minute: number }) {
  const now = table.steps[at];
  const next = table.steps[at + 1];
  const last = table.last;
  const over = last && minute > last.minute + 1;
  return (
    <Next aria-label="Now and next" className="no-print">
      <div>
        <h3>{now ? `Since ${now.clock}` : 'Not begun'}</h3>
        <strong>{over ? 'The light has gone' : now ? settings(now) : 'Nothing to set yet'}</strong>
      </div>
      <div>
        <h3>{next ? `At ${next.clock}, in ${until(next.minute - minute)}` : 'Next'}</h3>
        <strong>
          {next
            ? next.does.join('; ')
            : last && !over
              ? `Last minute ${last.clock}, in ${until(last.minute - minute)}`
              : 'Nothing more'}
        </strong>
      </div>
    </Next>
  );
}

function Steps({ table, at }: { table: Timetable; at: number }) {
  const names = table.steps[0]?.regions.map((region) => region.name) ?? [];
  return (
    <Timings aria-label="Timetable">
      <thead>
        <tr>
          <th scope="col">At</th>
          <th scope="col">Change</th>
          <th scope="col">Holds</th>
          {names.map((name) => (
            <th key={name} scope="col" className="wide">
              {name}, stops
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {table.steps.map((step, index) => (
          <tr key={step.utc} aria-current={index === at ? 'step' : undefined}>
            <td className="figure">{step.clock}</td>
            <td>
              {index === 0 ? `Begin with ${step.does.join('; ')}` : step.does.join('; ')}
              {index > 0 && <small>{settings(step)}</small>}
              {step.notes.map((note) => (
                <small key={note}>
                  <b>{note}</b>
                </small>
              ))}
            </td>
            <td className="figure">{step.holds}</td>
            {step.regions.map((region) => (
              <td key={region.name} className="figure wide">
                {region.together.label}
                <small>{region.ev}</small>
              </td>
            ))}
          </tr>
        ))}
      </tbody>
    </Timings>
  );
}
