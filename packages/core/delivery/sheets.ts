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

const MARGIN = 42;
/** Between two pictures, and the height of what stands under one. */
const GAP = 14;
const CAPTION = 16;
/** Height of a line in the lists of options and prices. */
const LINE = 15;

/** A page to be agreed on: pictures, name, options, prices, notes and the maker's logo. Lengths in PDF points. */
export function proofSheet(content: ProofContent, page: PageName): ResolvedShot {
  const frame = { width: PAGES[page].width, height: PAGES[page].height };
  const inner = frame.width - 2 * MARGIN;
  const bottom = frame.height - MARGIN;
  const { title, options, prices, notes, foot, logo } = content;
  const notesHigh = notes ? 70 : 0;
  const lines = Math.max(options.length, prices.length, options.length + prices.length ? 1 : 0);
  const top = MARGIN + 66;
  const listsAt = bottom - (26 + lines * LINE + notesHigh + 40) + GAP;
  const text = (id: string, w: Words) => words(id, frame, w);
  const elements: ShotElement[] = [newBackdrop('ground', frame, '#ffffff')];
  if (logo) {
    const box = { x: frame.width - MARGIN - 120, y: MARGIN, width: 120, height: 36 };
    elements.push(shown('logo', frame, logo, box));
  }
  const titleWidth = inner - (logo ? 140 : 0);
  elements.push(
    text('title', {
      text: title,
      x: MARGIN,
      y: MARGIN,
      width: titleWidth,
      height: 60,
      size: 22,
      font: TITLE,
    }),
    ...proofPictures(content.pictures.slice(0, MOST_ON_PAGE), frame, top, listsAt - GAP),
    ...proofList('option', 'Options', options, frame, { x: MARGIN, y: listsAt }),
    ...proofList('price', 'Prices', prices, frame, { x: MARGIN + inner / 2 + 10, y: listsAt }),
  );
  const below = { x: MARGIN, width: inner };
  if (notes)
    elements.push(
      text('notes', { text: notes, ...below, y: bottom - 26 - notesHigh, height: notesHigh, size: 10 }),
    );
  elements.push(text('foot', { text: foot, ...below, y: bottom - 12, height: 12, size: 8, colour: QUIET }));
  return { ...frame, elements, missing: [] };
}

/** Pictures in as many columns as leave them largest, each with its caption, between two heights of the page. */
function proofPictures(pictures: SheetPicture[], frame: Frame, top: number, bottom: number): ShotElement[] {
  const columns = pictures.length === 1 ? 1 : pictures.length <= 4 ? 2 : 3;
  const rows = Math.ceil(pictures.length / columns);
  const cellW = (frame.width - 2 * MARGIN - GAP * (columns - 1)) / columns;
  const cellH = (bottom - top) / rows - CAPTION - GAP;
  return pictures.flatMap((picture, i) => {
    const x = MARGIN + (i % columns) * (cellW + GAP);
    const y = top + Math.floor(i / columns) * (cellH + CAPTION + GAP);
    const k = Math.min(cellW / picture.width, cellH / picture.height);
    const box = { x, y, width: picture.width * k, height: picture.height * k };
    const under = { x, y: y + box.height + 3, width: cellW, height: CAPTION };
    return [
      shown(`picture-${i}`, frame, picture, box),
      words(`caption-${i}`, frame, { text: picture.label, ...under, size: 9, colour: QUIET }),
    ];
  });
}

/** Half a page wide: a heading and what stands under it, one a line. */
function proofList(
  id: string,
  heading: string,
  items: string[],
  frame: Frame,
  { x, y }: { x: number; y: number },
): ShotElement[] {
  if (!items.length) return [];
  const width = (frame.width - 2 * MARGIN) / 2 - 10;
  const head = { text: heading, x, y, width, height: 14, size: 9.5, font: STRONG, colour: QUIET };
  return [
    words(`${id}-heading`, frame, head),
    ...items.map((text, i) =>
      words(`${id}-${i}`, frame, { text, x, y: y + LINE + i * LINE, width, height: LINE, size: 10.5 }),
    ),
  ];
}
