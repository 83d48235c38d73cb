import type { ElementBase } from '../base';
import type { ProductElement } from './model';

/** The visible products among elements. */
export function elementsOfProducts(elements: readonly ElementBase[]): ProductElement[] {
  return elements.filter((e): e is ProductElement => e.kind === 'product' && !e.hidden && e.opacity > 0);
}
