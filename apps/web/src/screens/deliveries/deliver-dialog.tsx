import { useState } from 'react';
import { useNavigate } from 'react-router';
import { slotKey } from '@scenograph/core/spec/slot';
import { refresh, request, type ListingDetail } from '../../api/client';
import { Button } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { bytesText } from '../../ui/status';

/** Choose slots and variants, then order the pictures. */
export function DeliverDialog({
  detail,
  onClose,
  before,
}: {
  detail: ListingDetail;
  onClose(): void;
  /** Runs first: unsaved edits must be stored before the server paints. */
  before?: () => Promise<void>;
}) {
  const navigate = useNavigate();
  const { listing, sheets, shots, variants } = detail;
  const fed = (key: string) => shots.some((s) => s.feeds.includes(key));
  const all = sheets.flatMap((sheet) => sheet.slots.map((slot) => slotKey(sheet, slot))).filter(fed);
  const [slots, setSlots] = useState<string[]>(all);
  const ready = variants.filter((v) => v.data.cutout);
  const [chosen, setChosen] = useState<string[]>(ready.map((v) => v.id));
  const [busy, setBusy] = useState(false);
  const [trouble, setTrouble] = useState('');
  const toggle = (list: string[], value: string, on: boolean) =>
    on ? [...list, value] : list.filter((x) => x !== value);
  const count = slots.length * chosen.length;

  const deliver = async () => {
    setBusy(true);
    setTrouble('');
    try {
      await before?.();
      const made = await request<{ id: string }>('POST', `/api/listings/${listing.id}/deliveries`, {
        slots,
        variants: chosen,
      });
      refresh('/api/deliveries');
      void navigate(`/deliveries/${made.id}`);
    } catch (error) {
      setTrouble((error as Error).message);
      setBusy(false);
    }
  };

  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={`Deliver ${listing.title}`}
      about="Pictures are painted at full size, kept within each slot's byte limit, named, checked and zipped with a manifest."
      footer={
        <>
          {trouble && (
            <p role="alert" className="text-coral-ink mr-auto">
              {trouble}
            </p>
          )}
          <Button onClick={onClose}>Not now</Button>
          <Button tone="main" disabled={!count || busy} onClick={deliver}>
            Deliver {count} picture{count === 1 ? '' : 's'}
          </Button>
        </>
      }
    >
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
                          {slot.title}
                          <span className="measure text-ink-2 ml-auto whitespace-nowrap">
                            {isFed ? `${slot.width} x ${slot.height}, ${bytesText(slot.maxBytes)}` : 'owed'}
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
          <legend className="mb-1 font-semibold">Variants</legend>
          {variants.map((v) => (
            <label key={v.id} className="flex h-7 items-center gap-2">
              <input
                type="checkbox"
                className="accent-spruce"
                checked={chosen.includes(v.id)}
                disabled={!v.data.cutout}
                onChange={(e) => setChosen((c) => toggle(c, v.id, e.target.checked))}
              />
              {v.data.variant || v.data.title}
              {!v.data.cutout && <span className="text-ink-2">no cutout</span>}
            </label>
          ))}
        </fieldset>
      </div>
    </Dialog>
  );
}
