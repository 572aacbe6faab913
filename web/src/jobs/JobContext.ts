import { createContext, useContext } from 'react';
import type { Kit, Setup } from '../api/client';
import type { Move } from '../instruments/usePlan';
import type { JobDocument } from './useJobDocument';

export const JobContext = createContext<JobDocument | undefined>(undefined);

/** The open job. */
export function useJob(): JobDocument {
  const job = useContext(JobContext);
  if (!job) throw new Error('useJob is for parts within an open job');
  return job;
}

/** The open setup, and how to change it and its kit. */
export type OpenSetup = {
  setup: Setup;
  kit: Kit;
  change: (what: string, to: (setup: Setup) => Setup) => void;
  changeKit: (what: string, to: (kit: Kit) => Kit) => void;
  /** Moves something under the pointer: solved at once, and changed when it is let go by `letGo`. */
  move: (to: Move) => void;
  letGo: () => void;
};

export const SetupContext = createContext<OpenSetup | undefined>(undefined);

export function useSetup(): OpenSetup {
  const setup = useContext(SetupContext);
  if (!setup) throw new Error('useSetup is for parts within an open setup');
  return setup;
}
