import { elementKind, scaledElement, type ShotElement } from '../../elements/index';
import { isText, type TextElement } from '../../elements/text/model';
import type { Bounds } from '../../vector/outline';
import { area, overlapArea, union, type Frame } from './bounds';
import { CHARACTER, coveredBounds, linesAt, longestWord, readableSize } from './covered';

/**
 * Overlays of a base laid out anew in a frame of another shape: what belongs together stays together, units are stacked
 * in rows or columns beside the product, as large as they can be within their limits, and the least important are
 * dropped until the others are readable. Our own rules; no measure of text is needed, so that they hold everywhere.
 */

/** What moves and scales as one: an overlay with all that lies on it. */
export interface Unit {
  members: ShotElement[];
  bounds: Bounds;
  /** Alone and free to break its lines anew. */
  words: { text: string; size: number; leading: number } | null;
  rank: number;
}

export interface Arranged {
  elements: Map<string, ShotElement>;
  dropped: string[];
}

/** Overlays in groups: one lies on another when the other covers most of it, or both are linked. */
export function unitsOf(overlays: readonly ShotElement[], order: readonly string[]): Unit[] {
  const groups: ShotElement[][] = [];
  for (const e of overlays) {
    const b = coveredBounds(e);
    const group = groups.find((g) =>
      g.some((o) => {
        if (o.link && o.link === e.link) return true;
        const under = coveredBounds(o);
        return overlapArea(b, under) > 0.6 * Math.min(area(b), area(under));
      }),
    );
    if (group) group.push(e);
    else groups.push([e]);
  }
  return groups.map((members) => ({
    members,
    bounds: union(members.map(coveredBounds)),
    words: members.length === 1 ? (elementKind(members[0].kind).wraps?.(members[0]) ?? null) : null,
    rank: Math.min(...members.map((m) => order.indexOf(m.id))),
  }));
}

export interface ArrangeOptions {
  /** How overlays scale from the base when nothing else is asked. */
  natural: number;
  slot: Frame;
  /** Ids that are never dropped. */
  keep: ReadonlySet<string>;
  /** Whether the last of them must be shown, however small. */
  last: boolean;
}

/**
 * @param units in the base's pixels
 * @param rooms free rectangles of the slot, the best first
 */
export function arrangeUnits(
  units: Unit[],
  rooms: Bounds[],
  { natural, slot, keep, last }: ArrangeOptions,
): Arranged {
  const readable = readableSize(slot);
  const elements = new Map<string, ShotElement>();
  const dropped: string[] = [];
  // Words set together are set to one side: that of the most important of them.
  const first = units.filter((u) => u.words).sort((a, b) => a.rank - b.rank)[0]?.members[0];
  const align = first && isText(first) ? first.align : null;
  let left = [...units].sort((a, b) => a.bounds.y - b.bounds.y || a.bounds.x - b.bounds.x);
  while (left.length) {
    const found = place(left, rooms, natural, readable);
    if (found) {
      for (const [id, e] of found) elements.set(id, aligned(e, align));
      break;
    }
    const droppable = left.filter((u) => !u.members.some((m) => keep.has(m.id)));
    if (!droppable.length || (left.length === 1 && last)) {
      // The last one is shown whatever comes, as large as it can be.
      for (const [id, e] of place(left, rooms, natural, 0) ?? []) elements.set(id, aligned(e, align));
      break;
    }
    const least = droppable.reduce((a, b) => (b.rank > a.rank ? b : a));
    dropped.push(...least.members.map((m) => m.id));
    left = left.filter((u) => u !== least);
  }
  return { elements, dropped };
}

const aligned = (e: ShotElement, align: TextElement['align'] | null): ShotElement =>
  isText(e) && align && !e.plate ? { ...e, align } : e;

