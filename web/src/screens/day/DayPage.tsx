import { JobFrame } from '../job/JobFrame';
import DayPlan from './DayPlan';

/** The day of a job, on a page of its own. */
export default function DayPage() {
  return (
    <JobFrame here="day">
      <DayPlan />
    </JobFrame>
  );
}
