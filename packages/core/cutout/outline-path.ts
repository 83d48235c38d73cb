import { contours } from '../raster/contours';
import type { Plane } from '../raster/pixels';

/** A matte's outline as an SVG document with one path, filled by the even-odd rule. */
export function outlineToSvg(matte: Plane): string {
  const d = contours(matte)
    .map((ring) => `M${ring.map(([x, y]) => `${round(x)} ${round(y)}`).join('L')}Z`)
    .join('');
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${matte.width}" height="${matte.height}" viewBox="0 0 ${matte.width} ${matte.height}"><path fill-rule="evenodd" d="${d}"/></svg>\n`;
}

const round = (v: number) => Math.round(v * 100) / 100;
