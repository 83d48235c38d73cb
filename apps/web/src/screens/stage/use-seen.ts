import { useMemo } from 'react';
import type { ProductData } from '@scenograph/core/data/product-data';
import { resolveBase, resolveForSlot } from '@scenograph/core/shot/resolve';
import { CUTOUT_DOUBT } from '@scenograph/core/spec/checks/cutout-doubt';
import { judgeCutout } from '@scenograph/core/spec/checks/index';
import { useChecks, useWatch } from '../listings/cell-picture';
import type { FedSlot } from './size-strip';
import { useStage } from './store';

/**
 * The shot as it is seen, in its base or in a slot, and what the checks find in it; the base is watched over alone.
 * @param cutoutConfidence of the variant's automatic cutout; null where there is no doubt about it
 */
export function useSeen(
  active: FedSlot | null,
  data: ProductData | null,
  known: ReadonlyMap<string, { width: number; height: number }>,
  cutoutConfidence: number | null,
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
  const measured = active ? results : watched;
  const severity = active?.slot.severity[CUTOUT_DOUBT.id];
  const found = useMemo(() => {
    const shown = resolved?.elements.filter((e) => !e.hidden) ?? [];
    const doubt = judgeCutout(shown, cutoutConfidence, severity);
    return measured && doubt ? [doubt, ...measured] : measured;
  }, [measured, resolved, cutoutConfidence, severity]);
  return { resolved, found };
}
