import { useState } from 'react';
import { Link } from 'react-router';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { blobUrl, reducedUrl, type ListingDetail } from '../../api/client';
import { buttonClass } from '../../ui/controls';
import { bytesText } from '../../ui/status';
import { PaintedShot } from '../listings/painted-shot';
import { CheckList } from './check-list';
import { useCellChecks, type CellAddress, type CellChecks } from './use-cell-checks';
import { msg } from '../../language/language';

const WIDE = 296;
const TALL = 230;

/** One cell of the board: its picture, how it stands, every check with limit and fix, and where to go from here. */
export function CellPanel({ detail, cell: address }: { detail: ListingDetail; cell: CellAddress }) {
  const of = useCellChecks(detail, address);
  const { variant, slot, sheet, shot } = of;
  const [marked, setMarked] = useState<CheckResult | null>(null);
  const name = variant.data.variant || variant.data.title;
  const query = `slot=${encodeURIComponent(address.slotKey)}&variant=${address.variantId}`;
  const to = (place: string) => `/listings/${detail.listing.id}/${place}?${query}`;
  return (
    <aside
      aria-label={`${name}, ${slot.title}`}
      className="border-line bg-card w-[328px] shrink-0 overflow-y-auto border-t border-l p-4"
    >
      <h2 className="font-display text-[16px] leading-tight font-bold">{slot.title}</h2>
      <p className="text-ink-2">
        {sheet.marketplace}, {name}
      </p>
      <CellPicture of={of} marked={marked} />
      {of.cell && <FileLine of={of} />}
      <div className="mb-4 grid grid-cols-2 gap-2">
        {shot ? (
          <Link to={`/shots/${shot.id}?${query}`} className={buttonClass('main')}>
            {msg('Open on the stage')}
          </Link>
        ) : (
          <span />
        )}
        <Link to={to('compare')} className={buttonClass()}>
          {msg('Compare shots')}
        </Link>
        {shot && (
          <Link to={to('encoding')} className={buttonClass()}>
            {msg('Encoding desk')}
          </Link>
        )}
      </div>
      <CheckList of={of} onMark={setMarked} />
    </aside>
  );
}

/** The stored picture, or the shot as it would be painted, or why there is none; the place of a check is marked on it. */
function CellPicture({
  of: { cell, slot, resolved, current },
  marked,
}: {
  of: CellChecks;
  marked: CheckResult | null;
}) {
  const k = Math.min(WIDE / slot.width, TALL / slot.height);
  const size = { width: Math.round(slot.width * k), height: Math.round(slot.height * k) };
  const percent = (share: number) => `${share * 100}%`;
  return (
    <div className="relative mx-auto my-3" style={size}>
      {current ? (
        <a
          href={blobUrl(cell!.picture!.blob)}
          target="_blank"
          rel="noreferrer"
          aria-label={msg('Open the file')}
        >
          <img
            src={reducedUrl(cell!.picture!.blob, 640)}
            alt={cell!.words.alt ?? ''}
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
          {cell?.missing === 'no-cutout'
            ? msg('The variant has no cutout')
            : msg('Missing: no shot fills it')}
        </span>
      )}
      {marked?.where && (
        <span
          aria-hidden
          className={`pointer-events-none absolute border-2 ${marked.verdict === 'stop' ? 'border-coral' : 'border-amber'}`}
          style={{
            left: percent(marked.where.x),
            top: percent(marked.where.y),
            width: percent(marked.where.width),
            height: percent(marked.where.height),
          }}
        />
      )}
    </div>
  );
}

/** The file's name and, where it is made, what it is. */
function FileLine({ of: { cell, current } }: { of: CellChecks }) {
  const { fileName, picture, missing, reason } = cell!;
  return (
    <p className="text-ink-2 mb-3 text-[12px]">
      <span className="measure text-ink block truncate" title={fileName}>
        {fileName}
      </span>
      {picture && (
        <>
          <span className="measure">
            {picture.width} x {picture.height}, {picture.format}, {bytesText(picture.bytes)}
            {picture.quality !== null && `, q ${picture.quality}`}
          </span>
          {!current && msg(' (out of date)')}
        </>
      )}
      {!picture && !missing && (reason ?? msg('Not made yet; measured as it would be.'))}
    </p>
  );
}
