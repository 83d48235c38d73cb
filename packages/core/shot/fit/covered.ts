import { isText } from '../../elements/text/model';
import { uprightBounds } from '../../vector/box';
import { elementKind, type ShotElement } from '../../elements/index';
import type { Bounds } from '../../vector/outline';
import { area, overlapArea, type Frame } from './bounds';

/** The smallest letters that can be read in a picture of this size, in its pixels. */
export function readableSize(frame: Frame): number {
  return Math.max(9, Math.min(frame.width, frame.height) * 0.014);
}

/** About how wide a character is, in ems. */
export const CHARACTER = 0.53;

/** Lines that a text takes at a size in a width, estimated. */
export function linesAt(text: string, size: number, width: number): number {
  const room = Math.max(1, Math.floor(width / (size * CHARACTER)));
  let lines = 0;
  for (const paragraph of text.split('\n')) {
    let at = 0;
    lines++;
    for (const word of paragraph.split(/\s+/)) {
      if (at > 0 && at + 1 + word.length > room) {
        lines++;
        at = word.length;
      } else at += (at ? 1 : 0) + word.length;
    }
  }
  return lines;
}

export const longestWord = (text: string) => Math.max(1, ...text.split(/\s+/).map((w) => w.length));

/** What an overlay really covers of its box, as far as can be told without its font. */
export function coveredBounds(e: ShotElement): Bounds {
  const b = uprightBounds(e.box);
  if (!isText(e) || e.box.rotation !== 0) return b;
  const lines = linesAt(e.text, e.size, b.width);
  const height = Math.min(b.height, lines * e.size * e.leading);
  const longest = Math.max(...e.text.split('\n').map((l) => l.length)) * e.size * CHARACTER;
  const width = lines > e.text.split('\n').length ? b.width : Math.min(b.width, longest);
  const freeX = b.width - width;
  const freeY = b.height - height;
  const x = b.x + (e.align === 'right' ? freeX : e.align === 'centre' ? freeX / 2 : 0);
  const y = b.y + (e.vertical === 'bottom' ? freeY : e.vertical === 'middle' ? freeY / 2 : 0);
  return { x, y, width, height };
}

/** Whether overlays as they are placed get in each other's or the product's way more than in the base. */
export function clashes(
  base: readonly ShotElement[],
  placed: readonly ShotElement[],
  baseProduct: Bounds | null,
  product: Bounds | null,
  slot: Frame,
): boolean {
  const readable = readableSize(slot);
  const was = base.map(coveredBounds);
  const now = placed.map(coveredBounds);
  for (let i = 0; i < now.length; i++) {
    const words = elementKind(placed[i].kind).wraps?.(placed[i]);
    const before = elementKind(base[i].kind).wraps?.(base[i]);
    if (words && before && words.size < readable && words.text.trim() !== '') return true;
    if (product && baseProduct) {
      const share = overlapArea(now[i], product) / Math.max(1, area(now[i]));
      if (share > overlapArea(was[i], baseProduct) / Math.max(1, area(was[i])) + 0.12) return true;
    }
    for (let j = 0; j < i; j++) {
      const share = overlapArea(now[i], now[j]) / Math.max(1, Math.min(area(now[i]), area(now[j])));
      const first = overlapArea(was[i], was[j]) / Math.max(1, Math.min(area(was[i]), area(was[j])));
      if (share > first + 0.08) return true;
    }
  }
  return false;
}
