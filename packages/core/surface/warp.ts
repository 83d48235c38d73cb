import type { Rgba } from '../raster/pixels';
import type { ArtworkLevels } from './artwork';
import type { UvMap } from './uv-map';

/** Levels are a little blurred already by being halved: footprints count so much smaller. */
const SHARP = 0.9;

export interface WarpOptions {
  /** The design softened to this many pixels of the picture at least: ink that spreads. */
  spread?: number;
  /** Samples along the longer axis of a pixel's footprint, at most. */
  most?: number;
  /** Nothing is printed outside 0..1 of the area; its border is smoothed over a pixel. */
  clip?: boolean;
}

/**
 * The artwork as it lies in a part of the picture: premultiplied pixels of the map's size. Filtered along the longer
 * axis of each pixel's footprint (several samples from the level that fits the shorter one; after McCormack et al.
 * 1999, "Feline"), so that lines stay sharp and calm where the surface runs away from the camera.
 * @param toArtwork homography from the map's u, v to pixels of the artwork
 */
export function warpArtwork(
  artwork: ArtworkLevels,
  map: UvMap,
  toArtwork: readonly number[],
  { spread = 0, most = 8, clip = true }: WarpOptions = {},
): Rgba {
  const { width, height } = map;
  const out = new Uint8ClampedArray(width * height * 4);
  const h = toArtwork;
  const ax = new Float32Array(width * height);
  const ay = new Float32Array(width * height);
  for (let i = 0; i < ax.length; i++) {
    const u = map.u[i];
    const v = map.v[i];
    const w = h[6] * u + h[7] * v + h[8];
    ax[i] = (h[0] * u + h[1] * v + h[2]) / w;
    ay[i] = (h[3] * u + h[4] * v + h[5]) / w;
  }
  const margin = 2;
  const { levels } = artwork;
  const top = levels.length - 1;
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const [px, py] = [ax[i], ay[i]];
      if (Number.isNaN(px)) continue;
      // Differences to the neighbour that lies on the surface too.
      const r = x + 1 < width && !Number.isNaN(ax[i + 1]) ? 1 : -1;
      const d = y + 1 < height && !Number.isNaN(ax[i + width]) ? width : -width;
      let dxx = (ax[i + r] - px) * r;
      let dxy = (ay[i + r] - py) * r;
      const s = d > 0 ? 1 : -1;
      let dyx = (ax[i + d] - px) * s;
      let dyy = (ay[i + d] - py) * s;
      if (!Number.isFinite(dxx)) dxx = dxy = 0;
      if (!Number.isFinite(dyx)) dyx = dyy = 0;
      // The footprint's axes: the singular values of the map's derivative.
      const e = dxx * dxx + dyx * dyx;
      const f = dxy * dxy + dyy * dyy;
      const g = dxx * dxy + dyx * dyy;
      const root = Math.sqrt((e - f) * (e - f) + 4 * g * g);
      const long = Math.sqrt(Math.max(1e-9, (e + f + root) / 2));
      const short = Math.sqrt(Math.max(1e-9, (e + f - root) / 2));
      if (
        px < -margin * long ||
        py < -margin * long ||
        px > artwork.width + margin * long ||
        py > artwork.height + margin * long
      )
        continue;
      let cover = 1;
      if (clip) {
        cover = borderCover(map, i, r, d, s);
        if (cover <= 0) continue;
      }
      // The design alone decides how sharp it can be: beyond its own pixels it is only enlarged.
      const samples = Math.min(most, Math.max(1, Math.ceil(long / Math.max(short, 1) - 0.25)));
      const across = Math.max(1, Math.max(short, long / samples) * (SHARP + spread));
      const level = Math.min(top, Math.max(0, Math.log2(across)));
      const l0 = Math.floor(level);
      const l1 = Math.min(top, l0 + 1);
      const between = level - l0;
      let [ux, uy] = [1, 0];
      if (root > 1e-12) {
        // The longer axis: the eigenvector of the larger eigenvalue.
        [ux, uy] = Math.abs(e - f) + root > 1e-12 && e >= f ? [e - f + root, 2 * g] : [2 * g, f - e + root];
        const n = Math.hypot(ux, uy) || 1;
        ux /= n;
        uy /= n;
      }
      let [R, G, B, A] = [0, 0, 0, 0];
      for (let k = 0; k < samples; k++) {
        const t = ((k + 0.5) / samples - 0.5) * long;
        const sx = px + ux * t;
        const sy = py + uy * t;
        for (let pass = 0; pass < 2; pass++) {
          const weight = pass ? between : 1 - between;
          if (weight < 1e-3) continue;
          const L = levels[pass ? l1 : l0];
          const qx = (sx * L.width) / artwork.width - 0.5;
          const qy = (sy * L.height) / artwork.height - 0.5;
          const x0 = Math.floor(qx);
          const y0 = Math.floor(qy);
          if (x0 < -1 || y0 < -1 || x0 >= L.width || y0 >= L.height) continue;
          const fx = qx - x0;
          const fy = qy - y0;
          const inX0 = x0 >= 0;
          const inX1 = x0 + 1 < L.width;
          const row0 = y0 >= 0;
          const row1 = y0 + 1 < L.height;
          const j = (y0 * L.width + x0) * 4;
          const data = L.data;
          const w00 = inX0 && row0 ? (1 - fx) * (1 - fy) * weight : 0;
          const w10 = inX1 && row0 ? fx * (1 - fy) * weight : 0;
          const w01 = inX0 && row1 ? (1 - fx) * fy * weight : 0;
          const w11 = inX1 && row1 ? fx * fy * weight : 0;
          const j2 = j + L.width * 4;
          if (w00) {
            R += w00 * data[j];
            G += w00 * data[j + 1];
            B += w00 * data[j + 2];
            A += w00 * data[j + 3];
          }
          if (w10) {
            R += w10 * data[j + 4];
            G += w10 * data[j + 5];
            B += w10 * data[j + 6];
            A += w10 * data[j + 7];
          }
          if (w01) {
            R += w01 * data[j2];
            G += w01 * data[j2 + 1];
            B += w01 * data[j2 + 2];
            A += w01 * data[j2 + 3];
          }
          if (w11) {
            R += w11 * data[j2 + 4];
            G += w11 * data[j2 + 5];
            B += w11 * data[j2 + 6];
            A += w11 * data[j2 + 7];
          }
        }
      }
      const k = cover / samples;
      const o = i * 4;
      out[o] = R * k;
      out[o + 1] = G * k;
      out[o + 2] = B * k;
      out[o + 3] = A * k;
    }
  return { width, height, data: out };
}

/** How much of a pixel lies inside 0..1 of the area, by its distance from the border in pixels. */
function borderCover(map: UvMap, i: number, r: number, d: number, s: number): number {
  const u = map.u[i];
  const v = map.v[i];
  const inside = Math.min(u, 1 - u, v, 1 - v);
  if (inside > 0.05) return 1;
  const gu = Math.hypot((map.u[i + r] - u) * r, (map.u[i + d] - u) * s) || 1e-6;
  const gv = Math.hypot((map.v[i + r] - v) * r, (map.v[i + d] - v) * s) || 1e-6;
  const near = Math.min(u / gu, (1 - u) / gu, v / gv, (1 - v) / gv) + 0.5;
  return near < 0 ? 0 : near > 1 ? 1 : near;
}
