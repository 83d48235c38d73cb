import Joi from 'joi';
import {
  edgeSchema,
  focusSchema,
  hazeSchema,
  knownSchema,
  NO_ITEM,
  outlinesSchema,
  planeSchema,
  spotsSchema,
  wallSchema,
  type SceneSurvey,
} from './survey';
import { AREA_SHAPES, EDGE_POINTS, type AreaEdges, type AreaShape, type PrintArea } from '../surface/area';
import type { Pair } from '../surface/homography';
import { MATERIALS, type PrintMaterial } from '../surface/material';
import { lightSchema } from './light';
import { colourSchema } from '../raster/schemas';

/**
 * A scene's side-file: what was surveyed in its picture, as JSON beside it. `pxPerMm` is the vertical scale of
 * something upright over its lowest 100 mm; pictures that belong to it are named by file.
 */
export interface SceneFile {
  name: string;
  title: string;
  widthPx: number;
  heightPx: number;
  kind: 'scene' | 'mockup';
  plane?: { corners: [number, number][]; widthMm: number; depthMm: number };
  knownHeight?: { base: [number, number]; top: [number, number]; heightMm: number };
  horizonY?: number | null;
  standSpots: { id: string; x: number; y: number; pxPerMm: number }[];
  light: { azimuthDeg: number; elevationDeg: number; softness: number };
  gloss?: number;
  /** Where the standing surface ends: a polygon in the picture. */
  groundEdge?: [number, number][];
  /** Two points of the line where a wall meets the standing surface. */
  wallFoot?: [[number, number], [number, number]];
  /** Outlines of things on which shadows fall, and of what lies in shade. */
  things?: [number, number][][];
  shades?: [number, number][][];
  focus?: NonNullable<SceneSurvey['focus']>;
  haze?: NonNullable<SceneSurvey['haze']>;
  palette: string[];
  season?: string;
  /** A grey PNG beside it, white where something stands before the products. */
  occluder?: string;
  printAreas?: AreaFile[];
  /** A grey PNG beside it, white where the blank item is. */
  outline?: string;
}

/** A print area: a flat one by its corners, a curved one by nine points along its edges, equally spaced on it. */
interface AreaFile {
  id: string;
  title?: string;
  shape: 'quad' | 'curve';
  /** What a curved one is the surface of. */
  body?: AreaShape;
  corners: Pair[];
  edges?: { top: Pair[]; bottom: Pair[]; left?: Pair[]; right?: Pair[] };
  widthMm: number;
  heightMm: number;
  wrapDeg?: number;
  bulgeMm?: number;
  material?: PrintMaterial;
  stock?: 'light' | 'dark';
}

const pair = Joi.array().ordered(Joi.number().required(), Joi.number().required()).length(2).required();
const edge = Joi.array().items(pair).length(EDGE_POINTS);
const length = Joi.number().greater(0).required();

const areaFile = Joi.object({
  id: Joi.string().max(60).required(),
  title: Joi.string().max(120),
  shape: Joi.string().valid('quad', 'curve').required(),
  body: Joi.string().valid(...AREA_SHAPES),
  corners: Joi.array().items(pair).length(4).required(),
  edges: Joi.object({ top: edge.required(), bottom: edge.required(), left: edge, right: edge }).when(
    'shape',
    {
      is: 'curve',
      then: Joi.required(),
    },
  ),
  widthMm: length,
  heightMm: length,
  wrapDeg: Joi.number().greater(0).max(200),
  bulgeMm: Joi.number().min(-500).max(500),
  material: Joi.string().valid(...MATERIALS),
  stock: Joi.string().valid('light', 'dark'),
}).unknown(true);

const schema = Joi.object({
  name: Joi.string().max(120).required(),
  title: Joi.string().max(120).required(),
  widthPx: Joi.number().integer().min(1).required(),
  heightPx: Joi.number().integer().min(1).required(),
  kind: Joi.string().valid('scene', 'mockup').required(),
  plane: planeSchema,
  knownHeight: knownSchema,
  horizonY: Joi.number().allow(null),
  standSpots: spotsSchema.default([]),
  light: lightSchema.required(),
  gloss: Joi.number().min(0).max(1),
  groundEdge: edgeSchema,
  wallFoot: wallSchema,
  things: outlinesSchema,
  shades: outlinesSchema,
  focus: focusSchema,
  haze: hazeSchema,
  palette: Joi.array().items(colourSchema).max(24).default([]),
  season: Joi.string().max(60),
  occluder: Joi.string().max(200),
  printAreas: Joi.array().items(areaFile).max(24).unique('id').default([]),
  outline: Joi.string().max(200),
}).unknown(true);

