import { fromOklab, oklabOf, parseHex } from './colour';

/** A colour by lightness 0..1, chroma 0..about 0.37 and hue in degrees 0..360 (OKLCH, CSS Color Level 4). */
export interface Oklch {
  l: number;
  c: number;
  h: number;
}

/** Below this chroma a colour has no hue worth telling. */
const GREY = 0.0003;
/** A distance in OKLab that rounding to bytes does not reach. */
const NOTICEABLE = 0.008;

/** @param hex `#rrggbb` */
export function oklchOf(hex: string): Oklch {
  const out = new Float64Array(3);
  oklabOf(...parseHex(hex), out);
  const c = Math.hypot(out[1], out[2]);
  const h = c < GREY ? 0 : ((Math.atan2(out[2], out[1]) * 180) / Math.PI + 360) % 360;
  return { l: out[0], c, h };
}

/**
 * The sRGB colour that is nearest in lightness and hue: chroma is lowered until it can be shown (as gamut mapping by chroma
 * reduction in CSS Color Level 4, without its local clipping).
 * @returns `#rrggbb`
 */
export function hexOfOklch({ l, c, h }: Oklch): string {
  const lightness = Math.min(1, Math.max(0, l));
  const angle = (h * Math.PI) / 180;
  const back = new Float64Array(3);
  /** The bytes of a chroma, and whether they are that colour and not a clipped one. */
  const at = (chroma: number) => {
    const [a, b] = [chroma * Math.cos(angle), chroma * Math.sin(angle)];
    const rgb = new Float64Array(3);
    fromOklab(lightness, a, b, rgb);
    const bytes = [...rgb].map(Math.round);
    oklabOf(bytes[0], bytes[1], bytes[2], back);
    return { bytes, shown: Math.hypot(back[0] - lightness, back[1] - a, back[2] - b) < NOTICEABLE };
  };
  let [low, high] = [0, Math.max(0, c)];
  if (at(high).shown) low = high;
  for (let i = 0; i < 24 && low < high; i++) {
    const middle = (low + high) / 2;
    if (at(middle).shown) low = middle;
    else high = middle;
  }
  return `#${at(low)
    .bytes.map((v) => v.toString(16).padStart(2, '0'))
    .join('')}`;
}
