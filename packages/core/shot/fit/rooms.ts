import type { Bounds } from '../../vector/outline';
import { area, contains, overlapArea, union } from './bounds';

/** The rectangles beside, over and under what is kept clear, the most useful first. */
export function roomsBeside(region: Bounds, taken: readonly Bounds[], gap: number): Bounds[] {
  const inside = taken.filter((t) => overlapArea(t, region) > 0);
  if (!inside.length) return [region];
  const t = union(inside);
  const right = region.x + region.width;
  const bottom = region.y + region.height;
  const list: Bounds[] = [
    { ...region, width: t.x - gap - region.x },
    { ...region, x: t.x + t.width + gap, width: right - t.x - t.width - gap },
    { ...region, height: t.y - gap - region.y },
    { ...region, y: t.y + t.height + gap, height: bottom - t.y - t.height - gap },
  ];
  return list.filter((b) => b.width > 8 && b.height > 8).sort((a, b) => usefulness(b) - usefulness(a));
}

/** A large room that is not too thin. */
const usefulness = (b: Bounds) =>
  area(b) * Math.min(1, (4 * Math.min(b.width, b.height)) / Math.max(b.width, b.height));

/** The smallest of some regions that holds the middle of a box. */
export function homeOf(box: Bounds, regions: readonly Bounds[]): number {
  let best = -1;
  regions.forEach((r, i) => {
    if (
      contains(r, box.x + box.width / 2, box.y + box.height / 2) &&
      (best < 0 || area(r) < area(regions[best]))
    )
      best = i;
  });
  return best;
}
