import { createRgba, type Rect, type Rgba } from '../raster/pixels';
import { samplePlane } from '../raster/resample';
import { project, type Camera } from './camera';
import { shadowOnUpright, type GroundShadow } from './cast-shadow';
import { faceFinder, footLine, type Face } from './faces';
import { fromStand, type Stand } from './stand-frame';

/** The picture's rectangle that a rectangle of the plane about a stand covers, cut to the frame; null outside. */
export function coveredRect(
  camera: Camera,
  stand: Stand,
  area: { x0: number; y0: number; x1: number; y1: number },
  frame: { width: number; height: number },
): Rect | null {
  let [left, top, right, bottom] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i <= 8; i++)
    for (let j = 0; j <= 8; j++) {
      const p = project(
        camera,
        fromStand(stand, area.x0 + ((area.x1 - area.x0) * i) / 8, area.y0 + ((area.y1 - area.y0) * j) / 8),
      );
      if (!p) continue;
      left = Math.min(left, p.x);
      right = Math.max(right, p.x);
      top = Math.min(top, p.y);
      bottom = Math.max(bottom, p.y);
    }
  left = Math.max(0, Math.floor(left) - 1);
  top = Math.max(0, Math.floor(top) - 1);
  right = Math.min(frame.width, Math.ceil(right) + 1);
  bottom = Math.min(frame.height, Math.ceil(bottom) + 1);
  return right > left && bottom > top ? { x: left, y: top, width: right - left, height: bottom - top } : null;
}

/** Long side, in pixels, at which a laid shadow is computed: it holds no finer detail. */
const LAID = 360;

/** One of a product's shadows: how strong it is, and whether it takes the light itself, of which shade has none. */
export interface ShadowLayer {
  shadow: GroundShadow;
  strength: number;
  direct?: boolean;
}

/** How shadows are laid. */
interface Laying {
  colour: readonly [number, number, number];
  /** Long side, in pixels, at which they are computed. */
  detail?: number;
  /** Upright things on which they fall. */
  faces?: readonly Face[];
  /** How far a place of the frame lies in the scene's own shade, 0..1. */
  shade?: ((x: number, y: number) => number) | null;
}

/**
 * Shadows as they show in the picture: each pixel's place on the plane (a homography) is looked up in their grids; where
 * something upright shows, its place there.
 * @param layers shadows about one stand with their strengths; together they take 1 - (1 - a)(1 - b) of the light
 * @returns the colour with the shadow as alpha, and the frame's rectangle it belongs to; null where nothing shows
 */
export function layShadows(
  layers: ShadowLayer[],
  { stand, camera, frame }: { stand: Stand; camera: Camera; frame: { width: number; height: number } },
  { colour, detail = LAID, faces = [], shade = null }: Laying,
): { picture: Rgba; rect: Rect } | null {
  const seen = layers.filter((l) => l.strength > 0);
  if (!seen.length) return null;
  const shadows = seen.map((l) => l.shadow);
  const onFaces = faces.length ? faces : null;
  const rect = union(
    coveredRect(camera, stand, areaOf(shadows), frame),
    onFaces && facesRect(onFaces, shadows, { stand, camera, frame }),
  );
  if (!rect) return null;
  const k = Math.min(1, detail / Math.max(rect.width, rect.height));
  const width = Math.max(1, Math.round(rect.width * k));
  const height = Math.max(1, Math.round(rect.height * k));
  const picture = createRgba(width, height);
  const toStand = standMap(camera, stand);
  const onFace = onFaces && faceFinder(onFaces, camera, stand);
  const place = new Float64Array(3);
  const onUpright = pairwise(shadows, width);
  const raisedAt = new Uint8Array(onFace ? width * height : 0);
  const [r, g, b] = colour;
  for (let y = 0; y < height; y++) {
    const py = rect.y + ((y + 0.5) * rect.height) / height;
    if (y % 2 === 0) onUpright.begin();
    for (let x = 0; x < width; x++) {
      const px = rect.x + ((x + 0.5) * rect.width) / width;
      const upright = onFace !== null && onFace(px, py, place);
      if (upright) raisedAt[y * width + x] = 1;
      else {
        const w = toStand[6] * px + toStand[7] * py + toStand[8];
        // Above the horizon there is no plane.
        if (w <= 0) continue;
        place[0] = (toStand[0] * px + toStand[1] * py + toStand[2]) / w;
        place[1] = (toStand[3] * px + toStand[4] * py + toStand[5]) / w;
      }
      let through = 1;
      for (const [n, { shadow, strength, direct }] of seen.entries()) {
        const dark = upright ? onUpright.at(n, x, place) : shadowOnGround(shadow, place[0], place[1]);
        if (!dark) continue;
        const lit = direct && shade ? 1 - shade(px, py) : 1;
        through *= 1 - Math.min(1, strength * lit * dark);
      }
      if (through >= 0.999) continue;
      const j = (y * width + x) * 4;
      picture.data[j] = r;
      picture.data[j + 1] = g;
      picture.data[j + 2] = b;
      picture.data[j + 3] = 255 * (1 - through);
    }
  }
  if (onFace) evenOut(picture, raisedAt, colour);
  return { picture, rect };
}