/** All units in the first room, or what keeps its shape in the second and the words in the first. */
function place(
  units: Unit[],
  rooms: Bounds[],
  natural: number,
  readable: number,
): Map<string, ShotElement> | null {
  const [first, second] = rooms;
  if (!first) return null;
  const alone = stack(units, first, natural, readable);
  const shapes = units.filter((u) => u.words === null);
  const words = units.filter((u) => u.words !== null);
  if (second && shapes.length && words.length) {
    const a = stack(words, first, natural, readable);
    const b = stack(shapes, second, natural, readable);
    if (a && b && Math.min(a.scale, b.scale) > (alone?.scale ?? 0) * 1.15)
      return new Map([...a.placed, ...b.placed]);
  }
  return alone?.placed ?? null;
}

/** Least and greatest scale of a unit, of the natural one. */
const LARGEST = 1.7;

const SMALLEST = 0.45;

function stack(units: Unit[], room: Bounds, natural: number, readable: number) {
  if (!units.length || room.width < 8 || room.height < 8) return null;
  const columns = room.width > room.height * 2.2;
  const fits = (scale: number) => measure(units, room, scale, columns, readable);
  let low = natural * SMALLEST;
  let high = natural * LARGEST;
  if (readable === 0) low = Math.min(low, natural * 0.02);
  let best = fits(low);
  if (!best) {
    // Words that are read at their limit may need more than their share: the limit itself is tried last.
    return null;
  }
  let scale = low;
  for (let i = 0; i < 12; i++) {
    const middle = (low + high) / 2;
    const found = fits(middle);
    if (found) {
      best = found;
      scale = middle;
      low = middle;
    } else high = middle;
  }
  return { placed: settle(best, readable), scale };
}

interface Cell {
  unit: Unit;
  box: Bounds;
  /** Size of its letters. */
  size: number;
}

/** Where units come to at a scale; null where they do not fit. Words never come out smaller than can be read. */
function measure(
  units: Unit[],
  room: Bounds,
  scale: number,
  columns: boolean,
  readable: number,
): Cell[] | null {
  const gap = Math.min(room.width, room.height) * 0.07;
  const sized = (unit: Unit, width: number): { width: number; height: number; size: number } | null => {
    if (unit.words) {
      const size = Math.max(readable, unit.words.size * scale);
      if (longestWord(unit.words.text) * size * CHARACTER > width) return null;
      const lines = linesAt(unit.words.text, size, width);
      const longest = Math.max(...unit.words.text.split('\n').map((l) => l.length)) * size * CHARACTER * 1.06;
      const w = lines > unit.words.text.split('\n').length ? width : Math.min(width, longest);
      return { width: w, height: lines * size * unit.words.leading * 1.02, size };
    }
    const least = leastShape(unit.members, readable);
    const k = Math.min(Math.max(scale, least / unit.bounds.width), width / unit.bounds.width);
    if (unit.bounds.width * k < least - 0.01) return null;
    return { width: unit.bounds.width * k, height: unit.bounds.height * k, size: k };
  };
  if (columns) return measureColumns(units, room, gap, sized);
  const cells: Cell[] = [];
  let y = room.y;
  for (const unit of units) {
    const s = sized(unit, room.width);
    if (!s) return null;
    if (y > room.y) y += gap;
    cells.push({
      unit,
      box: { x: room.x, y, width: unit.words ? room.width : s.width, height: s.height },
      size: s.size,
    });
    y += s.height;
  }
  const free = room.y + room.height - y;
  if (free < -0.5) return null;
  return cells.map((c) => ({
    ...c,
    box: {
      ...c.box,
      y: c.box.y + free / 2,
      x: c.unit.words ? c.box.x : room.x + sideways(units, room.width - c.box.width),
    },
  }));
}

