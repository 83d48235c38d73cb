/** A mixture of Gaussians over OKLab colours, with full 3x3 covariance (Rother, Kolmogorov and Blake 2004, "GrabCut"). */
export interface ColourModel {
  /** Minus log likelihood of a colour, up to a constant shared by all models. */
  cost(l: number, a: number, b: number): number;
}

interface Gaussian {
  mean: [number, number, number];
  inverse: number[];
  /** The cost of its very middle. */
  least: number;
}

const RIDGE = 1.5e-5;
/** Numbers a Gaussian: mean, inverse covariance, the cost of its middle. */
const TERMS = 10;

/**
 * Fits `k` Gaussians to the pixels for which `use` is set, by k-means from spread-out seeds and one
 * maximum-likelihood step. `lab` is 3 floats a pixel. At most 8,000 samples are looked at, evenly spread.
 * Null when fewer than 20 pixels are set.
 */
// eslint-disable-next-line max-lines-per-function -- steps of one method on the same sums
export function fitColourModel(lab: Float32Array, use: Uint8Array, k: number): ColourModel | null {
  let total = 0;
  for (let i = 0; i < use.length; i++) total += use[i];
  if (total < 20) return null;
  const stride = Math.max(1, Math.floor(total / 8000));
  const samples: number[] = [];
  for (let i = 0, seen = 0; i < use.length; i++) if (use[i] && seen++ % stride === 0) samples.push(i);

  const centres = spreadSeeds(lab, samples, k);
  const owner = new Uint8Array(samples.length);
  for (let round = 0; round < 4; round++) {
    const sums = centres.map(() => [0, 0, 0, 0]);
    for (let s = 0; s < samples.length; s++) {
      const j = samples[s] * 3;
      let best = Infinity;
      for (let c = 0; c < centres.length; c++) {
        const m = centres[c];
        const d = (lab[j] - m[0]) ** 2 + (lab[j + 1] - m[1]) ** 2 + (lab[j + 2] - m[2]) ** 2;
        if (d < best) {
          best = d;
          owner[s] = c;
        }
      }
      const t = sums[owner[s]];
      t[0] += lab[j];
      t[1] += lab[j + 1];
      t[2] += lab[j + 2];
      t[3]++;
    }
    sums.forEach((t, c) => {
      if (t[3]) centres[c] = [t[0] / t[3], t[1] / t[3], t[2] / t[3]];
    });
  }

  const gaussians: Gaussian[] = [];
  for (let c = 0; c < centres.length; c++) {
    const cov = [RIDGE, 0, 0, RIDGE, 0, RIDGE];
    let n = 0;
    const m = centres[c];
    for (let s = 0; s < samples.length; s++) {
      if (owner[s] !== c) continue;
      const j = samples[s] * 3;
      const d0 = lab[j] - m[0];
      const d1 = lab[j + 1] - m[1];
      const d2 = lab[j + 2] - m[2];
      cov[0] += d0 * d0;
      cov[1] += d0 * d1;
      cov[2] += d0 * d2;
      cov[3] += d1 * d1;
      cov[4] += d1 * d2;
      cov[5] += d2 * d2;
      n++;
    }
    if (n < 3) continue;
    for (let i = 0; i < 6; i++) cov[i] /= n;
    cov[0] += RIDGE;
    cov[3] += RIDGE;
    cov[5] += RIDGE;
    const { inverse, determinant } = invertSymmetric(cov);
    gaussians.push({ mean: m, inverse, least: 0.5 * Math.log(determinant) - Math.log(n / samples.length) });
  }
  // One after another in one array: this is asked for every pixel, several times over.
  const flat = Float64Array.from(gaussians.flatMap((g) => [...g.mean, ...g.inverse, g.least]));
  return {
    cost(l, a, b) {
      let best = Infinity;
      for (let at = 0; at < flat.length; at += TERMS) {
        const d0 = l - flat[at];
        const d1 = a - flat[at + 1];
        const d2 = b - flat[at + 2];
        const maha =
          flat[at + 3] * d0 * d0 +
          flat[at + 6] * d1 * d1 +
          flat[at + 8] * d2 * d2 +
          2 * (flat[at + 4] * d0 * d1 + flat[at + 5] * d0 * d2 + flat[at + 7] * d1 * d2);
        const cost = 0.5 * maha + flat[at + 9];
        if (cost < best) best = cost;
      }
      return best;
    },
  };
}

/** The first sample, then always the sample farthest from those chosen: deterministic and well spread. */
function spreadSeeds(lab: Float32Array, samples: number[], k: number): [number, number, number][] {
  const at = (i: number): [number, number, number] => [lab[i * 3], lab[i * 3 + 1], lab[i * 3 + 2]];
  const seeds = [at(samples[samples.length >> 1])];
  const nearest = new Float64Array(samples.length).fill(Infinity);
  while (seeds.length < k) {
    const last = seeds[seeds.length - 1];
    let far = -1;
    let farthest = 1e-9;
    for (let s = 0; s < samples.length; s++) {
      const [l, a, b] = at(samples[s]);
      const d = (l - last[0]) ** 2 + (a - last[1]) ** 2 + (b - last[2]) ** 2;
      if (d < nearest[s]) nearest[s] = d;
      if (nearest[s] > farthest) {
        farthest = nearest[s];
        far = s;
      }
    }
    if (far < 0) break;
    seeds.push(at(samples[far]));
  }
  return seeds;
}

/** Inverse of [xx, xy, xz, yy, yz, zz] in the same order. */
function invertSymmetric(m: number[]): { inverse: number[]; determinant: number } {
  const [a, b, c, d, e, f] = m;
  const A = d * f - e * e;
  const B = c * e - b * f;
  const C = b * e - c * d;
  const determinant = Math.max(1e-18, a * A + b * B + c * C);
  return {
    inverse: [A, B, C, a * f - c * c, b * c - a * e, a * d - b * b].map((v) => v / determinant),
    determinant,
  };
}
