import type { ElementBase } from '../base';
import type { ElementKind } from '../element';

/**
 * What an element is taken for whose kind this version does not know, such as one of a newer version: it keeps its place
 * and every key of its own, is not painted, and is stored as it came.
 */
export const unknownKind: ElementKind<ElementBase> = {
  kind: 'unknown',
  title: 'Unknown',
  role: 'overlay',
  weight: 9,
  schema: {},
  needs: () => ({ pictures: [], fonts: [] }),
  scaled: (element) => element,
};
