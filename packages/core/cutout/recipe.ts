import Joi from 'joi';
import type { Rect } from '../raster/pixels';
import type { DrawnBase } from '../stage/base';
import { tidySchema, UNTIDIED, type Tidy } from '../retouch/tidy';
import { colourSchema, hashSchema } from '../raster/schemas';

/** [x, y] in pixels of the tidied photo. */
export type Point = [number, number];

/** add: to what is kept. take: away from it. overlap: keep only what lies in both. */
export type Mode = 'add' | 'take' | 'overlap';

interface StepBase {
  id: string;
  name: string;
  on: boolean;
}

/** A keep or drop stroke teaches the colours and the cut. */
export interface StrokeStep extends StepBase {
  kind: 'stroke';
  side: 'keep' | 'drop';
  points: Point[];
  radius: number;
}
/** Plain painting on the matte. `softness` 0..1 is the share of the radius over which it fades. */
export interface PaintStep extends StepBase {
  kind: 'paint';
  side: 'keep' | 'drop';
  points: Point[];
  radius: number;
  softness: number;
}
/** Everything like the picked colours; `seeds` are where they were picked. Tolerance in delta E (OKLab, times 100). */
export interface ColourStep extends StepBase {
  kind: 'colour';
  mode: Mode;
  seeds: Point[];
  tolerance: number;
  reach: 'touching' | 'anywhere';
}
/** A closed path along the strongest edges between its points. */
export interface TraceStep extends StepBase {
  kind: 'trace';
  mode: Mode;
  points: Point[];
}
/** A drawn shape; `snap` in pixels is how far its outline may move to a real edge, 0 keeps it as drawn. */
export interface ShapeStep extends StepBase {
  kind: 'shape';
  mode: Mode;
  shape: 'rectangle' | 'ellipse' | 'freehand' | 'polygon' | 'curve';
  /** Two opposite corners for rectangle and ellipse, three points a node for a curve (`curveOutline`), else the outline. */
  points: Point[];
  snap: number;
}
export interface InvertStep extends StepBase {
  kind: 'invert';
}
/** A saved outline: a grey PNG by content hash, at any size. `replace` puts it in place of all before. */
export interface OutlineStep extends StepBase {
  kind: 'outline';
  mode: Mode | 'replace';
  matte: string;
}
/** Where the matte is solved anew for hair and fibres. */
export interface FibreStep extends StepBase {
  kind: 'fibre';
  points: Point[];
  radius: number;
}

export type Step =
  StrokeStep | PaintStep | ColourStep | TraceStep | ShapeStep | InvertStep | OutlineStep | FibreStep;

/** Lengths in pixels of the photo. */
export interface EdgeControls {
  /** Above 0 moves the edge outward. */
  shift: number;
  soften: number;
  /** Irregularities smaller than this are evened out. */
  smooth: number;
  /** 0 leaves the matte's own slope, 1 makes it as steep as a pixel. */
  crispness: number;
  /** 0..1: how much of the backdrop's light is taken out of the edge. */
  spill: number;
}

/** A drawn part in place of one that photographed badly; it moves with the product as one. */
export interface RepairPiece {
  id: string;
  shape: 'ellipse' | 'rounded' | 'path';
  /** Two corners for ellipse and rounded rectangle, else the closed outline. */
  points: Point[];
  /** Corner radius of a rounded rectangle in pixels. */
  corner: number;
  fill: string | null;
  outline: { colour: string; width: number } | null;
  softness: number;
  place: 'front' | 'behind';
  on: boolean;
}

/** What the automatic cutout is told. */
export interface Automatic {
  on: boolean;
  /** Keep openings inside the product. */
  holes: boolean;
  /** Soft shadows belong to the backdrop. */
  shadows: boolean;
  /** Clear glass, through which the backdrop is seen; 'auto' lets the model say so. */
  glass: boolean | 'auto';
  /** A box drawn round the product, in pixels of the tidied photo. */
  box: Rect | null;
  /** Clicks on the product. */
  at: Point[];
}

/** Everything a cutout is made from besides the photo; nothing in it holds pixels. */
export interface CutoutRecipe {
  version: 1;
  tidy: Tidy;
  automatic: Automatic;
  steps: Step[];
  edge: EdgeControls;
  /** Keep the camera's own shadow with the cutout. */
  ownShadow: boolean;
  /** What the product stands on, where a hand has drawn it; null takes what is found. */
  base: DrawnBase | null;
  repairs: RepairPiece[];
}

export const PLAIN_EDGE: EdgeControls = { shift: 0, soften: 0, smooth: 0, crispness: 0, spill: 1 };

export const PLAIN_RECIPE: CutoutRecipe = {
  version: 1,
  tidy: UNTIDIED,
  automatic: { on: true, holes: true, shadows: true, glass: 'auto', box: null, at: [] },
  steps: [],
  edge: PLAIN_EDGE,
  ownShadow: false,
  base: null,
  repairs: [],
};

const number = Joi.number().min(-100_000).max(100_000).required();
const points = (least: number) =>
  Joi.array().items(Joi.array().ordered(number, number).length(2)).min(least).max(20_000).required();
const radius = Joi.number().greater(0).max(4000).required();
const side = Joi.string().valid('keep', 'drop').required();
const mode = Joi.string().valid('add', 'take', 'overlap').required();
const hash = hashSchema.required();
const share = Joi.number().min(0).max(1).required();

