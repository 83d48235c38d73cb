import { blur } from '../raster/blur';
import { grow } from '../raster/distance';
import { createPlane, type Plane } from '../raster/pixels';
import type { EdgeControls } from './recipe';

/** How far beyond a view the edge controls look, in pixels of the view. */
export function edgeReach(edge: EdgeControls, k: number): number {
  return Math.ceil((Math.abs(edge.shift) + 3 * edge.soften + 3 * edge.smooth) / k) + 2;
}

/**
 * A matte after its edge controls, in this order: smooth (blurred, then made steep again about its middle), shift
 * (grey dilation or erosion by a disc), soften (Gaussian), crispness (steeper about its middle).
 * @param k photo pixels per pixel of the matte
 */
export function applyEdgeControls(alpha: Plane, edge: EdgeControls, k: number): Plane {
  let out = alpha;
  const smooth = edge.smooth / k;
  if (smooth >= 0.3) {
    const sigma = smooth / 2;
    out = steepen(blurInside(out, sigma), Math.max(1, sigma * 1.67));
  }
  const shift = edge.shift / k;
  if (Math.abs(shift) >= 0.02) out = shifted(out, shift);
  if (edge.soften / k >= 0.3) out = blurInside(out, edge.soften / k);
  if (edge.crispness > 0) out = steepen(out, 1 + 9 * edge.crispness ** 2);
  return out;
}

function steepen(plane: Plane, gain: number): Plane {
  const out = createPlane(plane.width, plane.height);
  for (let i = 0; i < out.data.length; i++) {
    const v = 0.5 + (plane.data[i] - 0.5) * gain;
    out.data[i] = v < 0 ? 0 : v > 1 ? 1 : v;
  }
  return out;
}

/** A Gaussian blur for which the picture goes on beyond its border. */
function blurInside(plane: Plane, sigma: number): Plane {
  const out = blur(plane, sigma);
  const { width, height, data } = plane;
  let touches = false;
  for (let x = 0; x < width; x++) touches ||= data[x] > 0 || data[(height - 1) * width + x] > 0;
  for (let y = 0; y < height; y++) touches ||= data[y * width] > 0 || data[y * width + width - 1] > 0;
  if (!touches || out === plane) return out;
  const share = blur(createPlane(width, height, 1), sigma);
  for (let i = 0; i < out.data.length; i++) out.data[i] = Math.min(1, out.data[i] / share.data[i]);
  return out;
}

/** Moves the edge by a fraction of pixels: between the two whole discs on either side. */
function shifted(plane: Plane, shift: number): Plane {
  const size = Math.abs(shift);
  const low = Math.floor(size);
  const share = size - low;
  const a = low === 0 ? plane : morph(plane, low, shift > 0);
  if (share < 0.02) return a;
  const b = morph(plane, low + 1, shift > 0);
  const out = createPlane(plane.width, plane.height);
  for (let i = 0; i < out.data.length; i++) out.data[i] = a.data[i] + (b.data[i] - a.data[i]) * share;
  return out;
}

function morph(plane: Plane, radius: number, outward: boolean): Plane {
  const { width, height, data } = plane;
  // Only pixels near a change can change.
  const edge = new Uint8Array(data.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (
        (x + 1 < width && Math.abs(data[i] - data[i + 1]) > 0.004) ||
        (y + 1 < height && Math.abs(data[i] - data[i + width]) > 0.004)
      )
        edge[i] = 1;
    }
  const near = grow(edge, width, height, radius + 1);
  const half = Array.from({ length: radius + 1 }, (_, dy) =>
    Math.floor(Math.sqrt(radius * radius - dy * dy)),
  );
  const out = { width, height, data: Float32Array.from(data) };
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (!near[i]) continue;
      let v = data[i];
      for (let dy = -radius; dy <= radius; dy++) {
        const yy = y + dy;
        if (yy < 0 || yy >= height) continue;
        const reach = half[Math.abs(dy)];
        const last = yy * width + Math.min(width - 1, x + reach);
        for (let q = yy * width + Math.max(0, x - reach); q <= last; q++)
          if (outward ? data[q] > v : data[q] < v) v = data[q];
      }
      out.data[i] = v;
    }
  return out;
}
