import { Link, useParams } from 'react-router';
import { worst } from '@scenograph/core/spec/checks/index';
import {
  reducedUrl,
  refresh,
  request,
  useServer,
  type DeliveryCell,
  type DeliveryDetail,
} from '../../api/client';
import { Button, buttonClass } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { ProgressBar, StatusMark, bytesText } from '../../ui/status';
import { TopBar } from '../../ui/top-bar';
import { deliveryMark, deliveryText } from './deliveries-screen';

export function DeliveryScreen() {
  const { id } = useParams();
  const { data, error } = useServer<DeliveryDetail>(`/api/deliveries/${id}`);
  const cancel = async () => {
    try {
      await request('POST', `/api/deliveries/${id}/cancel`, {});
      refresh('/api/deliveries');
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  const open = data && (data.state === 'queued' || data.state === 'running');
  return (
    <>
      <TopBar />
      {error && <Trouble error={error} />}
      {!data && !error && <Waiting what="the delivery" />}
      {data && (
        <>
          <div className="border-line bg-card flex h-19 shrink-0 items-center gap-7 border-b px-5">
            <div>
              <h1 className="font-display text-[22px] leading-tight font-bold">{data.title}</h1>
              <p className="text-ink-2">
                Delivery of{' '}
                <span className="measure">{new Date(data.createdAt).toLocaleString('en-GB')}</span>,{' '}
                <Link to={`/listings/${data.listingId}`} className="underline">
                  its listing
                </Link>
              </p>
            </div>
            <div className="w-64" aria-live="polite">
              <ProgressBar
                share={data.total ? (data.made + data.failed) / data.total : 0}
                label="Pictures made"
              />
              <p className="mt-1.5 flex items-center gap-1.5">
                <StatusMark mark={deliveryMark(data)} /> {deliveryText(data)}
              </p>
            </div>
            <div className="ml-auto flex gap-2.5">
              {open && (
                <Button tone="danger" onClick={cancel} disabled={data.cancelAsked}>
                  Cancel
                </Button>
              )}
              {data.zip && (
                <a href={`/api/deliveries/${data.id}/zip`} download className={buttonClass('main')}>
                  Download ZIP <span className="measure">{bytesText(data.zipBytes ?? 0)}</span>
                </a>
              )}
            </div>
          </div>
          <main className="grow overflow-y-auto px-5 pt-4 pb-10">
            <table className="border-line bg-card w-full border">
              <thead>
                <tr className="border-line text-ink-2 border-b text-left text-[12px]">
                  <th className="w-28 px-3 py-2 font-medium">Picture</th>
                  <th className="px-3 py-2 font-medium">File</th>
                  <th className="px-3 py-2 font-medium">Slot</th>
                  <th className="px-3 py-2 font-medium">Size</th>
                  <th className="px-3 py-2 font-medium">Bytes</th>
                  <th className="px-3 py-2 font-medium">Checks</th>
                </tr>
              </thead>
              <tbody>
                {data.cells.map((cell) => (
                  <CellRow key={cell.id} cell={cell} />
                ))}
              </tbody>
            </table>
          </main>
        </>
      )}
    </>
  );
}

function CellRow({ cell }: { cell: DeliveryCell }) {
  const faults = cell.checks?.filter((c) => c.verdict !== 'pass') ?? [];
  return (
    <tr className="border-line border-b last:border-b-0">
      <td className="px-3 py-1.5">
        {cell.blob ? (
          <a
            href={`/api/blobs/${cell.blob}`}
            target="_blank"
            rel="noreferrer"
            aria-label={`${cell.fileName}, full size`}
          >
            <img src={reducedUrl(cell.blob, 160)} alt="" className="border-line max-h-12 max-w-24 border" />
          </a>
        ) : (
          <span className="border-ink-3 block h-10 w-14 border border-dashed" />
        )}
      </td>
      <td className="px-3 py-1.5">
        <span className="measure">
          {cell.fileName}
          {cell.format && `.${cell.format === 'jpeg' ? 'jpg' : cell.format}`}
        </span>
        <p className="text-ink-2 text-[12px]">
          {cell.variant || cell.sku}, {cell.shotTitle}
        </p>
      </td>
      <td className="px-3 py-1.5">
        {cell.marketplace} <span className="text-ink-2">{cell.slotKey.split('/')[1]}</span>
      </td>
      <td className="measure px-3 py-1.5 whitespace-nowrap">
        {cell.width} x {cell.height}
      </td>
      <td className="measure px-3 py-1.5 whitespace-nowrap">
        {cell.bytes ? bytesText(cell.bytes) : ''}
        {cell.quality !== null && cell.format !== 'png' && (
          <span className="text-ink-2"> q {cell.quality}</span>
        )}
      </td>
      <td className="px-3 py-1.5">
        {cell.state === 'failed' ? (
          <span className="text-coral-ink flex items-center gap-1.5">
            <StatusMark mark="stop" /> {cell.reason}
          </span>
        ) : cell.checks ? (
          <span className="flex items-center gap-1.5">
            <StatusMark mark={worst(cell.checks)} />
            {faults.length
              ? faults.map((f) => `${f.title.toLowerCase()} ${f.measured} (${f.limit})`).join('; ')
              : `${cell.checks.length} pass`}
          </span>
        ) : (
          <span className="text-ink-2">waits</span>
        )}
      </td>
    </tr>
  );
}
