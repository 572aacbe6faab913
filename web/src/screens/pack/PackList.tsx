import { useQuery } from '@tanstack/react-query';
import { Download } from 'lucide-react';
import styled from 'styled-components';
import { answered, api, type PackLine } from '../../api/client';
import { useJob, useJobKit } from '../../session/job';
import { ButtonLink } from '../../ui/Button';
import { Notice, Panel, Part, Quiet, Row } from '../../ui/Panel';
import { TickBox } from '../../ui/Ticks';
import { figures, narrow, space } from '../../ui/tokens';

const Kind = styled.h3`
  margin-top: ${space.part}px;
  padding-bottom: ${space.hair}px;
`;
const Items = styled.ul`
  li {
    border-top: 1px solid var(--line);
    padding: ${space.near}px 0;
    display: grid;
    grid-template-columns: 62px minmax(0, 1fr) auto;
    gap: 2px ${space.gap}px;
    align-items: center;
    ${narrow} {
      grid-template-columns: 62px minmax(0, 1fr);
      > :last-child {
        grid-column: 1 / -1;
      }
    }
  }
  b {
    ${figures}
    font-size: 17px;
  }
`;
const Ticked = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: ${space.hair}px ${space.part}px;
  justify-content: flex-end;
`;
type Way = 'out' | 'home';

/** What the job takes along, ticked off before leaving and again before going home. */
export default function PackList() {
  const { id, job, session } = useJob();
  const kit = useJobKit();
  const { data, error } = useQuery({
    queryKey: ['pack', job.setups, kit],
    queryFn: ({ signal }) => answered(api.POST('/api/v1/pack', { body: { job: { ...job, kit } }, signal })),
    placeholderData: (was) => was,
    retry: false,
  });
  if (job.setups.length === 0) return null;
  const packed = { out: job.packed?.out ?? [], home: job.packed?.home ?? [] };
  const tick = (way: Way, line: PackLine, is: boolean) => {
    const others = packed[way].filter((key) => key !== line.key);
    const to = { ...packed, [way]: is ? [...others, line.key] : others };
    session.send({ type: 'edit', says: `${line.name} ticked off`, changes: [{ at: ['packed'], to }] });
  };
  const items = data?.items ?? [];
  const kinds = [...new Set(items.map((one) => one.heading))];
  const left = (way: Way) => items.filter((one) => !packed[way].includes(one.key)).length;
  const missing = left('home');
  return (
    <Panel aria-labelledby="pack">
      <Row $apart>
        <Part as="h2" id="pack">
          Pack list
        </Part>
        <ButtonLink href={`/api/v1/jobs/${id}/pack.csv`} download routerOptions={undefined} target="_self">
          <Download size={17} aria-hidden /> CSV
        </ButtonLink>
      </Row>
      {error && (
        <Notice role="alert">
          <strong>The list cannot be made. </strong>
          {error.message}
        </Notice>
      )}
      {data && (
        <>
          <p>
            <strong>{data.says}</strong>{' '}
            {left('out') === 0
              ? 'Everything is in the bag.'
              : `${left('out')} of ${items.length} lines are not ticked off.`}{' '}
            {packed.home.length > 0 &&
              (missing === 0 ? 'Everything is in it again.' : `${missing} are not in it again for the way home.`)}
          </p>
          {kinds.map((kind) => (
            <section key={kind}>
              <Kind>{kind}</Kind>
              <Items aria-label={kind}>
                {items
                  .filter((one) => one.heading === kind)
                  .map((one) => (
                    <li key={one.key}>
                      <b>{one.count}</b>
                      <span>
                        {one.name}
                        {one.weight && `, ${one.weight}`}
                        <Quiet>{one.says}</Quiet>
                      </span>
                      <Ticked>
                        {(['out', 'home'] as const).map((way) => (
                          <TickBox
                            key={way}
                            name={names[way]}
                            of={one.name}
                            value={packed[way].includes(one.key)}
                            onChange={(is) => tick(way, one, is)}
                          />
                        ))}
                      </Ticked>
                    </li>
                  ))}
              </Items>
            </section>
          ))}
          {data.notes.map((note) => (
            <Quiet key={note}>{note}</Quiet>
          ))}
        </>
      )}
    </Panel>
  );
}

const names = { out: 'Out', home: 'Home' };
