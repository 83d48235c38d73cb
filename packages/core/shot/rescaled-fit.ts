import type { Shot } from './document';

/** A slot's differences for another size of its frame: places keep their share of it, sizes go with the smaller ratio. */
export function rescaledFit(
  fit: Shot['fits'][string],
  frame: { width: number; height: number },
): Shot['fits'][string]['elements'] {
  const kx = frame.width / fit.frame.width;
  const ky = frame.height / fit.frame.height;
  if (kx === 1 && ky === 1) return fit.elements;
  const k = Math.min(kx, ky);
  return Object.fromEntries(
    Object.entries(fit.elements).map(([id, patch]) => {
      if (!patch.box) return [id, patch];
      const { x, y, width, height, rotation } = patch.box;
      const box = {
        width: width * k,
        height: height * k,
        x: (x + width / 2) * kx - (width * k) / 2,
        y: (y + height / 2) * ky - (height * k) / 2,
        rotation,
      };
      return [id, { ...patch, box }];
    }),
  );
}
