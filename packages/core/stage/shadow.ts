import { blur } from '../raster/blur';
import { createPlane, createRgba, type Plane, type Rgba } from '../raster/pixels';
import { samplePlane } from '../raster/resample';
import type { Light } from '../elements/backdrop/survey';

export interface ShadowOptions {
  pose: 'stand' | 'flat';
  strength: number;
  contact: number;
  light: Light;
}

/** How much the standing plane is foreshortened: the sine of a camera pitch usual for products on tables. */
const FORESHORTENING = 0.32;
/** Slices through the product's depth whose shadows together make a body's shadow out of a flat silhouette. */
const SLICES = 9;

/** How far a shadow's picture reaches beyond its product on each side, in pixels of the silhouette. */
export interface ShadowFrame {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** How far a point falls sideways and up the picture for each pixel of its height. */
function fall({ azimuthDeg, elevationDeg }: Light): { x: number; y: number; reach: number } {
  const azimuth = (azimuthDeg * Math.PI) / 180;
  const reach = Math.min(2.2, 1 / Math.tan((Math.max(8, elevationDeg) * Math.PI) / 180));
  return { x: -Math.sin(azimuth) * reach, y: -Math.cos(azimuth) * reach * FORESHORTENING, reach };
}

/** The room that `castShadow` needs around a silhouette of this size. */
export function shadowFrame(width: number, height: number, { pose, light }: ShadowOptions): ShadowFrame {
  const size = Math.max(width, height);
  if (pose === 'flat') {
    const all = Math.ceil(size * 0.2);
    return { left: all, top: all, right: all, bottom: all };
  }
  const by = fall(light);
  const blurred = Math.ceil(size * (0.06 + 0.12 * light.softness));
  return {
    left: blurred + Math.ceil(Math.max(0, -by.x) * height),
    right: blurred + Math.ceil(Math.max(0, by.x) * height),
    // Shadows that fall away from the camera go up behind the product; few reach past its top.
    top: Math.max(0, Math.ceil(Math.max(0, -by.y) * height) - height + blurred),
    bottom: blurred + Math.ceil(Math.max(0, by.y) * height),
  };
}

/**
 * The shadow of a product on the plane it stands or lies on, from its silhouette and the light, as black with
 * alpha. A standing product's silhouette is cut into upright slices through its (round) depth; each point at
 * height h falls h * cot(elevation) away from the light; the part cast from higher up is blurred more. A flat
 * product's silhouette is moved a little and blurred.
 * @returns a picture that is larger than the silhouette by `shadowFrame`
 */
export function castShadow(silhouette: Plane, options: ShadowOptions): Rgba {
  const { width: w, height: h } = silhouette;
  const frame = shadowFrame(w, h, options);
  const W = w + frame.left + frame.right;
  const H = h + frame.top + frame.bottom;
  const size = Math.max(w, h);
  const soft = 0.01 + 0.05 * options.light.softness;
  const by = fall(options.light);

  if (options.pose === 'flat') {
    const moved = createPlane(W, H);
    const lift = 0.025 * size;
    const dx = by.x * lift;
    const dy = (by.y / FORESHORTENING) * -lift * 0.9;
    for (let y = 0; y < H; y++)
      for (let x = 0; x < W; x++)
        moved.data[y * W + x] = inside(silhouette, x - frame.left - dx, y - frame.top - dy);
    const cast = blur(moved, size * soft * 0.45);
    const close = blur(moved, Math.max(0.8, size * 0.006));
    return asBlack(
      W,
      H,
      (i) => cast.data[i] * options.strength * 0.75 + close.data[i] * options.contact * 0.35,
    );
  }

  const base = baseOf(silhouette);
  const halfDepth = (base.width / 2) * FORESHORTENING;
  const low = createPlane(W, H);
  const high = createPlane(W, H);
  const touch = createPlane(W, H);
  const footY = base.y - halfDepth;
  const footing = Math.max(2, h * 0.05);
  for (let s = 0; s < SLICES; s++) {
    const u = (s / (SLICES - 1)) * 2 - 1;
    const narrow = Math.sqrt(Math.max(0.04, 1 - u * u));
    // The contact reaches a little past the base, so that it shows in front of it.
    const groundY = frame.top + footY + u * halfDepth * 1.06 + size * 0.004;
    for (let step = 0; step <= base.y; step++) {
      // The silhouette's row at this height above the slice's foot, laid on the plane where its shadow falls.
      const row = base.y - step;
      const yy = Math.round(groundY + by.y * step);
      if (yy < 0 || yy >= H) continue;
      const target = step < h * 0.3 ? low : high;
      const left = frame.left + by.x * step + base.x;
      const first = Math.max(0, Math.floor(left - (base.x + 1) * narrow));
      const last = Math.min(W - 1, Math.ceil(left + (w + 1 - base.x) * narrow));
      for (let x = first; x <= last; x++) {
        const a = inside(silhouette, (x - left) / narrow + base.x, row);
        const i = yy * W + x;
        if (a > target.data[i]) target.data[i] = a;
        if (step < footing && a > touch.data[i]) touch.data[i] = a;
      }
    }
  }
  const nearShadow = blur(low, Math.max(1.2, size * soft * 0.5));
  const farShadow = blur(high, Math.max(1.5, size * soft * 1.1));
  const contact = blur(touch, Math.max(1.2, size * 0.02));
  return asBlack(W, H, (i) => {
    const cast = Math.max(nearShadow.data[i], farShadow.data[i]) * options.strength;
    return 1 - (1 - cast * 0.78) * (1 - Math.min(1, contact.data[i] * 1.25) * options.contact * 0.85);
  });
}

/** The middle and width of what the product stands on: the silhouette's extent just above its lowest rows. */
function baseOf(silhouette: Plane): { x: number; y: number; width: number } {
  const { width, height, data } = silhouette;
  const y = height - 1;
  let left = width;
  let right = 0;
  for (let row = Math.floor(height * 0.93); row < height; row++) {
    for (let x = 0; x < width; x++) {
      if (data[row * width + x] > 0.5) {
        if (x < left) left = x;
        if (x > right) right = x;
      }
    }
  }
  if (left > right) return { x: width / 2, y, width: width * 0.5 };
  return { x: (left + right) / 2, y, width: right - left + 1 };
}

function inside(plane: Plane, x: number, y: number): number {
  if (x < -1 || y < -1 || x > plane.width || y > plane.height) return 0;
  return samplePlane(plane, x, y) * Math.min(1, x + 1, plane.width - x, y + 1, plane.height - y);
}

function asBlack(width: number, height: number, alpha: (i: number) => number): Rgba {
  const out = createRgba(width, height);
  for (let i = 0; i < width * height; i++) out.data[i * 4 + 3] = 255 * alpha(i);
  return out;
}
