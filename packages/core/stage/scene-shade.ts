import { blur } from '../raster/blur';
import { polygonCover } from '../raster/footprint';
import { createPlane, type Plane, type Rgba } from '../raster/pixels';
import { samplePlane } from '../raster/resample';
import { project, type Camera } from './camera';
import { footLine, type Face } from './faces';
import { fromStand, type Stand } from './stand-frame';
import { shadowFalls, type Light } from './light';
import { lackOnSurface, type Receiver } from './shade-on';

type Outline = readonly (readonly [number, number])[];

/** How far places of a frame lie in the scene's own shade, 0..1, at some pixels a frame pixel. */
export interface ShadeMask {
  plane: Plane;
  k: number;
}

/** Long side of a mask: the edge of a shade is soft. */
const MASK = 512;

export function shadeMask(outlines: readonly Outline[], frame: { width: number; height: number }): ShadeMask {
  const k = Math.min(1, MASK / Math.max(frame.width, frame.height));
  const plane = outlinesCover(outlines, Math.ceil(frame.width * k), Math.ceil(frame.height * k), k);
  return { plane: blur(plane, 1.2), k };
}

/** What outlines cover together, in a plane of `k` pixels a unit of theirs. */
function outlinesCover(outlines: readonly Outline[], width: number, height: number, k: number): Plane {
  const all = createPlane(Math.max(1, width), Math.max(1, height));
  const view = { width: all.width, height: all.height, left: 0, top: 0, k: 1 / k };
  for (const outline of outlines) {
    const own = polygonCover(view, outline as [number, number][]);
    own.data.forEach((v, i) => (all.data[i] = Math.max(all.data[i], v)));
  }
  return all;
}

/** How far a place of the frame lies in shade; what lies outside the frame is taken for lit. */
export function shadeAt({ plane, k }: ShadeMask, x: number, y: number): number {
  const [u, v] = [x * k - 0.5, y * k - 0.5];
  return u < -1 || v < -1 || u > plane.width || v > plane.height ? 0 : samplePlane(plane, u, v);
}

/** Shade that darkens by less is none, and none is darker. */
const DEEPEST = 0.9;

/**
 * How dark the scene's own shade is: what it takes of the brightness that a band as wide as a fiftieth of the picture
 * around it shows, in the encoding of the picture.
 * @param outlines in pixels of the picture
 * @returns 0..1; 0 where nothing can be compared
 */
export function shadeDepth({ width, height, data }: Rgba, outlines: readonly Outline[]): number {
  const inside = outlinesCover(outlines, width, height, 1);
  const near = blur(inside, Math.max(width, height) / 50);
  const [dark, bright] = [
    { sum: 0, n: 0 },
    { sum: 0, n: 0 },
  ];
  inside.data.forEach((v, i) => {
    const part = v > 0.99 && near.data[i] > 0.5 ? dark : v < 0.01 && near.data[i] > 0.05 ? bright : null;
    if (!part) return;
    part.sum += 0.2126 * data[i * 4] + 0.7152 * data[i * 4 + 1] + 0.0722 * data[i * 4 + 2];
    part.n++;
  });
  if (!dark.n || !bright.n || !bright.sum) return 0;
  return Math.max(0, Math.min(DEEPEST, 1 - dark.sum / dark.n / (bright.sum / bright.n)));
}

const SAMPLES = 8;

/**
 * The scene's own shade on a product that stands in it: the rays that end on a place of its surface would have ended on
 * the ground or the wall behind it, where shade is marked.
 * @param unit millimetres of the scene a unit of the receiver's
 * @returns the share of the light's rays that shade keeps from each pixel of the matte; null where it keeps none
 */
export function sceneShadeOn(
  alpha: Plane,
  receiver: Receiver,
  {
    mask,
    walls,
    camera,
    stand,
    unit,
  }: {
    mask: ShadeMask;
    walls: readonly Face[];
    camera: Camera;
    stand: Stand;
    unit: number;
  },
  light: Light,
): Plane | null {
  const falls = shadowFalls(light, SAMPLES);
  const feet = walls.map((wall) => footLine(wall, stand));
  return lackOnSurface(alpha, receiver, (place) => {
    const [x, y, z] = [place.x * unit, place.y * unit, place.z * unit];
    let dark = 0;
    for (const fall of falls) {
      let drop = z;
      for (const { x: fx, y: fy, across } of feet) {
        const toward = across[0] * fall.x + across[1] * fall.y;
        const t = (across[0] * (fx - x) + across[1] * (fy - y)) / toward;
        if (t > 0 && t < drop) drop = t;
      }
      const at = project(camera, {
        ...fromStand(stand, x + fall.x * drop, y + fall.y * drop),
        Z: stand.level + z - drop,
      });
      if (at) dark += shadeAt(mask, at.x, at.y);
    }
    return dark / falls.length;
  });
}
