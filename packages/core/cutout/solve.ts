import { crop, type Rect } from '../raster/pixels';
import { resizePlane } from '../raster/resample';
import { compileSteps, fibreZone, fineConstraints } from './compile';
import { confidenceFrom, doubtsOf, measureCutout, type CutoutMeasures, type Doubt } from './confidence';
import { bandAround, edgeContrast, scaleLabels, settleLabels } from './fine-labels';
import { settleDetail } from './fine-detail';
import { solveFineMatte, type FineMatte } from './fine-matte';
import { findGlass, recognisedGlass, type Glass } from './glass';
import type { CutState } from './graph-cut';
import {
  changedPart,
  copyMatte,
  cropBytes,
  emptyMatte,
  givenMatte,
  grownRect,
  pasteMatte,
} from './matte-parts';
import type { CutoutRecipe } from './recipe';
import { DROP, KEEP, label, type Analysis } from './segment';
import { analysisOf, fineLab, sourcesOf, type CutoutSource } from './source';

/** How far an automatic outline can be trusted. */
export interface Judgement {
  /** Probability that the outline is right; 1 for what a hand has corrected. */
  confidence: number;
  /** What the confidence comes from; null where no model was asked. */
  measures: CutoutMeasures | null;
  /** Places to look at, in pixels of the tidied photo, the largest first. */
  doubts: Doubt[];
}

/** A recipe carried out as far as the fine matte; views of any part and size come from it. */
export interface Solved extends Judgement {
  recipe: CutoutRecipe;
  analysis: Analysis;
  cut: CutState | null;
  /** The outline at the small and at the fine size. */
  product: Uint8Array;
  labels: Uint8Array;
  fine: FineMatte;
  /** Photo pixels per pixel of the fine matte. */
  fineK: number;
  /** Where it may differ from what was solved before, in fine pixels; null where nothing has changed. */
  changed: Rect | null;
  /** The contrast that is usual along the edge; kept from solve to solve, so that parts agree with the whole. */
  contrast: number;
  glass: Glass | null;
}

/**
 * Carries out a recipe: corrections become certain pixels, the cut is made again with what they teach, its
 * outline is settled on the fine picture, and the matte is solved in a band around it.
 * @param quick the matte at half the fine size and with fewer rounds, for a view while dragging
 * @param before what was solved last, by the same photo: where its outline stays, so does its matte
 */
