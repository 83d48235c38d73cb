import type Joi from 'joi';
import type { ElementBase, Enlarged, Needs, Place, StandOut } from './base';
import type { ProductData } from '../data/product-data';

/**
 * One kind of shot element: what it is, and how it follows data, frames and other elements. A kind is registered once
 * (elements/index.ts); how it is painted is its painter's (painter.ts), which reading a shot does not load.
 * `role` decides how it follows a slot's frame: a ground covers it, subjects keep together and whole,
 * overlays keep to their nearest edge or corner.
 */
export interface ElementKind<E extends ElementBase = ElementBase> {
  kind: E['kind'];
  title: string;
  role: 'ground' | 'subject' | 'overlay';
  /** The kind's own keys, without those of ElementBase. */
  schema: Record<string, Joi.Schema>;
  needs(element: E): Needs;
  /** What it enlarges, where that is not its pictures to its box: 1 shows a source at its own pixels. */
  enlarged?(element: E, sizes: ReadonlyMap<string, { width: number; height: number }>): Enlarged[];
  /** The element with its texts and pictures filled from product and brand; adds the names of what is missing. */
  bind?(element: E, data: ProductData | null, missing: Set<string>): E;
  /** Its place in the frame, where that follows from the other elements. */
  attached?(element: E, elements: readonly ElementBase[], missing: Set<string>): E;
  /** What a box set by hand is measured by and must be kept with it: a box fits the picture that it was set on. */
  placedBy?(element: E): Partial<E>;
  /** What changes when it is dragged, where its place follows from others. */
  moved?(element: E, dx: number, dy: number): Partial<E>;
  /** Words that may break into other lines when sizes are arranged; kinds without it keep their shape. */
  wraps?(element: E): { text: string; size: number; leading: number } | null;
  /** Points at a place of the product and so moves with it. */
  pointsAtProduct?(element: E): boolean;
  /** How important it is unless the user says otherwise: 1 is dropped first when room is short, 9 last. */
  weight: number;
  /** The element with all lengths of its own (not its box) multiplied by `factor`. */
  scaled(element: E, factor: number): E;
  /** A sign of its owner that some slots forbid. */
  mark?: boolean;
  /** How much space around it others keep clear, in frame pixels. */
  keepsClear?(element: E): number;
  /** It lies behind others and may be laid over. */
  backs?(element: E): boolean;
  /** What changes so that its words stand out from what lies behind them. */
  standingOut?(element: E, to: StandOut): Partial<E>;
  /** What changes so that a text of its own has so many characters at most; null where it has none of its own. */
  shortened?(written: E, element: E, most: number): Partial<E>;
  /** What changes so that the ground about it is plain white, or clear. */
  plain?(element: E, ground: 'white' | 'clear'): Partial<E>;
  /** What changes so that it keeps its own colours in a scene. */
  ownColours?(element: E): Partial<E>;
  /** A subject that goes behind what stands in a scene's foreground; those that do not say do. */
  behindForeground?(element: E): boolean;
  /** What it could be as a place of a template; null where it stays as it is. */
  asPlace?(element: E): Place | null;
  /** Nothing has been put into it yet. */
  isOpen?(element: E): boolean;
  /** What changes when its content leaves, so that it is an empty place. */
  emptied?(element: E): Partial<E>;
}
