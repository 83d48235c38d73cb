import Joi from 'joi';
import type { PrintArea } from './area';
import { homography, inverseHomography, type Pair } from './homography';
import { usualLay, usualOpacity, type Lay } from './material';
import { colourSchema, hashSchema } from '../raster/schemas';

/** A design printed on an area. Where a setting is null, the area's material decides. */
export interface Print {
  id: string;
  name: string;
  /** The artwork as pixels, by content hash, and their size. */
  artwork: string;
  width: number;
  height: number;
  /** Where the pixels were drawn from an SVG: its hash and what its colours became. */
  drawn: { svg: string; inks: Record<string, string> } | null;
  area: string;
  hidden: boolean;
  /** The variant's own artwork and ink are printed in its place, where the variant has them. */
  followsVariant: boolean;
  /** The design's middle from the area's top left and its size, in mm on the surface; degrees clockwise. */
  place: { x: number; y: number; width: number; height: number; turn: number; slant: number };
  /** Corners pinned to places of the area (mm, clockwise from the top left) instead; null for none. */
  pins: Pair[] | null;
  /** Over the area alone, or over the whole item within its outline. */
  reach: 'area' | 'item';
  /** Everything in one ink; null for its own colours. */
  ink: string | null;
  /** How much of white paper behind the design is knocked out, 0..1. */
  knockOut: number;
  lay: Lay | null;
  opacity: number | null;
  grain: number | null;
  gloss: number | null;
  spreadMm: number | null;
  folds: number | null;
}

const mm = Joi.number().min(-1e5).max(1e5).required();
const length = Joi.number().greater(0).max(1e5).required();
const own = (max: number) => Joi.number().min(0).max(max).allow(null).required();

export const printSchema = Joi.object({
  id: Joi.string().max(60).required(),
  name: Joi.string().max(120).allow('').required(),
  artwork: hashSchema.required(),
  width: Joi.number().integer().min(1).required(),
  height: Joi.number().integer().min(1).required(),
  drawn: Joi.object({
    svg: hashSchema.required(),
    inks: Joi.object().pattern(colourSchema, colourSchema).required(),
  })
    .allow(null)
    .required(),
  area: Joi.string().max(60).required(),
  hidden: Joi.boolean().required(),
  followsVariant: Joi.boolean().required(),
  place: Joi.object({
    x: mm,
    y: mm,
    width: length,
    height: length,
    turn: Joi.number().min(-360).max(360).required(),
    slant: Joi.number().min(-75).max(75).required(),
  }).required(),
  pins: Joi.array().items(Joi.array().ordered(mm, mm).length(2)).length(4).allow(null).required(),
  reach: Joi.string().valid('area', 'item').required(),
  ink: colourSchema.allow(null).required(),
  knockOut: Joi.number().min(0).max(1).required(),
  lay: Joi.string().valid('multiply', 'opaque').allow(null).required(),
  opacity: own(1),
  grain: own(1),
  gloss: own(2),
  spreadMm: own(5),
  folds: own(1),
});

/** How far a design's ink hides what it lies on: its own setting, or what its area makes usual; 0..1. */
export function printOpacity(
  print: Pick<Print, 'opacity' | 'lay'>,
  area: Pick<PrintArea, 'material' | 'stock'>,
): number {
  return print.opacity ?? usualOpacity(area.material, print.lay ?? usualLay(area.stock));
}

/** A design placed in the middle of an area, as large as fits with a margin. */
export function newPrint(
  id: string,
  name: string,
  artwork: { hash: string; width: number; height: number; drawn?: Print['drawn']; covers?: boolean },
  area: PrintArea,
  share = 0.8,
): Print {
  const print: Print = {
    id,
    name,
    artwork: artwork.hash,
    width: artwork.width,
    height: artwork.height,
    drawn: artwork.drawn ?? null,
    area: area.id,
    hidden: false,
    followsVariant: false,
    place: { x: 0, y: 0, width: 1, height: 1, turn: 0, slant: 0 },
    pins: null,
    reach: 'area',
    ink: null,
    knockOut: 0,
    // What leaves nothing clear has its own ground: it is laid over what is there.
    lay: artwork.covers ? 'opaque' : null,
    opacity: null,
    grain: null,
    gloss: null,
    spreadMm: null,
    folds: null,
  };
  return { ...print, place: fittedPlace(print, area, 'inside', share) };
}

