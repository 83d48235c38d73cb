import { eyeOf, onPlane, type Camera } from './camera';
import type { Stand } from './stand-frame';

type Point = readonly [number, number];

/** Something upright on which shadows fall; its foot runs along a line of the standing plane, in millimetres. */
export interface Face {
  X: number;
  Y: number;
  /** The direction of the foot, of length 1. */
  along: readonly [number, number];
  /** Its outline in the picture; null for a wall, which is all that shows beyond its foot. */
  outline: readonly Point[] | null;
}

/** The wall over a foot that shows between two points; null where no plane lies there. */
export function wallFace(camera: Camera, [from, to]: readonly [Point, Point]): Face | null {
  const a = onPlane(camera, { x: from[0], y: from[1] });
  const b = onPlane(camera, { x: to[0], y: to[1] });
  const long = a && b ? Math.hypot(b.X - a.X, b.Y - a.Y) : 0;
  if (!a || !b || long < 1e-6) return null;
  return { X: a.X, Y: a.Y, along: [(b.X - a.X) / long, (b.Y - a.Y) / long], outline: null };
}

/** A thing by its outline: it stands on its lowest point, and is taken for a card that faces the camera. */
export function thingFace(camera: Camera, outline: readonly Point[]): Face | null {
  const [x, y] = outline.reduce((low, p) => (p[1] > low[1] ? p : low));
  const foot = onPlane(camera, { x, y });
  if (!foot) return null;
  const eye = eyeOf(camera);
  const [dX, dY] = [foot.X - eye.X, foot.Y - eye.Y];
  const far = Math.hypot(dX, dY) || 1;
  return { X: foot.X, Y: foot.Y, along: [dY / far, -dX / far], outline };
}

/** A face's foot about a stand: a point, the direction along it, and across it. */
interface FootLine {
  x: number;
  y: number;
  along: Point;
  across: Point;
}

/** A face as a stand sees it: right and away of it. */
export function footLine(face: Face, stand: Stand): FootLine {
  const [c, s] = [Math.cos(stand.facing), Math.sin(stand.facing)];
  const turned = (X: number, Y: number): Point => [X * s - Y * c, X * c + Y * s];
  const [x, y] = turned(face.X - stand.X, face.Y - stand.Y);
  const along = turned(...face.along);
  return { x, y, along, across: [-along[1], along[0]] };
}

/**
 * Tells for places of a picture whether one of the faces shows there, and where on it.
 * @returns fills `out` with millimetres right of, away from and above the stand; false where the ground shows
 */
export function faceFinder(
  faces: readonly Face[],
  camera: Camera,
  stand: Stand,
): (x: number, y: number, out: Float64Array) => boolean {
  const { rotation: r, focal, cx, cy } = camera;
  const [c, s] = [Math.cos(stand.facing), Math.sin(stand.facing)];
  const eye = eyeOf(camera);
  const [eX, eY, eyeZ] = [eye.X - stand.X, eye.Y - stand.Y, eye.Z - stand.level];
  const [eyeX, eyeY] = [eX * s - eY * c, eX * c + eY * s];
  // Things stand before walls.
  const lines = [...faces.filter((f) => f.outline), ...faces.filter((f) => !f.outline)].map((face) => ({
    ...footLine(face, stand),
    holds: face.outline && insideOf(face.outline),
  }));
  return (x, y, out) => {
    const [u, v] = [(x - cx) / focal, (y - cy) / focal];
    const [X, Y] = [r[0] * u + r[3] * v + r[6], r[1] * u + r[4] * v + r[7]];
    const up = r[2] * u + r[5] * v + r[8];
    const [right, away] = [X * s - Y * c, X * c + Y * s];
    for (const { x: fx, y: fy, across, holds } of lines) {
      if (holds && !holds(x, y)) continue;
      const t = (across[0] * (fx - eyeX) + across[1] * (fy - eyeY)) / (across[0] * right + across[1] * away);
      if (!(t > 0)) continue;
      const z = eyeZ + up * t;
      // A wall that is met below the ground lies behind it.
      if (!holds && z < 0) continue;
      out[0] = eyeX + right * t;
      out[1] = eyeY + away * t;
      out[2] = Math.max(0, z);
      return true;
    }
    return false;
  };
}

/** Tells whether a point lies inside a polygon (even-odd rule). */
function insideOf(polygon: readonly Point[]): (x: number, y: number) => boolean {
  const xs = polygon.map(([x]) => x);
  const ys = polygon.map(([, y]) => y);
  const [left, right, top, bottom] = [Math.min(...xs), Math.max(...xs), Math.min(...ys), Math.max(...ys)];
  return (x, y) => {
    if (x < left || x > right || y < top || y > bottom) return false;
    let inside = false;
    for (let i = 0, j = polygon.length - 1; i < polygon.length; j = i++) {
      const [ax, ay] = polygon[j];
      const [bx, by] = polygon[i];
      if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) inside = !inside;
    }
    return inside;
  };
}

/**
 * Where the wall over a foot shows in a picture: all above the foot's line, which runs on to the picture's sides.
 * @returns a polygon, clockwise
 */
export function wallRegion([a, b]: readonly [Point, Point], width: number): [number, number][] {
  const slope = (b[1] - a[1]) / (Math.abs(b[0] - a[0]) < 1e-6 ? 1e-6 : b[0] - a[0]);
  const at = (x: number) => a[1] + slope * (x - a[0]);
  const far = 10 * width;
  const top = Math.min(at(-far), at(width + far), -far);
  return [
    [-far, top],
    [width + far, top],
    [width + far, at(width + far)],
    [-far, at(-far)],
  ];
}

/** A polygon's points in clockwise order. */
export function clockwise<P extends Point>(polygon: readonly P[]): P[] {
  const turn = polygon.reduce((sum, [x, y], i) => {
    const [nx, ny] = polygon[(i + 1) % polygon.length];
    return sum + x * ny - nx * y;
  }, 0);
  return turn < 0 ? polygon.toReversed() : [...polygon];
}
