import Joi from 'joi';
import type { Plane, Rgba } from '../raster/pixels';
import { relativeLuminance, parseHex } from '../raster/colour';
import { resizePlane } from '../raster/resample';
import { areaSurface, placeOn, type AreaSurface } from './area-surface';
import type { PrintArea } from './area';
import { artworkLevels } from './artwork';
import { bendByFolds } from './folds';
import { layInk, type InkLayer } from './lay-ink';
import { splitLight, type LightSplit } from './light-split';
import { INK, usualLay } from './material';
import { areaPxPerMm, areaToArtwork, artworkDensity, printOpacity, printSchema, type Print } from './print';
import { recolourItem } from './recolour';
import { shadePicture, shadeSchema, shadeStops, type ShadeStroke } from './shade';
import { AREA_REACH, uvMap, type Reach, type UvMap } from './uv-map';
import { warpArtwork } from './warp';
import { colourSchema } from '../raster/schemas';

/** What is done with a blank item: designs on its areas from the lowest up, its colour, shade by hand. */
export interface ItemWork {
  prints: Print[];
  /** The item in this colour; null as photographed. */
  colour: string | null;
  shade: ShadeStroke[];
  /** Other ways to print it, to be compared. */
  options: ItemOption[];
}

/** One way to print an item, kept for comparison. */
export interface ItemOption {
  id: string;
  title: string;
  winner: boolean;
  prints: Print[];
  colour: string | null;
}

export const NO_WORK: ItemWork = { prints: [], colour: null, shade: [], options: [] };

const printsSchema = Joi.array().items(printSchema).max(60).unique('id').required();

export const itemWorkSchema = Joi.object({
  prints: printsSchema,
  colour: colourSchema.allow(null).required(),
  shade: Joi.array().items(shadeSchema).max(400).unique('id').required(),
  options: Joi.array()
    .items(
      Joi.object({
        id: Joi.string().max(60).required(),
        title: Joi.string().max(200).allow('').required(),
        winner: Joi.boolean().required(),
        prints: printsSchema,
        colour: colourSchema.allow(null).required(),
      }),
    )
    .max(60)
    .unique('id')
    .required(),
});

export interface BlankItem {
  /** The surveyed picture's size; areas are in its pixels. */
  width: number;
  height: number;
  focal: number | null;
  areas: PrintArea[];
}

export interface PrintSources {
  /** What names the blank's pixels and its outline, for what is kept. */
  key: string;
  artwork(hash: string): Rgba;
  /** The item's outline 0..1 at the surveyed size or another; null where none was made. */
  outline: Plane | null;
  kept<T>(key: string, make: () => T): T;
  /** While dragging: fewer samples. */
  draft?: boolean;
}

export function isWorked({ prints, colour, shade }: ItemWork): boolean {
  return colour !== null || prints.some((p) => !p.hidden) || shade.some((s) => !s.hidden);
}

const surfaces = new WeakMap<PrintArea, { focal: number | null; surface: AreaSurface }>();

/** An area's surface, made once for a camera. */
export function surfaceOf(area: PrintArea, view: Pick<BlankItem, 'width' | 'height' | 'focal'>): AreaSurface {
  let known = surfaces.get(area);
  if (known?.focal !== view.focal) {
    known = { focal: view.focal, surface: areaSurface(area, view) };
    surfaces.set(area, known);
  }
  return known.surface;
}

/**
 * The blank's picture (at any size) with everything done to it; `picture` itself is not changed.
 */
export function printItem(picture: Rgba, blank: BlankItem, work: ItemWork, sources: PrintSources): Rgba {
  const scale = picture.width / blank.width;
  const { kept } = sources;
  const size = `${picture.width}x${picture.height}`;
  const stem = `${sources.key}:${size}`;
  const outline =
    sources.outline &&
    kept(`outline:${stem}`, () => resizePlane(sources.outline!, picture.width, picture.height));
  const glossy = blank.areas.some((a) => INK[a.material].gloss > 0.5);
  const coloured = work.colour
    ? kept(`coloured:${stem}:${work.colour}:${outline ? '' : JSON.stringify(blank.areas)}`, () => {
        const copy = copyOf(picture);
        const within = outline?.data ?? areasCover(blank, scale, picture);
        recolourItem(copy, within, work.colour!, glossy);
        return copy;
      })
    : picture;
  const out = copyOf(coloured);
  for (const area of blank.areas) {
    const prints = work.prints.filter((p) => p.area === area.id && !p.hidden);
    for (const wide of [false, true]) {
      const here = prints.filter((p) => (p.reach === 'item') === wide);
      if (!here.length) continue;
      const surface = surfaceOf(area, blank);
      const key = `${stem}:${JSON.stringify(area)}:${wide}`;
      const map = kept(`uv:${key}`, () =>
        uvMap(surface, scale, picture, wide ? itemReach(surface, outline, scale) : AREA_REACH),
      );
      if (!map.width || !map.height) continue;
      const dark = work.colour ? relativeLuminance(...parseHex(work.colour)) < 0.16 : area.stock === 'dark';
      const split = kept(`light:${key}:${work.colour}`, () =>
        splitLight(coloured, map, insideOf(map, outline, picture.width, wide), {
          stock: dark ? 'dark' : 'light',
          glossy: INK[area.material].gloss > 0.5,
        }),
      );
      const within = wide && outline ? kept(`within:${key}`, () => partOf(outline, map)) : null;
      layInk(
        out,
        split,
        here.map((print) => inkLayer(print, { area, map, split, scale, key, dark, within, sources })),
      );
    }
  }
  const shade = work.shade.length
    ? kept(`shade:${stem}:${JSON.stringify(work.shade)}`, () =>
        shadeStops(work.shade, picture.width, picture.height, scale),
      )
    : null;
  if (shade) shadePicture(out, shade, outline);
  return out;
}

