import { useMemo } from 'react';
import type { ProductData } from '@scenograph/core/data/product-data';
import { resolveBase, resolveForSlot } from '@scenograph/core/shot/resolve';
import { useChecks, useWatch } from '../listings/cell-picture';
import type { FedSlot } from './size-strip';
import { useStage } from './store';

/** The shot as it is seen, in its base or in a slot, and what the checks find in it; the base is watched over alone. */
export function useSeen(
  active: FedSlot | null,
  data: ProductData | null,
  known: ReadonlyMap<string, { width: number; height: number }>,
) {
  const { document: shot } = useStage();
  const resolved = useMemo(() => {
    if (!shot) return null;
    return active ? resolveForSlot(shot, active.key, active.slot, data) : resolveBase(shot, data);
  }, [shot, active, data]);
  const results = useChecks(
    active ? resolved : null,
    active?.slot ?? null,
    active?.key ?? '',
    known,
    !!active,
  );
  const watched = useWatch(active ? null : resolved, known);
  return { resolved, found: active ? results : watched };
}
