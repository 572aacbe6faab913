import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Target } from 'lucide-react';
import { useState } from 'react';
import styled from 'styled-components';
import { answered, api, type Drills } from '../../api/client';
import { Button } from '../../ui/Button';
import { Lead, Notice, Panel, Part, Row } from '../../ui/Panel';
import { narrow, space } from '../../ui/tokens';
import { Header } from '../frame/Header';
import { Goal } from './Goal';
import { Practising } from './Practising';
import { Sheets } from './Sheets';
import { Skills } from './Skills';
import { today } from './today';

const Main = styled.main`
  max-width: 940px;
  margin: 0 auto;
  padding: 22px 16px 40px;
  display: flex;
  flex-direction: column;
  gap: ${space.part}px;
  h1 {
    font-size: 24px;
  }
  h2 {
    font-size: 17px;
  }
  ${narrow} {
    padding: ${space.gap}px;
  }
`;

/** So many make a round. */
const ROUND = 10;

/** Exercises with answers in stops: the next ten, each skill by itself, and sheets to print. */
export default function DrillsPage() {
  const client = useQueryClient();
  const [round, setRound] = useState<Drills>();
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
  const end = () => {
    setRound(undefined);
    void client.invalidateQueries({ queryKey: ['drills', 'progress'] });
  };
  if (round) {
    return (
      <>
        <Header>Drills</Header>
        <Main>
          <Practising round={round} end={end} more={() => begin()} key={round.drills[0]?.seed} />
        </Main>
      </>
    );
  }
  return (
    <>
      <Header>Drills</Header>
      <Main>
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
        <Panel aria-labelledby="sheets">
          <Part as="h2" id="sheets">
            On paper, and for a class
          </Part>
          {progress && <Sheets progress={progress} />}
        </Panel>
      </Main>
    </>
  );
}
