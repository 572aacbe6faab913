import { Suspense, useState } from 'react';
import { VisuallyHidden } from 'react-aria';
import styled from 'styled-components';
import { linesOf } from '../../api/client';
import { Told } from '../../instruments/Told';
import { useJobState, useLivePlan, usePlan, useSetup } from '../../session/job';
import { Button } from '../../ui/Button';
import { Notice } from '../../ui/Panel';
import { useShortcuts } from '../../ui/shortcuts';
import { type as letters } from '../../ui/tokens';
import { lazily } from '../../ui/lazily';

const Schools = lazily(() => import('../alternatives/Schools'));
const OtherWays = lazily(() => import('../alternatives/Ways'));
const Workings = lazily(() => import('./Workings'));

const Whole = styled.section`
  display: flex;
  flex-direction: column;
  gap: 9px;
  font-size: 13.5px;
  h3 {
    font-size: 13.5px;
    margin-bottom: 2px;
  }
`;
const Verdict = styled.p`
  font-size: ${letters.body}px;
`;
const First = styled.p`
  font-weight: 650;
  margin-bottom: 4px;
`;
const Ways = styled.ul`
  display: flex;
  flex-direction: column;
  gap: 8px;
  li {
    border-top: 1px solid var(--line);
    padding-top: 8px;
  }
  p {
    color: var(--quiet);
  }
  strong {
    font-weight: 650;
    display: block;
  }
`;
const More = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  button {
    font-size: 14px;
    padding: 5px 9px;
  }
`;
const Use = styled.div`
  margin-top: 5px;
  @media (pointer: fine) {
    button {
      min-height: 30px;
      padding: 3px 10px;
      font-size: ${letters.note}px;
    }
  }
`;

const doThis = 'Do this';
const asFar = 'Do this, as far as it goes';

/** The answer in words: as wished or not, what is missing, what would close it, what to mind. */
export function Answer() {
  const { take } = useSetup();
  const plan = useLivePlan((one) => one);
  const settled = usePlan();
  const wrong = useJobState((state) => state.unplanned?.problem);
  const [open, setOpen] = useState<'workings' | 'ways' | 'schools'>();
  const close = () => setOpen(undefined);
  useShortcuts([
    { key: 'w', name: 'W', does: 'Other ways to the same wish', run: () => setOpen('ways') },
    { key: 'o', name: 'O', does: 'What other schools would set', run: () => setOpen('schools') },
    { key: 'a', name: 'A', does: 'Workings: the arithmetic of the answer', run: () => setOpen('workings') },
  ]);
  if (!plan) return null;
  // The first sentence says what to change.
  const closing = plan.fixes.find((fix) => fix.closes);
  return (
    <Whole aria-label="Answer">
      {/* Said aloud once it has settled, not at every frame of a drag. */}
      <VisuallyHidden role="status">{settled?.says}</VisuallyHidden>
      {wrong !== undefined && (
        <Notice role="alert">
          <strong>No newer plan: a field is wrong. </strong>
          {linesOf(wrong, 'It cannot be planned as it stands.').map((line) => (
            <p key={line}>{line}</p>
          ))}
          <p>What stands here is of before.</p>
        </Notice>
      )}
      {plan.possible ? (
        <Verdict>{plan.says}</Verdict>
      ) : (
        <Notice>
          {closing && <First>{closing.does}.</First>}
          <strong>Not as wished. </strong>
          {plan.shortfalls.map((shortfall) => (
            <p key={`${shortfall.limit}/${shortfall.light_id}`}>{shortfall.says}</p>
          ))}
          <p>{plan.says.slice(plan.says.indexOf('The nearest:'))}</p>
        </Notice>
      )}
      {plan.possible && plan.active_limit && <p>What binds: {plan.active_limit}</p>}
      <More>
        <Button onPress={() => setOpen('workings')}>Workings</Button>
        <Button onPress={() => setOpen('ways')}>Other ways</Button>
        <Button onPress={() => setOpen('schools')}>Schools</Button>
      </More>
      {plan.fixes.length > 0 && (
        <div>
          <h3>What would close it</h3>
          <Ways>
            {plan.fixes.map((fix) => (
              <li key={fix.does}>
                <strong>{fix.does}</strong>
                <p>{fix.says}</p>
                {fix.setup && (
                  <Use>
                    <Button
                      aria-label={`${fix.closes ? doThis : asFar}: ${fix.does}`}
                      onPress={() => fix.setup && take(fix.does, fix.setup)}
                    >
                      {fix.closes ? doThis : asFar}
                    </Button>
                  </Use>
                )}
              </li>
            ))}
          </Ways>
        </div>
      )}
      {plan.cautions.map((caution) => (
        <Notice key={caution.heading}>
          <strong>{caution.heading}. </strong>
          {caution.says}
        </Notice>
      ))}
      <Told about="answer" />
      <Suspense>
        {open === 'workings' && <Workings plan={plan} onClose={close} />}
        {open === 'ways' && <OtherWays onClose={close} />}
        {open === 'schools' && <Schools onClose={close} />}
      </Suspense>
    </Whole>
  );
}
