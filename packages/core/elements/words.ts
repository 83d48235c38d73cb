import type { Canvas2D } from '../raster/canvas';
import type { PaintEnvironment } from './environment';
import { fontsFor } from '../type/catalogue';
import { fitText, type FittedText, type TextStyle } from '../type/layout-text';
import type { Typeface } from '../type/typeface';
import { fillPath, pathBounds, placedPath, type Bounds } from '../vector/outline';
import type { Words } from './base';

/** The faces that a text is set in: its own font's and those that help out. */
export function facesFor(font: string, text: string, environment: PaintEnvironment): Typeface[] {
  return fontsFor(font, text).map((id) => environment.typeface(id));
}

export interface WordStyle extends TextStyle {
  font: string;
  smallest: number;
  vertical: 'top' | 'middle' | 'bottom';
}

export type SetWords = FittedText & { left: number; top: number };

/** A text fitted into a box of the frame; computed once for its text, style and box. */
export function setWords(
  text: string,
  style: WordStyle,
  box: Bounds,
  environment: PaintEnvironment,
): SetWords {
  const { font, size, smallest, leading, tracking, align, vertical } = style;
  const key = JSON.stringify([
    'words',
    text,
    font,
    size,
    smallest,
    leading,
    tracking,
    align,
    box.width,
    box.height,
  ]);
  const fitted = environment.kept(key, () =>
    fitText(
      text,
      facesFor(font, text, environment),
      { size, leading, tracking, align },
      box.width,
      box.height,
      smallest,
    ),
  );
  const free = box.height - fitted.height;
  const top = box.y + (vertical === 'top' ? 0 : vertical === 'bottom' ? free : free / 2);
  return { ...fitted, left: box.x, top };
}

/** Words as they are painted and watched over. */
export function wordsOf(text: string, set: SetWords, colour: string): Words {
  return {
    text,
    commands: placedPath(set.commands, 1, 1, set.left, set.top),
    colour,
    size: set.size,
    cut: set.cut,
    unprintable: set.unprintable,
  };
}

export function paintWords(words: readonly Words[], canvas: Canvas2D): void {
  for (const w of words) fillPath(canvas, w.commands, w.colour);
}

/** What a block of words covers; null where nothing is to be seen. */
export function wordsBounds(words: readonly Words[]): Bounds | null {
  return pathBounds(words.flatMap((w) => w.commands));
}
