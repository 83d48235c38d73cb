import Joi from 'joi';
import type { Canvas2D } from '../../paint/environment';
import { fitText, type PathCommand } from '../../type/layout-text';
import { colourSchema, type ElementBase, type ElementKind } from '../element';

/** Words over the picture. `text` may hold ICU placeholders such as {title}; it shrinks to stay inside its box. */
export interface TextElement extends ElementBase {
  kind: 'text';
  text: string;
  font: string;
  /** Largest size in frame pixels. */
  size: number;
  leading: number;
  tracking: number;
  align: 'left' | 'centre' | 'right';
  vertical: 'top' | 'middle' | 'bottom';
  colour: string;
  /** A filled panel behind the text, or null. Padding and radius in frame pixels. */
  plate: { colour: string; opacity: number; padding: number; radius: number } | null;
}

export const textKind: ElementKind<TextElement> = {
  kind: 'text',
  title: 'Text',
  role: 'overlay',
  schema: {
    text: Joi.string().max(4000).allow('').required(),
    font: Joi.string().max(80).required(),
    size: Joi.number().greater(0).max(5000).required(),
    leading: Joi.number().min(0.5).max(4).required(),
    tracking: Joi.number().min(-200).max(1000).required(),
    align: Joi.string().valid('left', 'centre', 'right').required(),
    vertical: Joi.string().valid('top', 'middle', 'bottom').required(),
    colour: colourSchema.required(),
    plate: Joi.object({
      colour: colourSchema.required(),
      opacity: Joi.number().min(0).max(1).required(),
      padding: Joi.number().min(0).max(2000).required(),
      radius: Joi.number().min(0).max(2000).required(),
    })
      .allow(null)
      .required(),
  },
  needs: (element) => ({ pictures: [], fonts: [element.font] }),
  scaled: (element, factor) => ({
    ...element,
    size: element.size * factor,
    plate: element.plate && {
      ...element.plate,
      padding: element.plate.padding * factor,
      radius: element.plate.radius * factor,
    },
  }),
  paint(element, canvas, environment) {
    if (element.text.trim() === '') return;
    const { box, plate } = element;
    const inset = plate?.padding ?? 0;
    const width = Math.max(1, box.width - 2 * inset);
    const height = Math.max(1, box.height - 2 * inset);
    const layout = fitText(element.text, environment.typeface(element.font), element, width, height);
    const free = height - layout.height;
    const top =
      box.y + inset + (element.vertical === 'top' ? 0 : element.vertical === 'bottom' ? free : free / 2);
    const left = box.x + inset;
    if (plate) {
      const first = Math.min(...layout.lines.map((l) => l.x));
      const alpha = canvas.globalAlpha;
      canvas.globalAlpha = alpha * plate.opacity;
      canvas.fillStyle = plate.colour;
      roundedRectangle(
        canvas,
        left + first - inset,
        top - inset,
        layout.width + 2 * inset,
        layout.height + 2 * inset,
        plate.radius,
      );
      canvas.globalAlpha = alpha;
    }
    canvas.fillStyle = element.colour;
    canvas.translate(left, top);
    fillPath(canvas, layout.commands);
  },
};

function fillPath(canvas: Canvas2D, commands: PathCommand[]): void {
  canvas.beginPath();
  for (const c of commands) {
    if (c.type === 'M') canvas.moveTo(c.x, c.y);
    else if (c.type === 'L') canvas.lineTo(c.x, c.y);
    else if (c.type === 'Q') canvas.quadraticCurveTo(c.x1, c.y1, c.x, c.y);
    else if (c.type === 'C') canvas.bezierCurveTo(c.x1, c.y1, c.x2, c.y2, c.x, c.y);
    else canvas.closePath();
  }
  canvas.fill();
}

function roundedRectangle(
  canvas: Canvas2D,
  x: number,
  y: number,
  width: number,
  height: number,
  radius: number,
): void {
  const r = Math.min(radius, width / 2, height / 2);
  canvas.beginPath();
  canvas.moveTo(x + r, y);
  canvas.lineTo(x + width - r, y);
  canvas.quadraticCurveTo(x + width, y, x + width, y + r);
  canvas.lineTo(x + width, y + height - r);
  canvas.quadraticCurveTo(x + width, y + height, x + width - r, y + height);
  canvas.lineTo(x + r, y + height);
  canvas.quadraticCurveTo(x, y + height, x, y + height - r);
  canvas.lineTo(x, y + r);
  canvas.quadraticCurveTo(x, y, x + r, y);
  canvas.closePath();
  canvas.fill();
}
