import { useJob } from '../../session/job';
import { ButtonLink } from '../../ui/Button';
import { Panel, Part, Row } from '../../ui/Panel';
import { useDayPlan } from './useDayPlan';

/** The day in two sentences, and the way to it. */
export default function DayInShort() {
  const { id, job } = useJob();
  const { plan } = useDayPlan(undefined);
  if (job.setups.length === 0) return null;
  return (
    <Panel aria-labelledby="day-in-short">
      <Row $apart>
        <Part as="h2" id="day-in-short">
          The day
        </Part>
        <ButtonLink href={`/jobs/${id}/day`}>Plan the day</ButtonLink>
      </Row>
      <p aria-busy={!plan}>
        <strong>{plan?.says}</strong> {plan?.sun_says}{' '}
        {plan && plan.left_out.length > 0 && `Does not fit: ${plan.left_out.map((one) => one.name).join('; ')}.`}
      </p>
    </Panel>
  );
}
