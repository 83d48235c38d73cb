import type { BrandKit } from '@scenograph/core/brand/kit';
import type { ShotElement } from '@scenograph/core/elements/index';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import type { ComponentType, ReactNode } from 'react';
import type { OverlayDeskProps } from '../overlays/overlay-desk-props';
import type { KindDeskProps } from './desk-props';
import { msg } from '../../../language/language';

/** What a kind's part of a section of the desk is given. */
export interface SectionProps<E extends ShotElement> extends KindDeskProps<E> {
  shot: ResolvedShot;
  /** Colours of the shot's first product. */
  palette: string[];
}

/** What a kind's handles over the stage are given. */
export interface HandlesProps<E extends ShotElement> extends KindDeskProps<E> {
  elements: readonly ShotElement[];
  frame: { width: number; height: number };
  zoom: number;
}

/** Groups of the menu that adds overlays, in their order. */
export const STARTER_GROUPS = [
  msg('Words and prices'),
  msg('Brand'),
  msg('Close-ups'),
  msg('Measures and callouts'),
  msg('Shapes'),
] as const;

/** One overlay that can be added, under its plain name. */
export interface Starter {
  group: (typeof STARTER_GROUPS)[number];
  id: string;
  title: string;
  make(id: string, frame: { width: number; height: number }, kit: BrandKit): ShotElement;
}

/**
 * What an element kind shows on the stage. Each kind has one folder with a `ui.tsx`; `kinds/index.ts` collects them in a
 * record over all kinds, so that one that is missing does not compile.
 */
export interface KindUi<E extends ShotElement> {
  /** Its own parts of the desk's sections. */
  Place?: ComponentType<SectionProps<E>>;
  Light?: ComponentType<SectionProps<E>>;
  Tone?: ComponentType<SectionProps<E>>;
  /** What the closed section of light or tone says. */
  lightSummary?(element: E, shot: ResolvedShot): string;
  toneSummary?(element: E): string;
  /** Its desk under Overlays. */
  Overlay?: ComponentType<OverlayDeskProps<E>>;
  /** Its picture in the depth strip; where there is none it is painted by itself. */
  slat?(element: E): ReactNode;
  /** Further handles while it is chosen. */
  Handles?: ComponentType<HandlesProps<E>>;
  /** What its content is worked on with, over the stage, after a double click or Enter; `onLeave` comes out again. */
  Inside?: ComponentType<HandlesProps<E> & { onLeave(): void }>;
  /**
   * How it is resized by its handles: freely, at its sides (words break anew) or corners, at its corners alone, or not at
   * all, since its place follows from others; that is not turned either.
   */
  resize: 'free' | 'sides' | 'corners' | 'not';
  /** Overlays of this kind that can be added, in the order in which they are wanted. */
  starters?: Starter[];
}
