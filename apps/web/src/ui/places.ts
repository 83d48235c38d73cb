import { createContext, useContext } from 'react';

/** A screen that can be gone to from anywhere. */
export interface PlaceLink {
  path: string;
  /** As the bar of every screen calls it. */
  label: string;
  /** As the command menu finds it. */
  title: string;
}

/** Filled from the route table; so the bar and the command menu need not know the screens. */
export const Places = createContext<readonly PlaceLink[]>([]);

export const usePlaces = () => useContext(Places);
