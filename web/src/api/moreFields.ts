import { moreFields } from './fields';
import more from './more-fields.json';

// The numbers of the kit and of a job's days: whatever shows them imports this.
moreFields(more);
