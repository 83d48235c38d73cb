import { decoration } from '../../vector/decorations';
import { iconPath } from '../../vector/icons';
import {
  ellipse,
  fillPath,
  placedPath,
  polygon,
  polyline,
  roundedRectangle,
  shrunk,
  strokePath,
  type PathCommand,
} from '../../vector/outline';
import { lensPath } from '../inset/paint';
import type { ElementPainter } from '../painter';
import { ShapeElement } from './model';

export const shapePainter: ElementPainter<ShapeElement> = {
  inVectors: () => true,
  paint(e, canvas) {
    const { box, colour, line } = e;
    const dash = dashes(e);
    switch (e.form) {
      case 'line':
      case 'arrow':
        for (const part of linePaths(e))
          if (part.filled) fillPath(canvas, part.path, colour);
          else strokePath(canvas, part.path, { width: line, colour, dash });
        return;
      case 'frame':
        strokePath(canvas, roundedRectangle(shrunk(box, line / 2), e.radius), { width: line, colour, dash });
        if (e.double)
          strokePath(canvas, roundedRectangle(shrunk(box, line * 2.6), Math.max(0, e.radius - line * 2)), {
            width: line * 0.4,
            colour,
          });
        return;
      case 'panel':
        fillPath(canvas, panelPath(e), colour);
        return;
      case 'icon': {
        const k = Math.min(box.width, box.height) / 24;
        const x = box.x + (box.width - 24 * k) / 2;
        const y = box.y + (box.height - 24 * k) / 2;
        strokePath(canvas, placedPath(iconPath(e.icon), k, k, x, y), { width: line, colour });
        return;
      }
      case 'decoration': {
        const { first, second } = decoration(e.decoration, box.width, box.height, e.count, e.seed);
        fillPath(canvas, placedPath(first, 1, 1, box.x, box.y), colour);
        fillPath(canvas, placedPath(second, 1, 1, box.x, box.y), e.second);
      }
    }
  },
};

function panelPath({ panel, box, radius }: ShapeElement): PathCommand[] {
  const { x, y, width, height } = box;
  if (panel === 'ellipse') return ellipse(x + width / 2, y + height / 2, width / 2, height / 2);
  if (panel === 'arch' || panel === 'hexagon') return lensPath(panel, box, radius);
  if (panel === 'slant')
    return polygon([
      { x, y },
      { x: x + width, y },
      { x: x + width - Math.min(width, height) * 0.22, y: y + height },
      { x, y: y + height },
    ]);
  return roundedRectangle(box, radius);
}

function linePaths({ form, heads, line, box }: ShapeElement): { path: PathCommand[]; filled: boolean }[] {
  const y = box.y + box.height / 2;
  const [left, right] = [box.x, box.x + box.width];
  if (form === 'line')
    return [
      {
        path: polyline([
          { x: left, y },
          { x: right, y },
        ]),
        filled: false,
      },
    ];
  const size = Math.min(line * 4.2, box.width / 2);
  const head = (x: number, way: number) => ({
    path: polygon([
      { x, y },
      { x: x - way * size, y: y - size * 0.52 },
      { x: x - way * size * 0.78, y },
      { x: x - way * size, y: y + size * 0.52 },
    ]),
    filled: true,
  });
  const both = heads === 'both';
  const shaft = polyline([
    { x: left + (both ? size * 0.8 : 0), y },
    { x: right - size * 0.8, y },
  ]);
  return [{ path: shaft, filled: false }, head(right, 1), ...(both ? [head(left, -1)] : [])];
}

function dashes({ dash, line }: ShapeElement): number[] {
  return dash === 'dashed' ? [line * 3.2, line * 2.4] : dash === 'dotted' ? [line * 0.01, line * 2.2] : [];
}
