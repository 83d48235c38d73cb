import Joi from 'joi';
import { DECORATIONS } from '../../vector/decorations';
import { ICONS } from '../../vector/icons';
import { colourSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';

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
};

export const isShape = (element: { kind: string }): element is ShapeElement => element.kind === 'shape';
