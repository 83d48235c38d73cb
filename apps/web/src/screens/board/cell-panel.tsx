import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { resolveForSlot } from '@scenograph/core/shot/resolve';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { slotKey as keyOf } from '@scenograph/core/spec/slot';
import { blobUrl, reducedUrl, refresh, type ListingDetail, call, useRoute } from '../../api/client';
import { Button, buttonClass } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { say } from '../../ui/notices';
import { bytesText, StatusMark } from '../../ui/status';
import { useChecks } from '../listings/cell-picture';
import { PaintedShot } from '../listings/painted-shot';
import { mendFromBoard } from './mend';
import { useKnownSizes } from './use-known-sizes';

const WIDE = 296;
const TALL = 230;

/** One cell of the board: its picture, how it stands, every check with limit and fix, and where to go from here. */
export function CellPanel({
  detail,
  cell: { variantId, slotKey },
}: {
  detail: ListingDetail;
  cell: { variantId: string; slotKey: string };
}) {
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
  const checks = current ? cell.checks : live;
  const [waiving, setWaiving] = useState<CheckResult | null>(null);
  const [marked, setMarked] = useState<CheckResult | null>(null);
  const [busy, setBusy] = useState(false);
  const k = Math.min(WIDE / slot.width, TALL / slot.height);
  const size = { width: Math.round(slot.width * k), height: Math.round(slot.height * k) };

  const mend = async (result: CheckResult) => {
    setBusy(true);
    try {
      await mendFromBoard(shot!.id, { slotKey, slot, data: variant.data }, result);
      say('pass', `${result.fix!.title}: done for ${slot.title}. It can be undone on the stage.`);
    } catch (e) {
      say('stop', (e as Error).message);
    }
    setBusy(false);
  };
  const waive = async (result: CheckResult, reason: string, all: boolean) => {
    try {
      await call('POST /api/listings/:id/waivers', {
        params: { id },
        body: { slotKey, variantId: all ? null : variantId, check: result.check, reason },
      });
      refresh(`/api/listings/${id}`);
      setWaiving(null);
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  const withdraw = async (result: CheckResult) => {
    const waiver = cell?.waivers.find((w) => w.check === result.check);
    if (waiver) await call('DELETE /api/listings/:id/waivers/:waiver', { params: { id, waiver: waiver.id } });
    refresh(`/api/listings/${id}`);
  };
  const to = (place: string) =>
    `/listings/${detail.listing.id}/${place}?slot=${encodeURIComponent(slotKey)}&variant=${variantId}`;

  return (
    <aside
      aria-label={`${variant.data.variant || variant.data.title}, ${slot.title}`}
      className="border-line bg-card w-[328px] shrink-0 overflow-y-auto border-t border-l p-4"
    >
      <h2 className="font-display text-[16px] leading-tight font-bold">{slot.title}</h2>
      <p className="text-ink-2">
        {sheet.marketplace}, {variant.data.variant || variant.data.title}
      </p>
      <div className="relative mx-auto my-3" style={size}>
        {current ? (
          <a href={blobUrl(cell.picture!.blob)} target="_blank" rel="noreferrer" aria-label="Open the file">
            <img
              src={reducedUrl(cell.picture!.blob, 640)}
              alt={cell.words.alt ?? ''}
              style={size}
              className={`border-line border ${slot.background.kind === 'transparent' ? 'clear-ground' : ''}`}
            />
          </a>
        ) : resolved ? (
          <PaintedShot
            resolved={resolved}
            scale={Math.min(1, k * window.devicePixelRatio)}
            style={size}
            className="border-line border bg-white"
          />
        ) : (
          <span className="border-ink-3 text-ink-2 flex h-full items-center justify-center border border-dashed text-center">
            {cell?.missing === 'no-cutout' ? 'The variant has no cutout' : 'Missing: no shot fills it'}
          </span>
        )}
        {marked?.where && (
          <span
            aria-hidden
            className={`pointer-events-none absolute border-2 ${marked.verdict === 'stop' ? 'border-coral' : 'border-amber'}`}
            style={{
              left: `${marked.where.x * 100}%`,
              top: `${marked.where.y * 100}%`,
              width: `${marked.where.width * 100}%`,
              height: `${marked.where.height * 100}%`,
            }}
          />
        )}
      </div>
      {cell && (
        <p className="text-ink-2 mb-3 text-[12px]">
          <span className="measure text-ink block truncate" title={cell.fileName}>
            {cell.fileName}
          </span>
          {cell.picture && (
            <>
              <span className="measure">
                {cell.picture.width} x {cell.picture.height}, {cell.picture.format},{' '}
                {bytesText(cell.picture.bytes)}
                {cell.picture.quality !== null && `, q ${cell.picture.quality}`}
              </span>
              {!current && ' (out of date)'}
            </>
          )}
          {!cell.picture && !cell.missing && (cell.reason ?? 'Not made yet; measured as it would be.')}
        </p>
      )}
      <div className="mb-4 grid grid-cols-2 gap-2">
        {shot ? (
          <Link
            to={`/shots/${shot.id}?slot=${encodeURIComponent(slotKey)}&variant=${variantId}`}
            className={buttonClass('main')}
          >
            Open on the stage
          </Link>
        ) : (
          <span />
        )}
        <Link to={to('compare')} className={buttonClass()}>
          Compare shots
        </Link>
        {shot && (
          <Link to={to('encoding')} className={buttonClass()}>
            Encoding desk
          </Link>
        )}
      </div>
      <h3 className="mb-1.5 font-semibold">Checks</h3>
      {!checks && <p className="text-ink-2">{resolved ? 'Measuring ...' : 'Nothing to measure yet.'}</p>}
      <ul className="grid gap-2.5">
        {[...(checks ?? [])]
          .sort((a, b) => ORDER[rank(a)] - ORDER[rank(b)])
          .map((r, i) => (
            <li
              key={`${r.check}-${i}`}
              className="flex gap-2"
              onMouseEnter={() => setMarked(r)}
              onMouseLeave={() => setMarked(null)}
            >
              <span className="pt-1">
                <StatusMark mark={r.waived ? 'pass' : r.verdict} />
              </span>
              <div className="min-w-0 grow">
                <p className="flex flex-wrap items-baseline justify-between gap-x-2">
                  <span className="font-medium">{r.title}</span>
                  <span className="measure text-ink-2">
                    {r.measured} ({r.limit})
                  </span>
                </p>
                {r.verdict !== 'pass' && (
                  <>
                    <p className="text-ink-2 text-[12px]">{r.waived ? `Waived: ${r.waived}` : r.sentence}</p>
                    <div className="mt-1 flex gap-1.5">
                      {r.fix && shot && !r.waived && (
                        <Button disabled={busy} onClick={() => void mend(r)}>
                          {r.fix.title}
                        </Button>
                      )}
                      {current &&
                        (r.waived ? (
                          <Button tone="quiet" onClick={() => void withdraw(r)}>
                            Do not waive
                          </Button>
                        ) : (
                          <Button tone="quiet" onClick={() => setWaiving(r)}>
                            Waive
                          </Button>
                        ))}
                    </div>
                  </>
                )}
              </div>
            </li>
          ))}
      </ul>
      {waiving && <WaiveDialog result={waiving} onWaive={waive} onClose={() => setWaiving(null)} />}
    </aside>
  );
}

const ORDER: Record<string, number> = { stop: 0, look: 1, waived: 2, pass: 3 };
const rank = (r: CheckResult) => (r.waived ? 'waived' : r.verdict);

function WaiveDialog({
  result,
  onWaive,
  onClose,
}: {
  result: CheckResult;
  onWaive(result: CheckResult, reason: string, all: boolean): void;
  onClose(): void;
}) {
  const [reason, setReason] = useState('');
  const [all, setAll] = useState(false);
  return (
    <Dialog
      open
      onClose={onClose}
      title={`Let "${result.title}" pass here`}
      about={`${result.sentence} The reason is kept with the listing and written into manifests.`}
      footer={
        <>
          <Button onClick={onClose}>Cancel</Button>
          <Button
            tone="main"
            disabled={reason.trim().length < 3}
            onClick={() => onWaive(result, reason.trim(), all)}
          >
            Let it pass
          </Button>
        </>
      }
    >
      <div className="grid gap-3">
        <label className="block">
          <span className="text-ink-2 mb-1 block text-[12px]">Reason</span>
          <textarea
            value={reason}
            onChange={(e) => setReason(e.target.value)}
            className="border-line focus:border-spruce bg-card min-h-16 w-full rounded-md border px-2 py-1.5 outline-none"
          />
        </label>
        <label className="flex items-center gap-2">
          <input
            type="checkbox"
            className="accent-spruce"
            checked={all}
            onChange={(e) => setAll(e.target.checked)}
          />
          In this slot for every variant
        </label>
      </div>
    </Dialog>
  );
}
