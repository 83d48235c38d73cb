import type { ElementKind } from '../element';
import { productSchema, type ProductElement } from './model';
import { paintProduct, paintUnderProduct, showsOwnShadow } from './paint';

export const productKind: ElementKind<ProductElement> = {
  kind: 'product',
  title: 'Product',
  role: 'subject',
  weight: 9,
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
