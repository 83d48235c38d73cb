import { UnprocessableEntityException } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';
import type { Rect } from '@scenograph/core/raster/pixels';
import type { Trim } from '@scenograph/core/shot/trim';
import type { ShotPdfOptions } from '@scenograph/host-node/shot-pdf';

export type ExportRequest = CallOf<'GET /api/shots/:id/export'>['query'];

/** A picture may have so many pixels. */
const MOST_PIXELS = 80_000_000;

/** How many pixels a frame pixel makes for a picture of a given width; refused with a sentence where it is too large. */
export function exportScale(frame: { width: number; height: number }, width: number): number {
  const scale = width / frame.width;
  const height = Math.round(frame.height * scale);
  if (width * height > MOST_PIXELS)
    throw new UnprocessableEntityException(
      `${width} x ${height} pixels are ${Math.round((width * height) / 1e6)} megapixels; up to ${MOST_PIXELS / 1e6} can be made. Choose a smaller size or fewer dots an inch.`,
    );
  return scale;
}

/** A page that is as wide as so many pixels at a density; its bleed and what is shown of it grow with it. */
export function pageOf(
  frame: { width: number },
  trim: Trim | null,
  shown: Rect | null,
  { width, density, area, marks, words }: ExportRequest,
  title: string,
): ShotPdfOptions {
  const own = trim ?? { unit: 'px' as const, dpi: 72, bleedMm: 0, safeMm: 0 };
  const dpi = ((shown ?? frame).width * density) / width;
  const page = { ...own, dpi, bleedMm: (own.bleedMm * own.dpi) / dpi };
  return { title, trim: page, density, area, marks: marks === 'crop', words };
}
