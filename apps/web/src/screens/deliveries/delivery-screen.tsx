import type { RequestOf } from '@scenograph/contract';
import { useVirtualizer } from '@tanstack/react-virtual';
import { useRef, useState } from 'react';
import { Link, useParams } from 'react-router';
import { extension } from '@scenograph/core/spec/file-name';
import { worst } from '@scenograph/core/spec/checks/index';
import {
  reducedUrl,
  refresh,
  type DeliveryCell,
  type DeliveryDetail,
  call,
  useRoute,
} from '../../api/client';
import { Button, buttonClass, Select } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { ProgressBar, StatusMark, bytesText } from '../../ui/status';
import { TopBar } from '../../ui/top-bar';
import { deliveryMark, deliveryText, hasZip, isOpen } from './delivery-state';
import { secondsText } from './deliver-dialog';
import { UploadAnswers } from './upload-answers';

const PAGE = 100;
const ROW = 60;

export function DeliveryScreen() {
  const { id = '' } = useParams();
  const { data, error } = useRoute('GET /api/deliveries/:id', { params: { id } });
  return (
    <>
      <TopBar />
      {error && <Trouble error={error} />}
      {!data && !error && <Waiting what="the delivery" />}
      {data && <Delivered data={data} />}
    </>
  );
}

function Delivered({ data }: { data: DeliveryDetail }) {
  const { id } = data;
  const [part, setPart] = useState('');
  const tell = async (ask: () => Promise<unknown>) => {
    try {
      await ask();
      refresh('/api/deliveries');
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  const change = (body: RequestOf<'POST /api/deliveries/:id/change'>['body']) =>
    tell(() => call('POST /api/deliveries/:id/change', { params: { id }, body }));
  const open = isOpen(data);
  const marketplaces = [...new Set(data.groups.map((g) => g.marketplace))];
  const listings = [...new Set(data.groups.map((g) => g.listing))];
  const parts = [
    { value: '', title: 'Whole delivery' },
    ...(marketplaces.length > 1
      ? marketplaces.map((m) => ({ value: `marketplace=${encodeURIComponent(m)}`, title: m }))
      : []),
    ...(listings.length > 1
      ? listings.map((l) => ({ value: `listing=${encodeURIComponent(l)}`, title: l }))
      : []),
  ];
  const left = data.total - data.made - data.failed;
  const perPicture =
    data.finishedAt || !data.made ? null : (Date.now() - Date.parse(data.createdAt)) / 1000 / data.made;
  return (
    <>
      <div className="border-line bg-card flex min-h-19 shrink-0 items-center gap-7 border-b px-5 py-2">
        <div className="min-w-0">
          <h1 className="font-display truncate text-[22px] leading-tight font-bold">{data.title}</h1>
          <p className="text-ink-2 whitespace-nowrap">
            Delivery of <span className="measure">{new Date(data.createdAt).toLocaleString('en-GB')}</span>,{' '}
            <Link to={`/listings/${data.listingId}`} className="underline">
              its listing
            </Link>
          </p>
        </div>
        <div className="w-72" aria-live="polite">
          <ProgressBar
            share={data.total ? (data.made + data.failed) / data.total : 0}
            label="Pictures made"
          />
          <p className="mt-1.5 flex items-center gap-1.5">
            <StatusMark mark={deliveryMark(data)} /> {deliveryText(data)}
            {data.state === 'running' && perPicture !== null && left > 0 && (
              <span className="text-ink-2">, {secondsText(perPicture * left)} left</span>
            )}
          </p>
        </div>
        <div className="ml-auto flex flex-wrap justify-end gap-2">
          {open && (
            <Select
              label="Priority"
              value={data.priority > 0 ? '5' : data.priority < 0 ? '-5' : '0'}
              onChange={(v) => void change({ priority: Number(v) })}
              options={[
                { value: '5', title: 'High' },
                { value: '0', title: 'Normal' },
                { value: '-5', title: 'Low' },
              ]}
            />
          )}
          {data.state === 'paused' ? (
            <Button onClick={() => void change({ act: 'go-on' })}>Go on</Button>
          ) : (
            open && <Button onClick={() => void change({ act: 'pause' })}>Pause</Button>
          )}
          {open && (
            <Button tone="danger" onClick={() => void change({ act: 'cancel' })}>
              Cancel
            </Button>
          )}
          {!open && data.failed > 0 && (
            <Button onClick={() => void change({ act: 'retry' })}>Try the failed again</Button>
          )}
          {parts.length > 1 && hasZip(data) && (
            <Select label="What to download" value={part} onChange={setPart} options={parts} />
          )}
          {hasZip(data) && (
            <a
              href={`/api/deliveries/${id}/zip${part ? `?${part}` : ''}`}
              download
              className={buttonClass(open ? 'plain' : 'main')}
            >
              {open ? 'Download ZIP as it comes' : 'Download ZIP'}{' '}
              {!part && <span className="measure">{bytesText(data.bytes)}</span>}
            </a>
          )}
        </div>
      </div>
      <main className="flex min-h-0 grow">
        <CellTable data={data} />
        {data.state === 'done' && (
          <UploadAnswers
            data={data}
            marketplaces={marketplaces}
            onSend={(marketplace) =>
              tell(() => call('POST /api/deliveries/:id/uploads', { params: { id }, body: { marketplace } }))
            }
          />
        )}
      </main>
    </>
  );
}

const COLUMNS =
  'grid grid-cols-[104px_minmax(180px,1.5fr)_minmax(120px,0.9fr)_92px_92px_minmax(160px,1.6fr)] items-center';

/** The pictures in order; only those in view are asked for and in the page. */
function CellTable({ data }: { data: DeliveryDetail }) {
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
    <div ref={scroller} className="min-w-0 grow overflow-auto px-5 pb-6" tabIndex={0} aria-label="Pictures">
      <div role="table" aria-rowcount={data.total} className="border-line bg-card mt-4 min-w-[760px] border">
        <div
          role="row"
          className={`${COLUMNS} border-line text-ink-2 bg-card sticky top-0 z-10 border-b text-[12px]`}
        >
          {['Picture', 'File', 'Slot', 'Size', 'Bytes', 'Checks'].map((t) => (
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
  const faults = cell.checks?.filter((c) => c.verdict !== 'pass' && !c.waived) ?? [];
  const waived = cell.checks?.filter((c) => c.waived).length ?? 0;
  return (
    <>
      <span role="cell" className="px-3">
        {cell.blob ? (
          <a
            href={`/api/blobs/${cell.blob}`}
            target="_blank"
            rel="noreferrer"
            aria-label={`${cell.fileName}, full size`}
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
      <span role="cell" className="line-clamp-3 px-3 text-[12px] leading-tight">
        {cell.state === 'failed' ? (
          <span className="text-coral-ink">
            <StatusMark mark="stop" /> {cell.reason}
          </span>
        ) : cell.checks ? (
          <>
            <span className="mr-1.5 inline-block align-[-1px]">
              <StatusMark mark={worst(cell.checks)} />
            </span>
            {faults.length
              ? faults.map((f) => `${f.title.toLowerCase()} ${f.measured} (${f.limit})`).join('; ')
              : `${cell.checks.length - waived} pass${waived ? `, ${waived} waived` : ''}`}
          </>
        ) : (
          <span className="text-ink-2">
            {cell.state === 'working' ? 'being painted' : cell.blob ? 'made' : 'waits'}
          </span>
        )}
      </span>
    </>
  );
}
