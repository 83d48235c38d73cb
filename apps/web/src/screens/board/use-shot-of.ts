import { useCallback, useMemo } from 'react';
import type { ListingDetail, ShotRow } from '../../api/client';

/** Which shot fills a cell: its own, or else its slot's. */
export function useShotOf({ shots, cellFeeds }: ListingDetail) {
  const shotById = useMemo(() => new Map(shots.map((s) => [s.id, s])), [shots]);
  const shotBySlot = useMemo(
    () => new Map(shots.flatMap((s) => s.feeds.map((f) => [f, s] as const))),
    [shots],
  );
  const ownFeeds = useMemo(
    () => new Map(cellFeeds.map((f) => [`${f.variantId} ${f.slotKey}`, f.shotId])),
    [cellFeeds],
  );
  const shotOf = useCallback(
    (variantId: string, slotKey: string): ShotRow | null => {
      const own = ownFeeds.get(`${variantId} ${slotKey}`);
      return (own === undefined ? shotBySlot.get(slotKey) : own && shotById.get(own)) || null;
    },
    [ownFeeds, shotBySlot, shotById],
  );
  return { shotOf, shotBySlot };
}
