import { createContext, useContext } from 'react';
import type { Kit, Plan, Setup } from '../api/client';
import type { Move } from '../instruments/usePlan';
import type { JobDocument } from './useJobDocument';

export const JobContext = createContext<JobDocument | undefined>(undefined);

/** The open job. */
export function useJob(): JobDocument {
  const job = useContext(JobContext);
  if (!job) throw new Error('useJob is for parts within an open job');
  return job;
}

/** The open setup, and how to change it, with the kit it uses. */
export type OpenSetup = {
  setup: Setup;
  kit: Kit;
  plan: Plan | undefined;
  change: (what: string, to: (setup: Setup) => Setup) => void;
  /** Moves something under the pointer: solved at once, and changed when it is let go by `letGo`. */
  move: (to: Move) => void;
  letGo: () => void;
};

/** The open setup as it is under the pointer, while something is dragged. */
export const SetupContext = createContext<OpenSetup | undefined>(undefined);
/** The open setup as it is kept: it does not change while something is dragged. */
export const KeptSetupContext = createContext<OpenSetup | undefined>(undefined);

export function useSetup(): OpenSetup {
  const setup = useContext(SetupContext);
  if (!setup) throw new Error('useSetup is for parts within an open setup');
  return setup;
}

export function useKeptSetup(): OpenSetup {
  const setup = useContext(KeptSetupContext);
  if (!setup) throw new Error('useKeptSetup is for parts within an open setup');
  return setup;
}
