import type { Words } from '../elements/base';
import { elementKind, type ShotElement } from '../elements/index';
import { elementPainter } from '../elements/painters';
import { contrastRatio, LINEAR, parseHex, relativeLuminance } from '../raster/colour';
import { grow } from '../raster/distance';
import { alphaPlane, type Plane } from '../raster/pixels';
import { fillPath, pathBounds, turnedPath, type Bounds } from '../vector/outline';
import type { PaintEnvironment } from '../elements/environment';
import { paintedBounds, paintTurned, type PaintObserver } from './paint-shot';

/** Words or signs of a picture, measured on the painted pixels. Lengths in the frame's pixels. */
export interface LegibilityReport {
  id: string;
  name: string;
  kind: ShotElement['kind'];
  text: string;
  sign: boolean;
  size: number;
  bounds: Bounds;
  /** Contrast (WCAG 2.2) with what lies beside the letters, where it is least, and that place. */
  contrast: number;
  weakest: Bounds;
  /** Relative luminance of what lies there. */
  ground: number;
  /** Share of the letters that lies outside the frame. */
  outside: number;
  /** Who covers how much of it: 0..1 of the letters. */
  covered: { by: string; id: string; share: number }[];
  cut: number;
  unprintable: string[];
}

interface Seen extends LegibilityReport {
  element: ShotElement;
  /** The letters as coverage, with the device pixels they begin at. */
  ink: Plane;
  /** The letters with the space that belongs to them. */
  spread: Uint8Array;
  x: number;
  y: number;
  total: number;
}

/** Covers smaller than this are ignored: soft edges touch. */
const TOUCH = 0.02;

/**
 * Looks on while a shot is painted: for every block of words, how it stands out from the pixels beside its letters, cell
 * by cell of one letter's size, and what is painted over it afterwards. One painting measures them all.
 */
export function observeWords(): { observer: PaintObserver; reports(): LegibilityReport[] } {
  const seen: Seen[] = [];
  return {
    observer(element, context, environment) {
      if (seen.length && !elementKind(element.kind).mark) cover(element, seen, environment);
      const words = elementPainter(element.kind).words?.(element, environment) ?? [];
      for (const w of words) {
        const found = measure(element, w, context, environment);
        if (found) seen.push(found);
      }
    },
    reports: () =>
      seen.map(({ element: _, ink: __, spread: ___, x: ____, y: _____, total: ______, ...look }) => look),
  };
}

/** Words drawn by themselves: a part of the picture, and how much of each of its pixels they cover. */
interface DrawnWords {
  bounds: Bounds;
  /** Device pixels of the picture. */
  x: number;
  y: number;
  width: number;
  height: number;
  ink: Plane;
  solid: Uint8Array;
  /** How far from letters their ground counts, and the size of letters; device pixels. */
  reach: number;
  em: number;
}

/** Null where the words show nothing. */
function drawWords({ box }: ShotElement, words: Words, { scale, host }: PaintEnvironment): DrawnWords | null {
  const about = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const commands = box.rotation ? turnedPath(words.commands, box.rotation, about) : words.commands;
  const bounds = pathBounds(commands);
  if (!bounds || bounds.width * scale < 1) return null;
  const em = Math.max(3, words.size * scale);
  const reach = Math.max(2, Math.min(10, em * 0.16));
  const x = Math.floor(bounds.x * scale - reach - 1);
  const y = Math.floor(bounds.y * scale - reach - 1);
  const width = Math.ceil((bounds.x + bounds.width) * scale + reach + 1) - x;
  const height = Math.ceil((bounds.y + bounds.height) * scale + reach + 1) - y;
  const layer = host.canvas(width, height);
  layer.context.translate(-x, -y);
  layer.context.scale(scale, scale);
  fillPath(layer.context, commands, '#ffffff');
  const ink = alphaPlane({ width, height, data: layer.context.getImageData(0, 0, width, height).data });
  const solid = Uint8Array.from(ink.data, (v) => (v > 0.04 ? 1 : 0));
  return { bounds, x, y, width, height, ink, solid, reach, em };
}

/** Cells of one letter's size: ink in each, pixels beside letters, and the sum of these pixels' luminances. */
interface Cells {
  side: number;
  across: number;
  inks: Float64Array;
  beside: Float64Array;
  light: Float64Array;
  /** All ink, and what of it lies outside of the picture. */
  total: number;
  outside: number;
}

