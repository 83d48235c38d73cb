import { components } from '../raster/components';
import { grow } from '../raster/distance';
import { fitBackground, type BackgroundModel } from './background';
import { fitColourModel, type ColourModel } from './colour-model';
import { graphCut, SURE_ODDS } from './graph-cut';
import { shadingOf, type Shading } from './shading';

/** What a person has chosen of how the automatic outline is made. */
export interface SegmentOptions {
  /** Keep openings inside the product through which the backdrop shows. */
  holes: boolean;
  /** Treat soft shadows on the backdrop as backdrop. */
  shadows: boolean;
}

/** From this distance on, in noise units, no colour of the product's could make a pixel backdrop. */
const SURE = 13;
/** Shades of a pattern that are tried, as factors on OKLab. */
const SHADES = [0.86, 0.74, 0.62, 0.5];
/** A border whose own noise is above this is a pattern, not paper: it is described by its colours instead. */
export const BUSY = 0.018;

/** Product against backdrop by colour alone. */
export interface ColourHypothesis {
  model: BackgroundModel;
  shading: Shading;
  /** Log-odds for the product by colour, one a pixel. */
  odds: Float32Array;
  /** 1 where the product is; empty when nothing stands off the border. */
  product: Uint8Array;
  /** The backdrop is a pattern, known by its colours and not as a surface. */
  patterned: boolean;
}

/**
 * Product against backdrop on a reduced picture without any help: backdrop surface from the border, colour
 * models of both sides, minimum cut, then openings and specks. After Rother et al. 2004 ("GrabCut"), with the
 * backdrop's place dependent model in place of a user's rectangle.
 * @param lab OKLab floats, 3 a pixel
 * @param weights the price of separating neighbours, see `smoothness`
 */
export function colourHypothesis(
  lab: Float32Array,
  width: number,
  height: number,
  options: SegmentOptions,
  weights: Float32Array[],
): ColourHypothesis {
  const n = width * height;
  const border = borderStrip(width, height);
  // A product that runs along a border can bend a curved surface to itself; a plane holds out longer.
  const [curved, plane] = ([6, 3] as const).map((terms) => fitBackground(lab, border, width, height, terms));
  let model = plane.sigma[0] < curved.sigma[0] * 0.7 ? plane : curved;
  const busy = model.sigma[0] > BUSY || Math.hypot(model.sigma[1], model.sigma[2]) > BUSY * 0.7;
  let pattern = busy ? fitColourModel(lab, border, 8) : null;
  let shading = pattern
    ? patternDistance(lab, pattern, border, options.shadows)
    : shadingOf(lab, width, height, model, options.shadows);
  let product: Uint8Array = Uint8Array.from(shading.residual, (r) => (r > 4 ? 1 : 0));
  let odds: Float32Array = new Float32Array(n);
  const found = (): ColourHypothesis => ({ model, shading, odds, product, patterned: pattern !== null });
  for (let round = 0; round < 2; round++) {
    const surelyProduct = new Uint8Array(n);
    const surelyBackdrop = new Uint8Array(n);
    const inner = grow(product, width, height, -1.5);
    const outer = grow(product, width, height, round === 0 ? 3 : 5);
    let backdropCount = 0;
    for (let i = 0; i < n; i++) {
      surelyProduct[i] = inner[i] && shading.residual[i] > 3 ? 1 : 0;
      surelyBackdrop[i] = outer[i] ? 0 : 1;
      backdropCount += surelyBackdrop[i];
    }
    const foreground = fitColourModel(lab, surelyProduct, 6);
    if (!foreground) {
      product = new Uint8Array(n);
      return found();
    }
    if (round === 1 && backdropCount > n * 0.04) {
      if (pattern) {
        pattern = fitColourModel(lab, surelyBackdrop, 8) ?? pattern;
        shading = patternDistance(lab, pattern, surelyBackdrop, options.shadows);
      } else {
        const wider = fitBackground(lab, surelyBackdrop, width, height, 10);
        // A surface that fits much worse than the border's own has taken in a part of the product.
        if (wider.sigma[0] < model.sigma[0] * 2.5 + 0.004) {
          model = wider;
          shading = shadingOf(lab, width, height, model, options.shadows);
        }
      }
    }
    odds = colourOdds(lab, shading.residual, model, foreground, pattern);
    product = graphCut(odds, weights, width, height, null);
    // The first cut only teaches colours; openings and specks are seen to in the last.
    if (round > 0) product = withoutSpecks(product, lab, width, height, found(), options);
  }
  return found();
}

export function borderStrip(width: number, height: number): Uint8Array {
  const strip = new Uint8Array(width * height);
  const depth = Math.max(1, Math.round(Math.min(width, height) * 0.04));
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++)
      if (x < depth || y < depth || x >= width - depth || y >= height - depth) strip[y * width + x] = 1;
  return strip;
}

/** How unlikely a colour is among a pattern's, in the open or in some shade, which costs by its depth. */
function shadedCost(pattern: ColourModel, lab: Float32Array, j: number, shadows: boolean): number {
  let best = pattern.cost(lab[j], lab[j + 1], lab[j + 2]);
  if (!shadows) return best;
  for (const shade of SHADES) {
    const cost = pattern.cost(lab[j] / shade, lab[j + 1] / shade, lab[j + 2] / shade) + (1 - shade) * 8;
    if (cost < best) best = cost;
  }
  return best;
}