/** Where a design lies when it is fitted inside an area, covers it, or fills it exactly (stretched). */
export function fittedPlace(
  { width, height, place }: Pick<Print, 'width' | 'height' | 'place'>,
  area: Pick<PrintArea, 'widthMm' | 'heightMm'>,
  how: 'inside' | 'cover' | 'fill',
  share = 1,
): Print['place'] {
  const middle = { ...place, x: area.widthMm / 2, y: area.heightMm / 2 };
  if (how === 'fill') return { ...middle, width: area.widthMm, height: area.heightMm, turn: 0, slant: 0 };
  const a = (place.turn * Math.PI) / 180;
  const [c, s] = [Math.abs(Math.cos(a)), Math.abs(Math.sin(a))];
  // The upright size of the turned design, for a width of 1.
  const aspect = height / width;
  const [w, h] = [c + aspect * s, s + aspect * c];
  const [kx, ky] = [area.widthMm / w, area.heightMm / h];
  const k = (how === 'inside' ? Math.min(kx, ky) : Math.max(kx, ky)) * share;
  return { ...middle, width: k, height: k * aspect };
}

/** An all-over print goes so far beyond the item's outline, in mm: what the cut may be off. */
const BLEED_MM = 3;

/** Where a design covers the whole item with its bleed, in proportion. */
export function coveringPlace(
  { width, height, place }: Pick<Print, 'width' | 'height' | 'place'>,
  area: Pick<PrintArea, 'widthMm' | 'heightMm'>,
  reach: { u0: number; v0: number; u1: number; v1: number },
  bleedMm = BLEED_MM,
): Print['place'] {
  const w = (reach.u1 - reach.u0) * area.widthMm + 2 * bleedMm;
  const h = (reach.v1 - reach.v0) * area.heightMm + 2 * bleedMm;
  const whole = fittedPlace({ width, height, place }, { widthMm: w, heightMm: h }, 'cover');
  return {
    ...whole,
    x: ((reach.u0 + reach.u1) / 2) * area.widthMm,
    y: ((reach.v0 + reach.v1) / 2) * area.heightMm,
  };
}

/** The corners of a design on its area, in mm from the area's top left, clockwise from its own top left. */
export function printCorners({ place, pins }: Pick<Print, 'place' | 'pins'>): Pair[] {
  if (pins) return pins;
  const { x, y, width, height, turn, slant } = place;
  const a = (turn * Math.PI) / 180;
  const lean = Math.tan((slant * Math.PI) / 180);
  return (
    [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ] as const
  ).map(([sx, sy]): Pair => {
    const py = (sy * height) / 2;
    // A slant carries the top to the right.
    const px = (sx * width) / 2 - lean * py;
    return [x + px * Math.cos(a) - py * Math.sin(a), y + px * Math.sin(a) + py * Math.cos(a)];
  });
}

/**
 * The homography from places of an area (u, v in 0..1) to pixels of the artwork. Throws SurveyError where pins
 * leave no shape.
 */
export function areaToArtwork(
  print: Pick<Print, 'place' | 'pins' | 'width' | 'height'>,
  area: Pick<PrintArea, 'widthMm' | 'heightMm'>,
): number[] {
  const { width: w, height: h } = print;
  const corners = printCorners(print).map(([x, y]): Pair => [x / area.widthMm, y / area.heightMm]);
  const there = homography(
    [
      [0, 0],
      [w, 0],
      [w, h],
      [0, h],
    ],
    corners,
  );
  return inverseHomography(there);
}

/** Pixels of the picture a millimetre along an area's upper edge. */
export function areaPxPerMm({ corners, widthMm }: Pick<PrintArea, 'corners' | 'widthMm'>): number {
  return Math.hypot(corners[1][0] - corners[0][0], corners[1][1] - corners[0][1]) / widthMm;
}

/** Pixels of the artwork per pixel of the picture, where it is largest: under 1 the artwork is enlarged. */
export function artworkDensity(print: Print, pxPerMm: number): number {
  const corners = printCorners(print);
  const wide = Math.hypot(corners[1][0] - corners[0][0], corners[1][1] - corners[0][1]);
  const tall = Math.hypot(corners[3][0] - corners[0][0], corners[3][1] - corners[0][1]);
  return Math.min(print.width / wide, print.height / tall) / pxPerMm;
}

/** A print with a variant's artwork and ink: the design as large as fits where the other one lay. */
export function printOfVariant(
  print: Print,
  data: { artwork?: { picture: string; width: number; height: number } | null; ink?: string | null },
  missing: Set<string>,
): Print {
  if (!print.followsVariant || print.hidden) return print;
  const inked = data.ink ? { ...print, ink: data.ink } : print;
  const { artwork } = data;
  if (!artwork) missing.add('artwork');
  if (!artwork || artwork.picture === print.artwork) return inked;
  const k = Math.min(print.place.width / artwork.width, print.place.height / artwork.height);
  return {
    ...inked,
    artwork: artwork.picture,
    width: artwork.width,
    height: artwork.height,
    drawn: null,
    pins: null,
    place: { ...print.place, width: artwork.width * k, height: artwork.height * k },
  };
}
