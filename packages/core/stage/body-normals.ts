import { createPlane, type Plane } from '../raster/pixels';
import type { ProductBase } from './base';
import type { BoxCorner } from './box-corner';

/** What a silhouette says of the body behind it. */
export type BodyKind = 'turned' | 'box' | 'inflated' | 'flat';

/**
 * Which way a product's surface looks, for each pixel of its reduced matte: three numbers a pixel, to the right, away
 * from the camera and up, of length 1; all 0 outside the silhouette.
 */
export interface BodyNormals {
  kind: BodyKind;
  width: number;
  height: number;
  data: Float32Array;
}

const SOLID = 0.5;
const RADIAN = Math.PI / 180;

/**
 * The normals of the body that a silhouette gives: a turned body where it is alike on both sides of an upright axis and
 * stands on an ellipse, a box where its lower edge is two straight lines or one, and for all others the silhouette
 * inflated like a cushion.
 * @param alpha the trimmed cutout's matte 0..1, at most about 200 pixels on the long side
 * @param base what it stands on, in shares of the cutout's width
 * @param pitchDeg how steeply the camera looked down on it, in degrees
 * @param flat the product lies flat: it looks up everywhere
 */
export function bodyNormals(alpha: Plane, base: ProductBase, pitchDeg: number, flat = false): BodyNormals {
  const { width, height } = alpha;
  const out: BodyNormals = { kind: 'flat', width, height, data: new Float32Array(width * height * 3) };
  if (flat) {
    for (let i = 0; i < width * height; i++) if (alpha.data[i] > 0) out.data[i * 3 + 2] = 1;
    return out;
  }
  inflated(alpha, pitchDeg, out);
  if (base.corner) boxed(alpha, base.corner, base.pitchDeg, out);
  else turned(alpha, base, pitchDeg, out);
  return out;
}

/**
 * The silhouette inflated: the square root of the solution of Poisson's equation with a constant source and 0 on the
 * outline, which makes a disc a half-sphere and a strip a half-cylinder (after Joshi and Carr 2008, "Repousse:
 * automatic inflation of 2D artwork").
 */
function inflated(alpha: Plane, pitchDeg: number, out: BodyNormals): void {
  out.kind = 'inflated';
  const { width, height } = alpha;
  const raised = inflation(alpha);
  const pitch = pitchOf(pitchDeg);
  const at = (x: number, y: number) =>
    x < 0 || y < 0 || x >= width || y >= height ? 0 : raised.data[y * width + x];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (!(alpha.data[i] > 0.02)) continue;
      // The slope of f = h^2: at the outline h's own is endless.
      const h = Math.sqrt(Math.max(0.25, raised.data[i]));
      const right = -(at(x + 1, y) - at(x - 1, y)) / 4 / h;
      const up = (at(x, y + 1) - at(x, y - 1)) / 4 / h;
      setFromView(out.data, i * 3, [right, up, 1], pitch);
    }
}

interface Pitch {
  sin: number;
  cos: number;
}

const pitchOf = (degrees: number): Pitch => ({
  sin: Math.sin(degrees * RADIAN),
  cos: Math.max(0.2, Math.cos(degrees * RADIAN)),
});

/** A direction given in the picture (right, up in it, toward the camera) noted in the scene's axes. */
function setFromView(
  data: Float32Array,
  j: number,
  [right, up, toward]: readonly [number, number, number],
  { sin, cos }: Pitch,
): void {
  const length = Math.hypot(right, up, toward) || 1;
  data[j] = right / length;
  data[j + 1] = (up * sin - toward * cos) / length;
  data[j + 2] = (up * cos + toward * sin) / length;
}

