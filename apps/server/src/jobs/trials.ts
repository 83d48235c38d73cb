import type { Encoding } from '@scenograph/core/delivery/encoding';
import { ByteLimitError } from '@scenograph/core/delivery/byte-budget';
import { ssim } from '@scenograph/core/raster/ssim';
import type { Rgba } from '@scenograph/core/raster/pixels';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { FORMATS, type Slot } from '@scenograph/core/spec/slot';
import { encodePicture } from '@scenograph/host-node/encode';
import type { Painter } from '@scenograph/host-node/painter';
import { decodePicture } from '@scenograph/host-node/read-picture';

/** One way to write a picture, tried. */
export interface Trial {
  encoding: Encoding;
  /** Keep within the slot's byte limit, lowering quality where none is set. */
  limited: boolean;
}

export type TrialResult =
  | {
      ok: true;
      bytes: Uint8Array;
      format: string;
      quality: number | null;
      milliseconds: number;
      /** Structural similarity with the painted picture; 1 is alike. */
      ssim: number;
    }
  | { ok: false; reason: string };

let last: { key: string; pixels: Rgba } | null = null;

/** Paints a picture once and writes it in each of several ways, with size, time and how much each differs from it. */
export async function tryEncodings(
  painter: Painter,
  resolved: ResolvedShot,
  slot: Slot,
  trials: readonly Trial[],
): Promise<TrialResult[]> {
  const key = JSON.stringify(resolved);
  if (last?.key !== key) last = { key, pixels: (await painter.paint(resolved)).pixels() };
  const { pixels } = last;
  const flat = onWhite(pixels);
  const results: TrialResult[] = [];
  for (const { encoding, limited } of trials) {
    const format = encoding.format ?? slot.formats[0] ?? FORMATS[0];
    const began = performance.now();
    try {
      const { density, colourSpace } = slot;
      const maxBytes = limited ? slot.maxBytes : Infinity;
      const made = await encodePicture(pixels, format, { maxBytes, density, colourSpace, encoding });
      const milliseconds = Math.round(performance.now() - began);
      // A file in another colour space is read back into the picture's own.
      const shown = onWhite(await decodePicture(made.bytes));
      results.push({ ok: true, ...made, milliseconds, ssim: ssim(flat, shown) });
    } catch (error) {
      if (!(error instanceof ByteLimitError)) throw error;
      results.push({ ok: false, reason: error.message });
    }
  }
  return results;
}

function onWhite(image: Rgba): Rgba {
  const data = new Uint8ClampedArray(image.data);
  for (let j = 0; j < data.length; j += 4) {
    const a = data[j + 3] / 255;
    if (a === 1) continue;
    for (let c = 0; c < 3; c++) data[j + c] = data[j + c] * a + 255 * (1 - a);
    data[j + 3] = 255;
  }
  return { ...image, data };
}
