import { useMemo } from 'react';
import { useParams, useSearchParams } from 'react-router';
import { slotKey as keyOf, type Slot, type SpecSheet } from '@scenograph/core/spec/slot';
import { type ListingDetail, type ShotRow, type Variant, useRoute } from '../../api/client';

export interface OpenCell {
  detail: ListingDetail;
  slot: Slot;
  sheet: SpecSheet;
  slotKey: string;
  variant: Variant;
  /** The shot that fills it. */
  shot: ShotRow | null;
  /** Goes to another cell of the listing. */
  go(slotKey: string, variantId: string): void;
}

/** The cell that a screen's address names: a slot and a variant of a listing; the first of each otherwise. */
export function useCell(): { cell: OpenCell | null; error: Error | undefined } {
  const { id = '' } = useParams();
  const [params, setParams] = useSearchParams();
  const { data: detail, error } = useRoute('GET /api/listings/:id', { params: { id } });
  const wanted = params.get('slot');
  const wantedVariant = params.get('variant');
  const cell = useMemo<OpenCell | null>(() => {
    if (!detail) return null;
    const all = detail.sheets.flatMap((sheet) =>
      sheet.slots.map((slot) => ({ sheet, slot, slotKey: keyOf(sheet, slot) })),
    );
    const found = all.find((s) => s.slotKey === wanted) ?? all[0];
    const variant = detail.variants.find((v) => v.id === wantedVariant) ?? detail.variants[0];
    if (!found || !variant) return null;
    const own = detail.cellFeeds.find((c) => c.slotKey === found.slotKey && c.variantId === variant.id);
    const shot = own
      ? detail.shots.find((s) => s.id === own.shotId)
      : detail.shots.find((s) => s.feeds.includes(found.slotKey));
    return {
      detail,
      ...found,
      variant,
      shot: shot ?? null,
      go: (slot, v) => setParams({ slot, variant: v }, { replace: true }),
    };
  }, [detail, wanted, wantedVariant, setParams]);
  return { cell, error };
}
