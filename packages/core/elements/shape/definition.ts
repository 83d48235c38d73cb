import Joi from 'joi';
import { DECORATIONS, decoration } from '../../vector/decorations';
import { iconPath, ICONS } from '../../vector/icons';
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
import { colourSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';
import { lensPath } from '../inset/definition';

export const SHAPE_FORMS = ['line', 'arrow', 'frame', 'panel', 'icon', 'decoration'] as const;
export type ShapeForm = (typeof SHAPE_FORMS)[number];
export const PANELS = ['rectangle', 'ellipse', 'arch', 'slant', 'hexagon'] as const;
export type PanelForm = (typeof PANELS)[number];

/** A drawn shape. Lines run from the left middle of the box to the right; an icon keeps its own shape. */
export interface ShapeElement extends ElementBase {
  kind: 'shape';
  form: ShapeForm;
  colour: string;
  /** Second colour of a decoration. */
  second: string;
  line: number;
  dash: 'whole' | 'dashed' | 'dotted';
  heads: 'end' | 'both';
  panel: PanelForm;
  radius: number;
  /** A frame of two lines, the inner one thinner. */
  double: boolean;
  icon: string;
  decoration: string;
  count: number;
  seed: number;
}

export const shapeKind: ElementKind<ShapeElement> = {
  kind: 'shape',
  title: 'Shape',
  role: 'overlay',
  weight: 1,
  backs: ({ form }) => form === 'panel' || form === 'frame' || form === 'decoration',
  schema: {
    form: Joi.string()
      .valid(...SHAPE_FORMS)
      .required(),
    colour: colourSchema.required(),
    second: colourSchema.required(),
    line: Joi.number().min(0).max(500).required(),
    dash: Joi.string().valid('whole', 'dashed', 'dotted').required(),
    heads: Joi.string().valid('end', 'both').required(),
    panel: Joi.string()
      .valid(...PANELS)
      .required(),
    radius: Joi.number().min(0).max(5000).required(),
    double: Joi.boolean().required(),
    icon: Joi.string()
      .valid(...ICONS)
      .required(),
    decoration: Joi.string()
      .valid(...DECORATIONS)
      .required(),
    count: Joi.number().integer().min(1).max(60).required(),
    seed: Joi.number().integer().min(0).max(999_999).required(),
  },
  needs: () => ({ pictures: [], fonts: [] }),
  scaled: (e, k) => ({ ...e, line: e.line * k, radius: e.radius * k }),
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
