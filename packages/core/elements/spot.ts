import type { ElementBase } from './base';
import { isProduct, type ProductElement } from './product/model';
import type { Point } from '../vector/outline';

/** The product that something hangs on: the one named, else the first that is shown. */
export function productOf(of: string | null, elements: readonly ElementBase[]): ProductElement | null {
  const products = elements.filter((e): e is ProductElement => isProduct(e) && !e.hidden);
  return products.find((e) => e.id === of) ?? products[0] ?? null;
}

/** A place on a product, given as shares of its box, in the frame. */
export function spotOn({ box }: ProductElement, spot: Point): Point {
  const a = (box.rotation * Math.PI) / 180;
  const [dx, dy] = [(spot.x - 0.5) * box.width, (spot.y - 0.5) * box.height];
  return {
    x: box.x + box.width / 2 + dx * Math.cos(a) - dy * Math.sin(a),
    y: box.y + box.height / 2 + dx * Math.sin(a) + dy * Math.cos(a),
  };
}

/** The spot on a product, as shares of its box, that lies at a place of the frame. */
export function spotAt({ box }: ProductElement, at: Point): Point {
  const a = (-box.rotation * Math.PI) / 180;
  const [dx, dy] = [at.x - box.x - box.width / 2, at.y - box.y - box.height / 2];
  return {
    x: 0.5 + (dx * Math.cos(a) - dy * Math.sin(a)) / box.width,
    y: 0.5 + (dx * Math.sin(a) + dy * Math.cos(a)) / box.height,
  };
}

/** A line from one place to another: straight, with an elbow, or bowed. Ends at the given places. */
export type Leader = 'none' | 'straight' | 'elbow' | 'curve';
export const LEADERS: readonly Leader[] = ['none', 'straight', 'elbow', 'curve'];
