import { create } from 'zustand';
import type { RegionOnRail } from '../../api/client';

type Pinned = {
  /** What is pinned, and of which setup; it is gone with the window. */
  pinned: { setup: string; rail: readonly RegionOnRail[] } | undefined;
  pin: (setup: string, rail: readonly RegionOnRail[]) => void;
  unpin: () => void;
};

/** How the rail stood when it was pinned: drawn beside how it stands now. */
export const usePinned = create<Pinned>((set) => ({
  pinned: undefined,
  pin: (setup, rail) => set({ pinned: { setup, rail } }),
  unpin: () => set({ pinned: undefined }),
}));
