import { oklabOf, fromOklab } from '../raster/colour';
import { colourTable, throughTable } from '../raster/colour-table';
import type { Rgba } from '../raster/pixels';

/** A change of a background's colours alone: hue in degrees, saturation and lightness -1..1. */
export interface GroundAdjust {
  hue: number;
  saturation: number;
  lightness: number;
}

export const UNADJUSTED: GroundAdjust = { hue: 0, saturation: 0, lightness: 0 };

export const isAdjusted = (a: GroundAdjust) => a.hue !== 0 || a.saturation !== 0 || a.lightness !== 0;

const lab = new Float64Array(3);
const back = new Float64Array(3);

/** One colour changed, in OKLab: hue turned, chroma and lightness scaled, so that shades stay in order. */
export function adjustColour(
  rgb: readonly [number, number, number],
  adjust: GroundAdjust,
): [number, number, number] {
  oklabOf(rgb[0], rgb[1], rgb[2], lab);
  const turn = (adjust.hue * Math.PI) / 180;
  const chroma = 1 + adjust.saturation;
  const L =
    adjust.lightness >= 0 ? lab[0] + (1 - lab[0]) * adjust.lightness : lab[0] * (1 + adjust.lightness);
  const keep = lab[0] > 0.01 ? Math.min(1.2, L / lab[0]) : 1;
  const a = (lab[1] * Math.cos(turn) - lab[2] * Math.sin(turn)) * chroma * keep;
  const b = (lab[1] * Math.sin(turn) + lab[2] * Math.cos(turn)) * chroma * keep;
  fromOklab(L, a, b, back);
  return [back[0], back[1], back[2]].map((v) => Math.min(255, Math.max(0, v))) as [number, number, number];
}

export function adjustHex(hex: string, adjust: GroundAdjust): string {
  if (!isAdjusted(adjust)) return hex;
  const rgb = [1, 3, 5].map((i) => parseInt(hex.slice(i, i + 2), 16)) as [number, number, number];
  return `#${adjustColour(rgb, adjust)
    .map((v) => Math.round(v).toString(16).padStart(2, '0'))
    .join('')}`;
}

/** Side of the table through which a picture's colours go. */
const SIDE = 18;

/** A picture changed, through a table. */
export function adjustPicture(picture: Rgba, adjust: GroundAdjust): Rgba {
  const table = colourTable(SIDE, (r, g, b, out) => out.set(adjustColour([r, g, b], adjust)));
  return throughTable(picture, table, SIDE);
}
