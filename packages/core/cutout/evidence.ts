import { blur } from '../raster/blur';
import type { ColourHypothesis } from './colour-hypothesis';
import { EVIDENCE_NETWORK } from './model/odds';

/** Colours learnt on both sides from what the segmentation model is sure of. */
export type TaughtColour = Omit<ColourHypothesis, 'product'> & {
  /** How unlikely a pixel's colour is among the product's, as minus log likelihood; 0 where none were learnt. */
  cost: Float32Array;
};

/** The three sources that speak for or against a pixel; how much each counts depends on the rest of the evidence. */
const SOURCES = ['model', 'colour', 'taught'] as const;

/** Names of what is known of a pixel: the sources first, then what the network is told to weigh them by. */
export const EVIDENCE = [
  ...SOURCES,
  'near',
  'around',
  'fromBorder',
  'fromGround',
  'cost',
  'busyBorder',
  'busyGround',
  'sure',
] as const;

/**
 * The least and the most of each source's weight, as factors on its usual one (`training/odds.py` has the same): the model
 * is always heard, the border's colours may be told to be silent.
 */
const BOUNDS = [
  [0.6, 1.4],
  [0, 1],
  [0.3, 1.7],
];

/** The log-odds of a probability, held where the model cannot be surer. */
export function logOdds(p: number): number {
  const q = Math.min(0.998, Math.max(0.002, p));
  return Math.log(q / (1 - q));
}

/**
 * What is known of each pixel before the cut, one plane for each name in `EVIDENCE`, all of a size near 1: the model's
 * log-odds here and around, those of both colour hypotheses, the distances to their backdrops, how the pixel fits the
 * product's colours; and of the whole photo, whether its ground is a pattern and how sure the model is.
 * @param shape the model's probabilities, one a pixel
 */
export function evidenceOf(
  shape: Float32Array,
  byColour: ColourHypothesis,
  taught: TaughtColour,
  width: number,
  height: number,
): Float32Array[] {
  const model = Float32Array.from(shape, (p) => logOdds(p) / 3);
  const plane = { width, height, data: model };
  const all = (v: number) => new Float32Array(shape.length).fill(v);
  const far = (residual: Float32Array) => residual.map((r) => Math.log1p(r) / 2);
  const sure = model.reduce((s, v) => s + Math.abs(v), 0) / model.length;
  return [
    model,
    byColour.odds.length ? byColour.odds.map((v) => v / 9) : all(0),
    taught.odds.map((v) => v / 9),
    blur(plane, 2.5).data,
    blur(plane, 9).data,
    far(byColour.shading.residual),
    far(taught.shading.residual),
    taught.cost.map((v) => Math.min(3, Math.max(-1, v / 10))),
    all(byColour.patterned ? 1 : 0),
    all(taught.patterned ? 1 : 0),
    all(sure),
  ];
}

/**
 * The log-odds of every pixel for the product: the sources' own, each times a weight within bounds that a small network
 * gives it by the rest of the evidence (a mixture of experts, Jacobs et al. 1991). So no pixel goes against all of its
 * sources. The network was fitted on pixels of pictures that the segmentation model was
 * not trained on (`training/odds.py`).
 */
export function oddsFrom(evidence: readonly Float32Array[]): Float32Array {
  const { layers, usual, intercept } = EVIDENCE_NETWORK;
  const [hidden, gate] = layers;
  const [ins, units] = [hidden.weights[0].length, hidden.bias.length];
  const hiddenWeights = Float64Array.from(hidden.weights.flat());
  const gateWeights = Float64Array.from(gate.weights.flat());
  const known = evidence.slice(SOURCES.length);
  const here = new Float64Array(ins);
  const between = new Float64Array(units);
  const out = new Float32Array(evidence[0].length);
  for (let i = 0; i < out.length; i++) {
    for (let c = 0; c < ins; c++) here[c] = known[c][i];
    for (let k = 0, at = 0; k < units; k++) {
      let s = hidden.bias[k];
      for (let c = 0; c < ins; c++) s += hiddenWeights[at++] * here[c];
      between[k] = s > 0 ? s : 0;
    }
    let odds = intercept;
    for (let k = 0, at = 0; k < SOURCES.length; k++) {
      let s = gate.bias[k];
      for (let c = 0; c < units; c++) s += gateWeights[at++] * between[c];
      const [least, most] = BOUNDS[k];
      odds += usual[k] * (least + (most - least) / (1 + Math.exp(-s))) * evidence[k][i];
    }
    out[i] = odds;
  }
  return out;
}
