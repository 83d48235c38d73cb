import type { Plane } from '../raster/pixels';
import type { ProductBase } from './base';

/** One level of a body: an interval across, swept to a shape as deep as the body is there. Millimetres. */
export interface Layer {
  z: number;
  left: number;
  right: number;
  halfDepth: number;
}

/**
 * A product as a stack of thin levels, made from its silhouette: x to the right of the base's middle, y away from
 * the camera, z up. `round` levels are ellipses, others rectangles.
 */
export interface Body {
  layers: Layer[];
  round: boolean;
  height: number;
  /** The base that touches the plane. */
  foot: { halfWidth: number; halfDepth: number };
}

/** Levels into which a body is cut. */
const LEVELS = 56;

/**
 * The body behind a silhouette: each row above the base's middle is a level at its real height (the camera looked
 * down by the base's pitch), as deep for its width as the whole is. What lies below the base's middle is the
 * base's front, what lies above the real height is the top's far rim; neither is height.
 * @param alpha the cutout's matte 0..1, trimmed, any size
 * @param pxPerMm pixels of `alpha` a millimetre
 * @param depthMm the product's real depth; null takes the base's
 */
export function bodyOf(
  alpha: Plane,
  base: ProductBase,
  pxPerMm: number,
  depthMm: number | null,
  pitchDeg = base.pitchDeg,
): Body {
  const { width: w, height: h, data } = alpha;
  const pitch = (pitchDeg * Math.PI) / 180;
  const [sin, cos] = [Math.sin(pitch), Math.max(0.2, Math.cos(pitch))];
  const middle = base.x * w;
  const foot = base.y * w;
  const height = Math.max(0.5, (foot - base.topDepth * w) / (pxPerMm * cos));
  const rows: { z: number; runs: [number, number][] }[] = [];
  const step = height / LEVELS;
  let widest = 0;
  for (let level = 0; level <= LEVELS; level++) {
    const z = level * step;
    const y = Math.min(h - 1, Math.max(0, Math.round(foot - z * pxPerMm * cos)));
    const runs: [number, number][] = [];
    for (let x = 0, start = -1; x <= w; x++) {
      const inside = x < w && data[y * w + x] > 0.5;
      if (inside && start < 0) start = x;
      if (!inside && start >= 0) {
        if (x - start > 0.6) runs.push([(start - middle) / pxPerMm, (x - middle) / pxPerMm]);
        start = -1;
      }
    }
    for (const [a, b] of runs) widest = Math.max(widest, b - a);
    rows.push({ z, runs });
  }
  const footWidth = (base.halfWidth * w) / pxPerMm;
  const seenDepth = sin > 0.06 ? (base.halfDepth * w) / (pxPerMm * sin) : 0;
  const deep = depthMm ?? (seenDepth > footWidth * 0.15 ? 2 * Math.min(seenDepth, footWidth * 1.6) : widest);
  const share = widest > 0 ? Math.min(1.6, deep / widest) : 1;
  // A straight lower edge under a camera that looks down is the front of a box.
  const round = !(base.confidence > 0.5 && sin < 0.06 && base.halfDepth < 0.012);
  return {
    round,
    height,
    foot: {
      halfWidth: footWidth,
      halfDepth: seenDepth > footWidth * 0.15 ? Math.min(seenDepth, footWidth * 1.6) : footWidth * share,
    },
    layers: rows.flatMap(({ z, runs }) =>
      runs.map(([left, right]) => ({ z, left, right, halfDepth: ((right - left) / 2) * share })),
    ),
  };
}

/** The same body in other units: every length times `k`. */
export function scaledBody(body: Body, k: number): Body {
  if (Math.abs(k - 1) < 1e-6) return body;
  return {
    round: body.round,
    height: body.height * k,
    foot: { halfWidth: body.foot.halfWidth * k, halfDepth: body.foot.halfDepth * k },
    layers: body.layers.map((l) => ({
      z: l.z * k,
      left: l.left * k,
      right: l.right * k,
      halfDepth: l.halfDepth * k,
    })),
  };
}

/** A box, for what is known by its measures alone. */
export function boxBody(width: number, height: number, depth: number): Body {
  return {
    round: false,
    height,
    foot: { halfWidth: width / 2, halfDepth: depth / 2 },
    layers: Array.from({ length: LEVELS + 1 }, (_, i) => ({
      z: (i * height) / LEVELS,
      left: -width / 2,
      right: width / 2,
      halfDepth: depth / 2,
    })),
  };
}
