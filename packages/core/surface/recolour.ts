import { fromLinear, parseHex, toLinear } from '../raster/colour';
import type { Rgba } from '../raster/pixels';
import { splitLight } from './light-split';

/**
 * The item in another colour within its outline: its own base colour is divided out and the new one multiplied in,
 * light by light, so that shading and grain stay; highlights keep the light's colour. Changes the picture.
 * @param within 0..1 per pixel of the picture: the item
 */
export function recolourItem(picture: Rgba, within: Float32Array, colour: string, glossy: boolean): void {
  const { width, height, data } = picture;
  const rect = insideRect(within, width, height);
  if (!rect) return;
  const inside = new Float32Array(rect.width * rect.height);
  for (let y = 0; y < rect.height; y++)
    inside.set(
      within.subarray((rect.y + y) * width + rect.x, (rect.y + y) * width + rect.x + rect.width),
      y * rect.width,
    );
  const split = splitLight(picture, rect, inside, { stock: 'light', glossy });
  const to = parseHex(colour).map(toLinear);
  // White in the new colour is what the brightest stock would be in this light.
  const gain = to.map((v, c) => (v * Math.min(0.98, split.white[c])) / split.base[c]);
  for (let y = 0, i = 0; y < rect.height; y++) {
    let j = ((rect.y + y) * width + rect.x) * 4;
    for (let x = 0; x < rect.width; x++, i++, j += 4) {
      const a = inside[i];
      if (a <= 0) continue;
      const shine = split.highlight[i];
      for (let c = 0; c < 3; c++) {
        const old = toLinear(data[j + c]);
        const now = Math.max(0, old - shine) * gain[c] + shine;
        data[j + c] = fromLinear(old + (now - old) * a);
      }
    }
  }
}

function insideRect(within: Float32Array, width: number, height: number) {
  let [x0, y0, x1, y1] = [width, height, -1, -1];
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++)
      if (within[i] > 0.02) {
        if (x < x0) x0 = x;
        if (x > x1) x1 = x;
        if (y < y0) y0 = y;
        if (y > y1) y1 = y;
      }
  return x1 < 0 ? null : { x: x0, y: y0, width: x1 - x0 + 1, height: y1 - y0 + 1 };
}
