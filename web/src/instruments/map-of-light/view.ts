import type { FloorPart, OnSet, SetReport } from '../../api/client';

/** What every view of the set is drawn from. */
export type ViewProps = {
  set: SetReport;
  /** What part of the floor. */
  part: FloorPart;
  width: number;
  height: number;
  /** The thing that is chosen, by its key. */
  chosen: string | undefined;
  choose: (thing: OnSet) => void;
};
