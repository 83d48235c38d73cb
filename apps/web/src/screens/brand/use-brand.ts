import { useMemo } from 'react';
import type { BrandKit } from '@scenograph/core/brand/kit';
import { useRoute } from '../../api/client';
import { useDocument } from '../../documents/document-bar';
import { createDocumentStore } from '../../documents/document-store';
import { BRANDS, storedBrand } from '../../documents/kinds';
import { useOpened } from '../../documents/use-opened';
import { msg } from '../../language/language';

const store = createDocumentStore<BrandKit, object>(BRANDS, () => ({}));

/** What a step of history is called, by the part of the kit that it changed. */
const LABELS: Record<keyof BrandKit, string> = {
  title: msg('Name'),
  locale: msg('Prices and numbers'),
  colours: msg('Palette'),
  fonts: msg('Fonts'),
  texts: msg('Standing texts'),
  logos: msg('Logos'),
  effects: msg('Default effects'),
};

/** The kit on the screen: stored as it is changed, undone step by step, also after a reload. */
export function useBrand() {
  const { data, error } = useRoute('GET /api/brand');
  const stored = useMemo(() => data && storedBrand(data), [data]);
  const opened = useOpened(store, 'brand', stored);
  const state = store.use();
  useDocument(store.use.getState, store.save);
  return {
    kit: opened ? state.document : null,
    error,
    state,
    save: store.save,
    change(next: Partial<BrandKit>) {
      const [part] = Object.keys(next) as (keyof BrandKit)[];
      state.edit(LABELS[part], (kit) => ({ ...kit, ...next }));
    },
  };
}
