import Joi from 'joi';

/** Where light comes from: azimuth 0 from behind the camera, positive toward the right; elevation above the plane; softness 0..1. */
export interface Light {
  azimuthDeg: number;
  elevationDeg: number;
  softness: number;
}

/** What is known of a scene's picture; places in its own pixels. */
export interface SceneSurvey {
  width: number;
  height: number;
  horizonY: number | null;
  spots: { id: string; x: number; y: number; pxPerMm: number }[];
  light: Light;
}

export const lightSchema = Joi.object({
  azimuthDeg: Joi.number().min(-180).max(180).required(),
  elevationDeg: Joi.number().min(1).max(90).required(),
  softness: Joi.number().min(0).max(1).required(),
});

export const surveySchema = Joi.object({
  width: Joi.number().integer().min(1).required(),
  height: Joi.number().integer().min(1).required(),
  horizonY: Joi.number().allow(null).required(),
  spots: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().required(),
        x: Joi.number().required(),
        y: Joi.number().required(),
        pxPerMm: Joi.number().greater(0).required(),
      }),
    )
    .required(),
  light: lightSchema.required(),
});

/**
 * Scene pixels a millimetre for something upright that stands at height `y` of the scene's picture: on one
 * plane under a level camera it grows in proportion to the distance below the horizon. Null where the scene
 * does not know its scale, or at and above the horizon.
 */
export function pxPerMmAt(survey: SceneSurvey, y: number): number | null {
  if (!survey.spots.length) return null;
  // Spots may lie on planes of different heights (plinths): the nearest speaks.
  const nearest = survey.spots.reduce((a, b) => (Math.abs(b.y - y) < Math.abs(a.y - y) ? b : a));
  if (survey.horizonY === null) return nearest.pxPerMm;
  const drop = nearest.y - survey.horizonY;
  if (drop <= 0 || y <= survey.horizonY) return null;
  return (nearest.pxPerMm * (y - survey.horizonY)) / drop;
}