interface LayerParts {
  area: PrintArea;
  map: UvMap;
  split: LightSplit;
  scale: number;
  key: string;
  dark: boolean;
  within: Float32Array | null;
  sources: PrintSources;
}

function inkLayer(
  print: Print,
  { area, map, split, scale, key, dark, within, sources }: LayerParts,
): InkLayer {
  const usual = INK[area.material];
  const lay = print.lay ?? usualLay(dark ? 'dark' : 'light');
  const { kept } = sources;
  const folds = print.folds ?? usual.folds;
  const bent = folds > 0 ? kept(`folds:${key}:${folds}`, () => bendByFolds(map, split, folds)) : map;
  const pxPerMm = areaPxPerMm(area) * scale;
  // The finest level that a place nearer to the camera than the area's upper edge may ask for; the artwork at hand may
  // be a reduced copy.
  const artwork = sources.artwork(print.artwork);
  const density = (artworkDensity(print, pxPerMm) * artwork.width) / print.width;
  const first = Math.max(0, Math.floor(Math.log2(density * 0.7)));
  const levels = kept(`artwork:${print.artwork}:${print.ink}:${print.knockOut}:${first}`, () =>
    artworkLevels(artwork, print.ink, print.knockOut, first),
  );
  return {
    design: warpArtwork(
      levels,
      bent,
      areaToArtwork({ ...print, width: artwork.width, height: artwork.height }, area),
      {
        spread: (print.spreadMm ?? usual.spreadMm) * pxPerMm,
        clip: print.reach === 'area',
        most: sources.draft ? 2 : 8,
      },
    ),
    lay,
    opacity: printOpacity({ ...print, lay }, area),
    grain: print.grain ?? usual.grain,
    gloss: print.gloss ?? usual.gloss,
    within,
  };
}

function copyOf(picture: Rgba): Rgba {
  return { width: picture.width, height: picture.height, data: new Uint8ClampedArray(picture.data) };
}

/**
 * The range of an area's surface that the whole item takes: 0..1 is the area itself. A surface is followed so far
 * beyond its area at most that it still makes sense.
 * @param scale pixels of the outline per pixel of the surveyed picture
 */
export function itemReach(surface: AreaSurface, outline: Plane | null, scale: number, margin = 0.04): Reach {
  const reach = { ...AREA_REACH };
  if (!outline) return reach;
  const step = Math.max(2, Math.round(Math.max(outline.width, outline.height) / 80));
  for (let y = 0; y < outline.height; y += step)
    for (let x = 0; x < outline.width; x += step) {
      if (outline.data[y * outline.width + x] < 0.5) continue;
      const at = placeOn(surface, (x + 0.5) / scale, (y + 0.5) / scale);
      if (!at) continue;
      reach.u0 = Math.max(-FURTHEST, Math.min(reach.u0, at[0] - margin));
      reach.u1 = Math.min(1 + FURTHEST, Math.max(reach.u1, at[0] + margin));
      reach.v0 = Math.max(-FURTHEST, Math.min(reach.v0, at[1] - margin));
      reach.v1 = Math.min(1 + FURTHEST, Math.max(reach.v1, at[1] + margin));
    }
  return reach;
}

/** Beyond its area a surface is followed for so many of the area's sides. */
const FURTHEST = 1.5;

function partOf(plane: Plane, map: UvMap): Float32Array {
  const out = new Float32Array(map.width * map.height);
  for (let y = 0; y < map.height; y++)
    out.set(
      plane.data.subarray((map.y + y) * plane.width + map.x, (map.y + y) * plane.width + map.x + map.width),
      y * map.width,
    );
  return out;
}

/** 1 where the map lies on the area (or, for the whole item, inside its outline). */
function insideOf(map: UvMap, outline: Plane | null, stride: number, wide: boolean): Float32Array {
  const out = new Float32Array(map.width * map.height);
  for (let y = 0, i = 0; y < map.height; y++)
    for (let x = 0; x < map.width; x++, i++) {
      const u = map.u[i];
      const v = map.v[i];
      const on = wide ? !Number.isNaN(u) : u >= 0 && u <= 1 && v >= 0 && v <= 1;
      out[i] = on ? (wide && outline ? outline.data[(map.y + y) * stride + map.x + x] : 1) : 0;
    }
  return out;
}

/** Where no outline was made, the areas stand for the item. */
export function areasCover(
  blank: BlankItem,
  scale: number,
  picture: { width: number; height: number },
): Float32Array {
  const out = new Float32Array(picture.width * picture.height);
  for (const area of blank.areas) {
    const map = uvMap(surfaceOf(area, blank), scale, picture);
    const inside = insideOf(map, null, picture.width, false);
    for (let y = 0; y < map.height; y++)
      for (let x = 0; x < map.width; x++) {
        const i = (map.y + y) * picture.width + map.x + x;
        out[i] = Math.max(out[i], inside[y * map.width + x]);
      }
  }
  return out;
}
