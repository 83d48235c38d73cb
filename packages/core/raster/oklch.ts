import { fromOklab, linearFromOklab, oklabOf, parseHex } from './colour';

/** A colour by lightness 0..1, chroma 0..about 0.37 and hue in degrees 0..360 (OKLCH, CSS Color Level 4). */
export interface Oklch {
  l: number;
  c: number;
  h: number;
}

/** Below this chroma a colour has no hue worth telling. */
const GREY = 0.0003;
/** Linear light that is less than half of the smallest step of a byte: so far a channel may be beyond what is shown. */
const BEYOND = 1e-4;

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
  const linear = new Float64Array(3);
  const rgb = new Float64Array(3);
  const ab = (chroma: number) => [chroma * Math.cos(angle), chroma * Math.sin(angle)] as const;
  /** Whether sRGB can show the colour at a chroma. */
  const shown = (chroma: number) => {
    linearFromOklab(lightness, ...ab(chroma), linear);
    return linear.every((v) => v >= -BEYOND && v <= 1 + BEYOND);
  };
  let [low, high] = [0, Math.max(0, c)];
  if (shown(high)) low = high;
  for (let i = 0; i < 24 && low < high; i++) {
    const middle = (low + high) / 2;
    if (shown(middle)) low = middle;
    else high = middle;
  }
  fromOklab(lightness, ...ab(low), rgb);
  return `#${[...rgb].map((v) => Math.round(v).toString(16).padStart(2, '0')).join('')}`;
}
