import { homography, SurveyError } from '../surface/homography';
import { planePose, USUAL_FOCAL } from '../surface/plane-pose';

/** A point of a picture, in its pixels, y down. */
export interface PicturePoint {
  x: number;
  y: number;
}

/** A point of a scene in millimetres: X right and Y away on the standing plane, Z up from it. */
export interface ScenePoint {
  X: number;
  Y: number;
  Z: number;
}

/**
 * A pinhole camera over a standing plane (Z = 0): x = f (R p + t), square pixels, no skew.
 * `rotation` holds the rows of R, whose axes are right, down and forward in the picture.
 */
export interface Camera {
  focal: number;
  cx: number;
  cy: number;
  rotation: readonly number[];
  translation: readonly [number, number, number];
}

/** A rectangle of known size on the standing plane as it lies in the picture. */
export interface SurveyedPlane {
  /** Clockwise from the back left, in pixels. */
  corners: [number, number][];
  widthMm: number;
  depthMm: number;
}

/** Something upright of known height that stands on the plane. */
export interface KnownHeight {
  base: [number, number];
  top: [number, number];
  heightMm: number;
}

/** Levels that differ by less than so many millimetres are one. */
const SAME_LEVEL = 6;

/**
 * The camera from one rectangle of known size, by its plane's homography (`planePose`). Throws SurveyError for crossing corners, a line, or a plane seen edge-on.
 */
export function cameraFromPlane(plane: SurveyedPlane, width: number, height: number): Camera {
  const { corners, widthMm: W, depthMm: D } = plane;
  checkCorners(corners, Math.max(width, height));
  if (!(W > 0 && D > 0)) throw new SurveyError('Give the width and depth of the rectangle in millimetres.');
  const cx = width / 2;
  const cy = height / 2;
  const world: [number, number][] = [
    [0, D],
    [W, D],
    [W, 0],
    [0, 0],
  ];
  const h = homography(
    world,
    corners.map(([x, y]): [number, number] => [x - cx, y - cy]),
  );
  const { focal, r1, r2, r3, t } = planePose(h, [W / 2, D / 2], Math.max(width, height));
  const rotation = [r1[0], r2[0], r3[0], r1[1], r2[1], r3[1], r1[2], r2[2], r3[2]];
  const camera = { focal, cx, cy, rotation, translation: t };
  // Up must be up: a plane seen from below is drawn wrong way round.
  const height0 = cameraHeight(camera);
  if (!(height0 > 0))
    throw new SurveyError(
      'These corners show the plane from below. Start at the back left and go round clockwise.',
    );
  if (pitchAt(camera, W / 2, D / 2) < 1.5)
    throw new SurveyError(
      'The plane is seen edge-on here; nothing could stand on it. Drag the corners further apart, or use the horizon and one known height.',
    );
  return camera;
}

/**
 * A level camera from the horizon and one thing of known height that stands on the plane; the focal length is
 * taken as usual, or given in pixels. After Criminisi, Reid and Zisserman 2000, "Single view metrology".
 */
export function cameraFromHorizon(
  horizonY: number,
  known: KnownHeight,
  width: number,
  height: number,
  focal = Math.max(width, height) * USUAL_FOCAL,
): Camera {
  if (!(known.heightMm > 0)) throw new SurveyError('Give the height of what stands there in millimetres.');
  const [bx, by] = known.base;
  const tall = by - known.top[1];
  if (by <= horizonY + 1)
    throw new SurveyError(
      'What stands there has its foot at or above the horizon. Lower the foot, or raise the horizon.',
    );
  if (tall < 2)
    throw new SurveyError('The known height runs downward or has no length. Set its foot below its top.');
  const cx = width / 2;
  const cy = height / 2;
  const pitch = Math.atan2(cy - horizonY, focal);
  const [s, c] = [Math.sin(pitch), Math.cos(pitch)];
  // Right, down, forward of a camera that looks down by the pitch, in X, Y, Z.
  const rotation = [1, 0, 0, 0, -s, -c, 0, c, -s];
  const at = (eye: number): Camera => ({ focal, cx, cy, rotation, translation: [0, eye * c, eye * s] });
  // The eye's height scales everything alike: one try tells it.
  const trial = at(1000);
  const foot = onPlane(trial, { x: bx, y: by })!;
  let lower = 0;
  let upper = 1000;
  for (let i = 0; i < 60; i++) {
    const z = (lower + upper) / 2;
    const top = project(trial, { ...foot, Z: z });
    if (top && top.y > known.top[1]) lower = z;
    else upper = z;
  }
  return at((1000 * known.heightMm) / lower);
}

/** Where a scene point shows; null behind the camera. */
export function project(camera: Camera, p: ScenePoint): PicturePoint | null {
  const { rotation: r, translation: t, focal, cx, cy } = camera;
  const z = depthAt(camera, p);
  if (z <= 1e-6) return null;
  return {
    x: cx + (focal * (r[0] * p.X + r[1] * p.Y + r[2] * p.Z + t[0])) / z,
    y: cy + (focal * (r[3] * p.X + r[4] * p.Y + r[5] * p.Z + t[1])) / z,
  };
}

/** The camera's place in the scene. */
export function eyeOf({ rotation: r, translation: t }: Camera): ScenePoint {
  return {
    X: -(r[0] * t[0] + r[3] * t[1] + r[6] * t[2]),
    Y: -(r[1] * t[0] + r[4] * t[1] + r[7] * t[2]),
    Z: -(r[2] * t[0] + r[5] * t[1] + r[8] * t[2]),
  };
}