export function solve(
  source: CutoutSource,
  recipe: CutoutRecipe,
  quick = false,
  before: Solved | null = null,
): Solved {
  const { photo, small } = source;
  const fine = quick ? source.quick : source.fine;
  const fineK = photo.width / fine.width;
  const analysis = analysisOf(source, recipe.automatic);
  const constraints = compileSteps(recipe, analysis, photo, sourcesOf(source));
  const cut = label(analysis, constraints, before?.analysis === analysis ? before.cut : null);
  let { product } = cut;
  const glass = glassIn(source, recipe, analysis, product);
  if (glass) {
    // Clear parts are inside the outline unless a correction says otherwise.
    product = product.map((v, i) => (constraints?.hard[i] === DROP ? 0 : v | glass.envelope[i]));
  }
  const zone = fibreZone(recipe, fine.width, fine.height, fineK);
  const touched = source.given
    ? null
    : fineConstraints(recipe, fine.width, fine.height, fineK, () => fineLab(source, fine));
  const coarse = scaleLabels(product, small.width, small.height, fine.width, fine.height);
  const radius = (1.6 * fine.width) / small.width + 1;
  const related = before && before.fineK === fineK && before.analysis === analysis ? before : null;
  const contrast =
    related?.contrast ??
    (source.given ? 0 : edgeContrast(fine, bandAround(coarse, fine.width, fine.height, radius)));
  const matteIn = (part: Rect): { labels: Uint8Array; matte: FineMatte } => {
    const whole = part.width === fine.width && part.height === fine.height;
    const picture = whole ? fine : crop(fine, part);
    const outline = whole ? coarse : cropBytes(coarse, fine.width, part);
    const labels = settleLabels(picture, outline, radius, contrast);
    if (!quick && recipe.automatic.on)
      settleDetail(picture, labels, analysis, part, small.width / fine.width, recipe.automatic.holes);
    if (touched) obey(labels, whole ? touched : cropBytes(touched, fine.width, part));
    const matte = solveFineMatte(picture, labels, {
      noise: Math.max(2.2, analysis.model.sigma[0] * 255 * 1.5),
      backdrop: analysis.patterned
        ? null
        : {
            model: analysis.model,
            scale: small.width / fine.width,
            left: part.x,
            top: part.y,
            side: Math.max(fine.width, fine.height),
          },
      fibreZone: zone && (whole ? zone : cropBytes(zone, fine.width, part)),
      iterations: quick ? 0 : 12,
    });
    return { labels, matte };
  };
  const all: Rect = { x: 0, y: 0, width: fine.width, height: fine.height };
  let labels: Uint8Array;
  let matte: FineMatte;
  let changed: Rect | null = all;
  if (source.given) {
    labels = coarse;
    matte = givenMatte(fine, labels, constraints !== null);
  } else {
    const again =
      related && sameInDetail(related.recipe, recipe)
        ? changedPart(related.product, product, small.width, small.height)
        : 'all';
    const margin = Math.ceil(Math.max(fine.width, fine.height) * 0.05) + 6;
    const scale = fine.width / small.width;
    // Far from the product there is nothing to solve; a hand's fibre zone may lie anywhere.
    const around = zone
      ? null
      : changedPart(new Uint8Array(product.length), product, small.width, small.height);
    const whole = around ? grownRect(around, scale, margin * 2, all) : all;
    const part = again === 'all' || !again ? whole : grownRect(again, scale, margin, all);
    if (again !== 'all') changed = again && part;
    if (!again) ({ labels, fine: matte } = before!);
    else if (again === 'all' || part.width * part.height > 0.6 * whole.width * whole.height) {
      changed = all;
      const solvedWhole = matteIn(whole);
      labels = new Uint8Array(fine.width * fine.height);
      matte = emptyMatte(fine, solvedWhole.matte.noise);
      pasteMatte(solvedWhole, whole, 0, all, labels, matte);
    } else {
      const solvedPart = matteIn(part);
      labels = Uint8Array.from(before!.labels);
      matte = copyMatte(before!.fine);
      pasteMatte(solvedPart, part, Math.ceil(margin / 2), all, labels, matte);
    }
  }
  return {
    recipe,
    analysis,
    cut: cut.state,
    product,
    labels,
    fine: matte,
    fineK,
    changed,
    contrast,
    glass,
    ...judge(source, recipe, analysis, product),
  };
}

/** The glass of a photo, where the recipe asks for it or the model recognises it. */
function glassIn(
  source: CutoutSource,
  { automatic }: CutoutRecipe,
  analysis: Analysis,
  product: Uint8Array,
): Glass | null {
  if (source.given || automatic.glass === false) return null;
  const { segmentation, small } = source;
  const told =
    segmentation &&
    recognisedGlass(analysis, product, resizePlane(segmentation.seen, small.width, small.height));
  return told ?? (automatic.glass === true ? findGlass(analysis) : null);
}

/** What a hand has touched is as it said, whatever the cut found. */
function obey(labels: Uint8Array, touched: Uint8Array): void {
  for (let i = 0; i < labels.length; i++) {
    if (touched[i] === KEEP) labels[i] = 1;
    else if (touched[i] === DROP) labels[i] = 0;
  }
}

/** Both ask for the same fibres, and for the same colours: those act where the reduced outline shows nothing. */
function sameInDetail(a: CutoutRecipe, b: CutoutRecipe): boolean {
  const of = (r: CutoutRecipe) =>
    JSON.stringify(r.steps.filter((s) => s.on && (s.kind === 'fibre' || s.kind === 'colour')));
  return of(a) === of(b);
}

/** What speaks for and against the outline, and where a hand should look. */
function judge(
  source: CutoutSource,
  recipe: CutoutRecipe,
  analysis: Analysis,
  product: Uint8Array,
): Judgement {
  const corrected = recipe.steps.some((s) => s.on);
  // What a hand has corrected is its own judge.
  if (corrected || source.given || !source.segmentation || !analysis.shape)
    return { confidence: source.given || corrected ? 1 : 0, measures: null, doubts: [] };
  const { width, height } = source.small;
  const seen = resizePlane(source.segmentation.seen, width, height).data;
  const { shape, chance, shading } = analysis;
  const measures = measureCutout(
    product,
    shape,
    chance ?? shape,
    seen,
    shading.residual,
    source.segmentation.agreement,
    width,
    height,
  );
  return {
    confidence: confidenceFrom(measures),
    measures,
    doubts: doubtsOf(product, shape, width, height).map(({ x, y, radius }) => ({
      x: (x + 0.5) * source.smallK,
      y: (y + 0.5) * source.smallK,
      radius: radius * source.smallK,
    })),
  };
}
