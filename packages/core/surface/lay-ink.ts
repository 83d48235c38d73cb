import { fromLinear, LINEAR } from '../raster/colour';
import type { Rgba } from '../raster/pixels';
import type { LightSplit } from './light-split';
import type { Lay } from './material';

/** One design over a part of a picture, with how its ink behaves. */
export interface InkLayer {
  /** Premultiplied, of the part's size. */
  design: Rgba;
  lay: Lay;
  opacity: number;
  grain: number;
  gloss: number;
  /** 0..1 a pixel: where it may lie; null for everywhere. */
  within: Float32Array | null;
}

const BYTE = Float32Array.from({ length: 4097 }, (_, i) => fromLinear(i / 4096));

/**
 * Lays designs on a part of a picture, one over the other, and lights them as the blank is lit. Ink multiplies the
 * stock's own colour, or covers it with a white layer under it; light, folds and as much of the grain as wanted come
 * from the blank; highlights lie over the ink. Changes `picture` inside the split's rectangle.
 */
export function layInk(picture: Rgba, split: LightSplit, layers: readonly InkLayer[]): void {
  const { width, height, base, lit, smooth, highlight } = split;
  const [whiteR, whiteG, whiteB] = split.white;
  const bends = Math.max(...split.white) > 1;
  const own = 0.2126 * base[0] + 0.7152 * base[1] + 0.0722 * base[2];
  const r0 = base[0];
  const g0 = base[1];
  const b0 = base[2];
  const out = picture.data;
  const count = layers.length;
  const inks = layers.map((l) => l.design.data);
  const multiplies = layers.map((l) => l.lay === 'multiply');
  for (let y = 0, i = 0; y < height; y++) {
    let j = ((split.y + y) * picture.width + split.x) * 4;
    for (let x = 0; x < width; x++, i++, j += 4) {
      const o = i * 4;
      // The stack of inks as reflectance: what the stock becomes there.
      let r = r0;
      let g = g0;
      let b = b0;
      let grain = 1;
      let gloss = 1;
      // What share of the stock covering inks leave to be seen.
      let bare = 1;
      let printed = false;
      for (let n = 0; n < count; n++) {
        const ink = inks[n];
        const alpha = ink[o + 3];
        if (alpha === 0) continue;
        const layer = layers[n];
        const a = (alpha / 255) * layer.opacity * (layer.within ? layer.within[i] : 1);
        if (a < 1 / 512) continue;
        printed = true;
        const k = 255 / alpha;
        const ir = LINEAR[Math.min(255, (ink[o] * k + 0.5) | 0)];
        const ig = LINEAR[Math.min(255, (ink[o + 1] * k + 0.5) | 0)];
        const ib = LINEAR[Math.min(255, (ink[o + 2] * k + 0.5) | 0)];
        if (multiplies[n]) {
          r *= 1 - a + a * ir;
          g *= 1 - a + a * ig;
          b *= 1 - a + a * ib;
        } else {
          r += a * (ir * whiteR - r);
          g += a * (ig * whiteG - g);
          b += a * (ib * whiteB - b);
          bare *= 1 - a;
        }
        grain += a * (layer.grain - grain);
        gloss += a * (layer.gloss - gloss);
      }
      if (!printed) continue;
      // How the light falls on the base here, with as much grain as shows through.
      const fall = lit[i] / own;
      const light = grain === 1 ? fall : (smooth[i] / own) * weakened(lit[i] / smooth[i], grain);
      const shown = highlight[i];
      const shine = shown * gloss;
      // The stock's own colour changes a little from place to place; where it is not covered, that stays.
      // Bare stock is as it was photographed; the more is covered, the more its light bends.
      const bend = bends ? 1 - bare : 0;
      out[j] = BYTE[level(bent(lit1(LINEAR[out[j]], shown, r0 * fall, bare, r * light) + shine, bend))];
      out[j + 1] =
        BYTE[level(bent(lit1(LINEAR[out[j + 1]], shown, g0 * fall, bare, g * light) + shine, bend))];
      out[j + 2] =
        BYTE[level(bent(lit1(LINEAR[out[j + 2]], shown, b0 * fall, bare, b * light) + shine, bend))];
    }
  }
}

/** Ink in the blank's light, tinted as much as the blank is off its base colour there and as ink leaves it bare. */
function lit1(now: number, highlight: number, blank: number, bare: number, ink: number): number {
  if (blank <= 1e-5) return ink;
  const change = now > highlight ? (now - highlight) / blank : 0;
  return ink * (1 + (change - 1) * bare);
}

/** A ratio to a power of 0..1; near 1, as grain is, by its tangent. */
function weakened(ratio: number, power: number): number {
  const off = ratio - 1;
  return off > -0.12 && off < 0.12 ? 1 + power * off : Math.pow(ratio, power);
}

/** Light bends under white, as film and cameras make it, where paint would be brighter than white; by a share of 0..1. */
const bent = (value: number, share: number) =>
  share > 0 && value > 0.8
    ? value + share * (0.8 + 0.2 * (1 - Math.exp((0.8 - value) / 0.2)) - value)
    : value;

const level = (value: number) => (value <= 0 ? 0 : value >= 1 ? 4096 : (value * 4096 + 0.5) | 0);
