import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef } from 'react';
import { extension } from '@scenograph/core/spec/file-name';
import { worst } from '@scenograph/core/spec/checks/index';
import { reducedUrl, useRoute, type DeliveryCell, type DeliveryDetail } from '../../api/client';
import { StatusMark, bytesText } from '../../ui/status';
import { msg } from '../../language/language';

const PAGE = 100;
const ROW = 60;
const COLUMNS =
  'grid grid-cols-[104px_minmax(180px,1.5fr)_minmax(120px,0.9fr)_92px_92px_minmax(160px,1.6fr)] items-center';

/** The pictures in order; only those in view are asked for and in the page. */
export function CellTable({ data }: { data: DeliveryDetail }) {
  const scroller = useRef<HTMLDivElement>(null);
  const rows = useVirtualizer({
    count: data.total,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 6,
  });
  const shown = rows.getVirtualItems();
  const pages = [...new Set(shown.map((r) => Math.floor(r.index / PAGE)))];
  return (
    <div
      ref={scroller}
      className="min-w-0 grow overflow-auto px-5 pb-6"
      tabIndex={0}
      aria-label={msg('Pictures')}
    >
      <div role="table" aria-rowcount={data.total} className="border-line bg-card mt-4 min-w-[760px] border">
        <div
          role="row"
          className={`${COLUMNS} border-line text-ink-2 bg-card sticky top-0 z-10 border-b text-[12px]`}
        >
          {[msg('Picture'), msg('File'), msg('Slot'), msg('Size'), msg('Bytes'), msg('Checks')].map((t) => (
            <span key={t} role="columnheader" className="px-3 py-2 font-medium">
              {t}
            </span>
          ))}
        </div>
        <div className="relative" style={{ height: rows.getTotalSize() }}>
          {pages.map((page) => (
            <CellPage
              key={page}
              id={data.id}
              page={page}
              shown={shown.filter((r) => Math.floor(r.index / PAGE) === page)}
            />
          ))}
        </div>
      </div>
    </div>
  );
}

function CellPage({
  id,
  page,
  shown,
}: {
  id: string;
  page: number;
  shown: { index: number; start: number; size: number }[];
}) {
  const { data } = useRoute('GET /api/deliveries/:id/cells', {
    params: { id },
    query: { from: page * PAGE, limit: PAGE },
  });
  return shown.map(({ index, start }) => {
    const cell = data?.[index - page * PAGE];
    return (
      <div
        key={index}
        role="row"
        aria-rowindex={index + 1}
        className={`${COLUMNS} border-line absolute top-0 left-0 w-full border-b`}
        style={{ transform: `translateY(${start}px)`, height: ROW }}
      >
        {cell ? (
          <CellRow cell={cell} />
        ) : (
          <span role="cell" className="text-ink-2 px-3">
            ...
          </span>
        )}
      </div>
    );
  });
}

function CellRow({ cell }: { cell: DeliveryCell }) {
  return (
    <>
      <span role="cell" className="px-3">
        {cell.blob ? (
          <a
            href={`/api/blobs/${cell.blob}`}
            target="_blank"
            rel="noreferrer"
            aria-label={msg('{fileName}, full size', { fileName: cell.fileName })}
          >
            <img src={reducedUrl(cell.blob, 160)} alt="" className="border-line max-h-12 max-w-20 border" />
          </a>
        ) : (
          <span className="border-ink-3 block h-9 w-12 border border-dashed" />
        )}
      </span>
      <span role="cell" className="min-w-0 px-3">
        <span className="measure block truncate" title={cell.fileName}>
          {cell.fileName.split('/').pop()}
          {cell.format && `.${extension(cell.format)}`}
        </span>
        <span className="text-ink-2 block truncate text-[12px]">
          {cell.variant || cell.sku}, {cell.shotTitle}
        </span>
      </span>
      <span role="cell" className="truncate px-3">
        {cell.marketplace} <span className="text-ink-2">{cell.slotKey.split('/')[1]}</span>
      </span>
      <span role="cell" className="measure px-3 whitespace-nowrap">
        {cell.width} x {cell.height}
      </span>
      <span role="cell" className="measure px-3 whitespace-nowrap">
        {cell.bytes ? bytesText(cell.bytes) : ''}
        {cell.quality !== null && cell.format !== 'png' && (
          <span className="text-ink-2"> q {cell.quality}</span>
        )}
      </span>
      <Outcome cell={cell} />
    </>
  );
}

/** What the checks say of a picture, or why there is none. */
function Outcome({ cell: { state, reason, checks, blob } }: { cell: DeliveryCell }) {
  const faults = checks?.filter((c) => c.verdict !== 'pass' && !c.waived) ?? [];
  const waived = checks?.filter((c) => c.waived).length ?? 0;
  return (
    <span role="cell" className="line-clamp-3 px-3 text-[12px] leading-tight">
      {state === 'failed' ? (
        <span className="text-coral-ink">
          <StatusMark mark="stop" /> {reason}
        </span>
      ) : checks ? (
        <>
          <span className="mr-1.5 inline-block align-[-1px]">
            <StatusMark mark={worst(checks)} />
          </span>
          {faults.length
            ? faults.map((f) => `${f.title.toLowerCase()} ${f.measured} (${f.limit})`).join('; ')
            : msg('{checks} pass{part}', {
                checks: checks.length - waived,
                part: waived ? msg(', {waived} waived', { waived }) : '',
              })}
        </>
      ) : (
        <span className="text-ink-2">
          {state === 'working' ? msg('being painted') : blob ? msg('made') : msg('queued')}
        </span>
      )}
    </span>
  );
}
