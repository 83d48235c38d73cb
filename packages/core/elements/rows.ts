import type { PaintEnvironment } from './environment';
import { layoutText } from '../type/layout-text';
import { placedPath, polygon, type Bounds, type PathCommand } from '../vector/outline';
import type { Words } from './base';
import { facesFor } from './words';

/** Words of one size on a row. Sizes are shares of the unit that the rows are fitted with. */
export interface RowPart {
  text: string;
  font: string;
  scale: number;
  /** Hung from the top of the row's capitals instead of standing on its baseline. */
  raised?: boolean;
  /** Crossed out. */
  struck?: boolean;
}

export interface Row {
  parts: RowPart[];
  /** Space over it, in units. */
  gap: number;
}

/** How much of the em a row takes up: from the baseline to the top of its capitals. */
const CAPITALS = 0.72;

interface SetRow {
  commands: PathCommand[];
  width: number;
  height: number;
}

/** One row at a unit of 1, its baseline at y = 0, its left edge at x = 0. */
function setRow(row: Row, environment: PaintEnvironment): SetRow {
  const tallest = Math.max(...row.parts.map((p) => p.scale));
  const commands: PathCommand[] = [];
  let x = 0;
  row.parts.forEach((part, i) => {
    const faces = facesFor(part.font, part.text, environment);
    const set = layoutText(
      part.text,
      faces,
      { size: part.scale, leading: 1.2, tracking: 0, align: 'left' },
      1e6,
    );
    const rise = part.raised ? (tallest - part.scale) * CAPITALS : 0;
    commands.push(...placedPath(set.commands, 1, 1, x, -set.lines[0].baseline - rise));
    if (part.struck) {
      const y = -rise - part.scale * 0.26;
      const thick = part.scale * 0.05;
      commands.push(
        ...polygon([
          { x: x - part.scale * 0.08, y: y + thick },
          { x: x - part.scale * 0.08, y: y + thick * 2 },
          { x: x + set.width + part.scale * 0.08, y: y - thick },
          { x: x + set.width + part.scale * 0.08, y: y - thick * 2 },
        ]),
      );
    }
    x += set.width + (i < row.parts.length - 1 ? tallest * 0.03 : 0);
  });
  return { commands, width: x, height: tallest * CAPITALS };
}

/**
 * Rows set one under the other, centred in a box and as large as it allows: in its rectangle, or in the ellipse that
 * touches its sides.
 */
export function setRows(
  rows: readonly Row[],
  box: Bounds,
  inside: 'rectangle' | 'ellipse',
  colour: string,
  environment: PaintEnvironment,
): Words | null {
  const shown = rows.filter((r) => r.parts.some((p) => p.text.trim() !== ''));
  if (!shown.length) return null;
  const key = JSON.stringify(['rows', shown]);
  const set = environment.kept(key, () => shown.map((r) => setRow(r, environment)));
  const width = Math.max(...set.map((r) => r.width));
  const height = set.reduce((sum, r, i) => sum + r.height + (i ? shown[i].gap : 0), 0);
  const unit =
    inside === 'ellipse'
      ? ellipseUnit(set, shown, height, box)
      : Math.min(box.width / width, box.height / height);
  const commands: PathCommand[] = [];
  let y = box.y + (box.height - height * unit) / 2;
  set.forEach((r, i) => {
    y += (i ? shown[i].gap * unit : 0) + r.height * unit;
    commands.push(...placedPath(r.commands, unit, unit, box.x + (box.width - r.width * unit) / 2, y));
  });
  const parts = shown.flatMap((r) => r.parts);
  return {
    text: shown.map((r) => r.parts.map((p) => p.text).join('')).join('\n'),
    commands,
    colour,
    size: unit * Math.min(...parts.map((p) => p.scale)),
    cut: 0,
    unprintable: [],
  };
}

/** The largest unit at which every row's corners lie inside the ellipse. */
function ellipseUnit(set: SetRow[], rows: readonly Row[], height: number, box: Bounds): number {
  let y = -height / 2;
  let largest = Infinity;
  set.forEach((r, i) => {
    y += i ? rows[i].gap : 0;
    const far = Math.max(Math.abs(y), Math.abs(y + r.height));
    largest = Math.min(largest, 1 / Math.hypot(r.width / box.width, (2 * far) / box.height));
    y += r.height;
  });
  return largest;
}

/** The words of a text on the number of lines, one to four, that lets them be largest. */
export function bestRows(text: string, font: string, scale: number, fit: (rows: Row[]) => number): Row[] {
  const row = (words: string): Row => ({ parts: [{ text: words, font, scale }], gap: scale * 0.32 });
  if (text.includes('\n')) return text.split('\n').map(row);
  const words = text.trim().split(/\s+/);
  let best: Row[] = [row(text.trim())];
  let size = fit(best);
  for (let n = 2; n <= Math.min(4, words.length); n++) {
    const lines = evenLines(words, n);
    const rows = lines.map(row);
    const found = fit(rows);
    if (found > size * 1.04) [best, size] = [rows, found];
  }
  return best;
}

/** Words on a number of lines, the longest as short as can be. */
function evenLines(words: string[], n: number): string[] {
  const whole = words.join(' ').length;
  for (let limit = Math.ceil(whole / n); ; limit++) {
    const lines: string[] = [];
    for (const word of words) {
      const last = lines[lines.length - 1];
      if (last !== undefined && `${last} ${word}`.length <= limit)
        lines[lines.length - 1] = `${last} ${word}`;
      else lines.push(word);
    }
    if (lines.length <= n) return lines;
  }
}