const STEPS: Record<Step['kind'], Joi.SchemaMap> = {
  stroke: { side, points: points(1), radius },
  paint: { side, points: points(1), radius, softness: share },
  colour: {
    mode,
    seeds: points(1),
    tolerance: Joi.number().min(0).max(100).required(),
    reach: Joi.string().valid('touching', 'anywhere').required(),
  },
  trace: { mode, points: points(3) },
  shape: {
    mode,
    shape: Joi.string().valid('rectangle', 'ellipse', 'freehand', 'polygon', 'curve').required(),
    points: points(2),
    snap: Joi.number().min(0).max(400).required(),
  },
  invert: {},
  outline: { mode: Joi.string().valid('add', 'take', 'overlap', 'replace').required(), matte: hash },
  fibre: { points: points(1), radius },
};

const stepSchema = Joi.alternatives().conditional('.kind', {
  switch: Object.entries(STEPS).map(([kind, schema]) => ({
    is: kind,
    then: Joi.object({
      id: Joi.string().max(60).required(),
      name: Joi.string().max(120).allow('').required(),
      on: Joi.boolean().required(),
      kind: Joi.string().required(),
      ...schema,
    }),
  })),
  otherwise: Joi.forbidden().messages({
    'any.unknown': `{{#label}} is of an unknown kind; the kinds are ${Object.keys(STEPS).join(', ')}`,
  }),
});

export const recipeSchema = Joi.object({
  version: Joi.number().valid(1).required(),
  tidy: tidySchema.required(),
  automatic: Joi.object({
    on: Joi.boolean().required(),
    holes: Joi.boolean().required(),
    shadows: Joi.boolean().required(),
    glass: Joi.boolean().allow('auto').required(),
    // Recipes from before boxes and clicks have neither.
    box: Joi.object({
      x: number,
      y: number,
      width: Joi.number().min(1).max(100_000).required(),
      height: Joi.number().min(1).max(100_000).required(),
    })
      .allow(null)
      .default(null),
    at: Joi.array().items(Joi.array().ordered(number, number).length(2)).max(50).default([]),
  }).required(),
  steps: Joi.array().items(stepSchema).max(500).unique('id').required(),
  edge: Joi.object({
    shift: Joi.number().min(-40).max(40).required(),
    soften: Joi.number().min(0).max(60).required(),
    smooth: Joi.number().min(0).max(60).required(),
    crispness: share,
    spill: share,
  }).required(),
  ownShadow: Joi.boolean().required(),
  base: Joi.object({
    x: number,
    y: number,
    halfWidth: Joi.number().min(1).max(100_000).required(),
    halfDepth: Joi.number().min(0).max(100_000).required(),
  })
    .allow(null)
    .default(null),
  repairs: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(60).required(),
        shape: Joi.string().valid('ellipse', 'rounded', 'path').required(),
        points: points(2),
        corner: Joi.number().min(0).max(4000).required(),
        fill: colourSchema.allow(null).required(),
        outline: Joi.object({
          colour: colourSchema.required(),
          width: Joi.number().greater(0).max(1000).required(),
        })
          .allow(null)
          .required(),
        softness: Joi.number().min(0).max(400).required(),
        place: Joi.string().valid('front', 'behind').required(),
        on: Joi.boolean().required(),
      }),
    )
    .max(100)
    .unique('id')
    .required(),
});

/** Reads a recipe; throws a sentence that says which part is wrong. */
export function readRecipe(value: unknown): CutoutRecipe {
  const { value: recipe, error } = recipeSchema.validate(value, { convert: false });
  if (error) throw new Error(`This is not a cutout that can be opened: ${error.message}.`);
  return recipe as CutoutRecipe;
}

/** A recipe as it was stored, perhaps before boxes and clicks were known; the plain one where nothing was stored. */
export function storedRecipe(stored: CutoutRecipe | null): CutoutRecipe {
  if (!stored) return PLAIN_RECIPE;
  return {
    ...stored,
    base: stored.base ?? null,
    automatic: { ...PLAIN_RECIPE.automatic, ...stored.automatic },
  };
}

/** The recipe with every place and length carried by a map from one picture to another; `scale` is for lengths. */
export function mapRecipe(
  recipe: CutoutRecipe,
  map: (x: number, y: number) => [number, number],
  scale: number,
): CutoutRecipe {
  const all = (list: Point[]): Point[] => list.map(([x, y]) => map(x, y));
  const { box } = recipe.automatic;
  const { base } = recipe;
  const middle = base && map(base.x, base.y);
  const corners = box && [map(box.x, box.y), map(box.x + box.width, box.y + box.height)];
  return {
    ...recipe,
    automatic: {
      ...recipe.automatic,
      box: corners && {
        x: Math.min(corners[0][0], corners[1][0]),
        y: Math.min(corners[0][1], corners[1][1]),
        width: Math.max(1, Math.abs(corners[1][0] - corners[0][0])),
        height: Math.max(1, Math.abs(corners[1][1] - corners[0][1])),
      },
      at: all(recipe.automatic.at),
    },
    steps: recipe.steps.map((step) => {
      const next = { ...step } as Step & {
        points?: Point[];
        seeds?: Point[];
        radius?: number;
        snap?: number;
      };
      if (next.points) next.points = all(next.points);
      if (next.seeds) next.seeds = all(next.seeds);
      if (next.radius) next.radius *= scale;
      if (next.snap) next.snap *= scale;
      return next;
    }),
    base: base &&
      middle && {
        x: middle[0],
        y: middle[1],
        halfWidth: base.halfWidth * scale,
        halfDepth: base.halfDepth * scale,
      },
    edge: {
      ...recipe.edge,
      shift: recipe.edge.shift * scale,
      soften: recipe.edge.soften * scale,
      smooth: recipe.edge.smooth * scale,
    },
    repairs: recipe.repairs.map((piece) => ({
      ...piece,
      points: all(piece.points),
      corner: piece.corner * scale,
      softness: piece.softness * scale,
      outline: piece.outline && { ...piece.outline, width: piece.outline.width * scale },
    })),
  };
}
