import { cameraFromHorizon, type Camera } from './camera';
import type { Focus, Haze } from './depth-of-field';
import type { Face } from './faces';
import type { Light } from './light';

/** What products stand on in a shot; places in the frame's pixels. */
export interface Ground {
  camera: Camera;
  light: Light;
  gloss: number;
  /** Stand spots with the level above the plane that each lies at, in mm. */
  spots: { id: string; x: number; y: number; level: number }[];
  /** The scene's picture and where it lies; null for a ground made here. */
  scene: { picture: string; box: { x: number; y: number; width: number; height: number } } | null;
  occluder: string | null;
  /** Where it ends: a polygon; null where it does not. */
  edge: [number, number][] | null;
  /** What stands on it and takes shadows, with where those may show; null where nothing does. */
  upright: { faces: Face[]; regions: [number, number][][]; key: string } | null;
  /** How sharp it is at a depth, and what haze lies over it; null where that was not surveyed. */
  focus: Focus | null;
  haze: Haze | null;
  /** Outlines of what lies in the scene's own shade. */
  shades: [number, number][][];
  /** Pixels of the frame per pixel of the scene's picture. */
  k: number;
}

export const STUDIO_LIGHT: Light = { azimuthDeg: -45, elevationDeg: 48, softness: 0.7 };

/** The level of the plane at a place: that of the nearest spot, since spots may lie on plinths. */
export function levelAt(ground: Ground, x: number, y: number): number {
  let level = 0;
  let least = Infinity;
  for (const spot of ground.spots) {
    const d = Math.hypot(spot.x - x, spot.y - y);
    if (d < least) [least, level] = [d, spot.level];
  }
  return level;
}

/**
 * A camera for a product on a backdrop without a plane: it looks down on the product's base as steeply as the
 * product was photographed, from so far that the product has its size there.
 */
export function studioCamera(
  frame: { width: number; height: number },
  at: { x: number; y: number },
  pxPerMm: number,
  pitchDeg: number,
): Camera {
  const focal = Math.max(frame.width, frame.height) * 2.2;
  const cy = frame.height / 2;
  const pitch = (Math.min(80, Math.max(4, pitchDeg)) * Math.PI) / 180;
  const tilt = pitch - Math.atan2(at.y - cy, focal);
  const horizon = cy - focal * Math.tan(tilt);
  const known = {
    base: [at.x, at.y] as [number, number],
    top: [at.x, at.y - 100 * pxPerMm * Math.cos(pitch)] as [number, number],
    heightMm: 100,
  };
  return cameraFromHorizon(Math.min(horizon, at.y - 4), known, frame.width, frame.height, focal);
}
