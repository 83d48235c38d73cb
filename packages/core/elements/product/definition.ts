import { NO_PICTURE } from '../base';
import type { ElementKind } from '../element';
import { productSchema, type ProductElement } from './model';
import { paintProduct, paintUnderProduct, showsOwnShadow } from './paint';

export const productKind: ElementKind<ProductElement> = {
  kind: 'product',
  title: 'Product',
  role: 'subject',
  weight: 9,
  plain: ({ shadow }) => ({ shadow: { ...shadow, strength: 0, contact: 0 } }),
  ownColours: ({ tone }) => ({ tone: { ...tone, strength: 0 } }),
  asPlace: (element) =>
    element.followsVariant
      ? { expects: 'product', hint: 'The product', required: true, area: element.box }
      : null,
  isOpen: (element) => element.picture === NO_PICTURE,
  emptied: () => ({
    picture: NO_PICTURE,
    hidden: true,
    millimetres: null,
    base: null,
    ownShadow: null,
    pack: null,
    followsVariant: true,
  }),
  schema: productSchema,
  needs: (element) => ({
    pictures: [
      element.picture,
      ...(showsOwnShadow(element) ? [element.ownShadow!.picture] : []),
      ...(element.pack?.others.map((o) => o.picture) ?? []),
    ],
    fonts: [],
  }),
  scaled: (element) => element,
  paintUnder: paintUnderProduct,
  paint: paintProduct,
};
