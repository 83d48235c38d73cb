import { drawPicture } from '../draw-picture';
import type { PaintEnvironment } from '../environment';
import {
  ellipse,
  fillPath,
  polygon,
  roundedRectangle,
  shrunk,
  strokePath,
  tracePath,
  type Bounds,
  type PathCommand,
} from '../../vector/outline';
import type { Words } from '../base';
import { isDarkBeneath } from '../ground-tone';
import { exitPoint, leaderPath } from '../leader';
import { paintWords, setWords, wordsOf } from '../words';
import type { ElementPainter } from '../painter';
import { LensShape, InsetElement } from './model';

export const insetPainter: ElementPainter<InsetElement> = {
  effects(e, environment) {
    const { dropShadow } = e.effects;
    if (!e.adapts || !dropShadow || !lensOnDark(e, environment)) return e.effects;
    return {
      ...e.effects,
      dropShadow: { ...dropShadow, colour: '#ffffff', opacity: dropShadow.opacity * 0.6 },
    };
  },
  depends: (e, environment) => e.adapts && lensOnDark(e, environment),
  extent(e) {
    const label = e.states ? { ...e.box, height: e.box.height * 1.22 } : e.box;
    if (!e.target || (e.mark === 'none' && e.leader === 'none')) return label;
    const reach = e.line + 2;
    const x = Math.min(label.x, e.target.x - reach);
    const y = Math.min(label.y, e.target.y - reach);
    return {
      x,
      y,
      width: Math.max(label.x + label.width, e.target.x + e.target.width + reach) - x,
      height: Math.max(label.y + label.height, e.target.y + e.target.height + reach) - y,
    };
  },
  words: labelWords,
  paint(e, canvas, environment) {
    const outline = lensPath(e.shape, e.box, e.radius);
    const ring = e.adapts && lensOnDark(e, environment) ? '#f6f4ee' : e.ring.colour;
    paintPointer(e, ring, canvas);
    fillPath(canvas, outline, e.fill);
    if (e.picture && e.seen) {
      canvas.save();
      tracePath(canvas, outline);
      canvas.clip();
      const source = environment.picture(e.picture);
      const k = e.box.width / (e.seen.across * source.width);
      const [w, h] = [source.width * k, source.height * k];
      const x = e.box.x + e.box.width / 2 - e.seen.x * w;
      const y = e.box.y + e.box.height / 2 - e.seen.y * h;
      drawPicture(e.picture, { x, y, width: w, height: h }, canvas, environment);
      canvas.restore();
    }
    strokePath(canvas, lensPath(e.shape, shrunk(e.box, e.ring.width / 2), e.radius), {
      ...e.ring,
      colour: ring,
    });
    paintWords(labelWords(e, environment), canvas);
  },
};

const lensOnDark = (e: InsetElement, environment: PaintEnvironment) => isDarkBeneath(e.box, environment);

function paintPointer(e: InsetElement, colour: string, canvas: Parameters<typeof strokePath>[0]): void {
  const { target } = e;
  if (!target || e.line <= 0) return;
  const middle = { x: target.x + target.width / 2, y: target.y + target.height / 2 };
  const dot = e.line * 2.2;
  const small = { x: middle.x - dot, y: middle.y - dot, width: 2 * dot, height: 2 * dot };
  const spot = e.mark === 'dot' ? small : target;
  const round = e.shape === 'circle' || e.mark === 'dot';
  const boxMiddle = { x: e.box.x + e.box.width / 2, y: e.box.y + e.box.height / 2 };
  const from = exitPoint(e.box, middle, e.shape === 'circle');
  const to = exitPoint(spot, boxMiddle, round);
  strokePath(canvas, leaderPath(from, to, e.leader), { width: e.line, colour });
  if (e.mark === 'dot') fillPath(canvas, ellipse(middle.x, middle.y, dot), colour);
  if (e.mark === 'area')
    strokePath(canvas, lensPath(e.shape, target, (e.radius * target.width) / e.box.width), {
      width: e.line,
      colour,
    });
}

function labelWords(e: InsetElement, environment: PaintEnvironment): Words[] {
  if (!e.states || e.times === null) return [];
  const rounded = e.times >= 10 ? Math.round(e.times) : Math.round(e.times * 10) / 10;
  const size = e.box.height * 0.1;
  const box = { x: e.box.x, y: e.box.y + e.box.height + size * 0.35, width: e.box.width, height: size * 1.4 };
  const text = `${rounded}×`;
  const set = setWords(
    text,
    { font: e.font, size, smallest: size * 0.5, leading: 1.2, tracking: 0, align: 'centre', vertical: 'top' },
    box,
    environment,
  );
  return [wordsOf(text, set, e.ink)];
}

/** The outline of a lens in its box. */
export function lensPath(shape: LensShape, box: Bounds, radius: number): PathCommand[] {
  const { x, y, width, height } = box;
  const [cx, cy] = [x + width / 2, y + height / 2];
  switch (shape) {
    case 'circle':
      return ellipse(cx, cy, width / 2, height / 2);
    case 'rounded':
      return roundedRectangle(box, radius);
    case 'square':
      return roundedRectangle(box, 0);
    case 'arch': {
      const r = Math.min(width / 2, height);
      const k = r * 0.5522847498;
      return [
        { type: 'M', x, y: y + height },
        { type: 'L', x, y: y + r },
        { type: 'C', x1: x, y1: y + r - k, x2: cx - k, y2: y, x: cx, y },
        { type: 'C', x1: cx + k, y1: y, x2: x + width, y2: y + r - k, x: x + width, y: y + r },
        { type: 'L', x: x + width, y: y + height },
        { type: 'Z' },
      ];
    }
    case 'hexagon':
      return polygon(
        Array.from({ length: 6 }, (_, i) => ({
          x: cx + (Math.cos((Math.PI / 3) * i - Math.PI / 2) * width) / 2,
          y: cy + (Math.sin((Math.PI / 3) * i - Math.PI / 2) * height) / 2,
        })),
      );
  }
}
