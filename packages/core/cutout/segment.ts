import { components } from '../raster/components';
import { grow, squaredDistance } from '../raster/distance';
import { resizePlane } from '../raster/resample';
import { fitBackground, type BackgroundModel } from './background';
import { fitColourModel } from './colour-model';
import {
  borderStrip,
  BUSY,
  colourHypothesis,
  colourOdds,
  patternDistance,
  type ColourHypothesis,
  type SegmentOptions,
} from './colour-hypothesis';
import { evidenceOf, oddsFrom, type TaughtColour } from './evidence';
import { graphCut, smoothness, SURE_ODDS, type CutState } from './graph-cut';
import type { Segmentation } from './segmentation';
import { shadingOf, type Shading } from './shading';

/** All that is known of a reduced photo before any correction: what a cut needs. */
export interface Analysis {
  lab: Float32Array;
  width: number;
  height: number;
  options: SegmentOptions;
  model: BackgroundModel;
  shading: Shading;
  /** Log-odds of every pixel for the product (above 0) or the backdrop (below 0). */
  odds: Float32Array;
  /** Price of separating a pixel from its neighbour to the E, S, SE and SW. */
  weights: Float32Array[];
  /** The automatic outline, 1 where the product is; empty when nothing stands off the border. */
  product: Uint8Array;
  /** The backdrop is a pattern, known by its colours and not as a surface. */
  patterned: boolean;
  /** The segmentation model's probabilities, where it was asked. */
  shape: Float32Array | null;
  /** Probability of the product by all three sources, before the cut; where the model was asked. */
  chance: Float32Array | null;
  /** What colour alone made of the photo: its backdrop comes from the border, with shadows left out. */
  byColour: ColourHypothesis;
}

/** What a correction says of a pixel. */
export const FREE = 0;
export const KEEP = 1;
export const DROP = 2;

/** Corrections as the cut sees them, both at the reduced size. */
export interface Constraints {
  /** FREE, KEEP or DROP, one a pixel. */
  hard: Uint8Array;
  /** Pixels whose colours teach the models: where a hand drew keep or drop strokes. */
  taught: Uint8Array;
}

const CERTAIN = 1e4;
/** From this probability on, and below one minus it, a pixel teaches colours. */
const TEACHES = 0.9;
/** What decides beside contrast, in the units of `smoothness`. */
const UNARY = 1.5;

/**
 * Product against backdrop on a reduced picture. Three sources speak of each pixel: the segmentation model, colour alone
 * (the backdrop's surface, found from the border), and colour learnt from what the model is sure of. A small fitted network
 * weighs them (`evidence.ts`), and a minimum cut decides. Without a model's answer colour stands
 * alone.
 * @param lab OKLab floats, 3 a pixel
 */
export function analyse(
  lab: Float32Array,
  width: number,
  height: number,
  options: SegmentOptions,
  segmentation: Segmentation | null = null,
): Analysis {
  const weights = smoothness(lab, width, height);
  const byColour = colourHypothesis(lab, width, height, options, weights);
  const base = { lab, width, height, options, weights, byColour };
  if (!segmentation) return { ...base, ...byColour, shape: null, chance: null };
  const { data: shape } = resizePlane(segmentation.shape, width, height);
  const taught = taughtColour(shape, lab, width, height, options);
  const odds = oddsFrom(evidenceOf(shape, byColour, taught, width, height));
  // A probability of nothing at all is a person's word, a drawn box's: no colour speaks against it.
  for (let i = 0; i < odds.length; i++)
    odds[i] = shape[i] === 0 ? -SURE_ODDS : Math.min(SURE_ODDS, Math.max(-SURE_ODDS, odds[i] * UNARY));
  let cut = graphCut(odds, weights, width, height, null);
  // Where colours speak against all that the model sees, it is the model that has seen something.
  if (!cut.includes(1)) cut = Uint8Array.from(shape, (p) => (p > 0.5 ? 1 : 0));
  return {
    ...base,
    model: taught.model,
    shading: taught.shading,
    patterned: taught.patterned,
    odds,
    product: withoutScraps(cut, width, height, options, null),
    shape,
    chance: odds.map((o) => 1 / (1 + Math.exp(-o / UNARY))),
  };
}

