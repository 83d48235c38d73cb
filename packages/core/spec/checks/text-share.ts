import { percent, round, type Check } from './check';

/** Cells of the raster on which the share is counted. */
const GRID = 200;

/** Share of the frame that the blocks of words take, overlapping ones counted once. */
export const textShare: Check<{ share: number }> = {
  id: 'text-share',
  title: 'Share of text',
  measure({ words, width, height }) {
    if (!words) return null;
    const taken = new Uint8Array(GRID * GRID);
    for (const { bounds: b, sign } of words) {
      if (sign) continue;
      const from = (v: number, size: number) => Math.max(0, Math.round((v / size) * GRID));
      const to = (v: number, size: number) => Math.min(GRID, Math.round((v / size) * GRID));
      for (let y = from(b.y, height); y < to(b.y + b.height, height); y++)
        taken.fill(
          1,
          y * GRID + from(b.x, width),
          y * GRID + Math.max(from(b.x, width), to(b.x + b.width, width)),
        );
    }
    return { share: round(taken.reduce((a, b) => a + b, 0) / taken.length) };
  },
  judge({ share }, { maxTextShare }) {
    if (maxTextShare === null) return null;
    const over = share > maxTextShare + 0.002;
    return {
      verdict: over ? 'stop' : 'pass',
      measured: percent(share, 1),
      limit: `at most ${percent(maxTextShare)}`,
      sentence: over
        ? `Text takes ${percent(share, 1)} of the picture; the slot allows ${percent(maxTextShare)}. Set it smaller, shorten it, or hide some here.`
        : 'Text takes no more room than the slot allows.',
    };
  },
};