function tally(
  drawn: DrawnWords,
  context: Parameters<PaintObserver>[1],
  { scale, frame }: PaintEnvironment,
): Cells {
  const { x, y, width, height, ink } = drawn;
  const near = grow(drawn.solid, width, height, drawn.reach);
  const painted = context.getImageData(x, y, width, height).data;
  const [right, bottom] = [Math.round(frame.width * scale), Math.round(frame.height * scale)];
  const side = Math.max(4, Math.round(drawn.em));
  const across = Math.ceil(width / side);
  const count = across * Math.ceil(height / side);
  const [inks, beside, light] = [0, 1, 2].map(() => new Float64Array(count));
  let total = 0;
  let outside = 0;
  for (let py = 0; py < height; py++) {
    const row = Math.floor(py / side) * across;
    const off = y + py < 0 || y + py >= bottom;
    for (let px = 0; px < width; px++) {
      const i = py * width + px;
      const a = ink.data[i];
      if (a === 0 && near[i] === 0) continue;
      const c = row + Math.floor(px / side);
      total += a;
      inks[c] += a;
      if (off || x + px < 0 || x + px >= right) {
        outside += a;
        continue;
      }
      if (a > 0.04) continue;
      const j = i * 4;
      const o = painted[j + 3] / 255;
      const own =
        0.2126 * LINEAR[painted[j]] + 0.7152 * LINEAR[painted[j + 1]] + 0.0722 * LINEAR[painted[j + 2]];
      beside[c]++;
      // Where nothing is painted the picture is white.
      light[c] += own * o + 1 - o;
    }
  }
  return { side, across, inks, beside, light, total, outside };
}

/** The cell in which ink of this luminance stands out least; cells with hardly any ink or ground do not count. */
function weakestCell(
  cells: Cells,
  { x, y, bounds }: DrawnWords,
  own: number,
  opacity: number,
  scale: number,
) {
  const { side, across, inks, beside, light } = cells;
  const filled = [...inks].filter((v) => v > 0.5).sort((p, q) => q - p);
  const least = (filled[Math.floor(filled.length / 2)] ?? 0) * 0.3;
  let found = { contrast: 21, ground: 1, weakest: bounds };
  for (let c = 0; c < inks.length; c++) {
    if (beside[c] < 3 || inks[c] < least) continue;
    const ground = light[c] / beside[c];
    const contrast = contrastRatio(own * opacity + ground * (1 - opacity), ground);
    if (contrast >= found.contrast) continue;
    const weakest = {
      x: (x + (c % across) * side) / scale,
      y: (y + Math.floor(c / across) * side) / scale,
      width: side / scale,
      height: side / scale,
    };
    found = { contrast, ground, weakest };
  }
  return found;
}

function measure(
  element: ShotElement,
  words: Words,
  context: Parameters<PaintObserver>[1],
  environment: PaintEnvironment,
): Seen | null {
  const drawn = drawWords(element, words, environment);
  const cells = drawn && tally(drawn, context, environment);
  if (!cells || cells.total < 1) return null;
  const { x, y, width, height, ink, bounds } = drawn;
  const own = relativeLuminance(...parseHex(words.colour));
  return {
    id: element.id,
    name: element.name,
    kind: element.kind,
    text: words.text,
    sign: !!words.sign,
    size: words.size,
    bounds,
    ...weakestCell(cells, drawn, own, element.opacity, environment.scale),
    outside: cells.outside / cells.total,
    covered: [],
    cut: words.cut,
    unprintable: words.unprintable,
    element,
    ink,
    spread: grow(drawn.solid, width, height, drawn.reach * 0.7),
    x,
    y,
    total: cells.total,
  };
}

/** What a later element lays over the words seen so far. */
function cover(element: ShotElement, seen: Seen[], environment: PaintEnvironment): void {
  const { scale, host } = environment;
  const bounds = paintedBounds(element, environment);
  for (const look of seen) {
    if (look.id === element.id) continue;
    const { width, height } = look.ink;
    const left = look.x / scale;
    const top = look.y / scale;
    if (
      bounds.x > left + width / scale ||
      bounds.x + bounds.width < left ||
      bounds.y > top + height / scale ||
      bounds.y + bounds.height < top
    )
      continue;
    const layer = host.canvas(width, height);
    layer.context.translate(-look.x, -look.y);
    layer.context.scale(scale, scale);
    paintTurned(element, element.box, layer.context, environment);
    const { data } = layer.context.getImageData(0, 0, width, height);
    // Letters run into letters also where only their space is met.
    const letters = elementPainter(element.kind).words !== undefined;
    let over = 0;
    for (let i = 0; i < look.ink.data.length; i++) {
      const a = (data[i * 4 + 3] / 255) * element.opacity;
      if (a < 0.4) continue;
      over += letters ? Math.max(look.ink.data[i], look.spread[i] * 0.6) : look.ink.data[i];
    }
    const share = Math.min(1, over / look.total);
    if (share > TOUCH) look.covered.push({ by: element.name, id: element.id, share });
  }
}
