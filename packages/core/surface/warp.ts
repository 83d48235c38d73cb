import type { Rgba } from '../raster/pixels';
import type { ArtworkLevels } from './artwork';
import type { UvMap } from './uv-map';

/** Levels are a little blurred already by being halved: footprints count so much smaller. */
const SHARP = 0.9;

/** A design reaches so many footprints beyond its border. */
const REACH = 2;

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
// eslint-disable-next-line max-lines-per-function -- one loop over pixels, in one piece for speed
export function warpArtwork(
  artwork: ArtworkLevels,
  map: UvMap,
  toArtwork: readonly number[],
  { spread = 0, most = 8, clip = true }: WarpOptions = {},
): Rgba {
  const { width, height } = map;
  const out = new Uint8ClampedArray(width * height * 4);
  const places = artworkPlaces(map, toArtwork);
  const { ax, ay } = places;
  const { levels, first } = artwork;
  const top = levels.length - 1;
  // Level pixels an artwork pixel.
  const sizes = levels.map((_, l) => 2 ** -(first + l));
  const [right, bottom] = [artwork.width, artwork.height];
  const print: Footprint = { dx: 0, dy: 0, samples: 1, l0: 0, l1: 0, between: 0, reach: 0 };
  for (let by = 0; by < height; by += BLOCK)
    for (let bx = 0; bx < width; bx += BLOCK) {
      const y1 = Math.min(height, by + BLOCK);
      const x1 = Math.min(width, bx + BLOCK);
      // A footprint changes slowly: one serves a block.
      let known = false;
      for (let y = by; y < y1; y++)
        for (let x = bx, i = y * width + bx; x < x1; x++, i++) {
          const px = ax[i];
          const py = ay[i];
          // NaN compares false: what is not on the surface is left out here too.
          if (!(px > -right && py > -bottom && px < 2 * right && py < 2 * bottom)) continue;
          if (!known) {
            measure(print, places, x, y, most, spread);
            const level = Math.min(top, Math.max(0, print.between - first));
            print.l0 = Math.floor(level);
            print.l1 = Math.min(top, print.l0 + 1);
            print.between = level - print.l0;
            known = true;
          }
          const { reach, samples, l0, l1, between, dx: ux, dy: uy } = print;
          if (px < -reach || py < -reach || px > right + reach || py > bottom + reach) continue;
          const cover = clip ? borderCover(map, i, x, y) : 1;
          if (cover <= 0) continue;
          let R = 0;
          let G = 0;
          let B = 0;
          let A = 0;
          for (let k = 0; k < samples; k++) {
            const t = (k + 0.5) / samples - 0.5;
            for (let coarser = 0; coarser < 2; coarser++) {
              const weight = coarser ? between : 1 - between;
              if (weight < 0.02) continue;
              const l = coarser ? l1 : l0;
              const { width: w, height: h, data } = levels[l];
              const qx = (px + ux * t) * sizes[l] - 0.5;
              const qy = (py + uy * t) * sizes[l] - 0.5;
              const x0 = Math.floor(qx);
              const y0 = Math.floor(qy);
              if (x0 < -1 || y0 < -1 || x0 >= w || y0 >= h) continue;
              const fx = qx - x0;
              const fy = qy - y0;
              const j = (y0 * w + x0) * 4;
              const j2 = j + w * 4;
              if (x0 >= 0 && y0 >= 0 && x0 + 1 < w && y0 + 1 < h) {
                const w11 = fx * fy * weight;
                const w10 = fx * weight - w11;
                const w01 = fy * weight - w11;
                const w00 = weight - w11 - w10 - w01;
                const alpha = w00 * data[j + 3] + w10 * data[j + 7] + w01 * data[j2 + 3] + w11 * data[j2 + 7];
                // Clear ground between the parts of a design is common.
                if (alpha === 0) continue;
                A += alpha;
                R += w00 * data[j] + w10 * data[j + 4] + w01 * data[j2] + w11 * data[j2 + 4];
                G += w00 * data[j + 1] + w10 * data[j + 5] + w01 * data[j2 + 1] + w11 * data[j2 + 5];
                B += w00 * data[j + 2] + w10 * data[j + 6] + w01 * data[j2 + 2] + w11 * data[j2 + 6];
                continue;
              }
              // At the design's border what lies outside is clear.
              for (let c = 0; c < 4; c++) {
                const xx = x0 + (c & 1);
                const yy = y0 + (c >> 1);
                if (xx < 0 || yy < 0 || xx >= w || yy >= h) continue;
                const v = (c & 1 ? fx : 1 - fx) * (c >> 1 ? fy : 1 - fy) * weight;
                const m = (yy * w + xx) * 4;
                R += v * data[m];
                G += v * data[m + 1];
                B += v * data[m + 2];
                A += v * data[m + 3];
              }
            }
          }
          if (A === 0) continue;
          const k = cover / samples;
          const o = i * 4;
          out[o] = R * k;
          out[o + 1] = G * k;
          out[o + 2] = B * k;
          out[o + 3] = A * k;
        }
    }
  return { width, height, data: out };
}