/** Poisson's equation on the silhouette, Laplacian -4, by successive over-relaxation from coarse to fine. */
function inflation(alpha: Plane): Plane {
  const { width, height } = alpha;
  const out = createPlane(width, height);
  if (Math.max(width, height) > 24) {
    const half = createPlane(Math.ceil(width / 2), Math.ceil(height / 2));
    for (let y = 0; y < half.height; y++)
      for (let x = 0; x < half.width; x++)
        half.data[y * half.width + x] =
          alpha.data[Math.min(height - 1, 2 * y) * width + Math.min(width - 1, 2 * x)];
    const coarse = inflation(half);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++)
        if (alpha.data[y * width + x] > SOLID)
          out.data[y * width + x] = 4 * coarse.data[(y >> 1) * half.width + (x >> 1)];
  }
  const { data } = out;
  for (let round = 0; round < 40; round++)
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const i = y * width + x;
        if (!(alpha.data[i] > SOLID)) continue;
        const around =
          (x > 0 ? data[i - 1] : 0) +
          (x < width - 1 ? data[i + 1] : 0) +
          (y > 0 ? data[i - width] : 0) +
          (y < height - 1 ? data[i + width] : 0);
        data[i] += 1.6 * ((around + 4) / 4 - data[i]);
      }
  return out;
}

/** How far a roof is taken to lean back, in radians. */
const ROOF = 0.5;

/** Two upright faces beside the nearest edge, and the top above them. */
function boxed(alpha: Plane, corner: BoxCorner, pitchDeg: number, out: BodyNormals): void {
  out.kind = 'box';
  const { width, height } = alpha;
  const sine = Math.max(0.05, Math.sin(pitchDeg * RADIAN));
  const [a, b] = [Math.atan2(corner.left, sine), Math.atan2(corner.right, sine)];
  for (let x = 0; x < width; x++) {
    const aside = (x + 0.5) / width - corner.x;
    const bottom = corner.y - (aside < 0 ? -corner.left * aside : corner.right * aside);
    const top = (bottom - corner.tall) * width;
    for (let y = 0; y < height; y++) {
      const i = y * width + x;
      if (!(alpha.data[i] > 0.02)) continue;
      if (corner.flatTop && y + 0.5 < top) {
        out.data.set([0, 0, 1], i * 3);
        continue;
      }
      // What is no level top leans back, more and more over a twelfth of the width.
      const over = Math.min(1, Math.max(0, (top - y) / (width / 12)));
      const [cos, sin] = [Math.cos(ROOF * over), Math.sin(ROOF * over)];
      const [x0, y0] = aside < 0 ? [-Math.sin(a), -Math.cos(a)] : [Math.sin(b), -Math.cos(b)];
      out.data.set([x0 * cos, y0 * cos, sin], i * 3);
    }
  }
}

/** How much of a silhouette must be alike on both sides of its axis for a turned body. */
const ALIKE = 0.78;

/** A turned body's normals on all that is alike on both sides of its axis; a handle beside it stays inflated. */
function turned(alpha: Plane, base: ProductBase, pitchDeg: number, out: BodyNormals): void {
  const { width, height, data } = alpha;
  const axis = base.x * width;
  const { radius: seen, same, all } = radii(alpha, axis);
  const radius = withoutJoints(seen);
  if (!(base.confidence > 0.4) || base.halfDepth < 0.012 || same < ALIKE * all) return;
  out.kind = 'turned';
  const pitch = pitchOf(pitchDeg);
  const slopes = slopesOf(radius, pitch.cos);
  // Above the real height the far rim and the inside show; they look up, as a mouth does.
  const rim = base.topDepth * width * 2;
  const floor = base.y * width;
  for (let y = 0; y < height; y++) {
    const grows = Math.max(-3, Math.min(3, slopes[y]));
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      if (!(data[i] > 0.02) || !(radius[y] > 1)) continue;
      let u = (x + 0.5 - axis) / radius[y];
      if (Math.abs(u) > 1.08) continue;
      u = Math.max(-1, Math.min(1, u));
      const j = i * 3;
      const mouth = y < rim && insideMouth(u, y, rim);
      if (mouth) {
        setFromView(out.data, j, [-u * 0.4, 0.2, 0.6], pitch);
        continue;
      }
      // The foot's front is the wall's lower end, not a cap that looks down.
      const lean = y > floor ? Math.min(0.4, Math.max(-0.4, grows)) : grows;
      const length = Math.hypot(1, lean);
      out.data[j] = u / length;
      out.data[j + 1] = -Math.sqrt(1 - u * u) / length;
      out.data[j + 2] = -lean / length;
    }
  }
}

