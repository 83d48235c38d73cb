import type { ElementBase } from '../base';
import { isProduct, type ProductElement } from './model';

/** The visible products among elements. */
export function elementsOfProducts(elements: readonly ElementBase[]): ProductElement[] {
  return elements.filter((e): e is ProductElement => isProduct(e) && !e.hidden && e.opacity > 0);
}
