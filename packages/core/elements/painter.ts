import type { Canvas2D } from '../raster/canvas';
import type { Effects } from '../raster/effects';
import type { Bounds } from '../vector/outline';
import type { ElementBase, Words } from './base';
import type { PaintEnvironment } from './environment';

/** How one kind of shot element is laid out and painted. Registered once (painters.ts). */
export interface ElementPainter<E extends ElementBase = ElementBase> {
  /** Letters and signs in it that must be read. */
  words?(element: E, environment: PaintEnvironment): Words[];
  /** How far it paints, where that is more than its box. */
  extent?(element: E, environment: PaintEnvironment): Bounds;
  /** What its own painting takes from elsewhere, such as the ground it has chosen its colours by. */
  depends?(element: E, environment: PaintEnvironment): unknown;
  /** Effects as they are painted, where they depend on what lies beneath. */
  effects?(element: E, environment: PaintEnvironment): Effects;
  /** Paints what of a ground is the product itself, on a clear ground, to measure where it is. */
  paintItem?(element: E, canvas: Canvas2D, environment: PaintEnvironment): void;
  /** Its painting follows from other elements, and not from what it is and depends on alone. */
  followsOthers?(element: E): boolean;
  /** Paints what of a ground stands in front of the products. */
  paintForeground?(element: E, canvas: Canvas2D, environment: PaintEnvironment): void;
  /** What lies on the ground under all products: shadows, reflections. In the frame's pixels, not turned. */
  paintUnder?(element: E, canvas: Canvas2D, environment: PaintEnvironment): void;
  /** It paints with paths of one colour and whole pictures alone, so that a page can hold it in vectors. */
  inVectors?(element: E): boolean;
  /** Draws the element with its box in the frame's pixels; the canvas is already scaled to the wanted size. */
  paint(element: E, canvas: Canvas2D, environment: PaintEnvironment): void;
}
