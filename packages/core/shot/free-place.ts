import { isShape } from '../elements/shape/model';
import { uprightBounds } from '../vector/box';
import { elementKind, type ShotElement } from '../elements/index';
import { overlapArea } from './fit/bounds';
import { coveredBounds } from './fit/covered';

/**
 * A new overlay at the place, of a grid over the frame, where it covers least of what is there: words and signs most of
 * all, then the product. What stretches, clings or covers most of the frame stays where it is.
 */
export function freelyPlaced<E extends ShotElement>(
  element: E,
  elements: readonly ShotElement[],
  frame: { width: number; height: number },
): E {
  const kind = elementKind(element.kind);
  const { width, height } = uprightBounds(element.box);
  if (
    kind.role !== 'overlay' ||
    element.spread ||
    kind.attached ||
    width * height > 0.4 * frame.width * frame.height
  )
    return element;
  const margin = 0.06 * Math.min(frame.width, frame.height);
  const others = elements.filter((e) => !e.hidden && !e.spread && elementKind(e.kind).role !== 'ground');
  const weight = (e: ShotElement) =>
    elementKind(e.kind).role === 'subject' ? 0.6 : isShape(e) && e.form !== 'icon' ? 0.15 : 1;
  const steps = [0, 0.25, 0.5, 0.75, 1];
  const [fromX, fromY] = [element.box.x, element.box.y];
  let best = { x: fromX, y: fromY };
  let least = Infinity;
  for (const v of steps)
    for (const u of steps) {
      const x = margin + u * (frame.width - 2 * margin - width);
      const y = margin + v * (frame.height - 2 * margin - height);
      const box = { x, y, width, height };
      const covered = others.reduce((sum, e) => sum + weight(e) * overlapArea(box, coveredBounds(e)), 0);
      // Of equal places the one nearest to where such an overlay usually stands.
      const cost = covered + 0.001 * width * height * (Math.hypot(x - fromX, y - fromY) / frame.width);
      if (cost < least) [best, least] = [{ x, y }, cost];
    }
  return { ...element, box: { ...element.box, x: Math.round(best.x), y: Math.round(best.y) } };
}
