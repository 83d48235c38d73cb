import { facingAt, onPlane, type Camera } from './camera';

/** Where a product stands on the plane: its base's middle, the plane's level, and which way it faces. */
export interface Stand {
  X: number;
  Y: number;
  level: number;
  /** The angle of "away" on the plane, in radians. */
  facing: number;
}

/** From millimetres about a stand (right, away) to the plane. */
export function fromStand(stand: Stand, x: number, y: number): { X: number; Y: number; Z: number } {
  const [c, s] = [Math.cos(stand.facing), Math.sin(stand.facing)];
  return { X: stand.X + x * s + y * c, Y: stand.Y - x * c + y * s, Z: stand.level };
}

/** The middle of a plane's part that lies under a picture's point; the plane itself when it is under the horizon. */
export function standAt(camera: Camera, at: { x: number; y: number }, level: number): Stand | null {
  const p = onPlane(camera, at, level);
  if (!p) return null;
  return { X: p.X, Y: p.Y, level, facing: facingAt(camera, p.X, p.Y) };
}
