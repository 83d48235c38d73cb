import type { Plane } from '../raster/pixels';

/** How far a thing's faces stand out, as shares of its height, seen from its side. */
export interface SideOutline {
  left: number;
  right: number;
}

/** The outermost share of the height at either end is left out: seams and corners are no face. */
const ENDS = 0.03;
/** What is solid reaches over so many rows at least. */
const LEAST_ROWS = 24;

/**
 * How far the faces of a packet or a cushion stand out by its outline from the side, standing upright: of its left and of
 * its right border, the largest distance outward from the straight line between its ends.
 * @param matte 0..1
 * @returns shares of its height; null where the matte holds nothing that stands upright: nothing solid, or wider than high
 */
export function sideOutline({ width, height, data }: Plane): SideOutline | null {
  const rows: { y: number; left: number; right: number }[] = [];
  for (let y = 0; y < height; y++) {
    let [left, right] = [-1, -1];
    for (let x = 0; x < width; x++) {
      const cover = data[y * width + x];
      if (cover < 0.5) continue;
      // The border lies within the pixel, as far as its neighbour is covered.
      if (left < 0) left = x - (x > 0 ? data[y * width + x - 1] : 0);
      right = x + 1 + (x + 1 < width ? data[y * width + x + 1] : 0);
    }
    if (left >= 0) rows.push({ y, left, right });
  }
  if (rows.length < LEAST_ROWS) return null;
  const tall = rows[rows.length - 1].y - rows[0].y + 1;
  const wide = Math.max(...rows.map((r) => r.right)) - Math.min(...rows.map((r) => r.left));
  if (wide > tall) return null;
  const skipped = Math.ceil(rows.length * ENDS);
  const face = rows.slice(skipped, rows.length - skipped);
  const [top, bottom] = [face[0], face[face.length - 1]];
  const out = (side: 'left' | 'right', outward: 1 | -1) =>
    Math.max(
      0,
      ...face.map((row) => {
        const t = (row.y - top.y) / (bottom.y - top.y);
        return outward * (row[side] - (top[side] * (1 - t) + bottom[side] * t));
      }),
    ) / tall;
  return { left: out('left', -1), right: out('right', 1) };
}
