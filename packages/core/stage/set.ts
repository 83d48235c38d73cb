import Joi from 'joi';
import { parseHex } from '../raster/colour';
import { createRgba, type Rgba } from '../raster/pixels';
import { eyeOf, type Camera } from './camera';
import { lightSchema, type Light } from './light';
import { MATERIALS, SURFACES, chance, type Material } from './materials';
import { colourSchema } from '../raster/schemas';

/** A studio set made here: a table of some material, and a wall behind it where the camera can see one. */
export interface SetFill {
  type: 'set';
  material: Material;
  colour: string;
  /** The wall's colour; the table's where null. */
  wall: string | null;
  seed: number;
  /** How steeply the camera looks down at the standing place, in degrees; from 60 on no wall is seen. */
  pitchDeg: number;
  /** Where products stand, as a share of the frame's height from the top. */
  standAt: number;
  /** Where the table meets the wall, as a share of the frame's height; null for a sweep without a line. */
  tableLine: number | null;
  /** Millimetres that the frame shows across at the standing place. */
  widthMm: number;
  /** How much brighter the middle is lit, 0..1. */
  spot: number;
  light: Light;
  gloss: number;
}

const share = Joi.number().min(0).max(1).required();

export const setSchema = Joi.object({
  type: Joi.string(),
  material: Joi.string()
    .valid(...MATERIALS)
    .required(),
  colour: colourSchema.required(),
  wall: colourSchema.allow(null).required(),
  seed: Joi.number().integer().min(0).max(999_999).required(),
  pitchDeg: Joi.number().min(4).max(90).required(),
  standAt: share,
  tableLine: share.allow(null),
  widthMm: Joi.number().min(30).max(10_000).required(),
  spot: share,
  light: lightSchema.required(),
  gloss: share,
});

export const NEW_SET: SetFill = {
  type: 'set',
  material: 'paper',
  colour: '#d8cfc2',
  wall: null,
  seed: 7,
  pitchDeg: 16,
  standAt: 0.72,
  tableLine: null,
  widthMm: 560,
  spot: 0.45,
  light: { azimuthDeg: -48, elevationDeg: 46, softness: 0.6 },
  gloss: 0,
};

type Box = { x: number; y: number; width: number; height: number };

/** The set's camera in the frame's pixels: level, without roll; the standing place is X = Y = 0. */
export function setCamera(fill: SetFill, box: Box): Camera {
  const focal = Math.max(box.width, box.height) * 1.7;
  const cx = box.x + box.width / 2;
  const cy = box.y + box.height / 2;
  const down = Math.atan2(box.y + box.height * fill.standAt - cy, focal);
  const tilt = Math.min(Math.PI / 2, Math.max(0.01, (fill.pitchDeg * Math.PI) / 180 - down));
  const [s, c] = [Math.sin(tilt), Math.cos(tilt)];
  const rotation = [1, 0, 0, 0, -s, -c, 0, c, -s];
  // Depth along the forward axis at which the frame is as wide as asked for.
  const depth = (focal * fill.widthMm) / box.width;
  const offset = Math.tan(down) * depth;
  return { focal, cx, cy, rotation, translation: [0, offset, depth] };
}

/**
 * Paints a set: each pixel's ray meets the table or the wall, whose material is made there; light falls off from
 * the lit middle, and the wall darkens upward. With no table line the two run into each other as on a sweep.
 */
export function paintSet(fill: SetFill, width: number, height: number, scale: number): Rgba {
  const box = { x: 0, y: 0, width: width / scale, height: height / scale };
  const camera = setCamera(fill, box);
  const { rotation: r, focal, cx, cy } = camera;
  const eye = eyeOf(camera);
  const out = createRgba(width, height);
  const table = parseHex(fill.colour);
  const wall = parseHex(fill.wall ?? fill.colour);
  const surface = SURFACES[fill.material];
  const horizon = fill.pitchDeg < 60;
  const wallY = horizon ? wallDistance(fill, box, camera) : Infinity;
  const size = fill.widthMm;
  const curve = fill.tableLine === null ? size * 0.3 : 0;
  const side = Math.sin((fill.light.azimuthDeg * Math.PI) / 180);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const u = ((x + 0.5) / scale - cx) / focal;
      const v = ((y + 0.5) / scale - cy) / focal;
      const dx = r[0] * u + r[3] * v + r[6];
      const dy = r[1] * u + r[4] * v + r[7];
      const dz = r[2] * u + r[5] * v + r[8];
      const toTable = dz < -1e-6 ? -eye.Z / dz : Infinity;
      const toWall = dy > 1e-6 ? (wallY - eye.Y) / dy : Infinity;
      const onWall = toWall < toTable;
      const k = Math.min(toTable, toWall);
      const X = eye.X + dx * k;
      const Y = eye.Y + dy * k;
      const Z = onWall ? eye.Z + dz * k : 0;
      // On a sweep the way goes on upward: the wall is measured on from the table.
      const along = onWall ? wallY + Z : Y;
      const pixel =
        (k * Math.hypot(dx, dy, dz)) / focal / scale / (onWall ? 1 : Math.max(0.2, Math.min(1, -dz)));
      const touch = surface(X + size, along + size, fill.seed, Math.max(0.02, pixel * 0.7));
      let turn = onWall ? 1 : 0;
      if (curve > 0) turn = smooth((along - wallY + curve) / (2 * curve));
      const far = Math.hypot(X / size, (along - size * 0.1) / (size * 1.25));
      let lit = 1 - fill.spot * 0.42 * smooth(far / 1.5) + fill.spot * 0.05;
      lit *= 1 - 0.13 * turn - (onWall ? 0.1 * smooth(Z / (size * 0.9)) : 0);
      lit *= 1 + 0.05 * side * (X / size);
      if (onWall && curve === 0) lit *= 0.96 + 0.04 * smooth(Z / 14);
      else if (!onWall && curve === 0 && horizon) lit *= 0.9 + 0.1 * smooth((wallY - Y) / 30);
      const dither = (chance(x, y, fill.seed + 77) - 0.5) * 1.2;
      const o = (y * width + x) * 4;
      for (let c = 0; c < 3; c++) {
        const own = table[c] + (wall[c] - table[c]) * (fill.wall ? turn : 0);
        const base = (own + (touch.colour[c] - own) * touch.mix) * touch.light;
        out.data[o + c] = base * lit + dither;
      }
      out.data[o + 3] = 255;
    }
  return out;
}

function wallDistance(fill: SetFill, box: Box, camera: Camera): number {
  const line = fill.tableLine ?? Math.max(0.3, fill.standAt - 0.3);
  const { rotation: r, focal, cy } = camera;
  const eye = eyeOf(camera);
  const v = (box.height * line - cy) / focal;
  const dz = r[5] * v + r[8];
  const dy = r[4] * v + r[7];
  // A line above the horizon puts the wall far away.
  const Y = dz < -0.01 ? eye.Y + (dy * -eye.Z) / dz : fill.widthMm * 6;
  return Math.min(fill.widthMm * 6, Math.max(fill.widthMm * 0.12, Y));
}

function smooth(t: number): number {
  const x = Math.min(1, Math.max(0, t));
  return x * x * (3 - 2 * x);
}
