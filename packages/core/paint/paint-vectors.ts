import { isBackdrop } from '../elements/backdrop/model';
import { elementKind, type ShotElement } from '../elements/index';
import type { PaintEnvironment } from '../elements/environment';
import { elementPainter } from '../elements/painters';
import type { Canvas2D } from '../raster/canvas';
import { hasEffects } from '../raster/effects';
import type { Rgba } from '../raster/pixels';
import type { ResolvedShot } from '../shot/resolve';
import { paintOrder, type PaintStep } from './paint-order';
import { environmentOf, overCanvas, paintElement, paintShot, type PaintOptions } from './paint-shot';

/** Pixels of the longer side by which signs choose their colours from what lies beneath. */
const BENEATH = 1000;

/** A shot whose upper elements are kept in vectors. */
export interface InVectors {
  /** What lies below them as one picture, at the scale asked for; null where nothing does. */
  below: Rgba | null;
  /** Puts those above on a canvas that keeps paths, in the frame's pixels, back to front. */
  paintAbove(onto: Canvas2D, draws?: (element: ShotElement, environment: PaintEnvironment) => boolean): void;
}

/**
 * A shot in two parts: the elements in front that paint with paths and pictures alone are kept apart, all below them is
 * painted as one picture. A backdrop of one colour with nothing else below is kept as well.
 */
export function inVectors(shot: ResolvedShot, options: PaintOptions): InVectors {
  const { steps } = paintOrder(environmentOf(shot, options).elements);
  const last = steps.findLastIndex((step) => !keepsVectors(step, steps));
  const above = steps.slice(last + 1).map(({ element }) => element);
  const apart = new Set(above.map(({ id }) => id));
  const below = shot.elements.map((e) => (apart.has(e.id) ? { ...e, hidden: true } : e));
  const picture = last < 0 ? null : paintShot({ ...shot, elements: below }, options).pixels();
  return {
    below: picture,
    paintAbove(onto, draws = () => false) {
      const k = Math.min(1, BENEATH / Math.max(shot.width, shot.height));
      const [width, height] = [Math.ceil(shot.width * k), Math.ceil(shot.height * k)];
      const seen = options.host.canvas(width, height).context;
      seen.scale(width / shot.width, height / shot.height);
      if (picture) seen.drawImage(options.host.bitmap(picture), 0, 0, shot.width, shot.height);
      const environment = overCanvas(environmentOf(shot, options), seen, width, height);
      for (const element of above) {
        if (!draws(element, environment)) paintElement(element, onto, environment);
        paintElement(element, seen, environment);
      }
    },
  };
}

function keepsVectors(
  { element, shadowsBefore, foregroundAfter }: PaintStep,
  steps: readonly PaintStep[],
): boolean {
  const { kind, blend, opacity, effects } = element;
  if (shadowsBefore.length || foregroundAfter || blend !== 'normal' || hasEffects(effects)) return false;
  // What is seen through is laid on as one, which paths are not.
  if (opacity < 1 && elementKind(kind).role === 'overlay') return false;
  if (isBackdrop(element) && steps[0].element !== element) return false;
  return elementPainter(kind).inVectors?.(element) ?? false;
}
