/**
 * Colour: sRGB (IEC 61966-2-1), linear light and OKLab (Ottosson 2020, "A perceptual color space for
 * image processing"). 8-bit values go in, floats come out; OKLab L is 0..1, a and b about -0.4..0.4.
 */
import type { Rgba } from './pixels';

/** sRGB byte to linear light. */
export const LINEAR = new Float32Array(256);
for (let i = 0; i < 256; i++) {
  const c = i / 255;
  LINEAR[i] = c <= 0.04045 ? c / 12.92 : ((c + 0.055) / 1.055) ** 2.4;
}

/** sRGB byte 0..255 to linear light 0..1. */
export function toLinear(byte: number): number {
  return LINEAR[byte];
}

/** Linear light 0..1 to an sRGB byte (unrounded). */
export function fromLinear(value: number): number {
  if (value <= 0) return 0;
  if (value >= 1) return 255;
  return 255 * (value <= 0.0031308 ? value * 12.92 : 1.055 * value ** (1 / 2.4) - 0.055);
}

/** A picture's colours as interleaved OKLab floats, 3 a pixel; alpha is ignored. */
export function oklabPixels(image: Rgba): Float32Array {
  const n = image.width * image.height;
  const out = new Float32Array(n * 3);
  for (let i = 0, j = 0, k = 0; i < n; i++, j += 4, k += 3) {
    const lr = LINEAR[image.data[j]];
    const lg = LINEAR[image.data[j + 1]];
    const lb = LINEAR[image.data[j + 2]];
    const l = Math.cbrt(0.4122214708 * lr + 0.5363325363 * lg + 0.0514459929 * lb);
    const m = Math.cbrt(0.2119034982 * lr + 0.6806995451 * lg + 0.1073969566 * lb);
    const s = Math.cbrt(0.0883024619 * lr + 0.2817188376 * lg + 0.6299787005 * lb);
    out[k] = 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s;
    out[k + 1] = 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s;
    out[k + 2] = 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s;
  }
  return out;
}

/** One colour in bytes as OKLab, written to `out`. */
export function oklabOf(r: number, g: number, b: number, out: Float64Array): void {
  const lr = LINEAR[r];
  const lg = LINEAR[g];
  const lb = LINEAR[b];
  const l = Math.cbrt(0.4122214708 * lr + 0.5363325363 * lg + 0.0514459929 * lb);
  const m = Math.cbrt(0.2119034982 * lr + 0.6806995451 * lg + 0.1073969566 * lb);
  const s = Math.cbrt(0.0883024619 * lr + 0.2817188376 * lg + 0.6299787005 * lb);
  out[0] = 0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s;
  out[1] = 1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s;
  out[2] = 0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s;
}

/** OKLab to linear light, 0..1 where sRGB can show the colour and beyond where it cannot. */
export function linearFromOklab(L: number, A: number, B: number, out: Float64Array): void {
  const l = (L + 0.3963377774 * A + 0.2158037573 * B) ** 3;
  const m = (L - 0.1055613458 * A - 0.0638541728 * B) ** 3;
  const s = (L - 0.0894841775 * A - 1.291485548 * B) ** 3;
  out[0] = 4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s;
  out[1] = -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s;
  out[2] = -0.0041960863 * l - 0.7034186147 * m + 1.707614701 * s;
}

/** OKLab to sRGB bytes (unrounded, held inside 0..255), written to `out`. */
export function fromOklab(L: number, A: number, B: number, out: Float64Array): void {
  linearFromOklab(L, A, B, out);
  for (let i = 0; i < 3; i++) out[i] = fromLinear(out[i]);
}

/** A colour as it is written everywhere here, `#rrggbb`. */
export const HEX_COLOUR = /^#[0-9a-f]{6}$/i;

/** `#rrggbb` to bytes. Throws a sentence when the text is no such colour. */
export function parseHex(hex: string): [number, number, number] {
  const match = /^#([0-9a-f]{2})([0-9a-f]{2})([0-9a-f]{2})$/i.exec(hex);
  if (!match) throw new Error(`"${hex}" is not a colour; write it as #rrggbb, for example #12463a.`);
  return [parseInt(match[1], 16), parseInt(match[2], 16), parseInt(match[3], 16)];
}

/** WCAG 2.2 relative luminance of a colour in bytes, 0..1. */
export function relativeLuminance(r: number, g: number, b: number): number {
  return 0.2126 * LINEAR[r] + 0.7152 * LINEAR[g] + 0.0722 * LINEAR[b];
}

/** Linear light of an sRGB value that is no whole byte, 0..255 to 0..1. */
export function linearOf(value: number): number {
  return LINEAR[Math.min(255, Math.max(0, Math.round(value)))];
}

/** WCAG 2.2 contrast ratio of two relative luminances, 1..21. */
export function contrastRatio(a: number, b: number): number {
  return (Math.max(a, b) + 0.05) / (Math.min(a, b) + 0.05);
}
