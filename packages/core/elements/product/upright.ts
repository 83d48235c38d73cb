import type { PaintEnvironment } from '../environment';
import {
  boundsAbove,
  crop,
  createRgba,
  reducedAlpha,
  alphaPlane,
  type Plane,
  type Rgba,
} from '../../raster/pixels';
import { reduceTo } from '../../raster/resample';
import { measureBase } from '../../stage/base';
import { bodyOf, type Body } from '../../stage/body';
import type { Light } from '../../stage/light';
import { STUDIO_LIGHT } from '../../stage/ground';
import { groundPlacement, type GroundPlacement } from '../../stage/stand';
import type { Box } from '../../vector/box';
import type { ProductElement } from './model';

/** Long side of the silhouette from which shadows are computed; they hold no finer detail. */
const SILHOUETTE = 192;

/** A product as it stands after it was turned: an upright box and a base of its own. */
export interface UprightProduct {
  element: ProductElement;
  box: Box;
  alpha: Plane;
  key: string;
}

/** Turned products are turned pictures: their base is looked for again. */
export function uprightProduct(element: ProductElement, environment: PaintEnvironment): UprightProduct {
  const { picture, box } = element;
  if (!box.rotation || element.pose === 'flat') {
    const key = `silhouette:${picture}`;
    return {
      element,
      box,
      key,
      alpha: environment.kept(key, () => silhouette(environment.picture(picture).pixels())),
    };
  }
  const key = `turned:${picture}:${box.rotation}:${(box.height / box.width).toFixed(3)}`;
  const turned = environment.kept(key, () => {
    const image = turnedPicture(smallPicture(picture, environment), box);
    const base = measureBase(alphaPlane(reduceTo(image.picture, SILHOUETTE)));
    return { ...image, base, alpha: silhouette(image.picture) };
  });
  const k = box.width;
  const upright: Box = {
    x: box.x + box.width / 2 + turned.x * k,
    y: box.y + box.height / 2 + turned.y * k,
    width: turned.width * k,
    height: turned.height * k,
    rotation: 0,
  };
  return { element: { ...element, box: upright, base: turned.base }, box: upright, alpha: turned.alpha, key };
}

function silhouette(pixels: Rgba): Plane {
  return reducedAlpha(pixels, Math.max(1, Math.ceil(Math.max(pixels.width, pixels.height) / SILHOUETTE)));
}

/** The picture at a few hundred pixels, turned with its upright; for reflections. */
export function uprightPicture(
  upright: UprightProduct,
  original: ProductElement,
  environment: PaintEnvironment,
): Rgba {
  if (upright.element === original) return smallPicture(original.picture, environment);
  return environment.kept(`${upright.key}:picture`, () =>
    turnedPicture(smallPicture(original.picture, environment), original.box),
  ).picture;
}

export function smallPicture(hash: string, environment: PaintEnvironment): Rgba {
  return environment.kept(`small:${hash}`, () => reduceTo(environment.picture(hash).pixels(), 480));
}

/** A picture turned about its middle and trimmed; where it then lies, in widths of the box about its middle. */
function turnedPicture(
  image: Rgba,
  box: Box,
): { picture: Rgba; x: number; y: number; width: number; height: number } {
  const a = (box.rotation * Math.PI) / 180;
  const [cos, sin] = [Math.cos(a), Math.sin(a)];
  const k = image.width / box.width;
  const [w, h] = [box.width * k, box.height * k];
  const width = Math.ceil(Math.abs(w * cos) + Math.abs(h * sin)) + 2;
  const height = Math.ceil(Math.abs(w * sin) + Math.abs(h * cos)) + 2;
  const out = createRgba(width, height);
  const stretch = image.height / h;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const dx = x + 0.5 - width / 2;
      const dy = y + 0.5 - height / 2;
      const sx = Math.floor(dx * cos + dy * sin + w / 2);
      const sy = Math.floor((dy * cos - dx * sin + h / 2) * stretch);
      if (sx < 0 || sy < 0 || sx >= image.width || sy >= image.height) continue;
      const j = (sy * image.width + sx) * 4;
      out.data.set(image.data.subarray(j, j + 4), (y * width + x) * 4);
    }
  const bounds = boundsAbove(alphaPlane(out), 0.1) ?? { x: 0, y: 0, width, height };
  return {
    picture: crop(out, bounds),
    x: (bounds.x - width / 2) / w,
    y: (bounds.y - height / 2) / w,
    width: bounds.width / w,
    height: bounds.height / w,
  };
}

/** A product's light: its own, the ground's, or a studio's. */
export function lightOf(element: ProductElement, environment: Pick<PaintEnvironment, 'ground'>): Light {
  return element.shadow.light ?? environment.ground?.light ?? STUDIO_LIGHT;
}

/**
 * The light as a product's own axes see it: they turn with the direction to the camera.
 * @param steps whole degrees to which it is rounded, so that a shadow is not made anew for every move
 */
export function lightAt(
  light: Light,
  { camera, stand }: GroundPlacement,
  softness: number,
  steps = 2,
): Light {
  const { rotation: r } = camera;
  const forward = Math.atan2(r[7], r[6]);
  const turn = ((stand.facing - forward) * 180) / Math.PI;
  return {
    azimuthDeg: Math.round((light.azimuthDeg - turn) / steps) * steps,
    elevationDeg: light.elevationDeg,
    softness: Math.min(1, light.softness * softness),
  };
}

/** Bodies are made in hundredths of the product's width: shadows are the same at every size, and made once. */
const UNITS = 100;

/**
 * A product's body in hundredths of its width, with how it stands and how many of the scene's millimetres such a
 * unit has; null above the horizon.
 */
export function standingBody(
  upright: UprightProduct,
  environment: PaintEnvironment,
): { standing: GroundPlacement; body: Body; unit: number; key: string } | null {
  const { element, box, alpha } = upright;
  const standing = groundPlacement(element, environment.ground, environment.frame);
  if (!standing) return null;
  const { scale, base, photoPitch, pxPerMm, depthMm } = standing;
  // The product's own depth against its own width, as drawn.
  const depth = depthMm === null ? null : (depthMm * pxPerMm * UNITS) / box.width;
  const key = `body:${upright.key}:${Math.round(photoPitch)}:${depth === null ? '' : depth.toFixed(1)}`;
  const body = environment.kept(key, () => bodyOf(alpha, base, alpha.width / UNITS, depth, photoPitch));
  return { standing, body, unit: box.width / scale / UNITS, key };
}
