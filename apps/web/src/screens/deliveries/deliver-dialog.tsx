import { useEffect, useMemo, useState } from 'react';
import { useNavigate } from 'react-router';
import { slotKey } from '@scenograph/core/spec/slot';
import { refresh, type DeliveryEstimate, type ListingDetail, call } from '../../api/client';
import { Button, Segmented, Select } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { bytesText } from '../../ui/status';
import { WHICH, type Which } from './which';

/** So many variants are listed one by one; beyond, all or those chosen on the board are taken. */
const LISTED = 40;

export function secondsText(seconds: number): string {
  if (seconds < 1) return 'no time';
  if (seconds < 90) return `${Math.round(seconds)} s`;
  if (seconds < 5400) return `${Math.round(seconds / 60)} min`;
  return `${(seconds / 3600).toFixed(1)} h`;
}

/** Choose slots, variants and which of their pictures; what it will cost and be called is shown before it is ordered. */
export function DeliverDialog({
  detail,
  chosen: cells,
  onClose,
  before,
}: {
  detail: ListingDetail;
  /** Cells chosen on the board; their slots and variants are taken. */
  chosen?: { variantId: string; slotKey: string }[];
  onClose(): void;
  /** Runs first: unsaved edits must be stored before the server paints. */
  before?: () => Promise<void>;
}) {
  const navigate = useNavigate();
  const { listing, sheets, shots, variants, cellFeeds } = detail;
  const fed = (key: string) =>
    shots.some((s) => s.feeds.includes(key)) || cellFeeds.some((c) => c.slotKey === key && c.shotId);
  const all = sheets.flatMap((sheet) => sheet.slots.map((slot) => slotKey(sheet, slot))).filter(fed);
  const [slots, setSlots] = useState<string[]>(() =>
    cells ? [...new Set(cells.map((c) => c.slotKey))].filter(fed) : all,
  );
  const [chosen, setChosen] = useState<string[]>(() =>
    cells ? [...new Set(cells.map((c) => c.variantId))] : variants.map((v) => v.id),
  );
  const [which, setWhich] = useState<Which>('all');
  const [priority, setPriority] = useState('0');
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const [estimate, setEstimate] = useState<DeliveryEstimate | null>(null);
  const toggle = (list: string[], value: string, on: boolean) =>
    on ? [...list, value] : list.filter((x) => x !== value);
  const body = useMemo(
    () => ({ slots, variants: chosen, which, priority: Number(priority) }),
    [slots, chosen, which, priority],
  );
  useEffect(() => {
    if (!body.slots.length || !body.variants.length) return setEstimate(null);
    let here = true;
    const timer = setTimeout(() => {
      (before ? before() : Promise.resolve())
        .then(() => call('POST /api/listings/:id/deliveries/estimate', { params: { id: listing.id }, body }))
        .then((e) => here && (setEstimate(e), setTrouble('')))
        .catch((e: Error) => here && setTrouble(e.message));
    }, 150);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [body, listing.id, before]);

  const deliver = async () => {
    setBusy(true);
    setTrouble('');
    try {
      await before?.();
      const made = await call('POST /api/listings/:id/deliveries', { params: { id: listing.id }, body });
      refresh('/api/deliveries');
      void navigate(`/deliveries/${made.id}`);
    } catch (error) {
      setTrouble((error as Error).message);
      setBusy(false);
    }
  };
  const count = estimate?.pictures ?? 0;

  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`Deliver ${listing.title}`}
      about="Pictures are painted at full size, kept within each slot's byte limit, named, checked and zipped with a manifest. What is made already and has not changed costs nothing."
      footer={
        <>
          {trouble && (
            <p role="alert" className="text-coral-ink mr-auto">
              {trouble}
            </p>
          )}
          <Select
            label="Priority"
            value={priority}
            onChange={setPriority}
            options={[
              { value: '5', title: 'High' },
              { value: '0', title: 'Normal' },
              { value: '-5', title: 'Low' },
            ]}
          />
          <Button onClick={onClose}>Cancel</Button>
          <Button tone="main" disabled={!count || busy} onClick={deliver}>
            Deliver {count} picture{count === 1 ? '' : 's'}
          </Button>
        </>
      }
    >
      <div className="mb-4 grid grid-cols-[1fr_260px] items-start gap-6">
        <div>
          <Segmented<Which> label="Which pictures" value={which} onChange={setWhich} options={WHICH} />
          {estimate && estimate.names.length > 0 && (
            <details className="mt-2">
              <summary className="text-ink-2">
                Names, such as <span className="measure text-ink">{estimate.names[0]}</span>
              </summary>
              <ul className="measure mt-1 grid gap-0.5">
                {estimate.names.map((n) => (
                  <li key={n}>{n}</li>
                ))}
              </ul>
            </details>
          )}
          {!!estimate?.clashes && (
            <p className="text-amber-ink mt-1">
              {estimate.clashes} file{estimate.clashes === 1 ? '' : 's'} would have the name of another and{' '}
              {estimate.clashes === 1 ? 'gets' : 'get'} a number. Put {'{sku}'}, {'{slot}'} or {'{n}'} in the
              slot's pattern.
            </p>
          )}
        </div>
        <dl className="measure grid grid-cols-[auto_1fr] gap-x-4 gap-y-0.5" aria-live="polite">
          {estimate ? (
            <>
              <dt className="text-ink-2">to be painted</dt>
              <dd>
                {estimate.toPaint} of {estimate.pictures}
              </dd>
              <dt className="text-ink-2">about</dt>
              <dd>{estimate.seconds === null ? 'no time known yet' : secondsText(estimate.seconds)}</dd>
              <dt className="text-ink-2">in all</dt>
              <dd>{estimate.bytes === null ? 'no size known yet' : bytesText(estimate.bytes)}</dd>
              {estimate.missing > 0 && (
                <>
                  <dt className="text-ink-2">missing, left out</dt>
                  <dd>{estimate.missing}</dd>
                </>
              )}
            </>
          ) : (
            <dt className="text-ink-2">{slots.length && chosen.length ? 'measuring' : 'nothing chosen'}</dt>
          )}
        </dl>
      </div>
      <div className="grid grid-cols-[1fr_220px] gap-6">
        <div className="grid gap-3">
          {sheets.map((sheet) => {
            const keys = sheet.slots.map((slot) => slotKey(sheet, slot)).filter(fed);
            const on = keys.length > 0 && keys.every((k) => slots.includes(k));
            return (
              <fieldset key={sheet.id}>
                <legend className="mb-1">
                  <label className="flex items-center gap-2 font-semibold">
                    <input
                      type="checkbox"
                      className="accent-spruce"
                      checked={on}
                      disabled={!keys.length}
                      onChange={(e) =>
                        setSlots((s) => [
                          ...s.filter((k) => !keys.includes(k)),
                          ...(e.target.checked ? keys : []),
                        ])
                      }
                    />
                    {sheet.marketplace}
                  </label>
                </legend>
                <ul className="grid grid-cols-2 gap-x-4 pl-5.5">
                  {sheet.slots.map((slot) => {
                    const key = slotKey(sheet, slot);
                    const isFed = fed(key);
                    return (
                      <li key={key}>
                        <label className={`flex h-7 items-center gap-2 ${isFed ? '' : 'text-ink-2'}`}>
                          <input
                            type="checkbox"
                            className="accent-spruce"
                            checked={slots.includes(key)}
                            disabled={!isFed}
                            onChange={(e) => setSlots((s) => toggle(s, key, e.target.checked))}
                          />
                          <span className="truncate">{slot.title}</span>
                          <span className="measure text-ink-2 ml-auto whitespace-nowrap">
                            {isFed
                              ? `${slot.width} x ${slot.height}, ${bytesText(slot.maxBytes)}`
                              : 'missing'}
                          </span>
                        </label>
                      </li>
                    );
                  })}
                </ul>
              </fieldset>
            );
          })}
        </div>
        <fieldset>
          <legend className="mb-1 font-semibold">
            <label className="flex items-center gap-2">
              <input
                type="checkbox"
                className="accent-spruce"
                checked={chosen.length === variants.length}
                onChange={(e) => setChosen(e.target.checked ? variants.map((v) => v.id) : [])}
              />
              Variants <span className="measure">{chosen.length}</span>
            </label>
          </legend>
          {variants.length <= LISTED ? (
            variants.map((v) => (
              <label key={v.id} className="flex h-7 items-center gap-2 pl-5.5">
                <input
                  type="checkbox"
                  className="accent-spruce"
                  checked={chosen.includes(v.id)}
                  onChange={(e) => setChosen((c) => toggle(c, v.id, e.target.checked))}
                />
                <span className="truncate">{v.data.variant || v.data.title}</span>
                {!v.data.cutout && <span className="text-ink-2 whitespace-nowrap">no cutout</span>}
              </label>
            ))
          ) : (
            <p className="text-ink-2">To take some only, choose their cells on the board.</p>
          )}
        </fieldset>
      </div>
    </Dialog>
  );
}
