import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { slotKey } from '@scenograph/core/spec/slot';
import { call, refresh, type DeliveryEstimate, type ListingDetail } from '../../api/client';
import type { Which } from './which';

/** What of a listing is to be delivered, what that will cost, and the order itself. */
export function useOrder({
  detail,
  chosen,
  before,
}: {
  detail: ListingDetail;
  chosen?: { variantId: string; slotKey: string }[];
  before?: () => Promise<void>;
}) {
  const navigate = useNavigate();
  const { sheets, shots, variants, cellFeeds } = detail;
  const params = { id: detail.listing.id };
  const filled = (key: string) =>
    shots.some((s) => s.feeds.includes(key)) || cellFeeds.some((c) => c.slotKey === key && c.shotId);
  const [slots, setSlots] = useState<string[]>(() =>
    (chosen
      ? [...new Set(chosen.map((c) => c.slotKey))]
      : sheets.flatMap((sheet) => sheet.slots.map((slot) => slotKey(sheet, slot)))
    ).filter(filled),
  );
  const [variantIds, setVariantIds] = useState<string[]>(() =>
    chosen ? [...new Set(chosen.map((c) => c.variantId))] : variants.map((v) => v.id),
  );
  const [which, setWhich] = useState<Which>('all');
  const [priority, setPriority] = useState(0);
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const [estimate, setEstimate] = useState<DeliveryEstimate | null>(null);
  const body = useMemo(
    () => ({ slots, variants: variantIds, which, priority }),
    [slots, variantIds, which, priority],
  );
  useEffect(() => {
    // What was measured for another choice is not shown for this one.
    setEstimate(null);
    if (!body.slots.length || !body.variants.length) return;
    let here = true;
    const timer = setTimeout(() => {
      (before ? before() : Promise.resolve())
        .then(() => call('POST /api/listings/:id/deliveries/estimate', { params, body }))
        .then((e) => here && (setEstimate(e), setTrouble('')))
        .catch((e: Error) => here && setTrouble(e.message));
    }, 150);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [body, params.id, before]);
  const deliver = async () => {
    setBusy(true);
    setTrouble('');
    try {
      await before?.();
      const made = await call('POST /api/listings/:id/deliveries', { params, body });
      refresh('/api/deliveries');
      void navigate(`/deliveries/${made.id}`);
    } catch (error) {
      setTrouble((error as Error).message);
      setBusy(false);
    }
  };
  return {
    ...{ filled, slots, setSlots, variantIds, setVariantIds, which, setWhich, priority, setPriority },
    ...{ busy, trouble, estimate, deliver },
  };
}
export type Order = ReturnType<typeof useOrder>;
