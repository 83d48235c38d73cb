import Joi from 'joi';
import { colourSchema, hashSchema } from '../raster/schemas';
import { areaSchema, type PrintArea } from '../surface/area';
import { mendSchema, type MendStep } from '../retouch/mend';
import {
  cameraFromHorizon,
  cameraFromPlane,
  type Camera,
  type KnownHeight,
  type SurveyedPlane,
} from './camera';
import { lightSchema, type Light } from './light';

/** A place to stand; `pxPerMm` is the vertical scale there, measured over 100 mm. */
export interface StandSpot {
  id: string;
  x: number;
  y: number;
  pxPerMm: number;
}

/** What is known of a scene's picture; places in its own pixels. */
export interface SceneSurvey {
  width: number;
  height: number;
  horizonY: number | null;
  /** A rectangle of known size on the standing plane, or else something of known height under a known horizon. */
  plane: SurveyedPlane | null;
  known: KnownHeight | null;
  spots: StandSpot[];
  light: Light;
  /** How much the standing surface mirrors, 0..1. */
  gloss: number;
  /**
   * Where the standing surface ends, as a polygon in the picture: a shelf's border, a plinth's. Shadows and reflections
   * end there. Left out or null where it goes on beyond what matters.
   */
  edge?: [number, number][] | null;
  /** Where a wall meets the standing surface: two points of that line. Shadows bend up there. */
  wall?: [[number, number], [number, number]] | null;
  /** Outlines of things that stand in the scene and take the shadows that fall on them. */
  things?: [number, number][][];
  /** Outlines of what lies in shade: there a shadow darkens nothing twice, and what stands in it is shaded. */
  shades?: [number, number][][];
  /** How sharp the ground is: where it is sharpest, and by how many pixels it is blurred at another place (sigma). */
  focus?: { sharp: [number, number]; soft: [number, number]; blurPx: number } | null;
  /** How much of a haze's colour lies over the ground at a place, 0..1; nearer there is less. */
  haze?: { at: [number, number]; share: number; colour: string } | null;
  /** A grey picture by content hash, white where something stands before the products; null for nothing. */
  occluder: string | null;
  /** Where a blank item takes artwork; a scene that has such areas is a mockup. */
  areas: PrintArea[];
  /** The item's outline as a grey picture by content hash; null where none was made. */
  outline: string | null;
  /** Marks and scratches covered, in order, and the picture that came of it; null for the picture as it is. */
  mends: MendStep[];
  mended: string | null;
}

const point = Joi.array().ordered(Joi.number().required(), Joi.number().required()).length(2).required();
const length = Joi.number().greater(0).max(1e6).required();

/** Parts that a survey and a side-file share. */
export const planeSchema = Joi.object({
  corners: Joi.array().items(point).length(4).required(),
  widthMm: length,
  depthMm: length,
});
export const knownSchema = Joi.object({ base: point, top: point, heightMm: length });
export const spotsSchema = Joi.array()
  .items(
    Joi.object({
      id: Joi.string().max(60).required(),
      x: Joi.number().required(),
      y: Joi.number().required(),
      pxPerMm: Joi.number().greater(0).required(),
    }),
  )
  .max(60)
  .unique('id');

export const edgeSchema = Joi.array().items(point).min(3).max(60);
export const wallSchema = Joi.array().items(point).length(2);
export const focusSchema = Joi.object({
  sharp: point,
  soft: point,
  blurPx: Joi.number().min(0).max(400).required(),
});
export const hazeSchema = Joi.object({
  at: point,
  share: Joi.number().min(0).max(0.95).required(),
  colour: colourSchema.required(),
});
export const outlinesSchema = Joi.array().items(edgeSchema).max(40);

export const surveySchema = Joi.object({
  width: Joi.number().integer().min(1).required(),
  height: Joi.number().integer().min(1).required(),
  horizonY: Joi.number().allow(null).required(),
  plane: planeSchema.allow(null).required(),
  known: knownSchema.allow(null).required(),
  spots: spotsSchema.required(),
  light: lightSchema.required(),
  gloss: Joi.number().min(0).max(1).required(),
  edge: edgeSchema.allow(null),
  wall: wallSchema.allow(null),
  things: outlinesSchema,
  shades: outlinesSchema,
  focus: focusSchema.allow(null),
  haze: hazeSchema.allow(null),
  occluder: hashSchema.allow(null).required(),
  areas: Joi.array().items(areaSchema).max(24).unique('id').required(),
  outline: hashSchema.allow(null).required(),
  mends: Joi.array().items(mendSchema).max(200).unique('id').required(),
  mended: hashSchema.allow(null).required(),
});

/** What a survey has before anything of an item was surveyed. */
export const NO_ITEM = { areas: [], outline: null, mends: [], mended: null };

const cameras = new WeakMap<SceneSurvey, Camera | null>();

/**
 * The scene's camera in its picture's pixels: from the plane, else from horizon and known height, else from horizon
 * and a spot's scale. Null where the survey knows no scale or its measures do not fit together.
 */
export function sceneCamera(survey: SceneSurvey): Camera | null {
  let camera = cameras.get(survey);
  if (camera === undefined) {
    try {
      camera = surveyCamera(survey);
    } catch {
      camera = null;
    }
    cameras.set(survey, camera);
  }
  return camera;
}

/** The same, throwing SurveyError with what is wrong; null where nothing was measured. */
export function surveyCamera({ width, height, plane, known, horizonY, spots }: SceneSurvey): Camera | null {
  if (plane) return cameraFromPlane(plane, width, height);
  if (horizonY === null) return null;
  if (known) return cameraFromHorizon(horizonY, known, width, height);
  if (!spots.length) return null;
  const { x, y, pxPerMm } = spots[0];
  return cameraFromHorizon(
    horizonY,
    { base: [x, y], top: [x, y - 100 * pxPerMm], heightMm: 100 },
    width,
    height,
  );
}

/** What surfaces of the survey's print areas are made with: its picture's size and its camera's focal length. */
export function surveyView(survey: SceneSurvey): { width: number; height: number; focal: number | null } {
  return { width: survey.width, height: survey.height, focal: sceneCamera(survey)?.focal ?? null };
}
