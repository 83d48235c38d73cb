import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** What lies over the picture to lay things out by; kept for this browser. */
interface LayoutAids {
  /** Rulers along two sides, and the guides that were drawn from them. */
  rulers: boolean;
  grid: boolean;
  /** Pixels of the frame between two lines of the grid. */
  spacing: number;
  /** Middle and thirds. */
  centre: boolean;
}

export const useLayoutAids = create<LayoutAids>()(
  persist((): LayoutAids => ({ rulers: false, grid: false, spacing: 100, centre: false }), {
    name: 'scenograph-layout-aids',
  }),
);

export const toggleRulers = () => useLayoutAids.setState(({ rulers }) => ({ rulers: !rulers }));
export const toggleGrid = () => useLayoutAids.setState(({ grid }) => ({ grid: !grid }));

/** Screen pixels that a ruler is wide. */
export const RULER = 18;
