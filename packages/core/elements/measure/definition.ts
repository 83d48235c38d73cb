import Joi from 'joi';
import type { PaintEnvironment } from '../environment';
import { fontsFor } from '../../type/catalogue';
import { polygon, polyline, fillPath, strokePath, turnedPath, type PathCommand } from '../../vector/outline';
import { colourSchema } from '../../raster/schemas';
import type { ElementBase, Words } from '../base';
import type { ElementKind } from '../element';
import { productOf } from '../spot';
import { paintWords, setWords, wordsBounds, wordsOf } from '../words';

/** A dimension line beside a product that reads its real size. Its place follows the product. */
export interface MeasureElement extends ElementBase {
  kind: 'measure';
  of: string | null;
  side: 'width' | 'height';
  /** Over or under the product, to its left or right. */
  edge: 'before' | 'after';
  /** Distance from the product in frame pixels. */
  offset: number;
  unit: 'mm' | 'cm' | 'in';
  /** Round things are measured by their diameter. */
  diameter: boolean;
  ends: 'ticks' | 'arrows';
  line: number;
  ink: string;
  font: string;
  size: number;
  /** Filled when the shot is resolved: the real length, and the language numbers are written in. */
  lengthMm: number | null;
  locale: string | null;
}

export const measureKind: ElementKind<MeasureElement> = {
  kind: 'measure',
  title: 'Dimension line',
  role: 'overlay',
  weight: 2,
  schema: {
    of: Joi.string().max(60).allow(null).required(),
    side: Joi.string().valid('width', 'height').required(),
    edge: Joi.string().valid('before', 'after').required(),
    offset: Joi.number().min(-5000).max(5000).required(),
    unit: Joi.string().valid('mm', 'cm', 'in').required(),
    diameter: Joi.boolean().required(),
    ends: Joi.string().valid('ticks', 'arrows').required(),
    line: Joi.number().min(0).max(200).required(),
    ink: colourSchema.required(),
    font: Joi.string().max(80).required(),
    size: Joi.number().greater(0).max(2000).required(),
    lengthMm: Joi.number().allow(null).required(),
    locale: Joi.string().max(35).allow(null).required(),
  },
  pointsAtProduct: () => true,
  needs: (e) => ({ pictures: [], fonts: fontsFor(e.font, '') }),
  scaled: (e, k) => ({ ...e, offset: e.offset * k, line: e.line * k, size: e.size * k }),
  bind: (e, data) => ({ ...e, locale: data?.brand?.locale ?? 'en-GB' }),
  attached(e, elements, missing) {
    const product = productOf(e.of, elements);
    if (!product) {
      missing.add('product to measure');
      return { ...e, lengthMm: null };
    }
    const lengthMm = product.millimetres?.[e.side] ?? null;
    if (lengthMm === null) missing.add(e.side);
    const { box } = product;
    // Room for the words over, or beside, the line.
    const deep = e.size * 1.5;
    const across = e.side === 'width';
    const at = (start: number, size: number) =>
      e.edge === 'before' ? start - e.offset - deep / 2 : start + size + e.offset - deep / 2;
    const place = across
      ? { x: box.x, y: at(box.y, box.height), width: box.width, height: deep }
      : { x: at(box.x, box.width), y: box.y, width: deep, height: box.height };
    return { ...e, lengthMm, box: { ...place, rotation: 0 } };
  },
  moved: (e, dx, dy) => ({
    offset: e.offset + (e.side === 'width' ? dy : dx) * (e.edge === 'before' ? -1 : 1),
  }),
  extent(e, environment) {
    const { box } = e;
    const words = wordsBounds(measureWords(e, environment)) ?? box;
    const x = Math.min(box.x, words.x) - e.line;
    const y = Math.min(box.y, words.y) - e.line;
    return {
      x,
      y,
      width: Math.max(box.x + box.width, words.x + words.width) + e.line - x,
      height: Math.max(box.y + box.height, words.y + words.height) + e.line - y,
    };
  },
  words: measureWords,
  paint(e, canvas, environment) {
    const { box, line, ink } = e;
    const words = measureWords(e, environment);
    const label = wordsBounds(words);
    const across = e.side === 'width';
    const length = across ? box.width : box.height;
    const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
    // Drawn level about the middle, then turned upright for a height.
    const level = (path: PathCommand[]) => (across ? path : turnedPath(path, -90, { x: cx, y: cy }));
    const gap = label ? (across ? label.width : label.height) / 2 + e.size * 0.35 : 0;
    const [left, right] = [cx - length / 2, cx + length / 2];
    const fits = gap < length / 2 - line * 4;
    const runs: [number, number][] = fits
      ? [
          [left, cx - gap],
          [cx + gap, right],
        ]
      : [[left, right]];
    for (const [a, b] of runs)
      strokePath(
        canvas,
        level(
          polyline([
            { x: a, y: cy },
            { x: b, y: cy },
          ]),
        ),
        { width: line, colour: ink, ends: 'butt' },
      );
    for (const [x, way] of [
      [left, -1],
      [right, 1],
    ] as const)
      if (e.ends === 'ticks')
        strokePath(
          canvas,
          level(
            polyline([
              { x, y: cy - e.size * 0.45 },
              { x, y: cy + e.size * 0.45 },
            ]),
          ),
          { width: line, colour: ink, ends: 'butt' },
        );
      else {
        const s = Math.max(line * 3.5, e.size * 0.4);
        fillPath(
          canvas,
          level(
            polygon([
              { x, y: cy },
              { x: x - way * s, y: cy - s * 0.4 },
              { x: x - way * s, y: cy + s * 0.4 },
            ]),
          ),
          ink,
        );
      }
    paintWords(words, canvas);
  },
};

/** A length as people write it: whole millimetres, tenths of a centimetre or an inch. */
export function lengthText(mm: number, unit: MeasureElement['unit'], locale: string): string {
  const value = unit === 'mm' ? mm : unit === 'cm' ? mm / 10 : mm / 25.4;
  const number = new Intl.NumberFormat(locale, { maximumFractionDigits: unit === 'mm' ? 0 : 1 }).format(
    value,
  );
  return `${number} ${unit}`;
}

function measureWords(e: MeasureElement, environment: PaintEnvironment): Words[] {
  const length = e.lengthMm === null ? `‹${e.side}›` : lengthText(e.lengthMm, e.unit, e.locale ?? 'en-GB');
  const text = e.diameter ? `Ø ${length}` : length;
  const across = e.side === 'width';
  const room = e.size * 12;
  const [cx, cy] = [e.box.x + e.box.width / 2, e.box.y + e.box.height / 2];
  // Where the words are longer than the line they stand under it.
  const set = setWords(
    text,
    {
      font: e.font,
      size: e.size,
      smallest: e.size,
      leading: 1.2,
      tracking: 0,
      align: 'centre',
      vertical: 'middle',
    },
    { x: cx - room / 2, y: cy - e.size, width: room, height: e.size * 2 },
    environment,
  );
  const long = set.width + e.size * 1.2 > (across ? e.box.width : Infinity);
  const below = long ? e.size * (e.edge === 'before' ? -1 : 1) : 0;
  return [wordsOf(text, { ...set, top: set.top + below }, e.ink)];
}
