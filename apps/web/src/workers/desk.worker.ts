import { expose, transfer } from 'comlink';
import { solve, type Solved } from '@scenograph/core/cutout/solve';
import { openSource, segmentSource, sourcesOf, type CutoutSource } from '@scenograph/core/cutout/source';
import { pictureOf, renderChanged, renderView, wholeView, type Rendered } from '@scenograph/core/cutout/view';
import { colourRegion } from '@scenograph/core/cutout/colour-region';
import type { Doubt } from '@scenograph/core/cutout/confidence';
import type { View } from '@scenograph/core/raster/footprint';
import { measureFringe, type Fringe } from '@scenograph/core/cutout/fringe';
import { contours } from '@scenograph/core/raster/contours';
import { PLAIN_EDGE, type CutoutRecipe, type Point } from '@scenograph/core/cutout/recipe';
import { boundsAbove, crop, type Plane, type Rgba } from '@scenograph/core/raster/pixels';
import { baseOfCutout, drawnOn, type DrawnBase } from '@scenograph/core/stage/base';
import { oklabPixels } from '@scenograph/core/raster/colour';
import { histogram, type Histogram } from '@scenograph/core/retouch/histogram';
import { reduceTo } from '@scenograph/core/raster/resample';
import { tidyPhoto, tidyPlane, untidyPlane, type Tidy } from '@scenograph/core/retouch/tidy';
import { loadSegmentationModel } from './segmentation-model';
import { storedFile } from './stored-file';

/** The cutout desk's computation, away from the main thread: the same core that the server runs at full size. */

let untidied: Rgba | null = null;
let source: CutoutSource | null = null;
let tidied = '';
/** Saved outlines as they lie over the whole photo, by content hash. */
const kept = new Map<string, Plane>();
let solved: Solved | null = null;
/** OKLab of the reduced photo, for showing what a colour would take. */
let quickLab: { of: Rgba; lab: Float32Array } | null = null;
/** What was solved last of either fineness: where the outline stays, so does the matte. */
let last: { quick: Solved | null; full: Solved | null } = { quick: null, full: null };

async function decode(url: string): Promise<Rgba> {
  const response = await storedFile(url, 'The photo is not in the store any more.');
  const bitmap = await createImageBitmap(await response.blob(), {
    colorSpaceConversion: 'none',
    premultiplyAlpha: 'none',
  });
  const canvas = new OffscreenCanvas(bitmap.width, bitmap.height);
  const context = canvas.getContext('2d', { willReadFrequently: true })!;
  context.drawImage(bitmap, 0, 0);
  const { data } = context.getImageData(0, 0, bitmap.width, bitmap.height);
  return { width: bitmap.width, height: bitmap.height, data: data };
}

function toBitmap(image: Rgba): Promise<ImageBitmap> {
  return createImageBitmap(new ImageData(image.data as ImageDataArray, image.width, image.height), {
    premultiplyAlpha: 'premultiply',
  });
}

export interface Opened {
  width: number;
  height: number;
  histogram: Histogram;
}

export interface SolvedNote {
  confidence: number;
  doubts: Doubt[];
  milliseconds: number;
  /** No pixel is kept. */
  empty: boolean;
  /** Where traced paths run, by step id. */
  paths: Record<string, Point[]>;
}

export interface Shown {
  view: View;
  cut: ImageBitmap;
  photo: ImageBitmap | null;
  /** The matte's contours in photo pixels, when asked for. */
  rings: Point[][];
}

/** What the desk showed last, at the photo as it is tidied now. */
let lastView: { view: View; rings: boolean } | null = null;
/** The last whole rendering of it; strokes are rendered into it. */
let rendered: Rendered | null = null;

const sameRecipe = (a: CutoutRecipe, b: CutoutRecipe) => JSON.stringify(a) === JSON.stringify(b);

/** @param from the recipe from whose solution the present one was solved, where there was one */
async function show(
  view: View,
  recipe: CutoutRecipe,
  want: { photo: boolean; rings: boolean },
  from: CutoutRecipe | null = null,
): Promise<Shown> {
  const now = { ...solved!, recipe };
  const again = from && rendered?.view === view && sameRecipe(rendered.recipe, from) ? rendered : null;
  const { alpha, colours } = again ? renderChanged(source!, now, again) : renderView(source!, now, view);
  rendered = { view, recipe, alpha, colours };
  const rings = want.rings ? ringsOf(alpha, view) : [];
  const cut: Rgba = { ...colours, data: Uint8ClampedArray.from(colours.data) };
  for (let i = 0; i < alpha.data.length; i++) cut.data[i * 4 + 3] = Math.round(alpha.data[i] * 255);
  return { view, cut: await toBitmap(cut), photo: want.photo ? await photoOf(view) : null, rings };
}

