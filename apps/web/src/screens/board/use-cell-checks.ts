import { useMemo, useState } from 'react';
import { resolveForSlot } from '@scenograph/core/shot/resolve';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { CUTOUT_DOUBT } from '@scenograph/core/spec/checks/cutout-doubt';
import { judgeCutout } from '@scenograph/core/spec/checks/index';
import { slotKey as keyOf } from '@scenograph/core/spec/slot';
import { call, useRoute, type ListingDetail } from '../../api/client';
import { boardOf } from '../../api/revisions';
import { say } from '../../ui/notices';
import { tried } from '../../ui/tried';
import { useChecks } from '../listings/cell-picture';
import { mendFromBoard } from './mend';
import { useKnownSizes } from './use-known-sizes';
import { msg } from '../../language/language';

export interface CellAddress {
  variantId: string;
  slotKey: string;
}

/** One cell of a listing: what fills it, its stored picture where that is current, and its checks with what mends them. */
export function useCellChecks(detail: ListingDetail, { variantId, slotKey }: CellAddress) {
  const { id } = detail.listing;
  const { data: cell } = useRoute('GET /api/listings/:id/cell', {
    params: { id },
    query: { variantId, slotKey },
  });
  const variant = detail.variants.find((v) => v.id === variantId)!;
  const { slot, sheet } = useMemo(
    () =>
      detail.sheets
        .flatMap((s) => s.slots.map((own) => ({ sheet: s, slot: own })))
        .find((f) => keyOf(f.sheet, f.slot) === slotKey)!,
    [detail.sheets, slotKey],
  );
  const shot = detail.shots.find((s) => s.id === cell?.shotId) ?? null;
  const resolved = useMemo(
    () => (shot ? resolveForSlot(shot.document, slotKey, slot, variant.data) : null),
    [shot, slotKey, slot, variant.data],
  );
  const known = useKnownSizes(detail);
  const current = !!cell?.picture?.current;
  const live = useChecks(current ? null : resolved, slot, slotKey, known, !!cell);
  const [busy, setBusy] = useState(false);

  const mend = async (result: CheckResult) => {
    setBusy(true);
    try {
      await mendFromBoard(shot!.id, { slotKey, slot, data: variant.data }, result);
      say(
        'pass',
        msg('{fix}: done for {slot}. It can be undone on the stage.', {
          fix: msg(result.fix!.title),
          slot: slot.title,
        }),
      );
    } catch (e) {
      say('stop', (e as Error).message);
    }
    setBusy(false);
  };
  const waive = ({ check }: CheckResult, reason: string, everyVariant: boolean) =>
    tried(
      call(
        'POST /api/listings/:id/waivers',
        { params: { id }, body: { slotKey, variantId: everyVariant ? null : variantId, check, reason } },
        { of: boardOf(id) },
      ),
      `/api/listings/${id}`,
    );
  const withdraw = async ({ check }: CheckResult) => {
    const waiver = cell?.waivers.find((w) => w.check === check);
    if (!waiver) return;
    const params = { id, waiver: waiver.id };
    await tried(
      call('DELETE /api/listings/:id/waivers/:waiver', { params }, { of: boardOf(id) }),
      `/api/listings/${id}`,
    );
  };
  // A picture that is not made yet is measured here; what is known of its cutout is said beside.
  const doubt =
    cell?.doubtful && resolved
      ? judgeCutout(resolved.elements, variant.cutoutConfidence, slot.severity[CUTOUT_DOUBT.id])
      : null;
  const measured = live && doubt ? [doubt, ...live] : live;
  const checks: CheckResult[] | null | undefined = current ? cell.checks : measured;
  return { cell, variant, slot, sheet, shot, resolved, current, checks, busy, mend, waive, withdraw };
}
export type CellChecks = ReturnType<typeof useCellChecks>;
