import { panelled } from '../panelled';
import Joi from 'joi';
import type { PaintEnvironment } from '../environment';
import { bindText } from '../../data/product-data';
import { fontsFor } from '../../type/catalogue';
import { ellipse, fillPath, roundedRectangle, strokePath, type Point } from '../../vector/outline';
import { colourSchema } from '../../raster/schemas';
import type { ElementBase } from '../base';
import type { ElementKind } from '../element';
import { exitPoint, leaderPath } from '../leader';
import { LEADERS, productOf, spotOn, type Leader } from '../spot';
import { plateSchema, scaledPlate, type Plate } from '../text/definition';
import { paintWords, setWords, wordsOf } from '../words';

/** Words about a spot of the product, with a leader to it. The box holds the words. */
export interface CalloutElement extends ElementBase {
  kind: 'callout';
  of: string | null;
  /** Shares of the product's box. */
  spot: Point;
  text: string;
  font: string;
  size: number;
  smallest: number;
  leading: number;
  align: 'start' | 'left' | 'centre' | 'right';
  ink: string;
  plate: Plate | null;
  leader: Leader;
  line: number;
  lineColour: string;
  dot: 'filled' | 'ring' | 'none';
  /** The spot in the frame, filled when the shot is resolved. */
  target: Point | null;
}

export const calloutKind: ElementKind<CalloutElement> = {
  kind: 'callout',
  title: 'Callout',
  role: 'overlay',
  weight: 3,
  standingOut: (element, to) => panelled('ink', element, to),
  schema: {
    of: Joi.string().max(60).allow(null).required(),
    spot: Joi.object({
      x: Joi.number().min(-1).max(2).required(),
      y: Joi.number().min(-1).max(2).required(),
    }).required(),
    text: Joi.string().max(4000).allow('').required(),
    font: Joi.string().max(80).required(),
    size: Joi.number().greater(0).max(2000).required(),
    smallest: Joi.number().greater(0).max(2000).required(),
    leading: Joi.number().min(0.5).max(4).required(),
    align: Joi.string().valid('start', 'left', 'centre', 'right').required(),
    ink: colourSchema.required(),
    plate: plateSchema,
    leader: Joi.string()
      .valid(...LEADERS)
      .required(),
    line: Joi.number().min(0).max(200).required(),
    lineColour: colourSchema.required(),
    dot: Joi.string().valid('filled', 'ring', 'none').required(),
    target: Joi.object({ x: Joi.number(), y: Joi.number() }).allow(null).required(),
  },
  pointsAtProduct: () => true,
  needs: (e) => ({ pictures: [], fonts: fontsFor(e.font, e.text) }),
  scaled: (e, k) => ({
    ...e,
    size: e.size * k,
    smallest: e.smallest * k,
    line: e.line * k,
    plate: scaledPlate(e.plate, k),
  }),
  bind(e, data, missing) {
    const bound = bindText(e.text, data);
    bound.missing.forEach((name) => missing.add(name));
    return { ...e, text: bound.text };
  },
  attached(e, elements) {
    const product = productOf(e.of, elements);
    return { ...e, target: product ? spotOn(product, e.spot) : null };
  },
  extent(e) {
    const { box, target, line } = e;
    const reach = line * 3 + 2;
    const pad = e.plate?.padding ?? 0;
    const [left, top] = [box.x - pad, box.y - pad];
    const [right, bottom] = [box.x + box.width + pad, box.y + box.height + pad];
    if (!target) return { x: left, y: top, width: right - left, height: bottom - top };
    const x = Math.min(left, target.x - reach);
    const y = Math.min(top, target.y - reach);
    return {
      x,
      y,
      width: Math.max(right, target.x + reach) - x,
      height: Math.max(bottom, target.y + reach) - y,
    };
  },
  words: (e, environment) =>
    e.text.trim() === '' ? [] : [wordsOf(e.text, setCallout(e, environment), e.ink)],
  paint(e, canvas, environment) {
    if (e.text.trim() === '') return;
    const set = setCallout(e, environment);
    const pad = e.plate ? e.plate.padding : e.size * 0.25;
    const first = Math.min(...set.lines.map((l) => l.x));
    const block = {
      x: set.left + first - pad,
      y: set.top - pad * 0.6,
      width: set.width + 2 * pad,
      height: set.height + pad * 1.2,
    };
    if (e.target && e.line > 0) {
      const from = exitPoint(block, e.target, false);
      strokePath(canvas, leaderPath(from, e.target, e.leader), { width: e.line, colour: e.lineColour });
      const r = e.line * 2.4;
      const dot = ellipse(e.target.x, e.target.y, r);
      if (e.dot === 'filled') fillPath(canvas, dot, e.lineColour);
      if (e.dot === 'ring') {
        fillPath(canvas, dot, '#ffffff');
        strokePath(canvas, dot, { width: e.line, colour: e.lineColour });
      }
    }
    if (e.plate) {
      const alpha = canvas.globalAlpha;
      canvas.globalAlpha = alpha * e.plate.opacity;
      fillPath(canvas, roundedRectangle(block, e.plate.radius), e.plate.colour);
      canvas.globalAlpha = alpha;
    }
    paintWords([wordsOf(e.text, set, e.ink)], canvas);
  },
};

function setCallout(e: CalloutElement, environment: PaintEnvironment) {
  return setWords(e.text, { ...e, tracking: 0, vertical: 'middle' }, e.box, environment);
}
