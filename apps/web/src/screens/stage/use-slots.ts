import { useEffect, useMemo, useState } from 'react';
import { useSearchParams } from 'react-router';
import { cellFitKey } from '@scenograph/core/shot/resolve';
import { slotKey } from '@scenograph/core/spec/slot';
import type { ListingDetail, Variant } from '../../api/client';
import type { SlotTarget } from './editing';
import type { FedSlot } from './size-strip';
import { useStage } from './store';

/** The slots that a shot can fill and fills, the one that is shown, and where changes go: base, slot or one cell. */
export function useSlots(shotId: string, detail: ListingDetail, variant: Variant | undefined) {
  const { document: shot, slot: activeKey } = useStage();
  const [params] = useSearchParams();
  const allSlots = useMemo<FedSlot[]>(
    () =>
      detail.sheets.flatMap((sheet) =>
        sheet.slots.map((slot) => ({ key: slotKey(sheet, slot), slot, marketplace: sheet.marketplace })),
      ),
    [detail.sheets],
  );
  const row = detail.shots.find((s) => s.id === shotId);
  const fed = useMemo(() => allSlots.filter((s) => row?.feeds.includes(s.key)), [allSlots, row]);
  const active = allSlots.find((s) => s.key === activeKey) ?? null;
  // Changes go to the slot, or to the one cell of it that is on the stage.
  const [ownCell, setOwnCell] = useState<boolean | null>(null);
  const cellKey = active && variant ? cellFitKey(active.key, variant.id) : null;
  const inCell = !!cellKey && (ownCell ?? !!shot?.fits[cellKey]);
  const edited = useMemo<FedSlot | null>(
    () => (active && inCell && cellKey ? { ...active, key: cellKey } : active),
    [active, inCell, cellKey],
  );
  const target: SlotTarget | null = useMemo(() => edited && { key: edited.key, slot: edited.slot }, [edited]);
  const wanted = params.get('slot');
  useEffect(() => {
    if (wanted && allSlots.some((s) => s.key === wanted)) useStage.getState().showSlot(wanted);
  }, [wanted, allSlots]);
  const cell =
    active && variant && detail.variants.length > 1
      ? { title: variant.data.variant || variant.data.sku, on: inCell, onChange: setOwnCell }
      : null;
  return { allSlots, row, fed, active, edited, target, cell };
}
