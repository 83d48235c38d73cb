import { elementKind } from '../elements/index';
import type { BlendMode } from '../elements/base';
import { boundsAbove, crop, type Rgba } from '../raster/pixels';
import type { ResolvedShot } from '../shot/resolve';
import type { Canvas2D } from '../raster/canvas';
import { paintOrder } from './paint-order';
import {
  environmentOf,
  overCanvas,
  paintElement,
  paintForegroundOf,
  paintShadows,
  type PaintOptions,
} from './paint-shot';

/** One layer of a picture, cut to what it shows. Laid over each other, back to front, they give the picture. */
export interface Layer {
  name: string;
  opacity: number;
  blend: BlendMode;
  /** Where its pixels begin in the picture. */
  x: number;
  y: number;
  pixels: Rgba;
}

/**
 * A shot painted layer by layer: each element alone on a clear ground, though it sees what lies under it as in the
 * finished picture; shadows and a scene's foreground are layers of their own. Empty layers are left out.
 */
export function paintLayers(shot: ResolvedShot, options: PaintOptions): { layers: Layer[]; merged: Rgba } {
  const { width, height } = shot;
  const main = options.host.canvas(width, height);
  const environment = overCanvas(environmentOf(shot, options), main.context, width, height);
  const layers: Layer[] = [];
  const layer = (
    name: string,
    opacity: number,
    blend: BlendMode,
    paint: (canvas: Canvas2D) => void,
    onto: (canvas: Canvas2D) => void,
  ) => {
    const own = options.host.canvas(width, height);
    paint(own.context);
    const made = cut({ width, height, data: own.context.getImageData(0, 0, width, height).data });
    if (made) layers.push({ name, opacity, blend, ...made });
    onto(main.context);
  };
  for (const { element, shadowsBefore, foregroundAfter } of paintOrder(environment.elements).steps) {
    if (shadowsBefore.length) {
      const shadows = (canvas: Canvas2D) => paintShadows(shadowsBefore, canvas, environment);
      // They are multiplied into what lies under them, as in the picture.
      layer('Shadows', 1, 'multiply', shadows, shadows);
    }
    layer(
      element.name || elementKind(element.kind).title,
      element.opacity,
      element.blend,
      (canvas) => paintElement({ ...element, opacity: 1, blend: 'normal' }, canvas, environment),
      (canvas) => paintElement(element, canvas, environment),
    );
    if (foregroundAfter) {
      const front = (canvas: Canvas2D) => paintForegroundOf(foregroundAfter, canvas, environment);
      layer('Foreground', 1, 'normal', front, front);
    }
  }
  return {
    layers,
    merged: { width, height, data: main.context.getImageData(0, 0, width, height).data },
  };
}

function cut(pixels: Rgba): Pick<Layer, 'x' | 'y' | 'pixels'> | null {
  const { width, height, data } = pixels;
  const alpha = new Uint8Array(width * height);
  for (let i = 0; i < alpha.length; i++) alpha[i] = data[i * 4 + 3];
  const bounds = boundsAbove({ width, height, data: alpha }, 0);
  return bounds && { x: bounds.x, y: bounds.y, pixels: crop(pixels, bounds) };
}
