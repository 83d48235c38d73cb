/**
 * The backdrop of a product photo as a smooth surface in OKLab: a polynomial in x and y for each channel,
 * fitted by iteratively reweighted least squares (Tukey's biweight), so that a lighting gradient is followed
 * and a product that touches the border is ignored.
 */
export interface BackgroundModel {
  /** Colour of the empty backdrop at a pixel of the picture it was fitted on. */
  at(x: number, y: number, out: Float64Array): void;
  /** The same for every pixel, 3 floats a pixel; computed once. */
  surface(): Float32Array;
  /** Noise of each channel (robust standard deviation). */
  sigma: [number, number, number];
}

const TERMS = 10;

function basis(u: number, v: number, out: Float64Array): void {
  out[0] = 1;
  out[1] = u;
  out[2] = v;
  out[3] = u * u;
  out[4] = u * v;
  out[5] = v * v;
  out[6] = u * u * u;
  out[7] = u * u * v;
  out[8] = u * v * v;
  out[9] = v * v * v;
}

/**
 * Fits the model to the pixels for which `use` is set. `lab` is 3 floats a pixel. `terms` is 3 for a plane,
 * 6 for a quadratic, 10 for a cubic surface.
 */
export function fitBackground(
  lab: Float32Array,
  use: Uint8Array,
  width: number,
  height: number,
  terms: 3 | 6 | 10,
): BackgroundModel {
  const picked: number[] = [];
  let total = 0;
  for (let i = 0; i < use.length; i++) total += use[i];
  const stride = Math.max(1, Math.floor(total / 2000));
  for (let i = 0, seen = 0; i < use.length; i++) if (use[i] && seen++ % stride === 0) picked.push(i);

  const rows = new Float64Array(picked.length * terms);
  const row = new Float64Array(TERMS);
  picked.forEach((p, s) => {
    basis(((p % width) / width) * 2 - 1, (Math.floor(p / width) / height) * 2 - 1, row);
    for (let t = 0; t < terms; t++) rows[s * terms + t] = row[t];
  });

  const weights = new Float64Array(picked.length).fill(1);
  let coefficients: Float64Array[] = [
    new Float64Array(terms),
    new Float64Array(terms),
    new Float64Array(terms),
  ];
  const residual = [0, 1, 2].map(() => new Float64Array(picked.length));
  let sigma: [number, number, number] = [0.01, 0.01, 0.01];
  for (let round = 0; round < 6; round++) {
    coefficients = solveWeighted(rows, weights, picked, lab, terms);
    for (let c = 0; c < 3; c++) {
      for (let s = 0; s < picked.length; s++) {
        let fit = 0;
        for (let t = 0; t < terms; t++) fit += rows[s * terms + t] * coefficients[c][t];
        residual[c][s] = lab[picked[s] * 3 + c] - fit;
      }
    }
    sigma = residual.map((r) => Math.max(0.0018, 1.4826 * medianAbsolute(r))) as [number, number, number];
    for (let s = 0; s < picked.length; s++) {
      let d2 = 0;
      for (let c = 0; c < 3; c++) d2 += (residual[c][s] / sigma[c]) ** 2;
      const u = d2 / (4.685 * 4.685 * 3);
      weights[s] = u < 1 ? (1 - u) ** 2 : 0;
    }
  }
  const scratch = new Float64Array(TERMS);
  let surface: Float32Array | null = null;
  return {
    sigma,
    surface() {
      surface ??= evaluate(coefficients, width, height);
      return surface;
    },
    at(x, y, out) {
      basis((x / width) * 2 - 1, (y / height) * 2 - 1, scratch);
      for (let c = 0; c < 3; c++) {
        let v = 0;
        for (let t = 0; t < terms; t++) v += scratch[t] * coefficients[c][t];
        out[c] = v;
      }
    },
  };
}

/** The surface row by row: along a row each channel is a cubic in u alone. */
function evaluate(coefficients: Float64Array[], width: number, height: number): Float32Array {
  const out = new Float32Array(width * height * 3);
  for (let y = 0; y < height; y++) {
    const v = (y / height) * 2 - 1;
    for (let c = 0; c < 3; c++) {
      const k = coefficients[c];
      const term = (t: number) => (t < k.length ? k[t] : 0);
      const c0 = term(0) + term(2) * v + term(5) * v * v + term(9) * v * v * v;
      const c1 = term(1) + term(4) * v + term(8) * v * v;
      const c2 = term(3) + term(7) * v;
      const c3 = term(6);
      for (let x = 0, j = y * width * 3 + c; x < width; x++, j += 3) {
        const u = (x / width) * 2 - 1;
        out[j] = c0 + u * (c1 + u * (c2 + u * c3));
      }
    }
  }
  return out;
}

function medianAbsolute(values: Float64Array): number {
  const sorted = values.map((v) => Math.abs(v)).sort();
  return sorted[sorted.length >> 1];
}

/** Normal equations of all three channels with a small ridge, solved by Gauss-Jordan elimination with pivoting. */
function solveWeighted(
  rows: Float64Array,
  weights: Float64Array,
  picked: number[],
  lab: Float32Array,
  terms: number,
): Float64Array[] {
  const m = Array.from({ length: terms }, () => new Float64Array(terms + 3));
  for (let s = 0; s < picked.length; s++) {
    const w = weights[s];
    if (w === 0) continue;
    const j = picked[s] * 3;
    const o = s * terms;
    for (let a = 0; a < terms; a++) {
      const row = m[a];
      const wa = w * rows[o + a];
      for (let b = a; b < terms; b++) row[b] += wa * rows[o + b];
      for (let c = 0; c < 3; c++) row[terms + c] += wa * lab[j + c];
    }
  }
  for (let a = 0; a < terms; a++) {
    m[a][a] += 1e-6;
    for (let b = 0; b < a; b++) m[a][b] = m[b][a];
  }
  for (let a = 0; a < terms; a++) {
    let pivot = a;
    for (let b = a + 1; b < terms; b++) if (Math.abs(m[b][a]) > Math.abs(m[pivot][a])) pivot = b;
    [m[a], m[pivot]] = [m[pivot], m[a]];
    for (let b = 0; b < terms; b++) {
      if (b === a) continue;
      const f = m[b][a] / m[a][a];
      for (let c = a; c < terms + 3; c++) m[b][c] -= f * m[a][c];
    }
  }
  return [0, 1, 2].map((c) => Float64Array.from(m, (r, a) => r[terms + c] / r[a]));
}
