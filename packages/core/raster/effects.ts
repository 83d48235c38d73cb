import Joi from 'joi';
import { blur } from './blur';
import { squaredDistance } from './distance';
import { parseHex } from './colour';
import { colourSchema } from './schemas';
import { alphaPlane, createPlane, createRgba, type Plane, type Rgba } from './pixels';

/** Effects of any placed element; lengths in pixels of the frame. */
export interface Effects {
  outline: { width: number; colour: string; opacity: number } | null;
  glow: { size: number; colour: string; opacity: number } | null;
  dropShadow: { x: number; y: number; blur: number; colour: string; opacity: number } | null;
  innerShadow: { x: number; y: number; blur: number; colour: string; opacity: number } | null;
}

export const NO_EFFECTS: Effects = { outline: null, glow: null, dropShadow: null, innerShadow: null };

const colour = colourSchema.required();
const share = Joi.number().min(0).max(1).required();
const length = Joi.number().min(-2000).max(2000).required();
const size = Joi.number().min(0).max(2000).required();
const shadow = Joi.object({ x: length, y: length, blur: size, colour, opacity: share })
  .allow(null)
  .required();

export const effectsSchema = Joi.object({
  outline: Joi.object({ width: size, colour, opacity: share }).allow(null).required(),
  glow: Joi.object({ size, colour, opacity: share }).allow(null).required(),
  dropShadow: shadow,
  innerShadow: shadow,
});

export const hasEffects = (e: Effects): boolean => !!(e.outline || e.glow || e.dropShadow || e.innerShadow);

export function scaledEffects(effects: Effects, k: number): Effects {
  const moved = (s: Effects['dropShadow']) => s && { ...s, x: s.x * k, y: s.y * k, blur: s.blur * k };
  return {
    outline: effects.outline && { ...effects.outline, width: effects.outline.width * k },
    glow: effects.glow && { ...effects.glow, size: effects.glow.size * k },
    dropShadow: moved(effects.dropShadow),
    innerShadow: moved(effects.innerShadow),
  };
}

/** How far effects reach beyond an element, in the same pixels. */
export function effectsReach({ outline, glow, dropShadow }: Effects): number {
  return Math.ceil(
    Math.max(
      outline?.width ?? 0,
      (glow?.size ?? 0) * 1.6,
      dropShadow ? Math.max(Math.abs(dropShadow.x), Math.abs(dropShadow.y)) + dropShadow.blur * 1.6 : 0,
    ),
  );
}

/**
 * What lies under an element and over it, from its own painted pixels: drop shadow, glow and outline under, inner
 * shadow over. Outlines follow the exact distance to the element (Felzenszwalb and Huttenlocher 2012); the others
 * are Gaussian blurs.
 * @param k device pixels a frame pixel
 */
export function effectLayers(
  painted: Rgba,
  effects: Effects,
  k: number,
): { under: Rgba | null; over: Rgba | null } {
  const alpha = alphaPlane(painted);
  const { width, height } = alpha;
  const under: [Plane, string][] = [];
  if (effects.dropShadow && effects.dropShadow.opacity > 0) {
    const { x, y, blur: soft, opacity, colour: c } = effects.dropShadow;
    under.push([faded(blur(moved(alpha, x * k, y * k), (soft * k) / 2), opacity), c]);
  }
  if (effects.glow && effects.glow.opacity > 0) {
    const { size: soft, opacity, colour: c } = effects.glow;
    // Twice the blurred shape, so that a glow is full at the edge.
    under.push([faded(blur(alpha, (soft * k) / 2), opacity * 2), c]);
  }
  if (effects.outline && effects.outline.opacity > 0) {
    const { width: wide, opacity, colour: c } = effects.outline;
    const solid = Uint8Array.from(alpha.data, (v) => (v > 0.5 ? 1 : 0));
    const distance = squaredDistance(solid, width, height);
    const ring = createPlane(width, height);
    for (let i = 0; i < ring.data.length; i++)
      ring.data[i] = opacity * Math.min(1, Math.max(0, wide * k + 0.5 - Math.sqrt(distance[i])));
    under.push([ring, c]);
  }
  let over: Rgba | null = null;
  if (effects.innerShadow && effects.innerShadow.opacity > 0) {
    const { x, y, blur: soft, opacity, colour: c } = effects.innerShadow;
    const outside = createPlane(width, height);
    for (let i = 0; i < outside.data.length; i++) outside.data[i] = 1 - alpha.data[i];
    const thrown = blur(moved(outside, x * k, y * k, 1), (soft * k) / 2);
    for (let i = 0; i < thrown.data.length; i++) thrown.data[i] *= alpha.data[i] * opacity;
    over = coloured([[thrown, c]], width, height);
  }
  return { under: under.length ? coloured(under, width, height) : null, over };
}

function faded(plane: Plane, by: number): Plane {
  return { ...plane, data: plane.data.map((v) => Math.min(1, v * by)) };
}

function moved(plane: Plane, dx: number, dy: number, beyond = 0): Plane {
  const [mx, my] = [Math.round(dx), Math.round(dy)];
  if (!mx && !my) return plane;
  const { width, height } = plane;
  const out = createPlane(width, height, beyond);
  for (let y = 0; y < height; y++) {
    const sy = y - my;
    if (sy < 0 || sy >= height) continue;
    for (let x = 0; x < width; x++) {
      const sx = x - mx;
      if (sx >= 0 && sx < width) out.data[y * width + x] = plane.data[sy * width + sx];
    }
  }
  return out;
}

/** Coloured planes laid over one another. */
function coloured(layers: [Plane, string][], width: number, height: number): Rgba {
  const out = createRgba(width, height);
  for (const [plane, hex] of layers) {
    const rgb = parseHex(hex);
    for (let i = 0, j = 0; i < plane.data.length; i++, j += 4) {
      const a = plane.data[i];
      if (a <= 0.002) continue;
      const below = out.data[j + 3] / 255;
      const total = a + below * (1 - a);
      for (let c = 0; c < 3; c++) out.data[j + c] = (rgb[c] * a + out.data[j + c] * below * (1 - a)) / total;
      out.data[j + 3] = total * 255;
    }
  }
  return out;
}
