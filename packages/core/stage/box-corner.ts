/** The nearest upright edge of a box, as its silhouette shows it; lengths as shares of the cutout's width. */
export interface BoxCorner {
  /** Where that edge meets the ground. */
  x: number;
  y: number;
  /** How fast the lower edge rises away from it, to the left and to the right. */
  left: number;
  right: number;
  /** How long the outer upright edges are. */
  tall: number;
  /** Whether a level top shows above them; otherwise a roof or the like does. */
  flatTop: boolean;
}

/** Below this a lower edge is level. */
const LEVEL = 0.03;

/**
 * Two straight lines through a silhouette's lower edge that meet at its lowest place (least squares on both sides of
 * every place, the best one kept); null where an ellipse fits it better, or only one side rises.
 * @param lower the lower edge of each column in pixels
 * @param from first and last column of the base
 * @param ellipse mean distance of the edge from the ellipse that fits it best, in pixels
 * @param upper the upper edge of each column in pixels
 */
export function boxCorner(
  lower: ArrayLike<number>,
  upper: ArrayLike<number>,
  [from, to]: [number, number],
  ellipse: number,
): Omit<BoxCorner, 'flatTop'> | null {
  const width = lower.length;
  if (to - from < 16) return null;
  const inset = Math.max(2, Math.round((to - from) * 0.02));
  const ends = [from + inset, to - inset];
  const reach = Math.max(4, Math.round((to - from) * 0.04));
  let best: (Omit<BoxCorner, 'tall' | 'flatTop'> & { error: number }) | null = null;
  for (let x = ends[0] + reach; x <= ends[1] - reach; x++) {
    const left = lineThrough(lower, ends[0], x);
    const right = lineThrough(lower, x, ends[1]);
    const error = (left.error + right.error) / (ends[1] - ends[0]);
    if (best && error >= best.error) continue;
    const y = (left.start + left.slope * x + right.start + right.slope * x) / 2;
    best = { x, y, left: Math.max(0, left.slope), right: Math.max(0, -right.slope), error };
  }
  if (!best || best.error > width * 0.012) return null;
  // A side that hardly rises is no second face: a front seen straight tells nothing of how a box is turned.
  if (best.left < LEVEL || best.right < LEVEL) return null;
  // A round base is steep at its ends and level at its lowest place; a pixel's steps hide less of that in a large one.
  if (best.error > 0.55 * ellipse + 0.02) return null;
  const tall = (x: number) => lower[x] - upper[x];
  return {
    x: best.x / width,
    y: best.y / width,
    left: best.left,
    right: best.right,
    tall: Math.min(tall(ends[0]), tall(ends[1])) / width,
  };
}

function lineThrough(
  edge: ArrayLike<number>,
  from: number,
  to: number,
): { start: number; slope: number; error: number } {
  let [n, sx, sy, sxx, sxy] = [0, 0, 0, 0, 0];
  for (let x = from; x <= to; x++) {
    n++;
    sx += x;
    sy += edge[x];
    sxx += x * x;
    sxy += x * edge[x];
  }
  const det = n * sxx - sx * sx;
  const slope = det > 1e-9 ? (n * sxy - sx * sy) / det : 0;
  const start = (sy - slope * sx) / n;
  let error = 0;
  for (let x = from; x <= to; x++) error += Math.abs(edge[x] - start - slope * x);
  return { start, slope, error };
}
