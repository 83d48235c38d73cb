import { isProduct } from '@scenograph/core/elements/product/model';
import type { ShotElement } from '@scenograph/core/elements/index';
import { Select } from '../../../ui/controls';
import { patchAt, type Field } from './fields';
import { msg } from '../../../language/language';

/** Which product something hangs on, where there are several. */
export function ProductChoice({
  element,
  elements,
  commit,
}: Pick<Field, 'commit'> & {
  element: ShotElement & { of: string | null };
  elements: readonly ShotElement[];
}) {
  const products = elements.filter(isProduct);
  if (products.length < 2) return null;
  return (
    <Select
      label={msg('Product')}
      value={element.of ?? products[0].id}
      onChange={(of) => commit(msg('Choose a product'), patchAt(element, 'of', of))}
      options={products.map((p) => ({ value: p.id, title: p.name }))}
    />
  );
}
