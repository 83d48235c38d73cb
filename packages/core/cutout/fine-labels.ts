import type { Rgba } from '../raster/pixels';
import { minCut } from './min-cut';
import { propagate } from './propagate';

/** Pixels within `radius` of where the label changes, in no order, each once. */
export function bandAround(labels: Uint8Array, width: number, height: number, radius: number): Int32Array {
  const contour: number[] = [];
  for (let y = 0; y < height; y++) {
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (
        (x + 1 < width && labels[i] !== labels[i + 1]) ||
        (y + 1 < height && labels[i] !== labels[i + width]) ||
        (x > 0 && labels[i] !== labels[i - 1]) ||
        (y > 0 && labels[i] !== labels[i - width])
      )
        contour.push(i);
    }
  }
  return discsAround(contour, width, height, radius, new Uint8Array(width * height));
}

/** The pixels within `radius` of the given ones that are not set in `taken` yet; they are set there. */
export function discsAround(
  centres: readonly number[],
  width: number,
  height: number,
  radius: number,
  taken: Uint8Array,
): Int32Array {
  const reach = Math.floor(radius);
  const out: number[] = [];
  for (const c of centres) {
    const cx = c % width;
    const cy = (c - cx) / width;
    for (let dy = -reach; dy <= reach; dy++) {
      const y = cy + dy;
      if (y < 0 || y >= height) continue;
      const half = Math.floor(Math.sqrt(radius * radius - dy * dy));
      const last = Math.min(width - 1, cx + half);
      for (let x = Math.max(0, cx - half); x <= last; x++) {
        const p = y * width + x;
        if (taken[p]) continue;
        taken[p] = 1;
        out.push(p);
      }
    }
  }
  return Int32Array.from(out);
}

/** A label plane brought to another size by nearest pixel. */
export function scaleLabels(
  labels: Uint8Array,
  width: number,
  height: number,
  toWidth: number,
  toHeight: number,
): Uint8Array {
  const out = new Uint8Array(toWidth * toHeight);
  const from = new Int32Array(toWidth);
  for (let x = 0; x < toWidth; x++) from[x] = Math.min(width - 1, Math.floor(((x + 0.5) * width) / toWidth));
  for (let y = 0; y < toHeight; y++) {
    const row = Math.min(height - 1, Math.floor(((y + 0.5) * height) / toHeight)) * width;
    for (let x = 0; x < toWidth; x++) out[y * toWidth + x] = labels[row + from[x]];
  }
  return out;
}

/**
 * An outline found on a reduced picture, settled on a finer one: within a band around it a second minimum cut
 * follows the strongest edge (Lombaert et al. 2005, "A multilevel banded graph cuts method"). What is certain
 * outside the band stays. The colours of both sides, carried in from the band's rims, lean each pixel a little;
 * contrast decides.
 * @param fine the finer picture; `coarse` is the outline already brought to its size
 * @param radius half the band's width in pixels; `usual` the contrast that is usual along the edge, see edgeContrast
 */
// eslint-disable-next-line max-lines-per-function -- sets up one cut: what each pixel costs, then its edges
export function settleLabels(
  fine: Rgba,
  coarse: Uint8Array,
  radius: number,
  usual = edgeContrast(fine, bandAround(coarse, fine.width, fine.height, radius)),
): Uint8Array {
  const { width, height, data } = fine;
  const n = width * height;
  const band = bandAround(coarse, width, height, radius);
  if (!band.length) return coarse;
  const inBand = new Uint8Array(n);
  for (const p of band) inBand[p] = 1;
  const rim: number[] = [];
  const sides = [1, 0].map((side) => {
    const colours = new Float32Array(n * 3);
    const known = new Uint8Array(n);
    for (const p of band) {
      // The ring just outside the band is evidence for its side.
      const x = p % width;
      for (const q of [p - 1, p + 1, p - width, p + width]) {
        if (q < 0 || q >= n || Math.abs((q % width) - x) > 1 || inBand[q] || known[q] || coarse[q] !== side)
          continue;
        known[q] = 1;
        for (let c = 0; c < 3; c++) colours[q * 3 + c] = data[q * 4 + c];
        rim.push(q);
      }
    }
    propagate(colours, known, band, width, height, Math.ceil(radius * 2.5));
    return { colours, known };
  });
  const [front, back] = sides;

  const source = new Float32Array(n);
  const sink = new Float32Array(n);
  const planes = [0, 1, 2, 3].map(() => new Float32Array(n));
  const steps = [1, width, width + 1, width - 1];
  const active = new Int32Array(band.length + rim.length);
  active.set(band);
  active.set(rim, band.length);
  const beta = 1 / (2 * Math.max(12, usual));
  for (const p of active) {
    if (!inBand[p]) {
      if (coarse[p]) source[p] = 1e4;
      else sink[p] = 1e4;
    } else if (front.known[p] && back.known[p]) {
      let toFront = 0;
      let toBack = 0;
      let between = 0;
      for (let c = 0; c < 3; c++) {
        const v = data[p * 4 + c];
        const f = front.colours[p * 3 + c];
        const b = back.colours[p * 3 + c];
        toFront += (v - f) * (v - f);
        toBack += (v - b) * (v - b);
        between += (f - b) * (f - b);
      }
      const lean = (toBack - toFront) / (between + 500);
      const v = 1.6 * Math.max(-1, Math.min(1, lean)) + (coarse[p] ? 0.1 : -0.1);
      if (v > 0) source[p] = v;
      else sink[p] = -v;
    }
    const x = p % width;
    for (let k = 0; k < 4; k++) {
      const q = p + steps[k];
      if (q >= n || (k !== 1 && x + (k === 3 ? -1 : 1) !== q % width)) continue;
      planes[k][p] = (k < 2 ? 1 : Math.SQRT1_2) * 2.4 * Math.exp(-beta * contrast(data, p, q)) + 0.04;
    }
  }
  const [east, south, southEast, southWest] = planes;
  const labels = minCut({
    width,
    height,
    sourceCapacity: source,
    sinkCapacity: sink,
    east,
    south,
    southEast,
    southWest,
    active,
  });
  const out = Uint8Array.from(coarse);
  for (const p of band) out[p] = labels[p];
  return out;
}

/** The mean squared colour difference of neighbours within a band. */
export function edgeContrast(fine: Rgba, band: Int32Array): number {
  const { width, height, data } = fine;
  const n = width * height;
  let sum = 0;
  for (const p of band) {
    if (p + 1 < n) sum += contrast(data, p, p + 1);
    if (p + width < n) sum += contrast(data, p, p + width);
  }
  return band.length ? sum / (2 * band.length) : 0;
}

function contrast(data: Uint8ClampedArray, p: number, q: number): number {
  const i = p * 4;
  const j = q * 4;
  const r = data[i] - data[j];
  const g = data[i + 1] - data[j + 1];
  const b = data[i + 2] - data[j + 2];
  return r * r + g * g + b * b;
}
