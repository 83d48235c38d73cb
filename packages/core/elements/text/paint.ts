import type { Canvas2D } from '../../raster/canvas';
import type { PaintEnvironment } from '../environment';
import { fittingSize, shapeText } from '../../type/layout-text';
import { fillPath, roundedRectangle } from '../../vector/outline';
import { facesFor, paintWords, setWords, wordsOf, type SetWords } from '../words';
import type { ElementPainter } from '../painter';
import { TextElement } from './model';

export const textPainter: ElementPainter<TextElement> = {
  inVectors: () => true,
  // Words of one size with others take it from them.
  followsOthers: ({ tied }) => tied !== null,
  words(element, environment) {
    return element.text.trim() === ''
      ? []
      : [wordsOf(element.text, setElement(element, environment), element.colour)];
  },
  paint(element, canvas, environment) {
    if (element.text.trim() === '') return;
    const set = setElement(element, environment);
    paintPlate(element, set, canvas);
    paintWords([wordsOf(element.text, set, element.colour)], canvas);
  },
};

/** The panel behind its words, where it has one. */
export function paintPlate({ plate }: TextElement, set: SetWords, canvas: Canvas2D): void {
  if (!plate) return;
  const pad = plate.padding;
  const first = Math.min(...set.lines.map((l) => l.x));
  const alpha = canvas.globalAlpha;
  canvas.globalAlpha = alpha * plate.opacity;
  const bounds = {
    x: set.left + first - pad,
    y: set.top - pad,
    width: set.width + 2 * pad,
    height: set.height + 2 * pad,
  };
  fillPath(canvas, roundedRectangle(bounds, plate.radius), plate.colour);
  canvas.globalAlpha = alpha;
}

const shown = (element: TextElement) =>
  element.capitals ? element.text.toLocaleUpperCase('en') : element.text;

function inner({ box, plate }: TextElement) {
  const inset = plate?.padding ?? 0;
  return {
    x: box.x + inset,
    y: box.y + inset,
    width: Math.max(1, box.width - 2 * inset),
    height: Math.max(1, box.height - 2 * inset),
  };
}

/** The element's words in its box, at the size it shares with the texts it is tied to. */
export function setElement(element: TextElement, environment: PaintEnvironment): SetWords {
  const size = element.tied === null ? element.size : tiedSize(element, environment);
  return setWords(
    shown(element),
    { ...element, size, smallest: Math.min(element.smallest, size) },
    inner(element),
    environment,
  );
}

function tiedSize(element: TextElement, environment: PaintEnvironment): number {
  const sizes = environment.elements.flatMap((one) => {
    if (one.kind !== 'text') return [];
    const e = one as TextElement;
    if (e.tied !== element.tied || e.hidden || e.text.trim() === '') return [];
    const { width, height } = inner(e);
    const key = JSON.stringify([
      'fit',
      e.text,
      e.font,
      e.size,
      e.smallest,
      e.leading,
      e.tracking,
      e.capitals,
      width,
      height,
    ]);
    return environment.kept(key, () => {
      const text = shown(e);
      const shaped = shapeText(text, facesFor(e.font, text, environment), e.tracking);
      return fittingSize(shaped, e, width, height, e.smallest);
    });
  });
  return Math.min(element.size, ...sizes);
}
