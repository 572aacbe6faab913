import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-aria-components';
import styled from 'styled-components';
import { answered, api } from '../../api/client';
import { ButtonLink } from '../../ui/Button';
import { Panel, Quiet, Row } from '../../ui/Panel';
import { SmallPicture } from '../../ui/SmallPicture';
import { figures, narrow, space } from '../../ui/tokens';

const Whole = styled(Panel)`
  margin-top: ${space.part}px;
  h2 {
    margin: 0;
  }
  summary {
    cursor: pointer;
    font-weight: 600;
    padding-block: ${space.near}px;
    ${narrow} {
      min-height: 44px;
      padding-block: ${space.gap}px;
    }
  }
`;
const Setups = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
  gap: ${space.gap}px;
  margin-top: ${space.gap}px;
  li {
    display: flex;
    gap: ${space.near}px;
    align-items: center;
    min-width: 0;
  }
  a {
    color: inherit;
    text-underline-offset: 3px;
    ${narrow} {
      min-height: 44px;
      display: inline-flex;
      align-items: center;
    }
  }
  b {
    ${figures}
    display: block;
  }
`;
const Title = styled(Link)`
  font-size: 19px;
  font-weight: 650;
  color: inherit;
  text-underline-offset: 3px;
  ${narrow} {
    min-height: 44px;
    display: inline-flex;
    align-items: center;
  }
`;

const today = () => {
  const now = new Date();
  return [now.getFullYear(), now.getMonth() + 1, now.getDate()].map((part) => String(part).padStart(2, '0')).join('-');
};

/** The job that comes next: its day, the sun, what is still missing. Nothing where no job has a day to come. */
export default function NextJob() {
  const { data } = useQuery({
    queryKey: ['jobs', 'next', today()],
    queryFn: ({ signal }) => answered(api.GET('/api/v1/next-job', { params: { query: { today: today() } }, signal })),
  });
  const job = data?.job;
  if (!job) return null;
  const { said } = job;
  return (
    <Whole aria-label="Next job">
      <Row $apart>
        <div>
          <Quiet>Next{said.date ? `, ${said.date}` : ''}</Quiet>
          <h2>
            <Title href={`/jobs/${job.id}`}>{job.name}</Title>
          </h2>
        </div>
        <ButtonLink href={`/jobs/${job.id}/day`}>Its day</ButtonLink>
      </Row>
      <p>
        {said.says} {said.sun_says}
      </p>
      <Setups aria-label="Setups of the next job">
        {said.setups.map((setup) => (
          <li key={setup.id}>
            <SmallPicture src={`/api/v1/jobs/${job.id}/setups/${setup.id}/proof?revision=${job.revision}`} />
            <Link href={`/jobs/${job.id}/run/${setup.id}`}>
              {setup.shoots && <b>{setup.shoots}</b>}
              {setup.name}
            </Link>
          </li>
        ))}
      </Setups>
      {said.missing.length > 0 && (
        <details>
          <summary>
            {said.missing.length === 1
              ? 'One thing is still missing'
              : `${said.missing.length} things are still missing`}
          </summary>
          <ul>
            {said.missing.map((line) => (
              <li key={line}>{line}</li>
            ))}
          </ul>
        </details>
      )}
    </Whole>
  );
}
