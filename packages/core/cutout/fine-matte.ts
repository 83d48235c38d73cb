import type { Rgba } from '../raster/pixels';
import { solveClosedForm } from './closed-form';
import { bandAround, discsAround } from './fine-labels';
import { propagate } from './propagate';
import { strayFibres, type BackdropAt } from './stray-fibres';

export const BACKDROP = 0;
export const PRODUCT = 1;
export const EDGE = 2;

/** A matte at the fine size, with what is needed to carry it to the photo's full size. */
export interface FineMatte {
  width: number;
  height: number;
  /** BACKDROP, PRODUCT or EDGE, one a pixel; only EDGE pixels may be fractional. */
  zone: Uint8Array;
  alpha: Float32Array;
  /** Colours of the product and of the backdrop at EDGE pixels and their neighbours, 3 floats a pixel, 0..255. */
  front: Float32Array;
  back: Float32Array;
  /** Noise of the backdrop in bytes. */
  noise: number;
}

export interface FineOptions {
  /** Noise of the backdrop in bytes (standard deviation). */
  noise: number;
  /** The backdrop's surface, to find fibres by; null where the backdrop is a pattern. */
  backdrop: BackdropAt | null;
  /** Where a hand asked for the matte to be solved anew: 1 a fine pixel, or null. */
  fibreZone: Uint8Array | null;
  /** Rounds of the matte's solver; 0 leaves it out and keeps the narrow band, for a quick view. */
  iterations: number;
}

/** From this trust on the colours alone tell a pixel's place between product and backdrop. */
const CLEAR = 0.985;
/** Half the width of the narrowest band, in fine pixels. */
const NARROW = 2.3;

/**
 * From a settled outline to a fractional matte. The band around the outline starts narrow, so that the colours
 * carried into it are those just beside the edge, and grows only where the matte has not come to 0 and 1 at its
 * rims (out of focus edges, fur); fibres beyond it are looked for. Each pixel's place on the line between both
 * colours (the compositing equation of Porter and Duff 1984, solved for alpha) is then eased by the closed-form
 * matting Laplacian.
 */
// eslint-disable-next-line max-lines-per-function -- the steps of one method in their order
export function solveFineMatte(fine: Rgba, labels: Uint8Array, options: FineOptions): FineMatte {
  const { width, height, data } = fine;
  const n = width * height;
  const zone = new Uint8Array(n);
  for (let i = 0; i < n; i++) zone[i] = labels[i] ? PRODUCT : BACKDROP;
  const inBand = new Uint8Array(n);
  const bands: Int32Array[] = [];
  const include = (pixels: Int32Array) => {
    for (const p of pixels) {
      inBand[p] = 1;
      zone[p] = EDGE;
    }
    bands.push(pixels);
  };
  include(bandAround(labels, width, height, NARROW));
  if (options.backdrop) include(strayFibres(fine, labels, inBand, options.backdrop));
  if (options.fibreZone) {
    const wide: number[] = [];
    for (let i = 0; i < n; i++) if (options.fibreZone[i] && !inBand[i]) wide.push(i);
    include(Int32Array.from(wide));
  }

  let colours = edgeColours(fine, labels, inBand, join(bands));
  for (let round = 0; round < (options.iterations > 0 ? 3 : 1); round++) {
    const rims: number[] = [];
    const last = bands[round === 0 ? 0 : bands.length - 1];
    for (const p of last) {
      const a = project(data, p, colours, options.noise);
      if (a.trust < 0.5) continue;
      const x = p % width;
      for (const q of [p - 1, p + 1, p - width, p + width]) {
        if (q < 0 || q >= n || inBand[q] || Math.abs((q % width) - x) > 1) continue;
        if (labels[q] ? a.alpha < 0.72 : a.alpha > 0.22) rims.push(q);
      }
    }
    if (rims.length < 12) break;
    const more = discsAround(rims, width, height, 1.6, Uint8Array.from(inBand));
    if (!more.length) break;
    include(more);
    colours = edgeColours(fine, labels, inBand, join(bands));
  }

  const band = join(bands);
  const alpha = new Float32Array(n);
  for (let i = 0; i < n; i++) alpha[i] = zone[i] === PRODUCT ? 1 : 0;
  const unknown = new Int32Array(band.length);
  const wish = new Float32Array(band.length);
  const weight = new Float32Array(band.length);
  let count = 0;
  for (let k = 0; k < band.length; k++) {
    const p = band[k];
    const { alpha: projected, trust } = project(data, p, colours, options.noise);
    const outline = softLabel(labels, p, width, height);
    const a = trust * Math.min(1, Math.max(0, projected)) + (1 - trust) * outline;
    alpha[p] = a;
    // Where the two colours are far apart their line decides; the others are eased by what lies around them.
    if (trust > CLEAR) continue;
    unknown[count] = p;
    wish[count] = a;
    weight[count++] = 0.04 + 0.9 * trust;
  }
  if (options.iterations > 0)
    solveClosedForm(
      fine,
      alpha,
      unknown.subarray(0, count),
      wish.subarray(0, count),
      weight.subarray(0, count),
      options.iterations,
    );
  return {
    width,
    height,
    zone,
    alpha,
    front: colours.front,
    back: colours.back,
    noise: options.noise,
  };
}