export interface ReadScene {
  name: string;
  title: string;
  survey: SceneSurvey;
  palette: string[];
  season: string | null;
  occluderFile: string | null;
  outlineFile: string | null;
  /** Areas of which the file does not say how far they bulge, or whether their stock is dark. */
  untold: { bulge: string[]; stock: string[] };
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
    outlineFile: file.outline ?? null,
    untold: {
      bulge: (file.printAreas ?? []).filter((a) => a.bulgeMm === undefined).map((a) => a.id),
      stock: (file.printAreas ?? []).filter((a) => !a.stock).map((a) => a.id),
    },
    survey: {
      width: file.widthPx,
      height: file.heightPx,
      horizonY: file.horizonY ?? null,
      plane: file.plane ?? null,
      known: file.knownHeight ?? null,
      spots: file.standSpots,
      light: file.light,
      gloss: file.gloss ?? 0,
      ...(file.groundEdge && { edge: file.groundEdge }),
      ...(file.wallFoot && { wall: file.wallFoot }),
      ...(file.things?.length && { things: file.things }),
      ...(file.shades?.length && { shades: file.shades }),
      ...(file.focus && { focus: file.focus }),
      ...(file.haze && { haze: file.haze }),
      occluder: null,
      ...NO_ITEM,
      areas: (file.printAreas ?? []).map((area) => readArea(area, `${file.name} ${file.title}`)),
    },
  };
}

function readArea(area: AreaFile, about: string): PrintArea {
  const title = area.title ?? area.id;
  const edges: AreaEdges | null = area.edges
    ? {
        top: area.edges.top,
        bottom: area.edges.bottom,
        left: area.edges.left ?? null,
        right: area.edges.right ?? null,
      }
    : null;
  return {
    id: area.id,
    title,
    // A surface whose sides are given is free; one that says how far it reaches round is a round body.
    shape: area.shape === 'quad' ? 'flat' : (area.body ?? (area.wrapDeg ? 'cone' : 'bulge')),
    corners: area.corners,
    edges: area.shape === 'quad' ? null : edges,
    widthMm: area.widthMm,
    heightMm: area.heightMm,
    wrapDeg: area.wrapDeg ?? null,
    bulgeMm: area.bulgeMm ?? 0,
    material: area.material ?? materialBy(`${area.id} ${title}`) ?? materialBy(about) ?? 'paper',
    stock: area.stock ?? 'light',
  };
}

const WORDS: [RegExp, PrintMaterial][] = [
  [/paper|card|label|packet|kraft|box|carton|poster|page/i, 'paper'],
  [/cloth|linen|cotton|canvas|shirt|bag|tote|flag|fabric|towel/i, 'cloth'],
  [/ceramic|glaze|planter|pot\b|mug|cup|bowl|vase|porcelain|plate/i, 'ceramic'],
  [/metal|tin|steel|enamel|brass|can\b/i, 'metal'],
  [/wood|crate|board|plank|timber/i, 'wood'],
];

/** A material by what a side-file calls the thing. */
function materialBy(words: string): PrintMaterial | null {
  return WORDS.find(([word]) => word.test(words))?.[1] ?? null;
}

function writeArea(area: PrintArea): AreaFile {
  const { edges } = area;
  return {
    id: area.id,
    title: area.title,
    shape: edges ? 'curve' : 'quad',
    ...(edges && { body: area.shape }),
    corners: area.corners,
    ...(edges && {
      edges: {
        top: edges.top,
        bottom: edges.bottom,
        ...(edges.left && { left: edges.left }),
        ...(edges.right && { right: edges.right }),
      },
    }),
    widthMm: area.widthMm,
    heightMm: area.heightMm,
    ...(area.wrapDeg && { wrapDeg: area.wrapDeg }),
    ...(area.bulgeMm && { bulgeMm: area.bulgeMm }),
    material: area.material,
    stock: area.stock,
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
    kind: survey.areas.length ? 'mockup' : 'scene',
    ...(survey.plane && { plane: survey.plane }),
    ...(survey.known && { knownHeight: survey.known }),
    horizonY: survey.horizonY,
    standSpots: survey.spots,
    light: survey.light,
    ...(survey.gloss > 0 && { gloss: survey.gloss }),
    ...(survey.edge && { groundEdge: survey.edge }),
    ...(survey.wall && { wallFoot: survey.wall }),
    ...(survey.things?.length && { things: survey.things }),
    ...(survey.shades?.length && { shades: survey.shades }),
    ...(survey.focus && { focus: survey.focus }),
    ...(survey.haze && { haze: survey.haze }),
    palette: scene.palette,
    ...(scene.season && { season: scene.season }),
    ...(survey.occluder && { occluder: `${name}.occluder.png` }),
    ...(survey.areas.length && { printAreas: survey.areas.map(writeArea) }),
    ...(survey.outline && { outline: `${name}.outline.png` }),
  };
}
