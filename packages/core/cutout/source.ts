import { oklabPixels } from '../raster/colour';
import type { Plane, Rgba } from '../raster/pixels';
import { reduceTo } from '../raster/resample';
import type { StepSources } from './compile';
import type { View } from '../raster/footprint';
import type { CutoutRecipe, Point } from './recipe';
import { analyse, type Analysis } from './segment';
import {
  segmentPhoto,
  takeTaught,
  type Hints,
  type HintStroke,
  type Segmentation,
  type SegmentationModel,
} from './segmentation';
import { edgeCost, traceEdge } from './trace';

/** Long side of the picture on which the outline is cut, and of the one on which the matte is solved. */
const SMALL = 480;
const FINE = 1280;
/** The same for a view while dragging. */
const QUICK = 640;
/** Radius of a click as a hint, as a share of the photo's long side. */
const CLICK = 0.01;

/** A tidied photo opened for cutting: its reduced copies and what has been learnt from them. */
export interface CutoutSource {
  photo: Rgba;
  fine: Rgba;
  small: Rgba;
  quick: Rgba;
  lab: Float32Array;
  /** The photo came with transparency around the product: its own matte is where everything begins. */
  given: boolean;
  /** Photo pixels a fine and a small pixel. */
  fineK: number;
  smallK: number;
  /** What the model sees in the photo, as strokes have taught it, and without them; null until it was asked. */
  segmentation: (Segmentation & { key: string }) | null;
  untaught: (Segmentation & { key: string }) | null;
  analyses: Map<string, Analysis>;
  /** OKLab of one of the copies, made when a colour is picked. */
  fineLab: { of: Rgba; lab: Float32Array } | null;
  cost: Float32Array | null;
  paths: Map<string, Point[]>;
  /** Saved outlines by content hash, as they lie over the tidied photo. */
  outlines: Map<string, Plane>;
  /** The last part of the photo that was shown: most views are asked for again with another matte. */
  shown: { key: string; view: View; picture: Rgba } | null;
}

/** @param photo 8-bit sRGB, straight alpha, tidied, at least 8 pixels on each side */
export function openSource(photo: Rgba): CutoutSource {
  const fine = reduceTo(photo, FINE);
  const quick = reduceTo(fine, QUICK);
  const small = reduceTo(quick, SMALL);
  return {
    photo,
    fine,
    quick,
    small,
    lab: oklabPixels(small),
    given: hasClearGround(photo),
    fineK: photo.width / fine.width,
    smallK: photo.width / small.width,
    segmentation: null,
    untaught: null,
    analyses: new Map(),
    fineLab: null,
    cost: null,
    paths: new Map(),
    outlines: new Map(),
    shown: null,
  };
}

/** A photo that comes with transparency around the product is a cutout already. */
function hasClearGround({ width, height, data }: Rgba): boolean {
  let clear = 0;
  for (let j = 3; j < data.length; j += 4) if (data[j] < 8) clear++;
  return clear >= width * height * 0.02;
}

/** What steps need from outside: saved outlines that were put into `source.outlines`, and traced paths. */
export function sourcesOf(source: CutoutSource): StepSources {
  return {
    outline: (hash) => source.outlines.get(hash),
    trace(points, closed = true) {
      const key = JSON.stringify([points, closed]);
      let path = source.paths.get(key);
      if (!path) {
        const { fine, fineK } = source;
        source.cost ??= edgeCost(fine, source.segmentation?.shape ?? null);
        path = traceEdge(
          source.cost,
          fine.width,
          fine.height,
          points.map(([x, y]) => [x / fineK, y / fineK]),
          closed,
        ).map(([x, y]): Point => [x * fineK, y * fineK]);
        source.paths.set(key, path);
        if (source.paths.size > 60) source.paths.delete(source.paths.keys().next().value!);
      }
      return path;
    },
  };
}

/**
 * Asks the model about an opened photo, with what a recipe points out: its box and clicks, and, where `taught`, its
 * keep and drop strokes. Each is asked once. A picture that came with transparency needs no asking.
 */
export async function segmentSource(
  source: CutoutSource,
  model: SegmentationModel,
  recipe: CutoutRecipe,
  taught = true,
): Promise<void> {
  if (source.given) return;
  const { box, at } = recipe.automatic;
  const k = 1 / source.fineK;
  const clicks = at.map((p): HintStroke => ({
    side: 'keep',
    points: [[p[0] * k, p[1] * k]],
    radius: CLICK * Math.max(source.fine.width, source.fine.height),
  }));
  const hints: Hints = {
    box: box && { x: box.x * k, y: box.y * k, width: box.width * k, height: box.height * k },
    strokes: clicks,
  };
  const key = JSON.stringify([box, at]);
  if (source.untaught?.key !== key) {
    source.untaught = { key, ...(await segmentPhoto(model, source.fine, hints)) };
    source.segmentation = source.untaught;
    source.analyses.clear();
  }
  const strokes = recipe.steps.flatMap((s): HintStroke[] =>
    s.on && s.kind === 'stroke'
      ? [{ side: s.side, radius: s.radius * k, points: s.points.map(([x, y]): Point => [x * k, y * k]) }]
      : [],
  );
  if (!strokes.length) {
    if (source.segmentation !== source.untaught) {
      source.segmentation = source.untaught;
      source.analyses.clear();
    }
    return;
  }
  const taughtKey = `${key}${JSON.stringify(strokes)}`;
  if (!taught || source.segmentation?.key === taughtKey) return;
  const answer = await segmentPhoto(model, source.fine, { ...hints, strokes: [...clicks, ...strokes] });
  source.segmentation = { ...takeTaught(source.untaught, answer, strokes), key: taughtKey };
  source.analyses.clear();
}

export function analysisOf(source: CutoutSource, { holes, shadows }: CutoutRecipe['automatic']): Analysis {
  const key = `${holes}:${shadows}`;
  let analysis = source.analyses.get(key);
  if (!analysis) {
    analysis = analyse(
      source.lab,
      source.small.width,
      source.small.height,
      { holes, shadows },
      source.segmentation,
    );
    if (source.given) givenAnalysis(analysis, source.small);
    source.analyses.set(key, analysis);
  }
  return analysis;
}

function givenAnalysis(analysis: Analysis, small: Rgba): void {
  for (let i = 0; i < analysis.product.length; i++) {
    const inside = small.data[i * 4 + 3] > 127;
    analysis.product[i] = inside ? 1 : 0;
    analysis.odds[i] = inside ? 9 : -9;
  }
}

/** OKLab of a reduced copy, kept until another is asked for. */
export function fineLab(source: CutoutSource, fine: Rgba): Float32Array {
  if (source.fineLab?.of !== fine) source.fineLab = { of: fine, lab: oklabPixels(fine) };
  return source.fineLab.lab;
}