/** Backdrop and product by colours, learnt on both sides from what the segmentation model is sure of. */
export function taughtColour(
  shape: Float32Array,
  lab: Float32Array,
  width: number,
  height: number,
  options: SegmentOptions,
): TaughtColour {
  const n = width * height;
  const surely = Uint8Array.from(shape, (p) => (p > TEACHES ? 1 : 0));
  const surelyNot = Uint8Array.from(shape, (p) => (p < 1 - TEACHES ? 1 : 0));
  const around = grow(
    Uint8Array.from(shape, (p) => (p > 0.3 ? 1 : 0)),
    width,
    height,
    4,
  );
  for (let i = 0; i < n; i++) if (around[i]) surelyNot[i] = 0;
  const open = surelyNot.reduce((s, v) => s + v, 0) > n * 0.04 ? surelyNot : borderStrip(width, height);
  const model = fitBackground(lab, open, width, height, 10);
  const busy = model.sigma[0] > BUSY || Math.hypot(model.sigma[1], model.sigma[2]) > BUSY * 0.7;
  const pattern = busy ? fitColourModel(lab, open, 8) : null;
  const shading = pattern
    ? patternDistance(lab, pattern, open, options.shadows)
    : shadingOf(lab, width, height, model, options.shadows);
  const foreground = fitColourModel(lab, surely, 6);
  const odds = foreground
    ? colourOdds(lab, shading.residual, model, foreground, pattern)
    : new Float32Array(n);
  const cost = new Float32Array(n);
  if (foreground)
    for (let i = 0; i < n; i++) cost[i] = foreground.cost(lab[i * 3], lab[i * 3 + 1], lab[i * 3 + 2]);
  return { model, shading, odds, cost, patterned: pattern !== null };
}

/** Drops specks, and fills openings that are not wanted; what a hand has kept or dropped is left alone. */
function withoutScraps(
  product: Uint8Array,
  width: number,
  height: number,
  options: SegmentOptions,
  corrected: { hard: Uint8Array; usual: Uint8Array } | null,
): Uint8Array {
  const out = Uint8Array.from(product);
  const { labels, list } = components(product, width, height);
  const largest = list.reduce((m, c) => Math.max(m, c.area), 0);
  const touched = (of: Int32Array, count: number, side: number) => {
    const set = new Uint8Array(count + 1);
    if (corrected) for (let i = 0; i < of.length; i++) if (corrected.hard[i] === side) set[of[i]] = 1;
    return set;
  };
  const kept = touched(labels, list.length, KEEP);
  for (let i = 0; i < out.length; i++)
    if (labels[i] && !kept[labels[i]] && list[labels[i] - 1].area < largest * 0.004) out[i] = 0;
  const outside = components(
    out.map((v) => (v ? 0 : 1)),
    width,
    height,
  );
  const dropped = touched(outside.labels, outside.list.length, DROP);
  // What the automatic outline had closed, highlights say, opens only by a hand.
  const closed = new Int32Array(outside.list.length + 1);
  if (corrected) for (let i = 0; i < out.length; i++) if (corrected.usual[i]) closed[outside.labels[i]]++;
  for (let i = 0; i < out.length; i++) {
    const l = outside.labels[i];
    if (!l || outside.list[l - 1].touchesBorder || dropped[l]) continue;
    const { area } = outside.list[l - 1];
    if (!options.holes || area < 3 || closed[l] > area / 2) out[i] = 1;
  }
  return out;
}

/**
 * The outline with corrections: strokes have taught their colours near where they were drawn, and what they
 * cover is certain. Without corrections this is the automatic outline.
 * @param before the last cut of the same analysis: only around what leans otherwise now is it made again
 */
export function label(
  analysis: Analysis,
  constraints: Constraints | null,
  before: CutState | null = null,
): { product: Uint8Array; state: CutState | null } {
  if (!constraints) return { product: analysis.product, state: null };
  const { width, height } = analysis;
  const { hard, taught } = constraints;
  const odds = Float32Array.from(analysis.odds);
  teach(odds, analysis, hard, taught);
  for (let i = 0; i < hard.length; i++) {
    if (hard[i] === KEEP) odds[i] = CERTAIN;
    else if (hard[i] === DROP) odds[i] = -CERTAIN;
  }
  const labels = graphCut(odds, analysis.weights, width, height, before);
  return {
    product: withoutScraps(labels, width, height, analysis.options, { hard, usual: analysis.product }),
    state: { odds, labels },
  };
}

