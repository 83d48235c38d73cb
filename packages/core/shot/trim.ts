import Joi from 'joi';
import type { Rect } from '../raster/pixels';

export const MM_PER_INCH = 25.4;

/** What a picture's size is given in. */
export const SIZE_UNITS = ['px', 'mm', 'cm', 'in'] as const;
export type SizeUnit = (typeof SIZE_UNITS)[number];

/** What a shot's own picture is to be on paper: its frame is the trimmed picture and the bleed around it. */
export interface Trim {
  /** What its size was given in, and is shown in. */
  unit: SizeUnit;
  /** Pixels an inch. */
  dpi: number;
  /** Picture that is cut off on each side, so that no paper shows where a cut is off. */
  bleedMm: number;
  /** Space within the cut that words keep clear. */
  safeMm: number;
}

export const trimSchema = Joi.object({
  unit: Joi.valid(...SIZE_UNITS).required(),
  dpi: Joi.number().integer().min(10).max(2400).required(),
  bleedMm: Joi.number().min(0).max(50).required(),
  safeMm: Joi.number().min(0).max(100).required(),
});

/** The size of the trimmed picture, in its unit, and what is to be kept around and within it. */
export interface TrimmedSize extends Trim {
  width: number;
  height: number;
}

interface Frame {
  width: number;
  height: number;
}

export const LEAST_SIDE = 16;
export const MOST_SIDE = 12_000;
export const MOST_PIXELS = 80_000_000;

/** Lengths of a unit that make a millimetre or, of pixels, that a density makes one of. */
const perMm = (unit: SizeUnit, dpi: number) =>
  unit === 'mm' ? 1 : unit === 'cm' ? 0.1 : unit === 'in' ? 1 / MM_PER_INCH : dpi / MM_PER_INCH;

export const mmOf = (length: number, unit: SizeUnit, dpi: number) => length / perMm(unit, dpi);
export const lengthOf = (mm: number, unit: SizeUnit, dpi: number) => mm * perMm(unit, dpi);

/** Pixels of a length on paper. */
export const pixelsOf = (mm: number, dpi: number) => (mm / MM_PER_INCH) * dpi;

/**
 * A picture's frame in pixels, with its bleed.
 * @throws with a sentence where it is too small or too large to be made
 */
export function frameOf({ width, height, unit, dpi, bleedMm, safeMm }: TrimmedSize): Frame {
  if (!(width > 0 && height > 0)) throw new Error('Give the picture a width and a height.');
  const side = (length: number) =>
    Math.round(pixelsOf(mmOf(length, unit, dpi), dpi)) + 2 * Math.round(pixelsOf(bleedMm, dpi));
  const frame = { width: side(width), height: side(height) };
  const [least, most] = [Math.min(frame.width, frame.height), Math.max(frame.width, frame.height)];
  const size = `${frame.width} x ${frame.height} pixels`;
  if (least < LEAST_SIDE)
    throw new Error(`This makes ${size}; a picture has at least ${LEAST_SIDE} on each side.`);
  if (most > MOST_SIDE || frame.width * frame.height > MOST_PIXELS)
    throw new Error(
      `This makes ${size}; up to ${MOST_SIDE} on a side and ${MOST_PIXELS / 1e6} million in all can be made. Choose a smaller size or fewer dots an inch.`,
    );
  if (2 * safeMm >= Math.min(mmOf(width, unit, dpi), mmOf(height, unit, dpi)))
    throw new Error('The safe margins meet in the middle. Make them narrower than half of the picture.');
  return frame;
}

/** How large a picture is on paper, in millimetres. */
export const pageMm = ({ width, height }: Frame, { dpi }: Pick<Trim, 'dpi'>) => ({
  width: (width / dpi) * MM_PER_INCH,
  height: (height / dpi) * MM_PER_INCH,
});

/** The trimmed picture in a frame, in its pixels. */
export function trimRect({ width, height }: Frame, { dpi, bleedMm }: Trim): Rect {
  const bleed = Math.round(pixelsOf(bleedMm, dpi));
  return { x: bleed, y: bleed, width: width - 2 * bleed, height: height - 2 * bleed };
}

/** What of a frame words keep within, in its pixels. */
export function safeRect(frame: Frame, trim: Trim): Rect {
  const { x, y, width, height } = trimRect(frame, trim);
  const safe = pixelsOf(trim.safeMm, trim.dpi);
  return { x: x + safe, y: y + safe, width: width - 2 * safe, height: height - 2 * safe };
}

/** A shot's size as it was given. */
export function trimmedSize(frame: Frame, trim: Trim): TrimmedSize {
  const { width, height } = trimRect(frame, trim);
  // To a thousandth: an A4's 2480 pixels are 210 mm, give or take a pixel.
  const given = (pixels: number) => {
    const length = lengthOf((pixels / trim.dpi) * MM_PER_INCH, trim.unit, trim.dpi);
    if (trim.unit === 'px') return pixels;
    const pixel = lengthOf(MM_PER_INCH / trim.dpi, trim.unit, trim.dpi);
    const round =
      [1, 10, 100, 1000].find((n) => Math.abs(Math.round(length * n) / n - length) <= pixel / 2) ?? 1000;
    return Math.round(length * round) / round;
  };
  return { ...trim, width: given(width), height: given(height) };
}

export interface ReadySize extends TrimmedSize {
  id: string;
  title: string;
  /** What it is used for. */
  use: 'screen' | 'banner' | 'print';
}

const onScreen = (id: string, title: string, width: number, height: number): ReadySize => ({
  ...{ id, title, width, height, use: 'screen' },
  ...{ unit: 'px', dpi: 72, bleedMm: 0, safeMm: 0 },
});
const banner = (width: number, height: number): ReadySize => ({
  ...onScreen(`banner-${width}x${height}`, `Banner ${width} x ${height}`, width, height),
  use: 'banner',
});
const onPaper = (id: string, title: string, width: number, height: number, dpi = 300): ReadySize => ({
  ...{ id, title, width, height, use: 'print' },
  ...{ unit: 'mm', dpi, bleedMm: 3, safeMm: 5 },
});

/** Sizes that are asked for again and again, by use. */
export const READY_SIZES: readonly ReadySize[] = [
  onScreen('square', 'Square', 2000, 2000),
  onScreen('portrait', 'Portrait 4:5', 1600, 2000),
  onScreen('tall', 'Tall 9:16', 1080, 1920),
  onScreen('wide', 'Wide 16:9', 1920, 1080),
  banner(300, 250),
  banner(728, 90),
  banner(160, 600),
  banner(970, 250),
  onPaper('a4', 'A4', 210, 297),
  onPaper('a5', 'A5', 148, 210),
  onPaper('postcard', 'Postcard', 148, 105),
  onPaper('poster', 'Poster', 500, 700, 200),
];
