import { Check, X } from 'lucide-react';
import { useRef, useState } from 'react';
import styled from 'styled-components';
import { answered, api, type DrillProgress, type MeasuredFrame, type TaskFound } from '../../api/client';
import { newId } from '../../session/kit';
import { Button } from '../../ui/Button';
import { Card, Notice, Quiet, Row, Stack } from '../../ui/Panel';
import { figures, space } from '../../ui/tokens';
import { Arriving } from '../frames/Arriving';
import { today } from './today';

const Steps = styled.ol`
  list-style: decimal;
  padding-left: 22px;
  li {
    padding: 2px 0;
  }
`;
const Came = styled.ol`
  ${figures}
  list-style: decimal;
  padding-left: 22px;
`;
const Found = styled.ul`
  margin-top: ${space.near}px;
  li {
    display: grid;
    grid-template-columns: 22px 1fr;
    align-items: start;
  }
`;

type Task = DrillProgress['tasks'][number];
type Props = { tasks: Task[]; done: () => void };

/** Tasks for a room, one flash and one's own camera. */
export function Tasks({ tasks, done }: Props) {
  const [open, setOpen] = useState<string>();
  return (
    <Stack>
      <Quiet>
        Put something grey in the middle of the frame, a cushion, a sweater over a chair, and leave the camera where it
        stands. Frames are measured in the middle and are not kept. What is asked for is common practice.
      </Quiet>
      {tasks.map((task) => (
        <Card key={task.code}>
          <h3>
            {task.name}
            <Button
              aria-expanded={open === task.code}
              aria-label={`${open === task.code ? 'Close' : 'Do it'}: ${task.name}`}
              onPress={() => setOpen(open === task.code ? undefined : task.code)}
            >
              {open === task.code ? 'Close' : 'Do it'}
            </Button>
          </h3>
          <Quiet>
            {task.why}
            {task.last &&
              ` ${task.last.day}: ${task.last.reached ? 'as it was asked for' : 'not yet as it was asked for'}.`}
          </Quiet>
          {open === task.code && <OneTask task={task} done={done} />}
        </Card>
      ))}
    </Stack>
  );
}

function OneTask({ task, done }: { task: Task; done: () => void }) {
  const [frames, setFrames] = useState<MeasuredFrame[]>([]);
  const [found, setFound] = useState<TaskFound>();
  const [wrong, setWrong] = useState<string>();
  const key = useRef(newId());
  const arrived = (frame: MeasuredFrame) => {
    setFound(undefined);
    // In the order they were taken, where the files say when; a frame that comes again is the same one.
    setFrames((all) =>
      [...all.filter((one) => one.name !== frame.name), frame].sort((a, b) =>
        a.at && b.at && a.at !== b.at ? (a.at < b.at ? -1 : 1) : 0,
      ),
    );
  };
  const judge = () => {
    setWrong(undefined);
    const body = { frames, today: today() };
    const params = { path: { task: task.code } };
    answered(
      api.POST('/api/v1/drills/tasks/{task}', { params, body, headers: { 'Idempotency-Key': key.current } }),
    ).then(
      (judged) => {
        key.current = newId();
        setFound(judged);
        done();
      },
      (failure: Error) => setWrong(failure.message),
    );
  };
  return (
    <>
      <Steps aria-label="Frames to take">
        {task.frames.map((step) => (
          <li key={step}>{step}</li>
        ))}
      </Steps>
      {task.caution && <Notice>{task.caution}</Notice>}
      <Arriving url="/api/v1/drills/tasks/frames" arrived={arrived} />
      {frames.length > 0 && (
        <Came aria-label="Frames that came">
          {frames.map((frame) => (
            <li key={frame.name}>{frame.name}</li>
          ))}
        </Came>
      )}
      <Row>
        <Button kind="strong" isDisabled={frames.length === 0} onPress={judge}>
          Hold them against the task
        </Button>
        {frames.length > 0 && (
          <Button
            onPress={() => {
              setFrames([]);
              setFound(undefined);
            }}
          >
            Start over
          </Button>
        )}
        <Quiet>
          {frames.length} of {task.frames.length} came
        </Quiet>
      </Row>
      {wrong && <Notice role="alert">{wrong}</Notice>}
      {found && (
        <Notice role="status">
          <strong>{found.says}</strong>
          <Found aria-label="What was found">
            {found.findings.map((one) => (
              <li key={one.says}>
                {one.good === null ? (
                  <span aria-hidden>·</span>
                ) : one.good ? (
                  <Check size={17} aria-label="Good" />
                ) : (
                  <X size={17} aria-label="Not yet" />
                )}
                <span>{one.says}</span>
              </li>
            ))}
          </Found>
        </Notice>
      )}
    </>
  );
}