/** The distance to a patterned backdrop, by how unlikely a colour is among the backdrop's colours. */
export function patternDistance(
  lab: Float32Array,
  pattern: ColourModel,
  known: Uint8Array,
  shadows: boolean,
): Shading {
  const n = known.length;
  const cost = new Float32Array(n);
  const costs: number[] = [];
  for (let i = 0; i < n; i++) {
    cost[i] = shadedCost(pattern, lab, i * 3, shadows);
    if (known[i] && i % 3 === 0) costs.push(cost[i]);
  }
  costs.sort((a, b) => a - b);
  const usual = costs[Math.floor(costs.length * 0.85)] ?? 0;
  const residual = cost.map((c) => Math.min(20, Math.sqrt(Math.max(0, 2 * (c - usual))) * 1.2));
  return { residual, deep: residual, shade: new Float32Array(n).fill(1) };
}

/** What colour and place say of each pixel: far from the backdrop nothing argues for it; near it, the product's own colours may still win. */
export function colourOdds(
  lab: Float32Array,
  residual: Float32Array,
  model: BackgroundModel,
  foreground: ColourModel,
  pattern: ColourModel | null,
): Float32Array {
  const odds = new Float32Array(residual.length);
  let patternFloor = 0;
  if (pattern) {
    // The usual cost of the backdrop's own colours, so that both sides are measured alike.
    let sum = 0;
    let count = 0;
    for (let i = 0; i < odds.length; i += 11)
      if (residual[i] === 0) {
        sum += pattern.cost(lab[i * 3], lab[i * 3 + 1], lab[i * 3 + 2]);
        count++;
      }
    patternFloor = count ? sum / count : 0;
  }
  const logNoise = Math.log(model.sigma[0] * model.sigma[1] * model.sigma[2] * 8);
  for (let i = 0; i < odds.length; i++) {
    const r = residual[i];
    if (r > SURE) {
      odds[i] = SURE_ODDS;
      continue;
    }
    const j = i * 3;
    const asBackdrop = pattern ? 0.5 * r * r + patternFloor : 0.5 * r * r + logNoise;
    const asProduct = foreground.cost(lab[j], lab[j + 1], lab[j + 2]);
    const v = (asBackdrop - asProduct) * 0.35 + (pattern ? 0 : (r - 3.2) * 0.9);
    odds[i] = v > SURE_ODDS ? SURE_ODDS : v < -SURE_ODDS ? -SURE_ODDS : v;
  }
  return odds;
}

/**
 * Drops specks, and fills enclosed openings that are highlights and not holes: a hole shows the backdrop's
 * hue at some shade of it, evenly; a highlight on a curved glaze does not.
 */
function withoutSpecks(
  product: Uint8Array,
  lab: Float32Array,
  width: number,
  height: number,
  { model, shading }: ColourHypothesis,
  options: SegmentOptions,
): Uint8Array {
  const n = product.length;
  const out = Uint8Array.from(product);
  const { labels, list } = components(product, width, height);
  const largest = list.reduce((m, c) => Math.max(m, c.area), 0);
  for (let i = 0; i < n; i++) if (labels[i] && list[labels[i] - 1].area < largest * 0.004) out[i] = 0;

  const clear = out.map((v) => (v ? 0 : 1));
  const outside = components(clear, width, height);
  // Edges mix both colours: an opening is judged by its inside where it has one.
  const core = grow(clear, width, height, -1);
  const surface = model.surface();
  const stats = outside.list.map(() => ({ n: 0, deep: 0, l: 0, l2: 0, chroma: 0 }));
  const hasCore = new Uint8Array(outside.list.length + 1);
  for (let i = 0; i < n; i++) if (core[i]) hasCore[outside.labels[i]] = 1;
  for (let i = 0; i < n; i++) {
    const l = outside.labels[i];
    if (!l || outside.list[l - 1].touchesBorder || (hasCore[l] && !core[i])) continue;
    const s = stats[l - 1];
    const ratio = lab[i * 3] / surface[i * 3];
    s.n++;
    s.deep += shading.deep[i];
    s.l += ratio;
    s.l2 += ratio * ratio;
    s.chroma += Math.hypot(surface[i * 3 + 1], surface[i * 3 + 2]);
  }
  const minimum = Math.max(3, n * 0.00001);
  const real = stats.map((s, k) => {
    if (!options.holes || outside.list[k].area < minimum || !s.n) return false;
    const mean = s.l / s.n;
    const spread = Math.sqrt(Math.max(0, s.l2 / s.n - mean * mean));
    // Coloured paper is recognised by its hue; grey and white only by lying close and even.
    const coloured = s.chroma / s.n > 0.05;
    return s.deep / s.n < (coloured ? 9 : 4) && spread < (coloured ? 0.2 : 0.1) && mean > 0.4 && mean < 1.06;
  });
  for (let i = 0; i < n; i++) {
    const l = outside.labels[i];
    if (l && !outside.list[l - 1].touchesBorder && !real[l - 1]) out[i] = 1;
  }
  return out;
}