function join(lists: Int32Array[]): Int32Array {
  if (lists.length === 1) return lists[0];
  const out = new Int32Array(lists.reduce((s, l) => s + l.length, 0));
  let at = 0;
  for (const list of lists) {
    out.set(list, at);
    at += list.length;
  }
  return out;
}

interface EdgeColours {
  front: Float32Array;
  back: Float32Array;
}

/** The colours of both sides carried into the band from its rims. */
function edgeColours(fine: Rgba, labels: Uint8Array, inBand: Uint8Array, band: Int32Array): EdgeColours {
  const { width, height, data } = fine;
  const n = width * height;
  const side = (label: number): Float32Array => {
    const colours = new Float32Array(n * 3);
    const known = new Uint8Array(n);
    const takeSample = (q: number) => {
      known[q] = 1;
      for (let c = 0; c < 3; c++) colours[q * 3 + c] = data[q * 4 + c];
    };
    for (const p of band) {
      const x = p % width;
      const y = (p - x) / width;
      // Only the band's rim has neighbours outside it.
      if (inBand[p - 1] && inBand[p + 1] && inBand[p - width] && inBand[p + width]) continue;
      for (let dy = -2; dy <= 2; dy++)
        for (let dx = -2; dx <= 2; dx++) {
          if (x + dx < 0 || x + dx >= width || y + dy < 0 || y + dy >= height) continue;
          const q = p + dy * width + dx;
          if (!inBand[q] && !known[q] && labels[q] === label) takeSample(q);
        }
    }
    let rest = propagate(colours, known, band, width, height, label ? 7 : 60);
    // Thin parts have no inside outside the band: their own core stands for them, then they themselves.
    for (const margin of [1, 0]) {
      if (!rest.length) break;
      for (const p of rest) {
        if (labels[p] !== label) continue;
        const core =
          margin === 0 ||
          (labels[p - 1] === label &&
            labels[p + 1] === label &&
            labels[p - width] === label &&
            labels[p + width] === label);
        if (core) takeSample(p);
      }
      rest = propagate(
        colours,
        known,
        rest.filter((p) => !known[p]),
        width,
        height,
        60,
      );
    }
    // One ring more, so that colours can be read between pixels.
    const ring: number[] = [];
    const seen = Uint8Array.from(known);
    for (const p of band) {
      const x = p % width;
      for (const q of [
        p - 1,
        p + 1,
        p - width,
        p + width,
        p - width - 1,
        p - width + 1,
        p + width - 1,
        p + width + 1,
      ])
        // prettier-ignore
        if (q >= 0 && q < n && !seen[q] && Math.abs((q % width) - x) <= 1) {
          seen[q] = 1;
          ring.push(q);
        }
    }
    propagate(colours, known, Int32Array.from(ring), width, height, 1);
    return colours;
  };
  return { front: side(1), back: side(0) };
}

/** A pixel's place between backdrop (0) and product (1), and how far the two colours can be told apart there. */
function project(
  data: Uint8ClampedArray,
  p: number,
  { front, back }: EdgeColours,
  noise: number,
): { alpha: number; trust: number } {
  let dot = 0;
  let length2 = 0;
  for (let c = 0; c < 3; c++) {
    const b = back[p * 3 + c];
    const d = front[p * 3 + c] - b;
    dot += (data[p * 4 + c] - b) * d;
    length2 += d * d;
  }
  return { alpha: length2 > 1 ? dot / length2 : 0.5, trust: length2 / (length2 + 22 * noise * noise) };
}

/** The label's share in the 3x3 pixels around one. */
function softLabel(labels: Uint8Array, p: number, width: number, height: number): number {
  const x = p % width;
  const y = (p - x) / width;
  let sum = 0;
  let n = 0;
  for (let dy = -1; dy <= 1; dy++)
    for (let dx = -1; dx <= 1; dx++) {
      if (x + dx < 0 || x + dx >= width || y + dy < 0 || y + dy >= height) continue;
      sum += labels[p + dy * width + dx];
      n++;
    }
  return sum / n;
}
