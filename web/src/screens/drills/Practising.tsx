import { ArrowRight, Check, X } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import styled from 'styled-components';
import { answered, api, type AnswerSaid, type Drills } from '../../api/client';
import { newId } from '../../session/kit';
import { Button } from '../../ui/Button';
import { Wrong } from '../../ui/field';
import { Panel, Quiet, Row } from '../../ui/Panel';
import { figures, narrow, space, touch } from '../../ui/tokens';
import { Answer } from './Answer';
import { OnRail } from './OnRail';
import { Pane } from './Pane';
import { Pictures } from './Pictures';
import { today } from './today';

const Whole = styled(Panel)`
  min-height: 430px;
  display: flex;
  flex-direction: column;
  gap: ${space.part}px;
  ${narrow} {
    min-height: calc(100dvh - 90px);
  }
`;
const Stands = styled.p`
  ${figures}
  font-size: 20px;
  line-height: 1.35;
`;
const Asks = styled.h1`
  font-size: 24px !important;
`;
const Act = styled(Row)`
  margin-top: auto;
  button {
    min-height: ${touch + 8}px;
    flex: 1 1 140px;
    font-size: 18px;
  }
`;
const Verdict = styled.div`
  border: 2px solid var(--ink);
  border-radius: 8px;
  padding: ${space.gap}px ${space.part}px;
  &[data-right] {
    border-style: solid;
  }
  &:not([data-right]) {
    border-style: dashed;
  }
  > strong {
    font-size: 19px;
    display: flex;
    gap: ${space.near}px;
    align-items: center;
  }
  ul {
    margin-top: ${space.near}px;
    ${figures}
  }
`;

type Props = { round: Drills; end: () => void; more: () => void };

/** A round of drills, one at a time: the question, an answer, the workings. */
export function Practising({ round, end, more }: Props) {
  const [at, setAt] = useState(0);
  const [rights, setRights] = useState<boolean[]>([]);
  const drill = round.drills[at];
  if (!drill) {
    const right = rights.filter(Boolean).length;
    return (
      <Whole as="section" aria-label="The round is done">
        <Asks>
          {right} of {rights.length} right
        </Asks>
        <Stands>
          {right === rights.length
            ? 'What you know comes back later.'
            : 'What went wrong comes back first, and what you know later.'}
        </Stands>
        <Act>
          <Button kind="strong" onPress={more} autoFocus>
            Ten more
          </Button>
          <Button onPress={end}>Enough for now</Button>
        </Act>
      </Whole>
    );
  }
  return (
    <One
      key={at}
      drill={drill}
      place={`${at + 1} of ${round.drills.length}`}
      because={at === 0 ? round.because : ''}
      of={round.class}
      end={end}
      done={(right) => {
        setRights([...rights, right]);
        setAt(at + 1);
      }}
    />
  );
}

type OneProps = {
  drill: Drills['drills'][number];
  place: string;
  because: string;
  /** The class it is asked for. */
  of: string | null | undefined;
  end: () => void;
  done: (right: boolean) => void;
};

function One({ drill, place, because, of, end, done }: OneProps) {
  const [chosen, setChosen] = useState(drill.by === 'choice' ? -1 : drill.begins_at);
  const [said, setSaid] = useState<AnswerSaid>();
  const [wrong, setWrong] = useState<string>();
  const [sending, setSending] = useState(false);
  const key = useRef(newId());
  const next = useRef<HTMLDivElement>(null);
  useEffect(() => {
    // The next press goes on.
    if (said) next.current?.querySelector('button')?.focus();
  }, [said]);
  const send = (answer: number) => {
    if (answer < 0 || sending || said) return;
    setChosen(answer);
    setSending(true);
    setWrong(undefined);
    const { skill, level, seed, mark } = drill;
    const body = { skill: skill.code, level, seed, mark, answer, today: today(), ...(of && { class: of }) };
    answered(api.POST('/api/v1/drills/answers', { body, headers: { 'Idempotency-Key': key.current } }))
      .then(setSaid, (failure: Error) => setWrong(failure.message))
      .finally(() => setSending(false));
  };
  return (
    <Whole as="section" aria-label={`Drill ${place}`}>
      <Row $apart>
        <Quiet>
          {place} · {drill.skill.name}, level {drill.level}
        </Quiet>
        <Button kind="bare" aria-label="End the round" onPress={end}>
          <X size={18} aria-hidden />
        </Button>
      </Row>
      {because && <Quiet>{because}</Quiet>}
      <Stands>{drill.stands}</Stands>
      {drill.seen && <Pane seen={drill.seen} />}
      <OnRail rail={drill.rail} />
      <Pictures drill={drill} />
      <Asks>{drill.asks}</Asks>
      {drill.school && <Quiet>{drill.school}</Quiet>}
      <Answer drill={drill} chosen={chosen} choose={setChosen} send={send} right={said?.right_option} />
      {wrong && (
        <Wrong role="alert">
          {wrong} <Button onPress={() => done(false)}>Go on without it</Button>
        </Wrong>
      )}
      {said && (
        <Verdict role="status" data-right={said.right || undefined} data-testid="verdict">
          <strong>
            {said.right ? <Check size={20} aria-hidden /> : <X size={20} aria-hidden />}
            {said.says}
          </strong>
          <ul>
            {said.workings.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </Verdict>
      )}
      <Act ref={next}>
        {said ? (
          <Button kind="strong" onPress={() => done(said.right)}>
            Next <ArrowRight size={18} aria-hidden />
          </Button>
        ) : (
          drill.by !== 'choice' && (
            <Button kind="strong" isDisabled={sending} onPress={() => send(chosen)}>
              Answer
            </Button>
          )
        )}
      </Act>
    </Whole>
  );
}
