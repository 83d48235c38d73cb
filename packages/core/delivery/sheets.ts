import type { PictureElement } from '../elements/picture/model';
import type { TextElement } from '../elements/text/model';
import type { ShotElement } from '../elements/index';
import type { ResolvedShot } from '../shot/resolve';
import { newBackdrop, newPicture, newText } from '../shot/starters';

/** A picture on a sheet, by content hash, with the words under it. */
export interface SheetPicture {
  hash: string;
  width: number;
  height: number;
  label: string;
}

const INK = '#171b19';
const QUIET = '#4d5652';
const BODY = 'hanken-grotesk-400';
const STRONG = 'hanken-grotesk-600';
const TITLE = 'bricolage-grotesque-700';

type Frame = { width: number; height: number };

interface Words {
  text: string;
  x: number;
  y: number;
  width: number;
  height: number;
  size: number;
  font?: string;
  colour?: string;
  align?: TextElement['align'];
}

function words(id: string, frame: Frame, w: Words): TextElement {
  return {
    ...newText(id, w.text, frame),
    name: id,
    font: w.font ?? BODY,
    size: w.size,
    leading: 1.3,
    colour: w.colour ?? INK,
    align: w.align ?? 'left',
    vertical: 'top',
    box: { x: w.x, y: w.y, width: w.width, height: w.height, rotation: 0 },
    plate: null,
  };
}

function shown(
  id: string,
  frame: Frame,
  picture: SheetPicture,
  box: { x: number; y: number; width: number; height: number },
): PictureElement {
  const made = newPicture(
    id,
    picture.label,
    { picture: picture.hash, width: picture.width, height: picture.height },
    frame,
  );
  return { ...made, box: { ...box, rotation: 0 } };
}

/**
 * Options side by side in one picture, each with its label. Columns as asked, rows as needed; cells as wide as given,
 * in the first picture's shape.
 */
export function optionSheet(pictures: SheetPicture[], columns: number, cell = 700): ResolvedShot {
  const first = pictures[0];
  const tall = Math.round((cell * first.height) / first.width);
  const gap = Math.round(cell * 0.05);
  const line = Math.round(cell * 0.05);
  const label = Math.round(line * 3);
  const rows = Math.ceil(pictures.length / columns);
  const frame = {
    width: columns * (cell + gap) + gap,
    height: rows * (tall + label + gap) + gap,
  };
  return {
    ...frame,
    missing: [],
    elements: [
      newBackdrop('ground', frame, '#ffffff'),
      ...pictures.flatMap((picture, i) => {
        const x = gap + (i % columns) * (cell + gap);
        const y = gap + Math.floor(i / columns) * (tall + label + gap);
        return [
          shown(`picture-${i}`, frame, picture, { x, y, width: cell, height: tall }),
          words(`label-${i}`, frame, {
            text: `${i + 1}  ${picture.label}`,
            x,
            y: y + tall + line * 0.4,
            width: cell,
            height: label - line * 0.4,
            size: line,
            font: STRONG,
          }),
        ];
      }),
    ],
  };
}

export interface ProofContent {
  title: string;
  /** One a line: what the options are. */
  options: string[];
  /** One a line: quantity and price, for example. */
  prices: string[];
  notes: string;
  /** Where the sheet comes from and when, at its foot. */
  foot: string;
  logo: SheetPicture | null;
  pictures: SheetPicture[];
}

/** Pages in PDF points (1/72 inch): ISO 216 A4 and North American Letter (ANSI A). */
export const PAGES = {
  A4: { title: 'A4', width: 595, height: 842 },
  Letter: { title: 'Letter', width: 612, height: 792 },
} as const;
export type PageName = keyof typeof PAGES;

/** So many pictures stay large enough to be judged on a page. */
export const MOST_ON_PAGE = 6;

/** A page to be agreed on: pictures, name, options, prices, notes and the maker's logo. Lengths in PDF points. */
export function proofSheet(content: ProofContent, page: PageName): ResolvedShot {
  const { width: W, height: H } = PAGES[page];
  const frame = { width: W, height: H };
  const margin = 42;
  const inner = W - 2 * margin;
  const elements: ShotElement[] = [newBackdrop('ground', frame, '#ffffff')];
  const add = (id: string, w: Words) => elements.push(words(id, frame, w));
  let y = margin;
  if (content.logo)
    elements.push(
      shown('logo', frame, content.logo, { x: W - margin - 120, y: margin, width: 120, height: 36 }),
    );
  add('title', {
    text: content.title,
    x: margin,
    y,
    width: inner - (content.logo ? 140 : 0),
    height: 60,
    size: 22,
    font: TITLE,
  });
  y += 66;
  const pictures = content.pictures.slice(0, MOST_ON_PAGE);
  const lines = content.options.length + content.prices.length;
  const notesHigh = content.notes ? 70 : 0;
  const below =
    26 + Math.max(content.options.length, content.prices.length, lines ? 1 : 0) * 15 + notesHigh + 40;
  const columns = pictures.length === 1 ? 1 : pictures.length <= 4 ? 2 : 3;
  const rows = Math.ceil(pictures.length / columns);
  const gap = 14;
  const caption = 16;
  const room = H - margin - below - y;
  const cellW = (inner - gap * (columns - 1)) / columns;
  const cellH = room / rows - caption - gap;
  pictures.forEach((picture, i) => {
    const x = margin + (i % columns) * (cellW + gap);
    const top = y + Math.floor(i / columns) * (cellH + caption + gap);
    const k = Math.min(cellW / picture.width, cellH / picture.height);
    elements.push(
      shown(`picture-${i}`, frame, picture, {
        x,
        y: top,
        width: picture.width * k,
        height: picture.height * k,
      }),
    );
    add(`caption-${i}`, {
      text: picture.label,
      x,
      y: top + picture.height * k + 3,
      width: cellW,
      height: caption,
      size: 9,
      colour: QUIET,
    });
  });
  y = H - margin - below + 14;
  const list = (id: string, heading: string, items: string[], x: number) => {
    if (!items.length) return;
    add(`${id}-heading`, {
      text: heading,
      x,
      y,
      width: inner / 2 - 10,
      height: 14,
      size: 9.5,
      font: STRONG,
      colour: QUIET,
    });
    items.forEach((item, i) =>
      add(`${id}-${i}`, {
        text: item,
        x,
        y: y + 15 + i * 15,
        width: inner / 2 - 10,
        height: 15,
        size: 10.5,
      }),
    );
  };
  list('option', 'Options', content.options, margin);
  list('price', 'Prices', content.prices, margin + inner / 2 + 10);
  if (content.notes)
    add('notes', {
      text: content.notes,
      x: margin,
      y: H - margin - 26 - notesHigh,
      width: inner,
      height: notesHigh,
      size: 10,
    });
  add('foot', {
    text: content.foot,
    x: margin,
    y: H - margin - 12,
    width: inner,
    height: 12,
    size: 8,
    colour: QUIET,
  });
  return { ...frame, elements, missing: [] };
}
