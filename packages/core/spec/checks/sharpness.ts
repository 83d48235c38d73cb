import { boundsAbove } from '../../raster/pixels';
import type { Rect } from '../../raster/pixels';
import { round, shareOf, type Check } from './check';

/** Half of the window, in pixels, by which a picture is blurred again to see how much that changes. */
const HALF = 4;
/**
 * Beyond these a product looks soft. Of the demo's products, sharp ones measure 0.16 to 0.33 at their own size and up to
 * 0.54 when they are shown small; blurred by 2.5 pixels they measure 0.63 to 0.73, by 5 pixels 0.67 to 0.83.
 */
const LOOK = 0.6;
const STOP = 0.78;

/**
 * How soft products look: their neighbouring pixels' differences are compared with those of the same picture blurred
 * once more; where blurring changes little, it was blurred before. 0 is sharp, 1 is soft. (Crete, Dolmiere, Ladret and
 * Nicolas 2007, "The blur effect: perception and estimation with a new no-reference perceptual blur metric".)
 */
export const sharpness: Check<{ blur: number; where: Rect }> = {
  id: 'sharpness',
  title: 'Sharpness',
  measure({ picture, products, width, height }) {
    const seen = boundsAbove(products, 0.5);
    if (!seen) return null;
    const k = picture.width / products.width;
    const x0 = Math.floor(seen.x * k);
    const y0 = Math.floor(seen.y * k);
    const w = Math.min(picture.width - x0, Math.ceil(seen.width * k));
    const h = Math.min(picture.height - y0, Math.ceil(seen.height * k));
    if (w < 32 || h < 32) return null;
    // Some lines are enough of a large product.
    const step = Math.max(1, Math.floor(Math.min(w, h) / 128));
    const lines = (length: number, across: number, at: (i: number, line: number) => number) => {
      let before = 0;
      let lost = 0;
      const values = new Float32Array(length);
      for (let line = 0; line < across; line += step) {
        let window = 0;
        for (let i = 0; i < length; i++) values[i] = at(i, line);
        for (let i = 0; i < 2 * HALF + 1 && i < length; i++) window += values[i];
        let last = window;
        for (let i = HALF + 1; i + HALF < length; i++) {
          window += values[i + HALF] - values[i - HALF - 1];
          const sharp = Math.abs(values[i] - values[i - 1]);
          const soft = Math.abs(window - last) / (2 * HALF + 1);
          before += sharp;
          lost += Math.max(0, sharp - soft);
          last = window;
        }
      }
      // Where nothing changes in a direction, that direction says nothing.
      return before ? (before - lost) / before : null;
    };
    const { data, width: stride } = picture;
    const luma = (x: number, y: number) => {
      const j = ((y0 + y) * stride + x0 + x) * 4;
      return 0.299 * data[j] + 0.587 * data[j + 1] + 0.114 * data[j + 2];
    };
    const across = lines(w, h, (i, line) => luma(i, line));
    const down = lines(h, w, (i, line) => luma(line, i));
    const b = { x: x0, y: y0, width: w, height: h };
    const to = width / picture.width;
    return {
      blur: round(across === null && down === null ? 1 : Math.max(across ?? 0, down ?? 0), 3),
      where: shareOf({ x: b.x * to, y: b.y * to, width: b.width * to, height: b.height * to }, width, height),
    };
  },
  judge({ blur, where }) {
    const verdict = blur > STOP ? 'stop' : blur > LOOK ? 'look' : 'pass';
    return {
      verdict,
      measured: `blur ${blur.toFixed(2)}`,
      limit: `at most ${LOOK}`,
      sentence:
        verdict === 'pass'
          ? 'The product is sharp.'
          : `The product looks soft (blur ${blur.toFixed(2)}; sharp ones stay under ${LOOK}). Use a sharper or larger photo, or show it smaller.`,
      where,
    };
  },
};
