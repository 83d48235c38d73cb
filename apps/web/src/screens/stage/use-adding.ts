import { isProduct } from '@scenograph/core/elements/product/model';
import { useCallback } from 'react';
import type { ShotElement } from '@scenograph/core/elements/index';
import { groundOf } from '@scenograph/core/elements/ground-of';
import type { ProductData } from '@scenograph/core/data/product-data';
import { newId } from '@scenograph/core/shot/edit';
import { freelyPlaced } from '@scenograph/core/shot/free-place';
import { resolveBase, swapProduct, type ResolvedShot } from '@scenograph/core/shot/resolve';
import { newProduct } from '@scenograph/core/shot/starters';
import { useKit } from '../../api/brand';
import type { ListingDetail } from '../../api/client';
import { say } from '../../ui/notices';
import { STARTERS, startOverlay } from './kinds/index';
import type { Starter } from './kinds/kind-ui';
import { useStage } from './store';
import type { Editing } from './use-editing';
import type { VariantChoice } from './variant-search';
import { msg } from '../../language/language';

/** Letters of a text at most; more of what is pasted is left out. */
const LONGEST_TEXT = 4000;

/** What can be added to a shot, and swapping the chosen product for another. */
export function useAdding(
  editing: Editing,
  resolved: ResolvedShot | null,
  data: ProductData | null,
  detail: ListingDetail,
) {
  const { add } = editing;
  const kit = useKit();
  const addOverlay = useCallback(
    (choice: Starter, words: { text?: string } = {}) =>
      add((now) => {
        const id = newId(choice.make('', now.frame, kit).kind, now);
        const made = { ...startOverlay(choice, id, now.frame, kit), ...words } as ShotElement;
        return freelyPlaced(made, resolveBase(now, data).elements, now.frame);
      }),
    [add, kit, data],
  );
  const addText = useCallback(
    (text?: string) => addOverlay(STARTERS[0].choices[0], text ? { text: text.slice(0, LONGEST_TEXT) } : {}),
    [addOverlay],
  );
  const addProduct = useCallback(
    (of: Omit<VariantChoice, 'title'> | undefined) => {
      if (!of?.data.cutout)
        return say('stop', msg('This variant has no cutout yet. Open its photo and cut it out.'));
      const other = of.productId !== detail.listing.productId;
      add((now) => ({
        ...newProduct(newId('product', now), of.data, now.frame, of.pose, resolveBase(now, data).elements),
        // A product of another listing stays itself whatever variant is on the stage.
        followsVariant: !other,
      }));
    },
    [add, data, detail.listing.productId],
  );
  const swap = (choice: VariantChoice) => {
    const { selected: chosen } = useStage.getState();
    const from = resolved?.elements.find((e) => e.id === chosen);
    if (!choice.data.cutout || !(from && isProduct(from)))
      return say('stop', msg('That product has no cutout yet. Open its photo and cut it out.'));
    const next = swapProduct(from, choice.data, groundOf(resolved!.elements), resolved!);
    const {
      id: _,
      kind: __,
      ...value
    } = {
      ...next,
      name: choice.title,
      pose: choice.pose,
      followsVariant: choice.productId === detail.listing.productId,
    };
    editing.patch(msg('Swap for {choice}', { choice: choice.title }), value);
  };
  return { addOverlay, addText, addProduct, swap };
}
