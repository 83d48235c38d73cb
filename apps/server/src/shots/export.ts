import { UnprocessableEntityException } from '@nestjs/common';
import type { CallOf } from '@scenograph/contract';

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
