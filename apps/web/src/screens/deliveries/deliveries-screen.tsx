import { Trash2 } from 'lucide-react';
import { Link } from 'react-router';
import { call, useRoute, type Delivery } from '../../api/client';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { buttonClass, IconButton } from '../../ui/controls';
import { removing } from '../../ui/removing';
import { ProgressBar, StatusMark, bytesText } from '../../ui/status';
import { deliveryMark, deliveryText, hasZip, isOpen } from './delivery-state';
import { Table, type TableColumn } from '../../ui/table';
import { TopBar } from '../../ui/top-bar';
import { msg, writeMoment } from '../../language/language';

export function DeliveriesScreen() {
  const { data, error } = useRoute('GET /api/deliveries');
  return (
    <>
      <TopBar />
      <main className="grow overflow-y-auto px-5 pt-4 pb-10">
        <h1 className="font-display text-[22px] font-bold">{msg('Deliveries')}</h1>
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what={msg('the deliveries')} />}
        {data?.length === 0 && (
          <div className="mt-6">
            <Empty title={msg('Nothing delivered yet')}>{msg('Open a listing and press Deliver.')}</Empty>
          </div>
        )}
        {!!data?.length && (
          <Table
            label={msg('Deliveries')}
            className="mt-4 w-full"
            columns={COLUMNS}
            rows={data}
            idOf={(d) => d.id}
            to={(d) => `/deliveries/${d.id}`}
          />
        )}
      </main>
    </>
  );
}

/** One that is under way is cancelled first. */
function Remove({ delivery: { id, title, revision } }: { delivery: Delivery }) {
  const ask = () => call('DELETE /api/deliveries/:id', { params: { id } }, { revision });
  return (
    <span onClick={(e) => e.stopPropagation()}>
      <IconButton
        label={msg('Remove the delivery of {title}', { title })}
        onClick={() => void removing(ask(), `"${title}"`, '/api/deliveries')}
      >
        <Trash2 size={14} aria-hidden />
      </IconButton>
    </span>
  );
}

const COLUMNS: readonly TableColumn<Delivery>[] = [
  {
    id: 'title',
    title: msg('Listing'),
    by: (d) => d.title,
    cell: (d) => (
      <Link to={`/deliveries/${d.id}`} className="font-semibold hover:underline">
        {d.title}
      </Link>
    ),
  },
  {
    id: 'ordered',
    title: msg('Ordered'),
    by: (d) => d.createdAt,
    className: 'measure text-ink-2',
    cell: (d) => writeMoment(d.createdAt),
  },
  {
    id: 'pictures',
    title: msg('Pictures'),
    by: (d) => d.total,
    cell: (d) => (
      <>
        <span className="measure">{msg('{made} of {total}', { made: d.made, total: d.total })}</span>
        <div className="mt-1 w-40">
          <ProgressBar
            share={d.total ? (d.made + d.failed) / d.total : 0}
            label={msg('{d}, made', { d: d.title })}
          />
        </div>
      </>
    ),
  },
  {
    id: 'state',
    title: msg('State'),
    by: (d) => deliveryText(d),
    cell: (d) => (
      <span className="flex items-center gap-1.5">
        <StatusMark mark={deliveryMark(d)} /> {deliveryText(d)}
        {d.priority !== 0 && isOpen(d) && (
          <span className="text-ink-2">, {d.priority > 0 ? msg('high priority') : msg('low priority')}</span>
        )}
      </span>
    ),
  },
  {
    id: 'zip',
    title: msg('ZIP'),
    by: (d) => d.bytes,
    cell: (d) =>
      hasZip(d) && (
        <a
          href={`/api/deliveries/${d.id}/zip`}
          download
          onClick={(e) => e.stopPropagation()}
          className={buttonClass()}
        >
          {isOpen(d) ? msg('Download as it comes') : msg('Download')}{' '}
          <span className="measure">{bytesText(d.bytes)}</span>
        </a>
      ),
  },
  { id: 'remove', title: '', cell: (d) => !isOpen(d) && <Remove delivery={d} /> },
];