/** Words stand one under another in a column of their own, shapes in columns beside them, in the order of reading. */
function measureColumns(
  units: Unit[],
  room: Bounds,
  gap: number,
  sized: (unit: Unit, width: number) => { width: number; height: number; size: number } | null,
): Cell[] | null {
  const shapes = units.filter((u) => !u.words);
  const words = units.filter((u) => u.words);
  const wide = Math.max(gap, room.height * 0.16);
  let taken = 0;
  const shapeSizes = new Map<Unit, { width: number; height: number; size: number }>();
  for (const u of shapes) {
    const s = sized(u, room.width);
    if (!s || s.height > room.height + 0.5) return null;
    shapeSizes.set(u, s);
    taken += s.width;
  }
  const count = shapes.length + (words.length ? 1 : 0);
  const left = room.width - taken - wide * Math.max(0, count - 1);
  const column: Cell[] = [];
  let tall = 0;
  if (words.length) {
    if (left < 12) return null;
    let y = 0;
    for (const u of words) {
      const s = sized(u, left);
      if (!s) return null;
      if (y > 0) y += gap * 0.5;
      column.push({ unit: u, box: { x: 0, y, width: left, height: s.height }, size: s.size });
      y += s.height;
    }
    tall = y;
    if (tall > room.height + 0.5) return null;
  } else if (left < -0.5) return null;
  // Shapes that stand before the words in the base go to their left.
  const middle = (u: Unit) => u.bounds.x + u.bounds.width / 2;
  const wordsAt = words.length ? words.reduce((sum, u) => sum + middle(u), 0) / words.length : 0;
  const before = shapes
    .filter((u) => words.length && middle(u) < wordsAt - 1)
    .sort((a, b) => middle(a) - middle(b));
  const after = shapes.filter((u) => !before.includes(u)).sort((a, b) => middle(a) - middle(b));
  const cells: Cell[] = [];
  let x = room.x + (words.length ? 0 : Math.max(0, left) / 2);
  const putShape = (u: Unit) => {
    const s = shapeSizes.get(u)!;
    cells.push({
      unit: u,
      box: { x, y: room.y + (room.height - s.height) / 2, width: s.width, height: s.height },
      size: s.size,
    });
    x += s.width + wide;
  };
  before.forEach(putShape);
  for (const c of column)
    cells.push({ ...c, box: { ...c.box, x, y: room.y + (room.height - tall) / 2 + c.box.y } });
  if (words.length) x += left + wide;
  after.forEach(putShape);
  return cells;
}

/** Shapes in a stack keep to the side to which the words beside them are set. */
function sideways(units: Unit[], free: number): number {
  const text = units.flatMap((u) => u.members).find(isText);
  if (!text) return free / 2;
  return text.align === 'centre' ? free / 2 : text.align === 'right' ? free : 0;
}

/** How wide a group must be to be of use: as its member that needs most, words by their letters. */
function leastShape(members: readonly ShotElement[], readable: number): number {
  const whole = union(members.map(coveredBounds)).width;
  return Math.max(
    ...members.map((m) => {
      const words = elementKind(m.kind).wraps?.(m);
      if (words) return words.text.trim() ? (whole * readable) / words.size : 2;
      const own = coveredBounds(m).width;
      return ((LEAST_LETTERS[m.kind] ?? 0) * readable * whole) / own;
    }),
  );
}

/** Least widths in letters of the smallest readable size. */
const LEAST_LETTERS: Record<string, number> = { badge: 4, stars: 6, logo: 3, picture: 3, inset: 8, pair: 8 };

function settle(cells: Cell[], readable: number): Map<string, ShotElement> {
  const out = new Map<string, ShotElement>();
  for (const { unit, box, size } of cells) {
    if (unit.words) {
      const [member] = unit.members;
      const k = size / unit.words.size;
      const scaled = scaledElement(member, k);
      const smallest = Math.min(size, Math.max(readable * 0.8, size * 0.6));
      out.set(member.id, {
        ...scaled,
        smallest,
        vertical: 'middle',
        box: { ...box, rotation: 0 },
      } as ShotElement);
      continue;
    }
    const k = box.width / unit.bounds.width;
    for (const m of unit.members)
      out.set(m.id, {
        ...scaledElement(m, k),
        box: {
          ...m.box,
          x: box.x + (m.box.x - unit.bounds.x) * k,
          y: box.y + (m.box.y - unit.bounds.y) * k,
          width: m.box.width * k,
          height: m.box.height * k,
        },
      });
  }
  return out;
}
