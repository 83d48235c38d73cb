import type { PaintEnvironment } from '../environment';
import { polygon, polyline, fillPath, strokePath, turnedPath, type PathCommand } from '../../vector/outline';
import type { Words } from '../base';
import { paintWords, setWords, wordsBounds, wordsOf } from '../words';
import type { ElementPainter } from '../painter';
import { MeasureElement } from './model';

export const measurePainter: ElementPainter<MeasureElement> = {
  inVectors: () => true,
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
