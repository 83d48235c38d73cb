import { patchFit } from '../../shot/edit';
import { percent, type Check } from './check';

/** A pixel counts as background where products cover less than this. */
const CLEAR = 0.004;

export const background: Check = {
  id: 'background',
  title: 'White background',
  measure({ slot, picture, products }) {
    if (slot.background.kind !== 'white') return null;
    const lowest = 255 - slot.background.tolerance;
    const { width, height, data } = picture;
    let total = 0;
    let white = 0;
    let left = width;
    let right = -1;
    let top = height;
    let bottom = -1;
    for (let y = 0; y < height; y++) {
      for (let x = 0; x < width; x++) {
        const i = y * width + x;
        if (nearProduct(products.data, width, height, x, y)) continue;
        total++;
        const j = i * 4;
        if (data[j] >= lowest && data[j + 1] >= lowest && data[j + 2] >= lowest && data[j + 3] === 255) {
          white++;
          continue;
        }
        if (x < left) left = x;
        if (x > right) right = x;
        if (y < top) top = y;
        if (y > bottom) bottom = y;
      }
    }
    const share = total ? white / total : 1;
    const enough = share >= slot.background.minShare;
    return {
      verdict: enough ? 'pass' : 'stop',
      measured: percent(share, share > 0.99 && share < 1 ? 2 : 1),
      limit: `at least ${percent(slot.background.minShare, 1)}`,
      sentence: enough
        ? 'Around the product the picture is pure white.'
        : `Only ${percent(share, 1)} of the background is pure white (${lowest} or more in each channel). Use a white backdrop and no shadow in this slot.`,
      where:
        enough || right < 0
          ? undefined
          : {
              x: left / width,
              y: top / height,
              width: (right - left + 1) / width,
              height: (bottom - top + 1) / height,
            },
      fix: enough ? undefined : { title: 'Whiten this slot' },
    };
  },
  fix(shot, _resolved, slotKey, slot) {
    return shot.elements.reduce((s, element) => {
      if (element.kind === 'backdrop')
        return patchFit(s, slotKey, slot, element.id, { fill: { type: 'colour', colour: '#ffffff' } });
      if (element.kind === 'product')
        return patchFit(s, slotKey, slot, element.id, {
          shadow: { ...element.shadow, strength: 0, contact: 0 },
        });
      return s;
    }, shot);
  },
};

/** The product's own soft edge, two pixels wide when painted, is not background. */
function nearProduct(alpha: Float32Array, width: number, height: number, x: number, y: number): boolean {
  for (let dy = -2; dy <= 2; dy += 2) {
    for (let dx = -2; dx <= 2; dx += 2) {
      const xx = x + dx;
      const yy = y + dy;
      if (xx >= 0 && yy >= 0 && xx < width && yy < height && alpha[yy * width + xx] > CLEAR) return true;
    }
  }
  return false;
}
