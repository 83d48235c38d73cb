export interface Encoded {
  bytes: Uint8Array;
  quality: number;
}

/** Said when even the lowest quality is too large; the message is fit to be shown. */
export class ByteLimitError extends Error {}

/**
 * The highest whole quality between `lowest` and `highest` whose file stays within `maxBytes`, by bisection:
 * about seven encodings at most, one when the highest already fits. `encode` gives a file's bytes for a quality.
 */
export async function withinBytes(
  encode: (quality: number) => Promise<Uint8Array>,
  maxBytes: number,
  highest = 92,
  lowest = 40,
): Promise<Encoded> {
  const first = await encode(highest);
  if (first.length <= maxBytes) return { bytes: first, quality: highest };
  let best: Encoded | null = null;
  let low = lowest;
  let high = highest - 1;
  while (low <= high) {
    const quality = (low + high) >> 1;
    const bytes = await encode(quality);
    if (bytes.length <= maxBytes) {
      best = { bytes, quality };
      low = quality + 1;
    } else high = quality - 1;
  }
  if (best) return best;
  const smallest = await encode(lowest);
  throw new ByteLimitError(
    `At quality ${lowest}, the lowest that is tried, the file has ${smallest.length.toLocaleString('en-GB')} bytes; the slot takes ${maxBytes.toLocaleString('en-GB')}. Use a simpler backdrop or another format.`,
  );
}