function cameraHeight(camera: Camera): number {
  return eyeOf(camera).Z;
}

/** The point of the plane at height `level` mm that shows at a place of the picture; null at and above its horizon. */
export function onPlane(camera: Camera, { x, y }: PicturePoint, level = 0): ScenePoint | null {
  const { rotation: r, focal, cx, cy } = camera;
  const eye = eyeOf(camera);
  const u = (x - cx) / focal;
  const v = (y - cy) / focal;
  const ray = [r[0] * u + r[3] * v + r[6], r[1] * u + r[4] * v + r[7], r[2] * u + r[5] * v + r[8]];
  const k = (level - eye.Z) / ray[2];
  if (!(k > 0) || Math.abs(ray[2]) < 1e-9) return null;
  return { X: eye.X + ray[0] * k, Y: eye.Y + ray[1] * k, Z: level };
}

/** How far a scene point lies before the camera, in mm along its line of sight. */
export function depthAt({ rotation: r, translation: t }: Camera, { X, Y, Z }: ScenePoint): number {
  return r[6] * X + r[7] * Y + r[8] * Z + t[2];
}

/** Something upright is measured over its lowest so many millimetres. */
const UPRIGHT_MM = 100;

/** Pixels a millimetre at a scene point: `across` the picture, and `up` for something upright that stands there. */
export function scaleAt(camera: Camera, p: ScenePoint): { across: number; up: number } {
  const { focal } = camera;
  const z = depthAt(camera, p);
  const foot = project(camera, p);
  const top = project(camera, { ...p, Z: p.Z + UPRIGHT_MM });
  if (!foot || !top) return { across: focal / Math.abs(z), up: 0 };
  return { across: focal / z, up: Math.hypot(top.x - foot.x, top.y - foot.y) / UPRIGHT_MM };
}

/** How steeply the camera looks down on a point of the plane, in degrees: 0 level, 90 from straight above. */
export function pitchAt(camera: Camera, X: number, Y: number, Z = 0): number {
  const eye = eyeOf(camera);
  return (Math.atan2(eye.Z - Z, Math.hypot(eye.X - X, eye.Y - Y)) * 180) / Math.PI;
}

/** The direction from the camera to a point on the plane, as the angle of the picture's "away" in X, Y (radians). */
export function facingAt(camera: Camera, X: number, Y: number): number {
  const eye = eyeOf(camera);
  return Math.atan2(Y - eye.Y, X - eye.X);
}

/** The vanishing line's height in the middle of the picture. */
export function horizonOf(camera: Camera): number {
  const { rotation: r, focal, cy } = camera;
  // Forward on the plane: the camera's own forward without its fall.
  const [x, y] = [r[6], r[7]];
  const length = Math.hypot(x, y);
  if (length < 1e-6) return -Infinity;
  const down = (r[3] * x + r[4] * y) / length;
  const ahead = (r[6] * x + r[7] * y) / length;
  return cy + (focal * down) / ahead;
}

/**
 * The level in mm at which something upright at this place of the picture has this scale; 0 is the plane. Found by
 * halving, since the scale grows with the level.
 */
export function levelOfScale(camera: Camera, at: PicturePoint, pxPerMm: number): number {
  const eye = eyeOf(camera).Z;
  let lower = -2 * eye;
  let upper = eye * 0.98;
  for (let i = 0; i < 48; i++) {
    const level = (lower + upper) / 2;
    const p = onPlane(camera, at, level);
    if (p && scaleAt(camera, p).up < pxPerMm) lower = level;
    else upper = level;
  }
  const level = (lower + upper) / 2;
  return Math.abs(level) < SAME_LEVEL ? 0 : level;
}

/** The same camera for a picture that was scaled by `k` and moved by x, y. */
export function movedCamera(camera: Camera, k: number, x: number, y: number): Camera {
  return { ...camera, focal: camera.focal * k, cx: camera.cx * k + x, cy: camera.cy * k + y };
}

/** How far off the corners are when the camera projects the rectangle again: the largest distance in pixels. */
export function cornerError(camera: Camera, plane: SurveyedPlane): number {
  const { widthMm: W, depthMm: D } = plane;
  return Math.max(
    ...[
      [0, D],
      [W, D],
      [W, 0],
      [0, 0],
    ].map(([X, Y], i) => {
      const p = project(camera, { X, Y, Z: 0 });
      return p ? Math.hypot(p.x - plane.corners[i][0], p.y - plane.corners[i][1]) : Infinity;
    }),
  );
}

function checkCorners(corners: [number, number][], side: number): void {
  if (corners.length !== 4) throw new SurveyError('A rectangle has four corners.');
  const turns = corners.map((_, i) => {
    const [ax, ay] = corners[i];
    const [bx, by] = corners[(i + 1) % 4];
    const [px, py] = corners[(i + 2) % 4];
    return (bx - ax) * (py - by) - (by - ay) * (px - bx);
  });
  const least = side * side * 2e-5;
  if (turns.some((t) => Math.abs(t) < least))
    throw new SurveyError('Three of these corners lie almost in a line. Drag them apart.');
  if (turns.some((t) => t > 0) && turns.some((t) => t < 0))
    throw new SurveyError(
      'The corners cross or fold in. Drag them so that they go round: back left, back right, front right, front left.',
    );
  if (turns[0] < 0)
    throw new SurveyError(
      'The corners go round the wrong way. Order them back left, back right, front right, front left.',
    );
}