/** What of each row is alike on both sides of an axis, half its width, and how many pixels that is of all. */
function radii(
  { width, height, data }: Plane,
  axis: number,
): { radius: Float64Array; same: number; all: number } {
  const radius = new Float64Array(height);
  let [same, all] = [0, 0];
  const middle = Math.min(width - 1, Math.max(0, Math.floor(axis)));
  for (let y = 0; y < height; y++) {
    const row = y * width;
    if (data[row + middle] > SOLID) {
      let [left, right] = [middle, middle];
      while (left > 0 && data[row + left - 1] > SOLID) left--;
      while (right < width - 1 && data[row + right + 1] > SOLID) right++;
      // The edge lies within a pixel as far as the matte covers it.
      const from = left - (left > 0 ? data[row + left - 1] : 0) + (1 - data[row + left]);
      const to = right + 1 + (right < width - 1 ? data[row + right + 1] : 0) - (1 - data[row + right]);
      radius[y] = Math.max(0, Math.min(axis - from, to - axis));
    }
    same += 2 * radius[y];
    for (let x = 0; x < width; x++) if (data[row + x] > SOLID) all++;
  }
  return { radius, same, all };
}

/** Rows to each side among which a wall is looked for, and how far up their sorted radii it is found. */
const JOINT_ROWS = 12;
const JOINT_SHARE = 0.35;

/** Radii where spouts and handles on both sides join the wall, without them: a low quantile of the rows around. */
function withoutJoints(radius: Float64Array): Float64Array {
  return radius.map((r, y) => {
    if (!(r > 1)) return r;
    const around = Array.from(radius.subarray(Math.max(0, y - JOINT_ROWS), y + JOINT_ROWS + 1))
      .filter((v) => v > 1)
      .sort((a, b) => a - b);
    // A row among its like keeps its own radius; only what stands out is drawn in.
    const low = around[Math.floor(around.length * JOINT_SHARE)];
    const high = around[Math.floor(around.length * (1 - JOINT_SHARE))];
    return r > high * 1.04 ? low : r;
  });
}

/** Rows over which a wall's slope is fitted, to each side. */
const WALL_ROWS = 9;

/**
 * How the radius grows with the real height at each row: a line fitted over rows around it (Savitzky and Golay 1964), so
 * that the steps of its pixels make no stripes.
 */
function slopesOf(radius: Float64Array, cos: number): Float64Array {
  const out = new Float64Array(radius.length);
  for (let y = 0; y < radius.length; y++) {
    let [n, st, sr, stt, str] = [0, 0, 0, 0, 0];
    for (let d = -WALL_ROWS; d <= WALL_ROWS; d++) {
      const r = radius[y + d];
      if (!(r > 1)) continue;
      const w = 1 - Math.abs(d) / (WALL_ROWS + 1);
      n += w;
      st += w * d;
      sr += w * r;
      stt += w * d * d;
      str += w * d * r;
    }
    const det = n * stt - st * st;
    // Rows run down, heights up.
    out[y] = det > 1e-6 ? (-(n * str - st * sr) / det) * cos : 0;
  }
  return out;
}

/** Whether a place is within the ellipse of an open top. */
function insideMouth(u: number, y: number, rim: number): boolean {
  const v = (y + 0.5 - rim / 2) / (rim / 2);
  return u * u + v * v < 0.92;
}
