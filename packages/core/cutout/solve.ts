import { crop, type Rect, type Rgba } from '../raster/pixels';
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
  const related = before && before.fineK === fineK && before.analysis === analysis ? before : null;
  const coarse = scaleLabels(product, small.width, small.height, fine.width, fine.height);
  const radius = (1.6 * fine.width) / small.width + 1;
  const contrast =
    related?.contrast ??
    (source.given ? 0 : edgeContrast(fine, bandAround(coarse, fine.width, fine.height, radius)));
  const job = { source, recipe, quick, fine, fineK, analysis, product, coarse, radius, contrast };
  const matte = source.given
    ? { labels: coarse, fine: givenMatte(fine, coarse, constraints !== null), changed: wholeOf(fine) }
    : updatedMatte(job, related);
  const solved = { recipe, analysis, cut: cut.state, product, fineK, contrast, glass, ...matte };
  return { ...solved, ...judge(source, recipe, analysis, product) };
}

/** What a matte is made from, at the fine size. */
interface MatteJob {
  source: CutoutSource;
  recipe: CutoutRecipe;
  quick: boolean;
  fine: Rgba;
  fineK: number;
  analysis: Analysis;
  product: Uint8Array;
  /** The outline brought to the fine size, and half the width of the band in which it is settled. */
  coarse: Uint8Array;
  radius: number;
  contrast: number;
}

type Matte = Pick<Solved, 'labels' | 'fine' | 'changed'>;

const wholeOf = ({ width, height }: Rgba): Rect => ({ x: 0, y: 0, width, height });

/** The matte, made anew where it may differ from the one before. */
function updatedMatte(job: MatteJob, before: Solved | null): Matte {
  const { source, recipe, fine, fineK, product } = job;
  const { small } = source;
  const all = wholeOf(fine);
  const scale = fine.width / small.width;
  const margin = Math.ceil(Math.max(fine.width, fine.height) * 0.05) + 6;
  const zone = fibreZone(recipe, fine.width, fine.height, fineK);
  const touched = fineConstraints(recipe, fine.width, fine.height, fineK, () => fineLab(source, fine));
  const changedSince = (was: Uint8Array) => changedPart(was, product, small.width, small.height);
  // Far from the product there is nothing to solve; a hand's fibre zone may lie anywhere.
  const around = zone ? null : changedSince(new Uint8Array(product.length));
  const whole = around ? grownRect(around, scale, margin * 2, all) : all;

  const changed = before && sameInDetail(before.recipe, recipe) ? changedSince(before.product) : whole;
  if (!changed) return { labels: before!.labels, fine: before!.fine, changed: null };
  const part = changed === whole ? whole : grownRect(changed, scale, margin, all);
  if (changed === whole || part.width * part.height > 0.6 * whole.width * whole.height) {
    const solved = matteIn(job, whole, zone, touched);
    const labels = new Uint8Array(fine.width * fine.height);
    const matte = emptyMatte(fine, solved.matte.noise);
    pasteMatte(solved, whole, 0, all, labels, matte);
    return { labels, fine: matte, changed: all };
  }
  const solved = matteIn(job, part, zone, touched);
  const labels = Uint8Array.from(before!.labels);
  const matte = copyMatte(before!.fine);
  pasteMatte(solved, part, Math.ceil(margin / 2), all, labels, matte);
  return { labels, fine: matte, changed: part };
}

/**
 * The settled outline and the matte of a part of the fine picture.
 * @param zone where a hand asked for fibres, `touched` what it kept or dropped; both one a fine pixel, or null
 */
function matteIn(
  { source, recipe, quick, fine, analysis, coarse, radius, contrast }: MatteJob,
  part: Rect,
  zone: Uint8Array | null,
  touched: Uint8Array | null,
): { labels: Uint8Array; matte: FineMatte } {
  const scale = source.small.width / fine.width;
  const whole = part.width === fine.width && part.height === fine.height;
  const picture = whole ? fine : crop(fine, part);
  const within = (bytes: Uint8Array) => (whole ? bytes : cropBytes(bytes, fine.width, part));
  const labels = settleLabels(picture, within(coarse), radius, contrast);
  if (!quick && recipe.automatic.on)
    settleDetail(picture, labels, analysis, part, scale, recipe.automatic.holes);
  if (touched) obey(labels, within(touched));
  const side = Math.max(fine.width, fine.height);
  const matte = solveFineMatte(picture, labels, {
    noise: Math.max(2.2, analysis.model.sigma[0] * 255 * 1.5),
    backdrop: analysis.patterned ? null : { model: analysis.model, scale, left: part.x, top: part.y, side },
    fibreZone: zone && within(zone),
    iterations: quick ? 0 : 12,
  });
  return { labels, matte };
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
  const measures = measureCutout({
    ...{ product, shape, seen, width, height },
    chance: chance ?? shape,
    residual: shading.residual,
    agreement: source.segmentation.agreement,
  });
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
