import Joi from 'joi';
import type { SceneSurvey } from '../elements/backdrop/survey';
import { lightSchema } from './light';

/**
 * A scene's side-file: what was surveyed in its picture, as JSON beside it. `pxPerMm` is the vertical scale of
 * something upright over its lowest 100 mm; pictures that belong to it are named by file.
 */
export interface SceneFile {
  name: string;
  title: string;
  widthPx: number;
  heightPx: number;
  kind: 'scene';
  plane?: { corners: [number, number][]; widthMm: number; depthMm: number };
  knownHeight?: { base: [number, number]; top: [number, number]; heightMm: number };
  horizonY?: number | null;
  standSpots: { id: string; x: number; y: number; pxPerMm: number }[];
  light: { azimuthDeg: number; elevationDeg: number; softness: number };
  gloss?: number;
  palette: string[];
  season?: string;
  /** A grey PNG beside it, white where something stands before the products. */
  occluder?: string;
}

const pair = Joi.array().ordered(Joi.number().required(), Joi.number().required()).length(2).required();
const length = Joi.number().greater(0).required();

const schema = Joi.object({
  name: Joi.string().max(120).required(),
  title: Joi.string().max(120).required(),
  widthPx: Joi.number().integer().min(1).required(),
  heightPx: Joi.number().integer().min(1).required(),
  kind: Joi.string().valid('scene').required(),
  plane: Joi.object({
    corners: Joi.array().items(pair).length(4).required(),
    widthMm: length,
    depthMm: length,
  }),
  knownHeight: Joi.object({ base: pair, top: pair, heightMm: length }),
  horizonY: Joi.number().allow(null),
  standSpots: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(60).required(),
        x: Joi.number().required(),
        y: Joi.number().required(),
        pxPerMm: Joi.number().greater(0).required(),
      }),
    )
    .max(60)
    .unique('id')
    .default([]),
  light: lightSchema.required(),
  gloss: Joi.number().min(0).max(1),
  palette: Joi.array()
    .items(Joi.string().pattern(/^#[0-9a-f]{6}$/i))
    .max(24)
    .default([]),
  season: Joi.string().max(60),
  occluder: Joi.string().max(200),
}).unknown(true);

export interface ReadScene {
  name: string;
  title: string;
  survey: SceneSurvey;
  palette: string[];
  season: string | null;
  occluderFile: string | null;
}

/** Reads a side-file; throws a sentence that says what is wrong in it. */
export function readSceneFile(text: string, fileName = 'the side-file'): ReadScene {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new Error(`"${fileName}" is not JSON. Export the scene again, or mend the file.`);
  }
  const { value, error } = schema.validate(json, { convert: false });
  if (error) throw new Error(`"${fileName}" does not describe a scene: ${error.message}.`);
  const file = value as SceneFile;
  return {
    name: file.name,
    title: file.title,
    palette: file.palette,
    season: file.season ?? null,
    occluderFile: file.occluder ?? null,
    survey: {
      width: file.widthPx,
      height: file.heightPx,
      horizonY: file.horizonY ?? null,
      plane: file.plane ?? null,
      known: file.knownHeight ?? null,
      spots: file.standSpots,
      light: file.light,
      gloss: file.gloss ?? 0,
      occluder: null,
    },
  };
}

/** The side-file of a surveyed scene; `name` names its files. */
export function writeSceneFile(
  name: string,
  scene: { title: string; survey: SceneSurvey; palette: string[]; season: string | null },
): SceneFile {
  const { survey } = scene;
  return {
    name,
    title: scene.title,
    widthPx: survey.width,
    heightPx: survey.height,
    kind: 'scene',
    ...(survey.plane && { plane: survey.plane }),
    ...(survey.known && { knownHeight: survey.known }),
    horizonY: survey.horizonY,
    standSpots: survey.spots,
    light: survey.light,
    ...(survey.gloss > 0 && { gloss: survey.gloss }),
    palette: scene.palette,
    ...(scene.season && { season: scene.season }),
    ...(survey.occluder && { occluder: `${name}.occluder.png` }),
  };
}
