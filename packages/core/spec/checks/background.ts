import { elementKind, type ShotElement } from '../../elements/index';
import { patchFit } from '../../shot/edit';
import { components } from '../../raster/components';
import type { Plane, Rect } from '../../raster/pixels';
import { percent, round, type Check, type Subject } from './check';

/** A pixel counts as background where products cover less than this. */
const CLEAR = 0.004;
/** Tolerances that a sheet can name are whole numbers up to this. */
const MOST = 64;
/** Long side of the mask on which faults are grouped. */
const GRID = 256;
/** Where the background may be anything, one pixel in so many each way is enough to judge it by another rule later. */
const STRIDE = 4;

interface Ground {
  /** Share of the background's pixels that are white within a tolerance of 0, 1, ... 64. */
  white: number[];
  /** Share that is clear (alpha 0). */
  clear: number;
  /** The largest patch that is not white within `at`, in shares of the picture. */
  patch: (Rect & { at: number; share: number }) | null;
}

export const background: Check<Ground> = {
  id: 'background',
  title: 'Background',
  measure(subject) {
    const { picture, slot } = subject;
    const { width, height } = picture;
    // Read as signed numbers, which stay small integers: opaque white is -1.
    const words = new Int32Array(picture.data.buffer, picture.data.byteOffset, width * height);
    const near = nearProducts(subject.products, CLEAR);
    const kx = near.width / width;
    const ky = near.height / height;
    const counts = new Uint32Array(256);
    let clear = 0;
    let total = 0;
    const { kind, tolerance } = slot.background;
    const at = kind === 'white' ? tolerance : 0;
    const stride = kind === 'any' ? STRIDE : 1;
    const grid = { width: Math.ceil(width / Math.ceil(width / GRID)), cell: Math.ceil(width / GRID) };
    const rows = Math.ceil(height / grid.cell);
    const faults = new Uint32Array(grid.width * rows);
    const look = (i: number, x: number, cells: number) => {
      const word = words[i];
      const alpha = word >>> 24;
      if (alpha === 0) clear++;
      let lowest = word & 255;
      const g = (word >>> 8) & 255;
      const b = (word >>> 16) & 255;
      if (g < lowest) lowest = g;
      if (b < lowest) lowest = b;
      const off = alpha === 255 ? 255 - lowest : 255;
      counts[off]++;
      if (off > at) faults[cells + Math.floor(x / grid.cell)]++;
    };
    for (let y = 0; y < height; y += stride) {
      const row = Math.min(near.height - 1, Math.floor(y * ky)) * near.width;
      const cells = Math.floor(y / grid.cell) * grid.width;
      const start = y * width;
      for (let column = 0; column < near.width; column++) {
        if (near.data[row + column]) continue;
        let end = column + 1;
        while (end < near.width && !near.data[row + end]) end++;
        // A run of pixels that no product is near.
        const from = Math.ceil(column / kx);
        const to = Math.min(width, Math.ceil(end / kx));
        let plain = 0;
        for (let x = from; x < to; x += stride)
          if (words[start + x] === -1) plain++;
          else look(start + x, x, cells);
        counts[0] += plain;
        total += Math.ceil((to - from) / stride);
        column = end;
      }
    }
    const white: number[] = [];
    let sum = 0;
    for (let t = 0; t <= MOST; t++) {
      sum += counts[t];
      white.push(total ? round(sum / total, 6) : 1);
    }
    return {
      white,
      clear: total ? round(clear / total, 6) : 1,
      patch: kind === 'white' ? largestPatch(faults, grid, rows, subject, at) : null,
    };
  },
  judge({ white, clear, patch }, { background: { kind, tolerance, minShare } }) {
    if (kind === 'any') return null;
    const share = kind === 'transparent' ? clear : white[Math.min(MOST, Math.round(tolerance))];
    const enough = share >= minShare;
    const lowest = 255 - tolerance;
    const where = !enough && kind === 'white' && patch ? patch : undefined;
    return {
      verdict: enough ? 'pass' : 'stop',
      measured: percent(share, share > 0.99 && share < 1 ? 2 : 1),
      limit: `at least ${percent(minShare, 1)} ${kind === 'white' ? 'white' : 'clear'}`,
      sentence: enough
        ? `Around the product the picture is ${kind === 'white' ? 'pure white' : 'clear'}.`
        : kind === 'white'
          ? `Only ${percent(share, 1)} of the background is pure white (${lowest} or more in each channel)${where ? `; the largest patch takes ${percent(where.share, 1)} of the picture` : ''}. Use a white backdrop and no shadow in this slot.`
          : `Only ${percent(share, 1)} of the background is clear. Hide the backdrop and shadows in this slot.`,
      where: where && { x: where.x, y: where.y, width: where.width, height: where.height },
      fix: enough ? undefined : { title: kind === 'white' ? 'Whiten this slot' : 'Clear this slot' },
    };
  },
  fix(shot, _resolved, slotKey, slot) {
    const ground = slot.background.kind === 'transparent' ? 'clear' : 'white';
    return shot.elements.reduce((s, element) => {
      const plain = elementKind(element.kind).plain?.(element, ground);
      return plain ? patchFit(s, slotKey, slot, element.id, plain as Partial<ShotElement>) : s;
    }, shot);
  },
};

/** Where products or their own soft edges, two delivered pixels wide, may be: 1. */
function nearProducts({ width, height, data }: Plane, above: number) {
  const across = new Uint8Array(width * height);
  const near = new Uint8Array(width * height);
  const reach = 2;
  for (let y = 0; y < height; y++)
    for (let x = 0, i = y * width; x < width; x++, i++)
      if (data[i] > above)
        for (let k = Math.max(0, x - reach); k <= Math.min(width - 1, x + reach); k++) across[i - x + k] = 1;
  for (let y = 0; y < height; y++)
    for (let x = 0, i = y * width; x < width; x++, i++)
      if (across[i])
        for (let k = Math.max(0, y - reach); k <= Math.min(height - 1, y + reach); k++)
          near[k * width + x] = 1;
  return { width, height, data: near };
}

function largestPatch(
  faults: Uint32Array,
  grid: { width: number; cell: number },
  rows: number,
  { picture: { width, height } }: Subject,
  at: number,
): Ground['patch'] {
  const set = Uint8Array.from(faults, (n) => (n ? 1 : 0));
  const { labels, list } = components(set, grid.width, rows);
  if (!list.length) return null;
  const pixels = new Map<number, number>();
  faults.forEach((n, i) => n && pixels.set(labels[i], (pixels.get(labels[i]) ?? 0) + n));
  const [label, count] = [...pixels].reduce((a, b) => (b[1] > a[1] ? b : a));
  let [left, top, right, bottom] = [grid.width, rows, 0, 0];
  labels.forEach((l, i) => {
    if (l !== label) return;
    const [x, y] = [i % grid.width, Math.floor(i / grid.width)];
    left = Math.min(left, x);
    right = Math.max(right, x + 1);
    top = Math.min(top, y);
    bottom = Math.max(bottom, y + 1);
  });
  const [sx, sy] = [grid.cell / width, grid.cell / height];
  return {
    x: round(left * sx),
    y: round(top * sy),
    width: round(Math.min(1, right * sx) - left * sx),
    height: round(Math.min(1, bottom * sy) - top * sy),
    at,
    share: round(count / (width * height)),
  };
}