/** Side of the blocks of pixels that share a footprint. */
const BLOCK = 4;

/** How a pixel's surroundings lie in the artwork. */
interface Footprint {
  /** The longer axis, in artwork pixels. */
  dx: number;
  dy: number;
  samples: number;
  l0: number;
  l1: number;
  /** Before the levels are known: the level itself. */
  between: number;
  /** How far beyond its border the design is looked for. */
  reach: number;
}

function measure(
  out: Footprint,
  { ax, ay, width, height }: ArtworkPlaces,
  x: number,
  y: number,
  most: number,
  spread: number,
): void {
  const i = y * width + x;
  const px = ax[i];
  const py = ay[i];
  // Differences to the neighbour that lies on the surface too.
  const r = x + 1 < width && ax[i + 1] === ax[i + 1] ? 1 : -1;
  const d = y + 1 < height && ax[i + width] === ax[i + width] ? width : -width;
  const s = d > 0 ? 1 : -1;
  let dxx = (ax[i + r] - px) * r;
  let dxy = (ay[i + r] - py) * r;
  let dyx = (ax[i + d] - px) * s;
  let dyy = (ay[i + d] - py) * s;
  if (dxx !== dxx) dxx = dxy = 0;
  if (dyx !== dyx) dyx = dyy = 0;
  // The footprint's axes: the singular values of the map's derivative.
  const e = dxx * dxx + dyx * dyx;
  const f = dxy * dxy + dyy * dyy;
  const g = dxx * dxy + dyx * dyy;
  const root = Math.sqrt((e - f) * (e - f) + 4 * g * g);
  const long = Math.sqrt(Math.max(1e-9, (e + f + root) / 2));
  const short = Math.sqrt(Math.max(1e-9, (e + f - root) / 2));
  out.reach = REACH * long + BLOCK * long;
  out.samples = Math.min(most, Math.max(1, Math.ceil(long / Math.max(short, 1) - 0.25)));
  // Beyond its own pixels the design is only enlarged.
  const across = Math.max(1, Math.max(short, long / out.samples) * (SHARP + spread));
  out.between = Math.log2(across);
  out.dx = out.dy = 0;
  if (out.samples > 1) {
    // The longer axis: the eigenvector of the larger eigenvalue.
    const ux = e >= f ? e - f + root : 2 * g;
    const uy = e >= f ? 2 * g : f - e + root;
    const n = Math.hypot(ux, uy) || 1;
    out.dx = (ux / n) * long;
    out.dy = (uy / n) * long;
  }
}

/** Where in the artwork each pixel of a map lies, in its pixels; NaN off the surface. */
interface ArtworkPlaces {
  width: number;
  height: number;
  ax: Float32Array;
  ay: Float32Array;
}

function artworkPlaces(map: UvMap, h: readonly number[]): ArtworkPlaces {
  const n = map.u.length;
  const ax = new Float32Array(n);
  const ay = new Float32Array(n);
  const [a, b, c, d, e, f, g, k, l] = h;
  const { u: us, v: vs } = map;
  for (let i = 0; i < n; i++) {
    const u = us[i];
    const v = vs[i];
    const w = g * u + k * v + l;
    ax[i] = (a * u + b * v + c) / w;
    ay[i] = (d * u + e * v + f) / w;
  }
  return { width: map.width, height: map.height, ax, ay };
}

/** How much of a pixel lies inside 0..1 of the area, by its distance from the border in pixels. */
function borderCover(map: UvMap, i: number, x: number, y: number): number {
  const u = map.u[i];
  const v = map.v[i];
  if (u > 0.05 && u < 0.95 && v > 0.05 && v < 0.95) return 1;
  const { width, height } = map;
  const r = x + 1 < width && map.u[i + 1] === map.u[i + 1] ? 1 : -1;
  const d = y + 1 < height && map.u[i + width] === map.u[i + width] ? width : -width;
  const gu = Math.hypot(map.u[i + r] - u, map.u[i + d] - u) || 1e-6;
  const gv = Math.hypot(map.v[i + r] - v, map.v[i + d] - v) || 1e-6;
  const near = Math.min(u / gu, (1 - u) / gu, v / gv, (1 - v) / gv) + 0.5;
  return near < 0 ? 0 : near > 1 ? 1 : near;
}
