import type { PaintEnvironment } from '../environment';
import { ellipse, fillPath, roundedRectangle, strokePath } from '../../vector/outline';
import { exitPoint, leaderPath } from '../leader';
import { paintWords, setWords, wordsOf } from '../words';
import type { ElementPainter } from '../painter';
import { CalloutElement } from './model';

export const calloutPainter: ElementPainter<CalloutElement> = {
  inVectors: () => true,
  extent(e) {
    const { box, target, line } = e;
    const reach = line * 3 + 2;
    const pad = e.plate?.padding ?? 0;
    const [left, top] = [box.x - pad, box.y - pad];
    const [right, bottom] = [box.x + box.width + pad, box.y + box.height + pad];
    if (!target) return { x: left, y: top, width: right - left, height: bottom - top };
    const x = Math.min(left, target.x - reach);
    const y = Math.min(top, target.y - reach);
    return {
      x,
      y,
      width: Math.max(right, target.x + reach) - x,
      height: Math.max(bottom, target.y + reach) - y,
    };
  },
  words: (e, environment) =>
    e.text.trim() === '' ? [] : [wordsOf(e.text, setCallout(e, environment), e.ink)],
  paint(e, canvas, environment) {
    if (e.text.trim() === '') return;
    const set = setCallout(e, environment);
    const pad = e.plate ? e.plate.padding : e.size * 0.25;
    const first = Math.min(...set.lines.map((l) => l.x));
    const block = {
      x: set.left + first - pad,
      y: set.top - pad * 0.6,
      width: set.width + 2 * pad,
      height: set.height + pad * 1.2,
    };
    if (e.target && e.line > 0) {
      const from = exitPoint(block, e.target, false);
      strokePath(canvas, leaderPath(from, e.target, e.leader), { width: e.line, colour: e.lineColour });
      const r = e.line * 2.4;
      const dot = ellipse(e.target.x, e.target.y, r);
      if (e.dot === 'filled') fillPath(canvas, dot, e.lineColour);
      if (e.dot === 'ring') {
        fillPath(canvas, dot, '#ffffff');
        strokePath(canvas, dot, { width: e.line, colour: e.lineColour });
      }
    }
    if (e.plate) {
      const alpha = canvas.globalAlpha;
      canvas.globalAlpha = alpha * e.plate.opacity;
      fillPath(canvas, roundedRectangle(block, e.plate.radius), e.plate.colour);
      canvas.globalAlpha = alpha;
    }
    paintWords([wordsOf(e.text, set, e.ink)], canvas);
  },
};

function setCallout(e: CalloutElement, environment: PaintEnvironment) {
  return setWords(e.text, { ...e, tracking: 0, vertical: 'middle' }, e.box, environment);
}
