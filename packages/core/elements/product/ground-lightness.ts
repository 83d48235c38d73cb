import type { Rgba } from '../../raster/pixels';
import { groundPlacement } from '../../stage/stand';
import { measureTone } from '../../stage/tone-match';
import { isBackdrop, type BackdropElement } from '../backdrop/model';
import { backdropPainter } from '../backdrop/paint';
import type { PaintEnvironment } from '../environment';
import type { ProductElement } from './model';

/** The backdrop is painted so many pixels wide to measure it. */
const MEASURED = 240;

/** Lightness (OKLab 0..1) of the backdrop where a product's shadow falls; null where nothing lies behind it. */
export function groundLightness(element: ProductElement, environment: PaintEnvironment): number | null {
  const { frame, host, elements } = environment;
  const backdrop = elements.find((e) => isBackdrop(e) && !e.hidden);
  const standing = groundPlacement(element, environment.ground, frame);
  if (!backdrop || !standing) return null;
  const scale = MEASURED / frame.width;
  const width = MEASURED;
  const height = Math.max(1, Math.round(frame.height * scale));
  const { context } = host.canvas(width, height);
  context.scale(scale, scale);
  backdropPainter.paint(backdrop as BackdropElement, context, { ...environment, scale });
  const painted: Rgba = { width, height, data: context.getImageData(0, 0, width, height).data };
  const { box } = element;
  const part = {
    x: (standing.at.x - box.width * 0.9) * scale,
    y: (standing.at.y - box.width * 0.15) * scale,
    width: box.width * 1.8 * scale,
    height: box.width * 0.4 * scale,
  };
  return measureTone(painted, part)?.middle ?? null;
}
