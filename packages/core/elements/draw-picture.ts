import { resize } from '../raster/resample';
import type { Rect, Rgba } from '../raster/pixels';
import type { Canvas2D, Drawable } from '../raster/canvas';
import type { PaintEnvironment } from './environment';

/**
 * Something of a picture's, fit to be drawn at `reduction` source pixels a device pixel: the picture itself up
 * to a reduction by 2, beyond that a copy halved (area filter, in core) as often as it takes to stay under 2.
 * Canvases reduce by more than 2 in ways that differ from place to place; halving here keeps them alike.
 */
export function pictureLevel(
  hash: string,
  reduction: number,
  environment: PaintEnvironment,
): { drawable: Drawable; width: number; height: number } {
  const picture = environment.picture(hash);
  const level = Math.max(0, Math.floor(Math.log2(Math.max(1, reduction))));
  if (level === 0) return picture;
  const drawable = environment.derived(`level:${hash}:${level}`, () => levelPixels(picture.pixels(), level));
  return { drawable, width: drawable.width, height: drawable.height };
}

export function levelPixels(image: Rgba, level: number): Rgba {
  let current = image;
  for (let i = 0; i < level && current.width > 1 && current.height > 1; i++)
    current = resize(
      current,
      Math.max(1, Math.round(current.width / 2)),
      Math.max(1, Math.round(current.height / 2)),
    );
  return current;
}

/** Draws a picture into a rectangle of the frame, filtered for the size it comes out at. */
export function drawPicture(
  hash: string,
  { x, y, width, height }: Rect,
  canvas: Canvas2D,
  environment: PaintEnvironment,
): void {
  const source = environment.picture(hash);
  const level = pictureLevel(hash, source.width / (width * environment.scale), environment);
  canvas.imageSmoothingEnabled = true;
  // At most halved here: trilinear is enough, and twice as fast as cubic.
  canvas.imageSmoothingQuality = 'medium';
  canvas.drawImage(level.drawable, x, y, width, height);
}