const api = {
  async load(url: string): Promise<{ width: number; height: number }> {
    untidied = await decode(url);
    source = null;
    tidied = '';
    return { width: untidied.width, height: untidied.height };
  },

  /** Tidies the photo where that is new, and tells its size and histogram. */
  async tidy(tidy: Tidy): Promise<Opened> {
    const key = JSON.stringify(tidy);
    if (!source || key !== tidied) {
      source = openSource(tidyPhoto(untidied!, tidy));
      tidied = key;
      solved = null;
      lastView = null;
      rendered = null;
      last = { quick: null, full: null };
    }
    return {
      width: source.photo.width,
      height: source.photo.height,
      histogram: histogram(reduceTo(source.photo, 700)),
    };
  },

  /**
   * Carries the recipe out as far as the fine matte; quick for a view while dragging. What the desk showed last is
   * shown anew with it, to save a message there and back.
   */
  async solve(recipe: CutoutRecipe, quick: boolean): Promise<SolvedNote & { shown: Shown | null }> {
    const started = performance.now();
    const held = source!;
    for (const step of recipe.steps)
      if (step.kind === 'outline' && step.on && !held.outlines.has(step.matte)) {
        const matte = kept.get(step.matte) ?? (await decodeMatte(`/api/blobs/${step.matte}`));
        kept.set(step.matte, matte);
        held.outlines.set(step.matte, tidyPlane(matte, untidied!, recipe.tidy));
      }
    await segmentSource(held, await loadSegmentationModel(), recipe, !quick);
    const before = last[quick ? 'quick' : 'full'];
    solved = solve(held, recipe, quick, before);
    last[quick ? 'quick' : 'full'] = solved;
    // The next stroke begins from a quick solution of what is shown now.
    if (!quick) setTimeout(() => source === held && last.full === solved && (last.quick = solve(held, recipe, true, last.quick))); // prettier-ignore
    const paths: Record<string, Point[]> = {};
    for (const step of recipe.steps)
      if (step.kind === 'trace') paths[step.id] = sourcesOf(held).trace(step.points);
    const milliseconds = performance.now() - started;
    const shown =
      lastView &&
      (await show(
        lastView.view,
        recipe,
        { photo: false, rings: lastView.rings },
        quick ? (before?.recipe ?? null) : null,
      ));
    return transfer(
      {
        confidence: solved.confidence,
        doubts: solved.doubts,
        milliseconds,
        empty: !solved.product.some((v) => v === 1) && recipe.repairs.length === 0,
        paths,
        shown,
      },
      shown ? [shown.cut] : [],
    );
  },

  /** What a view of the desk shows; the photo too when it has changed. */
  async view(view: View, recipe: CutoutRecipe, want: { photo: boolean; rings: boolean }): Promise<Shown> {
    lastView = { view, rings: want.rings };
    const shown = await show(view, recipe, want);
    return transfer(shown, shown.photo ? [shown.cut, shown.photo] : [shown.cut]);
  },

  /** How far the edge's colours differ from the product's own, at the fine size. */
  async fringe(recipe: CutoutRecipe): Promise<Fringe> {
    const view = wholeView(source!.photo, 1280);
    const { alpha, colours } = renderView(source!, { ...solved!, recipe }, view);
    const fringe = measureFringe(colours, alpha);
    const { worstAt } = fringe;
    return {
      ...fringe,
      worstAt: worstAt && { x: (worstAt.x + 0.5) * view.k, y: (worstAt.y + 0.5) * view.k },
    };
  },

  /** The base that is found under the product as it is cut out now; null where nothing is kept. */
  async base(recipe: CutoutRecipe): Promise<DrawnBase | null> {
    const view = wholeView(source!.photo, 512);
    const { alpha, colours } = renderView(source!, { ...solved!, recipe }, view);
    const kept = boundsAbove(alpha, 0.02);
    if (!kept) return null;
    for (let i = 0; i < alpha.data.length; i++) colours.data[i * 4 + 3] = Math.round(alpha.data[i] * 255);
    const found = drawnOn(baseOfCutout(crop(colours, kept)), kept);
    return {
      x: found.x * view.k,
      y: found.y * view.k,
      halfWidth: found.halfWidth * view.k,
      halfDepth: found.halfDepth * view.k,
    };
  },

  /** Where a traced edge runs between these points, not led back to the first. */
  async trace(points: Point[]): Promise<Point[]> {
    return sourcesOf(source!).trace(points, false);
  },

  /** What a picked colour would take, as a picture over the whole photo: lime where it would, else clear. */
  async colourPreview(step: {
    seeds: Point[];
    tolerance: number;
    reach: 'touching' | 'anywhere';
  }): Promise<ImageBitmap> {
    const { quick, photo } = source!;
    const k = photo.width / quick.width;
    if (quickLab?.of !== quick) quickLab = { of: quick, lab: oklabPixels(quick) };
    const seeds = step.seeds.map(([x, y]): Point => [x / k, y / k]);
    const region = colourRegion(quickLab.lab, quick.width, quick.height, seeds, step.tolerance, step.reach);
    const image = new ImageData(quick.width, quick.height);
    for (let i = 0; i < region.length; i++) if (region[i]) image.data.set([211, 240, 74, 170], i * 4);
    const bitmap = await createImageBitmap(image);
    return transfer(bitmap, [bitmap]);
  },

  /** Whether the product is kept at a place of the photo, as it was solved last. */
  async keptAt([x, y]: Point): Promise<boolean> {
    if (!solved) return false;
    const { labels, fine, fineK } = solved;
    const [px, py] = [Math.floor(x / fineK), Math.floor(y / fineK)];
    if (px < 0 || py < 0 || px >= fine.width || py >= fine.height) return false;
    return labels[py * fine.width + px] === 1;
  },

  /** A colour of the tidied photo, the mean of 5 x 5 pixels, as #rrggbb; null outside. */
  async colourAt(x: number, y: number): Promise<string | null> {
    const { width, height, data } = source!.photo;
    const sum = [0, 0, 0];
    let n = 0;
    for (let yy = Math.floor(y) - 2; yy <= y + 2; yy++)
      for (let xx = Math.floor(x) - 2; xx <= x + 2; xx++) {
        if (xx < 0 || yy < 0 || xx >= width || yy >= height) continue;
        for (let c = 0; c < 3; c++) sum[c] += data[(yy * width + xx) * 4 + c];
        n++;
      }
    if (!n) return null;
    return `#${sum
      .map((v) =>
        Math.round(v / n)
          .toString(16)
          .padStart(2, '0'),
      )
      .join('')}`;
  },

  /** The present matte as it lies over the whole photo, as a grey PNG. */
  async matte(recipe: CutoutRecipe): Promise<Blob> {
    // An outline is the outline alone: no repairs, no changed edge.
    const plain = { ...recipe, edge: PLAIN_EDGE, repairs: [] };
    const shown = renderView(source!, { ...solved!, recipe: plain }, wholeView(source!.photo)).alpha;
    const alpha = untidyPlane(shown, untidied!, recipe.tidy);
    const canvas = new OffscreenCanvas(alpha.width, alpha.height);
    const image = new ImageData(alpha.width, alpha.height);
    for (let i = 0; i < alpha.data.length; i++) {
      const v = Math.round(alpha.data[i] * 255);
      image.data.set([v, v, v, 255], i * 4);
    }
    canvas.getContext('2d')!.putImageData(image, 0, 0);
    return canvas.convertToBlob({ type: 'image/png' });
  },
};

async function decodeMatte(url: string): Promise<Plane> {
  const { width, height, data } = await decode(url);
  const out: Plane = { width, height, data: new Float32Array(width * height) };
  for (let i = 0; i < out.data.length; i++) out.data[i] = data[i * 4] / 255;
  return out;
}

async function photoOf(view: View): Promise<ImageBitmap> {
  return toBitmap(pictureOf(source!, view));
}

function ringsOf(alpha: Plane, view: View): Point[][] {
  return contours(alpha, 0.4).map((ring) =>
    ring.map(([x, y]): Point => [x * view.k + view.left, y * view.k + view.top]),
  );
}

export type DeskWorker = typeof api;
expose(api);