/** The alpha of what is upright meaned with its neighbours there: the steps of two pixels go. */
function evenOut({ width, height, data }: Rgba, raisedAt: Uint8Array, [r, g, b]: Laying['colour']): void {
  const alpha = Uint8Array.from(raisedAt, (_, i) => data[i * 4 + 3]);
  for (let y = 1; y < height - 1; y++)
    for (let x = 1; x < width - 1; x++) {
      const i = y * width + x;
      if (!raisedAt[i]) continue;
      let [sum, n] = [0, 0];
      for (let k = i - width; k <= i + width; k += width)
        for (let q = k - 1; q <= k + 1; q++)
          if (raisedAt[q]) {
            sum += alpha[q];
            n++;
          }
      if (!sum) continue;
      data[i * 4] = r;
      data[i * 4 + 1] = g;
      data[i * 4 + 2] = b;
      data[i * 4 + 3] = sum / n;
    }
}

/** Shadows on what is upright, looked up once for two pixels by two: each lookup follows many rays. */
function pairwise(shadows: GroundShadow[], width: number) {
  const half = (width >> 1) + 1;
  const known = new Float32Array(half * shadows.length);
  return {
    /** Begins another pair of rows. */
    begin: () => known.fill(-1),
    at(n: number, x: number, [right, away, up]: Float64Array): number {
      const i = n * half + (x >> 1);
      if (known[i] < 0) known[i] = shadowOnUpright(shadows[n], right, away, up);
      return known[i];
    },
  };
}

function shadowOnGround({ plane, x0, y0, mmPerPx }: GroundShadow, x: number, y: number): number {
  const gx = (x - x0) / mmPerPx - 0.5;
  const gy = (y - y0) / mmPerPx - 0.5;
  return gx < -1 || gy < -1 || gx > plane.width || gy > plane.height ? 0 : samplePlane(plane, gx, gy);
}

function union(a: Rect | null, b: Rect | null): Rect | null {
  if (!a || !b) return a ?? b;
  const [x, y] = [Math.min(a.x, b.x), Math.min(a.y, b.y)];
  return {
    x,
    y,
    width: Math.max(a.x + a.width, b.x + b.width) - x,
    height: Math.max(a.y + a.height, b.y + b.height) - y,
  };
}

/** The frame's rectangle in which shadows may show on upright things, up to the height of what casts them. */
function facesRect(
  faces: readonly Face[],
  shadows: GroundShadow[],
  { stand, camera, frame }: { stand: Stand; camera: Camera; frame: { width: number; height: number } },
): Rect | null {
  const { x0, y0, x1, y1 } = areaOf(shadows);
  const top = Math.max(...shadows.map((s) => s.each?.height ?? 0));
  if (!(top > 0)) return null;
  const [middleX, middleY] = [(x0 + x1) / 2, (y0 + y1) / 2];
  const reach = Math.hypot(x1 - x0, y1 - y0) / 2;
  let [left, upper, right, lower] = [Infinity, Infinity, -Infinity, -Infinity];
  for (const face of faces) {
    const { x, y, along } = footLine(face, stand);
    const nearest = (middleX - x) * along[0] + (middleY - y) * along[1];
    for (let i = -6; i <= 6; i++)
      for (const z of [0, top]) {
        const t = nearest + (reach * i) / 6;
        const at = fromStand(stand, x + along[0] * t, y + along[1] * t);
        const p = project(camera, { ...at, Z: stand.level + z });
        if (!p) continue;
        left = Math.min(left, p.x);
        right = Math.max(right, p.x);
        upper = Math.min(upper, p.y);
        lower = Math.max(lower, p.y);
      }
  }
  left = Math.max(0, Math.floor(left) - 1);
  upper = Math.max(0, Math.floor(upper) - 1);
  right = Math.min(frame.width, Math.ceil(right) + 1);
  lower = Math.min(frame.height, Math.ceil(lower) + 1);
  return right > left && lower > upper
    ? { x: left, y: upper, width: right - left, height: lower - upper }
    : null;
}

