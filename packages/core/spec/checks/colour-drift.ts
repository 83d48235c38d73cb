import { differenceCiede2000, converter } from 'culori';
import { elementKind, type ShotElement } from '../../elements/index';
import { patchFit } from '../../shot/edit';
import { round, type Check } from './check';

/** Products may drift by so much on average; more is seen side by side (CIEDE2000). */
const LOOK = 6;
const STOP = 12;
/** Less or more light than this, against the cutout's, hides or bleaches a colour. */
const DIM = 0.15;
const GLARING = 2.5;

const linear = converter('lrgb');
const difference = differenceCiede2000();

interface Drift {
  /** Of the colour alone: both in equally much light. */
  drift: number;
  /** The light on the products against that of their cutouts; 1 is as much. */
  light: number;
  own: string;
  shown: string;
}

/**
 * How far the products' mean colour in the picture is from that of their cutouts, in CIEDE2000: buyers send back what
 * has another colour than in the picture. A scene's light may fall on a product, so the colour alone is judged, seen in
 * as much light as the cutout; how much light falls is told beside it. Means are taken over pixels that products cover
 * wholly.
 */
export const colourDrift: Check<Drift> = {
  id: 'colour-drift',
  title: 'Colour of the product',
  measure({ picture, products, neutral }) {
    if (!neutral) return null;
    const own = [0, 0, 0];
    const shown = [0, 0, 0];
    let n = 0;
    const kx = picture.width / products.width;
    const ky = picture.height / products.height;
    const step = Math.max(1, Math.floor(Math.min(products.width, products.height) / 250));
    for (let y = 0; y < products.height; y += step)
      for (let x = 0, i = y * products.width; x < products.width; x += step, i += step) {
        if (products.data[i] < 0.995) continue;
        const j = (Math.floor((y + 0.5) * ky) * picture.width + Math.floor((x + 0.5) * kx)) * 4;
        for (let c = 0; c < 3; c++) {
          own[c] += neutral.data[i * 4 + c];
          shown[c] += picture.data[j + c];
        }
        n++;
      }
    if (n < 50) return null;
    const colour = ([r, g, b]: number[]) => ({
      mode: 'rgb' as const,
      r: r / n / 255,
      g: g / n / 255,
      b: b / n / 255,
    });
    const hex = (sum: number[]) =>
      `#${sum
        .map((v) =>
          Math.round(v / n)
            .toString(16)
            .padStart(2, '0'),
        )
        .join('')}`;
    const [before, after] = [own, shown].map((sum) => linear(colour(sum)));
    const light = luminance(after) / Math.max(1e-4, luminance(before));
    const k = 1 / Math.max(1e-4, light);
    const level = { mode: 'lrgb' as const, r: after.r * k, g: after.g * k, b: after.b * k };
    return {
      drift: round(difference(before, level), 2),
      light: round(light, 2),
      own: hex(own),
      shown: hex(shown),
    };
  },
  judge({ drift, light, own, shown }) {
    const unlit = light < DIM || light > GLARING;
    const verdict = drift > STOP ? 'stop' : drift > LOOK || unlit ? 'look' : 'pass';
    const share = `${Math.round(light * 100)} % of its cutout's light`;
    return {
      verdict,
      measured: `delta E ${drift.toFixed(1)}, light ${Math.round(light * 100)} %`,
      limit: `at most ${LOOK}`,
      sentence:
        verdict === 'pass'
          ? `The product keeps its colour, in ${share}.`
          : drift <= LOOK
            ? `The product stands in ${share}; its colour is hard to see. Lay less of the scene's light on it, or light the scene otherwise.`
            : `The product's mean colour is ${shown} here and ${own} in its cutout (delta E ${drift.toFixed(1)} in equal light). Match its tone less, lay less of the scene's light on it, or tell buyers so.`,
      fix: verdict === 'pass' ? undefined : { title: 'Keep its own colour here' },
    };
  },
  fix(shot, resolved, slotKey, slot) {
    return resolved.elements.reduce((s, e) => {
      const own = elementKind(e.kind).ownColours?.(e);
      return own ? patchFit(s, slotKey, slot, e.id, own as Partial<ShotElement>) : s;
    }, shot);
  },
};

const luminance = ({ r, g, b }: { r: number; g: number; b: number }) => 0.2126 * r + 0.7152 * g + 0.0722 * b;
