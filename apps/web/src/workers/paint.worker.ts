import { isProduct } from '@scenograph/core/elements/product/model';
import { expose, transfer } from 'comlink';
import { DerivedCache } from '@scenograph/core/paint/derived-cache';
import type { Canvas2D, PaintHost, Picture } from '@scenograph/core/raster/canvas';
import { type SceneFill } from '@scenograph/core/elements/backdrop/model';
import { blankOf } from '@scenograph/core/elements/backdrop/paint';
import { greyPlane } from '@scenograph/core/raster/pixels';
import { itemReach, surfaceOf } from '@scenograph/core/surface/print-item';
import type { Reach } from '@scenograph/core/surface/uv-map';
import { groundLightness } from '@scenograph/core/elements/product/ground-lightness';
import { airOf, toneOf } from '@scenograph/core/elements/product/lit';
import { environmentOf, needsOf, paintShot } from '@scenograph/core/paint/paint-shot';
import { paletteOf } from '@scenograph/core/raster/palette';
import { reduceTo } from '@scenograph/core/raster/resample';
import { alphaPlane, type Rgba } from '@scenograph/core/raster/pixels';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { observeWords } from '@scenograph/core/paint/legibility-report';
import { runChecks, runWatch } from '@scenograph/core/spec/checks/index';
import { neutralShot } from '@scenograph/core/spec/checks/neutral-shot';
import type { CheckResult, Subject } from '@scenograph/core/spec/checks/check';
import type { Slot } from '@scenograph/core/spec/slot';
import { fontFiles, ownFontHash } from '@scenograph/core/type/catalogue';
import { readTypeface, type Typeface } from '@scenograph/core/type/typeface';
import { keptPictures } from './kept-pictures';
import { storedFile } from './stored-file';

/** Paints shots away from the main thread, with the painter that the server uses. */

const FONT_FILES = import.meta.glob<string>('../../../../packages/core/type/fonts/*.woff', {
  query: '?url',
  import: 'default',
  eager: true,
});

/** Long side of the picture on which checks are measured live; the delivery measures at full size. */
const CHECK_SIDE = 800;

const host: PaintHost = {
  canvas(width, height) {
    const canvas = new OffscreenCanvas(width, height);
    return { context: canvas.getContext('2d') as unknown as Canvas2D, drawable: canvas };
  },
  bitmap(image) {
    const canvas = new OffscreenCanvas(image.width, image.height);
    canvas
      .getContext('2d')!
      .putImageData(new ImageData(image.data as ImageDataArray, image.width, image.height), 0, 0);
    return canvas;
  },
};

const cache = new DerivedCache(40_000_000);
/** Bytes of decoded pictures that a painter keeps; there are two painters. */
const MOST_BYTES = 256_000_000;
const faces = new Map<string, Promise<Typeface>>();

async function loadPicture(hash: string): Promise<Picture> {
  const response = await storedFile(
    `/api/blobs/${hash}/reduced/2048`,
    'A picture of this shot is not in the store any more.',
  );
  const bitmap = await createImageBitmap(await response.blob(), { colorSpaceConversion: 'none' });
  let pixels: Rgba | null = null;
  return {
    width: bitmap.width,
    height: bitmap.height,
    drawable: bitmap,
    pixels() {
      if (!pixels) {
        const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
        const context = canvas.getContext('2d', { willReadFrequently: true })!;
        context.drawImage(bitmap, 0, 0);
        pixels = {
          width: bitmap.width,
          height: bitmap.height,
          data: context.getImageData(0, 0, bitmap.width, bitmap.height).data,
        };
      }
      return pixels;
    },
  };
}

const picture = keptPictures(loadPicture, MOST_BYTES);

function typeface(id: string): Promise<Typeface> {
  let found = faces.get(id);
  if (!found) {
    found = (async () => {
      const own = ownFontHash(id);
      const urls = own
        ? [`/api/blobs/${own}`]
        : fontFiles(id).map(
            (file) => Object.entries(FONT_FILES).find(([path]) => path.endsWith(`/${file}`))![1],
          );
      const files = await Promise.all(
        urls.map(async (url) => {
          const response = await storedFile(url, 'A font of this shot is not in the store any more.');
          return response.arrayBuffer();
        }),
      );
      return readTypeface(id, files);
    })();
    found.catch(() => faces.delete(id));
    faces.set(id, found);
  }
  return found;
}