function areaOf(shadows: GroundShadow[]) {
  return {
    x0: Math.min(...shadows.map((s) => s.x0)),
    y0: Math.min(...shadows.map((s) => s.y0)),
    x1: Math.max(...shadows.map((s) => s.x0 + s.plane.width * s.mmPerPx)),
    y1: Math.max(...shadows.map((s) => s.y0 + s.plane.height * s.mmPerPx)),
  };
}

/**
 * The map from the frame's pixels to millimetres about a stand, as nine numbers in rows; the third coordinate is
 * positive below the horizon.
 */
export function standMap(camera: Camera, stand: Stand): number[] {
  const { rotation: r, focal: f, cx, cy } = camera;
  const [c, s] = [Math.cos(stand.facing), Math.sin(stand.facing)];
  const t = camera.translation.map(
    (v, i) => v + r[i * 3] * stand.X + r[i * 3 + 1] * stand.Y + r[i * 3 + 2] * stand.level,
  );
  // Columns: right, away, and the stand itself, as the camera sees them.
  const right = [0, 1, 2].map((i) => r[i * 3] * s - r[i * 3 + 1] * c);
  const away = [0, 1, 2].map((i) => r[i * 3] * c + r[i * 3 + 1] * s);
  const row = (i: number, k: number) => [
    f * right[i] + k * right[2],
    f * away[i] + k * away[2],
    f * t[i] + k * t[2],
  ];
  const [a, b, d] = row(0, cx);
  const [e, g, h] = row(1, cy);
  const [p, q, o] = [right[2], away[2], t[2]];
  const inverse = [
    g * o - h * q, d * q - b * o, b * h - d * g,
    h * p - e * o, a * o - d * p, d * e - a * h,
    e * q - g * p, b * p - a * q, a * g - b * e,
  ]; // prettier-ignore
  // Signed so that the stand itself, which is seen, has a positive weight.
  const at = project(camera, { X: stand.X, Y: stand.Y, Z: stand.level });
  const weight = at ? inverse[6] * at.x + inverse[7] * at.y + inverse[8] : 1;
  return weight < 0 ? inverse.map((v) => -v) : inverse;
}

/**
 * A flat thing's picture laid on the plane in perspective, each pixel looked up through the plane's homography with
 * four samples (bilinear). The picture's middle lies on the stand and it is turned as the stand faces.
 * @param mm the picture's size in millimetres
 * @param scale pixels made per pixel of the frame
 */
export function layPicture(
  picture: Rgba,
  mm: { width: number; height: number },
  stand: Stand,
  camera: Camera,
  frame: { width: number; height: number },
  scale: number,
): { picture: Rgba; rect: Rect } | null {
  const area = { x0: -mm.width / 2, y0: -mm.height / 2, x1: mm.width / 2, y1: mm.height / 2 };
  const rect = coveredRect(camera, stand, area, frame);
  if (!rect) return null;
  const width = Math.max(1, Math.round(rect.width * scale));
  const height = Math.max(1, Math.round(rect.height * scale));
  const out = createRgba(width, height);
  const m = standMap(camera, stand);
  const src = picture.data;
  const offsets = [0.25, 0.75];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      let [r, g, b, a] = [0, 0, 0, 0];
      for (const oy of offsets)
        for (const ox of offsets) {
          const px = rect.x + ((x + ox) * rect.width) / width;
          const py = rect.y + ((y + oy) * rect.height) / height;
          const w = m[6] * px + m[7] * py + m[8];
          if (w <= 0) continue;
          const u = ((m[0] * px + m[1] * py + m[2]) / w / mm.width + 0.5) * picture.width - 0.5;
          const v = (0.5 - (m[3] * px + m[4] * py + m[5]) / w / mm.height) * picture.height - 0.5;
          if (u < -1 || v < -1 || u > picture.width || v > picture.height) continue;
          const u0 = Math.floor(u);
          const v0 = Math.floor(v);
          for (let dy = 0; dy < 2; dy++)
            for (let dx = 0; dx < 2; dx++) {
              const [sx, sy] = [u0 + dx, v0 + dy];
              if (sx < 0 || sy < 0 || sx >= picture.width || sy >= picture.height) continue;
              const j = (sy * picture.width + sx) * 4;
              const weight = (dx ? u - u0 : 1 - u + u0) * (dy ? v - v0 : 1 - v + v0) * src[j + 3];
              r += src[j] * weight;
              g += src[j + 1] * weight;
              b += src[j + 2] * weight;
              a += weight;
            }
        }
      if (a <= 0) continue;
      const o = (y * width + x) * 4;
      out.data[o] = r / a;
      out.data[o + 1] = g / a;
      out.data[o + 2] = b / a;
      out.data[o + 3] = a / 4;
    }
  return { picture: out, rect };
}
