import type { PaintEnvironment } from '../environment';
import { parseAmount } from '../../data/product-data';
import { fillPath, star, type PathCommand } from '../../vector/outline';
import type { Words } from '../base';
import { paintWords, setWords, wordsOf } from '../words';
import type { ElementPainter } from '../painter';
import { StarsElement } from './model';

export const starsPainter: ElementPainter<StarsElement> = {
  inVectors: () => true,
  words: starWords,
  paint(e, canvas, environment) {
    const { row, cells } = starRow(e);
    const rating = clampRating(e);
    for (const c of cells) fillPath(canvas, c.path, e.empty);
    cells.forEach((c, i) => {
      const share = Math.min(1, Math.max(0, rating - i));
      if (share <= 0) return;
      canvas.save();
      canvas.beginPath();
      canvas.rect(c.x, row.y - 1, c.width * share, row.height + 2);
      canvas.clip();
      fillPath(canvas, c.path, e.colour);
      canvas.restore();
    });
    paintWords(textWords(e, environment), canvas);
  },
};

const clampRating = (e: StarsElement) => Math.min(e.of, Math.max(0, parseAmount(e.rating) ?? 0));

function starRow({ box, of, gap, text, textAt }: StarsElement) {
  const units = of + (of - 1) * gap;
  const below = text !== '' && textAt === 'below';
  const beside = text !== '' && textAt === 'right';
  // Beside the words stars take about half of the width.
  const room = box.width * (beside ? 0.52 : 1);
  const size = Math.min(room / units, box.height * (below ? 0.58 : 1));
  const width = size * units;
  const row = {
    x: box.x + (textAt === 'below' ? (box.width - width) / 2 : 0),
    y: below ? box.y : box.y + (box.height - size) / 2,
    width,
    height: size,
  };
  const cells = Array.from({ length: of }, (_, i) => {
    const x = row.x + i * size * (1 + gap);
    const path: PathCommand[] = star(
      { x: x + size / 2, y: row.y + size * 0.53 },
      { x: size * 0.52, y: size * 0.52 },
      5,
      0.45,
    );
    return { x, width: size, path };
  });
  return { row, cells };
}

function textWords(e: StarsElement, environment: PaintEnvironment): Words[] {
  if (e.text.trim() === '') return [];
  const { row } = starRow(e);
  const { box } = e;
  const below = e.textAt === 'below';
  const room = below
    ? { x: box.x, y: row.y + row.height * 1.12, width: box.width, height: box.height - row.height * 1.12 }
    : {
        x: row.x + row.width + row.height * 0.3,
        y: box.y,
        width: Math.max(1, box.width - row.width - row.height * 0.3),
        height: box.height,
      };
  const size = below ? room.height * 0.8 : row.height * 0.72;
  const set = setWords(
    e.text,
    {
      font: e.font,
      size,
      smallest: size * 0.3,
      leading: 1.15,
      tracking: 0,
      align: below ? 'centre' : 'start',
      vertical: 'middle',
    },
    room,
    environment,
  );
  return [wordsOf(e.text, set, e.ink)];
}

/** The filled stars count as signs that must be read, the words beside them too. */
function starWords(e: StarsElement, environment: PaintEnvironment): Words[] {
  const { cells, row } = starRow(e);
  const signs: Words = {
    text: `${e.rating} of ${e.of} stars`,
    commands: cells.flatMap((c) => c.path),
    colour: e.colour,
    size: row.height,
    cut: 0,
    unprintable: [],
    sign: true,
  };
  return [signs, ...textWords(e, environment)];
}
