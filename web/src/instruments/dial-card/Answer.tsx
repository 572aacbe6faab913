import { useState } from 'react';
import styled from 'styled-components';
import type { Plan } from '../../api/client';
import { useSetup } from '../../jobs/JobContext';
import { Button } from '../../ui/Button';
import { Notice } from '../../ui/Panel';
import { useShortcuts } from '../../app/keys';
import { Schools } from '../../ways/Schools';
import { Ways as OtherWays } from '../../ways/Ways';
import { Workings } from './Workings';

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
  font-size: 14.5px;
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
  button {
    min-height: 30px;
    padding: 3px 10px;
    font-size: 13px;
  }
`;

const doThis = 'Do this';
const asFar = 'Do this, as far as it goes';

/** The answer in words: as wished or not, what is missing, what would close it, what to mind. */
export function Answer({ plan }: { plan: Plan }) {
  const { change } = useSetup();
  const [open, setOpen] = useState<'workings' | 'ways' | 'schools'>();
  const close = () => setOpen(undefined);
  // The first sentence says what to change.
  const closing = plan.fixes.find((fix) => fix.closes);
  useShortcuts([
    { key: 'w', name: 'W', does: 'Other ways to the same wish', run: () => setOpen('ways') },
    { key: 'o', name: 'O', does: 'What other schools would set', run: () => setOpen('schools') },
    { key: 'a', name: 'A', does: 'Workings: the arithmetic of the answer', run: () => setOpen('workings') },
  ]);
  return (
    <Whole aria-label="Answer">
      {plan.possible ? (
        <Verdict role="status">{plan.says}</Verdict>
      ) : (
        <Notice role="status">
          {closing && <p style={{ fontWeight: 650, marginBottom: 4 }}>{closing.does}.</p>}
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
                      onPress={() => change(fix.does, () => fix.setup ?? failed())}
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
      <Workings plan={plan} open={open === 'workings'} onClose={close} />
      <OtherWays open={open === 'ways'} onClose={close} />
      <Schools open={open === 'schools'} onClose={close} />
    </Whole>
  );
}

function failed(): never {
  throw new Error('a fix without a setup has no button');
}
