/** What the frames of a job are kept under. */
export const framesOf = (job: string) => ['frames', job];