/** How far a stroke's colours teach, as a share of the longer side; and where the other side is full of them. */
const REACH = 0.1;
const REACH_IF_COMMON = 0.02;
/** Odds from which on a pixel is an example of its side. */
const EXAMPLE = 4;

/** How like a stroke's colours a colour is, 0..1, by how much more it costs than theirs. */
const alike = (more: number) => Math.exp(-Math.max(0, more - 1) * 0.4);

/** What one side's strokes have taught: how much speaks for that side at a pixel, 0..1; null without strokes. */
function taughtBy(
  side: typeof KEEP | typeof DROP,
  odds: Float32Array,
  { lab, width, height }: Analysis,
  hard: Uint8Array,
  taught: Uint8Array,
): ((i: number) => number) | null {
  const set = new Uint8Array(hard.length);
  for (let i = 0; i < set.length; i++) if (taught[i] && hard[i] === side) set[i] = 1;
  const model = set.includes(1) ? fitColourModel(lab, set, 3) : null;
  if (!model) return null;
  const cost = (i: number) => model.cost(lab[i * 3], lab[i * 3 + 1], lab[i * 3 + 2]);
  const mean = (pixels: (i: number) => boolean, value: (i: number) => number, every: number) => {
    let sum = 0;
    let count = 0;
    for (let i = 0; i < set.length; i += every)
      if (pixels(i)) {
        sum += value(i);
        count++;
      }
    return count ? sum / count : 0;
  };
  const typical = mean((i) => set[i] === 1, cost, 1);
  const likeness = (i: number) => alike(cost(i) - typical);
  const other = side === KEEP ? -1 : 1;
  const common = mean((i) => !hard[i] && odds[i] * other > EXAMPLE, likeness, 7);
  const crowded = Math.min(1, Math.max(0, (common - 0.4) / 0.4));
  const share = REACH + (REACH_IF_COMMON - REACH) * crowded;
  const reach = 2 * (Math.max(width, height) * share) ** 2;
  const distance = roughDistance(set, width, height);
  return (i) => {
    const far = distance(i);
    return far > 3 * reach ? 0 : Math.exp(-far / reach) * likeness(i);
  };
}

/**
 * Adds what the strokes' colours say to the odds, strongest near the strokes. Colours that are common on the other
 * side too, a keep stroke's on open backdrop, say next to nothing of other places.
 */
function teach(odds: Float32Array, analysis: Analysis, hard: Uint8Array, taught: Uint8Array): void {
  const none = () => 0;
  const kept = taughtBy(KEEP, odds, analysis, hard, taught) ?? none;
  const dropped = taughtBy(DROP, odds, analysis, hard, taught) ?? none;
  if (kept === none && dropped === none) return;
  for (let i = 0; i < odds.length; i++) {
    if (hard[i]) continue;
    // A pixel whose odds are at their limit is moved only by the other side: most need one look.
    let difference = odds[i] < SURE_ODDS ? kept(i) : 0;
    if (odds[i] > -SURE_ODDS || difference >= 0.02) difference -= dropped(i);
    if (odds[i] >= SURE_ODDS && difference <= -0.02) difference += kept(i);
    if (Math.abs(difference) < 0.02) continue;
    const next = odds[i] + difference * 14;
    odds[i] = next > SURE_ODDS ? SURE_ODDS : next < -SURE_ODDS ? -SURE_ODDS : next;
  }
}

/** Squared distance to the nearest set pixel, found on a quarter of the size: enough for a soft falloff. */
function roughDistance(set: Uint8Array, width: number, height: number): (i: number) => number {
  const w = Math.ceil(width / 4);
  const h = Math.ceil(height / 4);
  const rough = new Uint8Array(w * h);
  for (let i = 0; i < set.length; i++) {
    if (!set[i]) continue;
    const x = i % width;
    rough[(((i - x) / width) >> 2) * w + (x >> 2)] = 1;
  }
  const distance = squaredDistance(rough, w, h);
  return (i) => {
    const x = i % width;
    return distance[(((i - x) / width) >> 2) * w + (x >> 2)] * 16;
  };
}
