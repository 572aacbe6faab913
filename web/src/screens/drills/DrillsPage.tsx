import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Target } from 'lucide-react';
import { useState } from 'react';
import { answered, api, type Drills } from '../../api/client';
import { Button } from '../../ui/Button';
import { Lead, Notice, Panel, Part, Quiet, Row } from '../../ui/Panel';
import { Page } from '../frame/Page';
import { ForClass } from './ForClass';
import { Goal } from './Goal';
import { OnSet } from './OnSet';
import { Practising } from './Practising';
import { Sheets } from './Sheets';
import { Skills } from './Skills';
import { Tasks } from './Tasks';
import { today } from './today';

/** What a frame tells at each level. */
const onSetTells = ['Frames are measured', 'Too bright or too dark', 'Only the picture'];
/** So many make a round. */
const ROUND = 10;

/** Exercises with answers in stops: the next ten, each skill by itself, and sheets to print. */
export default function DrillsPage() {
  const client = useQueryClient();
  const [round, setRound] = useState<Drills>();
  const [set, setSet] = useState<{ level: number; number: number }>();
  const [wrong, setWrong] = useState<string>();
  const { data: progress, error } = useQuery({
    queryKey: ['drills', 'progress'],
    queryFn: ({ signal }) =>
      answered(api.GET('/api/v1/drills/progress', { params: { query: { today: today() } }, signal })),
  });
  const begin = (skill?: string, level?: number) => {
    setWrong(undefined);
    const query = { today: today(), count: ROUND, ...(skill && { skill }), ...(level && { level }) };
    answered(api.GET('/api/v1/drills', { params: { query } })).then(setRound, (failure: Error) =>
      setWrong(failure.message),
    );
  };
  const anew = () => void client.invalidateQueries({ queryKey: ['drills', 'progress'] });
  const end = () => {
    setRound(undefined);
    setSet(undefined);
    anew();
  };
  const onSet = (level: number) => setSet((before) => ({ level, number: (before?.number ?? 0) + 1 }));
  if (round) {
    return (
      <Page name="Drills">
        <Practising round={round} end={end} more={() => begin()} key={round.drills[0]?.seed} />
      </Page>
    );
  }
  if (set) {
    return (
      <Page name="Drills">
        <OnSet level={set.level} end={end} again={() => onSet(set.level)} key={set.number} />
      </Page>
    );
  }
  return (
    <Page name="Drills">
      <Panel>
        <Row $apart>
          <h1>Drills</h1>
          <Button kind="strong" onPress={() => begin()}>
            <Target size={18} aria-hidden /> Practise ten
          </Button>
        </Row>
        <Lead $tight>
          Short questions on the dials of your own kit, each worked out by the rules Tolva plans with. What is known
          well comes back later, what is not comes back soon.
        </Lead>
        {progress && progress.went_wrong.length > 0 && (
          <Notice>
            <strong>From your last job with frames: </strong>
            {progress.went_wrong.map((skill) => skill.name).join(', ')} went wrong more than once and comes first.
          </Notice>
        )}
        {progress && <Goal progress={progress} />}
        {(wrong ?? error) && (
          <Notice role="alert">
            <strong>No drill now. </strong>
            {wrong ?? error?.message}
          </Notice>
        )}
      </Panel>
      {progress && <Skills progress={progress} begin={begin} />}
      <Panel aria-labelledby="set">
        <Part as="h2" id="set">
          On the set, with the stand-in camera
        </Part>
        <Lead>
          A set that was guessed, a flash and a camera with faults of their own: reach the wish in as few frames as
          possible. At the end you see what was hidden, and the fewest frames without luck.
        </Lead>
        <Row>
          {progress?.levels.map(({ number }) => (
            <Button key={number} onPress={() => onSet(number)}>
              {onSetTells[number - 1]}
            </Button>
          ))}
          {progress?.on_set && (
            <Quiet>
              The last one, {progress.on_set.day}: {progress.on_set.reached ? 'reached' : 'given up'} after{' '}
              {progress.on_set.frames} {progress.on_set.frames === 1 ? 'frame' : 'frames'}.
            </Quiet>
          )}
        </Row>
      </Panel>
      <Panel aria-labelledby="tasks">
        <Part as="h2" id="tasks">
          With your own camera
        </Part>
        {progress && <Tasks tasks={progress.tasks} done={anew} />}
      </Panel>
      <Panel aria-labelledby="sheets">
        <Part as="h2" id="sheets">
          On paper
        </Part>
        {progress && <Sheets progress={progress} />}
      </Panel>
      <Panel aria-labelledby="class">
        <Part as="h2" id="class">
          For a class
        </Part>
        {progress && <ForClass progress={progress} begin={setRound} />}
      </Panel>
    </Page>
  );
}