async function optionsFor(shot: ResolvedShot) {
  const needs = needsOf(shot);
  const held = new Map<string, Picture>();
  const typefaces = new Map<string, Typeface>();
  await Promise.all([
    ...needs.pictures.map(async (hash) => held.set(hash, await picture(hash))),
    ...needs.fonts.map(async (id) => typefaces.set(id, await typeface(id))),
  ]);
  return { host, cache, pictures: held, typefaces };
}

async function paintNow(
  shot: ResolvedShot,
  scale: number,
  productsOnly = false,
  draft = false,
  resumes = false,
) {
  return paintShot(shot, { ...(await optionsFor(shot)), scale, productsOnly, draft, resumes });
}

/** What the painter finds where a product stands. */
export interface StagingNote {
  /** Colour drift from the source, delta E 2000, and whether it was held under its limit. */
  drift: number;
  /** The light that falls on it against its photo's; 1 is as much. */
  light: number;
  held: boolean;
  /** How far it mirrors the scene, 0..1. */
  gloss: number;
  /** How far it is out of focus, in pixels of the frame, and the share of haze over it. */
  blur: number;
  haze: number;
  /** Lightness of the ground its shadow falls on, 0..1; null where nothing lies behind. */
  ground: number | null;
}

async function subjectOf(
  shot: ResolvedShot,
  slot: Slot,
  slotKey: string,
  sources: [string, { width: number; height: number }][],
): Promise<Subject> {
  const scale = Math.min(1, CHECK_SIDE / Math.max(shot.width, shot.height));
  const { observer, reports } = observeWords();
  const picturePixels = paintShot(shot, { ...(await optionsFor(shot)), scale }, observer).pixels();
  const { shot: plain, coloured } = neutralShot(shot);
  const alone = (await paintNow(plain, scale, true)).pixels();
  return {
    slot,
    slotKey,
    width: shot.width,
    height: shot.height,
    picture: picturePixels,
    products: alphaPlane(alone),
    neutral: coloured ? alone : null,
    shot,
    words: reports(),
    sources: new Map(sources),
  };
}

const api = {
  /** The shot as a bitmap, `scale` device pixels a frame pixel; a draft is computed coarser. */
  async paint(shot: ResolvedShot, scale: number, draft = false, resumes = false): Promise<ImageBitmap> {
    const painted = await paintNow(shot, scale, false, draft, resumes);
    const bitmap = (painted.drawable as OffscreenCanvas).transferToImageBitmap();
    return transfer(bitmap, [bitmap]);
  },

  async staging(shot: ResolvedShot, id: string): Promise<StagingNote | null> {
    const element = shot.elements.find((e) => e.id === id);
    if (!(element && isProduct(element))) return null;
    const environment = environmentOf(shot, await optionsFor(shot));
    const { drift, held, light, gloss } = toneOf(element, environment);
    const { blur, haze } = airOf(element, environment);
    const ground = groundLightness(element, environment);
    return { drift, held, light, gloss, blur, haze: haze?.share ?? 0, ground };
  },

  /** How far a mockup's item reaches over the surface of one of its areas. */
  async itemReach(fill: SceneFill, areaId: string): Promise<Reach> {
    const { outline, width, areas } = fill.survey;
    const area = areas.find((a) => a.id === areaId)!;
    const mask = outline ? reduceTo((await picture(outline)).pixels(), 400) : null;
    return itemReach(
      surfaceOf(area, blankOf(fill)),
      mask && greyPlane(mask),
      mask ? mask.width / width : 1,
      0,
    );
  },

  /** The colours that make up a picture. */
  async palette(hash: string): Promise<string[]> {
    return paletteOf(reduceTo((await picture(hash)).pixels(), 200));
  },

  /** The painted pixels at full size, for comparisons. */
  async pixels(shot: ResolvedShot, scale: number): Promise<Rgba> {
    const painted = await paintNow(shot, scale);
    const { width, height, data } = painted.pixels();
    return transfer({ width, height, data }, [data.buffer as ArrayBuffer]);
  },

  /** The slot's checks, measured on a reduced painting. */
  async check(
    shot: ResolvedShot,
    slot: Slot,
    slotKey: string,
    sources: [string, { width: number; height: number }][],
  ): Promise<CheckResult[]> {
    return runChecks(await subjectOf(shot, slot, slotKey, sources));
  },

  /** What can be said of a picture without a slot's rules. */
  async watch(
    shot: ResolvedShot,
    slot: Slot,
    sources: [string, { width: number; height: number }][],
  ): Promise<CheckResult[]> {
    return runWatch(await subjectOf(shot, slot, '', sources));
  },
};

export type PaintWorker = typeof api;
expose(api);
