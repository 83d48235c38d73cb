import type Joi from 'joi';
import type { ElementBase, Enlarged, Needs, Place, StandOut, Words } from './base';
import type { Effects } from '../raster/effects';
import type { Canvas2D } from '../raster/canvas';
import type { PaintEnvironment } from './environment';
import type { ProductData } from '../data/product-data';
import type { Bounds } from '../vector/outline';

/**
 * One kind of shot element. A kind is registered once (elements/index.ts); nothing else names it.
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
  /** Paints what of a ground is the product itself, on a clear ground, to measure where it is. */
  paintItem?(element: E, canvas: Canvas2D, environment: PaintEnvironment): void;
  /** Letters and signs in it that must be read. */
  words?(element: E, environment: PaintEnvironment): Words[];
  /** How far it paints, where that is more than its box. */
  extent?(element: E, environment: PaintEnvironment): Bounds;
  /** What its own painting takes from elsewhere, such as the ground it has chosen its colours by. */
  depends?(element: E, environment: PaintEnvironment): unknown;
  /** Effects as they are painted, where they depend on what lies beneath. */
  effects?(element: E, environment: PaintEnvironment): Effects;
  /** The element with its texts and pictures filled from product and brand; adds the names of what is missing. */
  bind?(element: E, data: ProductData | null, missing: Set<string>): E;
  /** Its place in the frame, where that follows from the other elements. */
  attached?(element: E, elements: readonly ElementBase[], missing: Set<string>): E;
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
  /** What it could be as a place of a template; null where it stays as it is. */
  asPlace?(element: E): Place | null;
  /** Nothing has been put into it yet. */
  isOpen?(element: E): boolean;
  /** What changes when its content leaves, so that it is an empty place. */
  emptied?(element: E): Partial<E>;
  /** What lies on the ground under all products: shadows, reflections. In the frame's pixels, not turned. */
  paintUnder?(element: E, canvas: Canvas2D, environment: PaintEnvironment): void;
  /** Draws the element with its box in the frame's pixels; the canvas is already scaled to the wanted size. */
  paint(element: E, canvas: Canvas2D, environment: PaintEnvironment): void;
}
