import Joi from 'joi';

/** Where light comes from: azimuth 0 from behind the camera, positive toward the right; elevation above the plane; softness 0..1. */
export interface Light {
  azimuthDeg: number;
  elevationDeg: number;
  softness: number;
}

export const lightSchema = Joi.object({
  azimuthDeg: Joi.number().min(-180).max(180).required(),
  elevationDeg: Joi.number()
    .min(1)
    .max(90)
    .required()
    .messages({ 'number.min': 'the light must stand above the plane: an elevation of 1 to 90 degrees' }),
  softness: Joi.number().min(0).max(1).required(),
});

/** Half the angle under which the softest light is seen. */
const SOFTEST = 17;
const RADIAN = Math.PI / 180;
/** Below this a light would throw shadows without end. */
const LOWEST = 7;

/**
 * Directions to points of a light's disc, evenly spread (Vogel 1979), each as how far a shadow falls to the right
 * (x) and away (y) for each unit of the height that casts it.
 */
export function shadowFalls(light: Light, count: number, length = 1): { x: number; y: number }[] {
  const azimuth = light.azimuthDeg * RADIAN;
  const elevation = Math.max(LOWEST, light.elevationDeg) * RADIAN;
  // To the light, and two directions across it.
  const to = [
    Math.sin(azimuth) * Math.cos(elevation),
    -Math.cos(azimuth) * Math.cos(elevation),
    Math.sin(elevation),
  ];
  const side = [Math.cos(azimuth), Math.sin(azimuth), 0];
  const up = [
    -Math.sin(azimuth) * Math.sin(elevation),
    Math.cos(azimuth) * Math.sin(elevation),
    Math.cos(elevation),
  ];
  const radius = Math.tan((0.3 + SOFTEST * light.softness) * RADIAN);
  return Array.from({ length: count }, (_, i) => {
    const r = radius * Math.sqrt((i + 0.5) / count);
    const turn = i * 2.399963;
    const [u, v] = [r * Math.cos(turn), r * Math.sin(turn)];
    const d = to.map((t, k) => t + u * side[k] + v * up[k]);
    const rise = Math.max(0.09, d[2]);
    return { x: (-d[0] / rise) * length, y: (-d[1] / rise) * length };
  });
}
