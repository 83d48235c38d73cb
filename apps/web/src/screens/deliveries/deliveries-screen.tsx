import { Link, useNavigate } from 'react-router';
import { useRoute, type Delivery } from '../../api/client';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { buttonClass } from '../../ui/controls';
import { ProgressBar, StatusMark, bytesText } from '../../ui/status';
import { deliveryMark, deliveryText, hasZip, isOpen } from './delivery-state';
import { TopBar } from '../../ui/top-bar';

export function DeliveriesScreen() {
  const { data, error } = useRoute('GET /api/deliveries');
  return (
    <>
      <TopBar />
      <main className="grow overflow-y-auto px-5 pt-4 pb-10">
        <h1 className="font-display text-[22px] font-bold">Deliveries</h1>
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what="the deliveries" />}
        {data?.length === 0 && (
          <div className="mt-6">
            <Empty title="Nothing delivered yet">Open a listing and press Deliver.</Empty>
          </div>
        )}
        {!!data?.length && (
          <table className="border-line bg-card mt-4 w-full border">
            <thead>
              <tr className="border-line text-ink-2 border-b text-left text-[12px]">
                <th className="px-4 py-2 font-medium">Listing</th>
                <th className="px-4 py-2 font-medium">Ordered</th>
                <th className="px-4 py-2 font-medium">Pictures</th>
                <th className="px-4 py-2 font-medium">State</th>
                <th className="px-4 py-2 font-medium">ZIP</th>
              </tr>
            </thead>
            <tbody>
              {data.map((d) => (
                <DeliveryRow key={d.id} delivery={d} />
              ))}
            </tbody>
          </table>
        )}
      </main>
    </>
  );
}

/** One delivery of the list; the row leads to it. */
function DeliveryRow({ delivery: d }: { delivery: Delivery }) {
  const navigate = useNavigate();
  return (
    <tr
      className="border-line hover:bg-spruce-tint/50 cursor-pointer border-b last:border-b-0"
      onClick={() => void navigate(`/deliveries/${d.id}`)}
    >
      <td className="px-4 py-2.5">
        <Link to={`/deliveries/${d.id}`} className="font-semibold hover:underline">
          {d.title}
        </Link>
      </td>
      <td className="measure text-ink-2 px-4 py-2.5">{new Date(d.createdAt).toLocaleString('en-GB')}</td>
      <td className="px-4 py-2.5">
        <span className="measure">
          {d.made} of {d.total}
        </span>
        <div className="mt-1 w-40">
          <ProgressBar share={d.total ? (d.made + d.failed) / d.total : 0} label={`${d.title}, made`} />
        </div>
      </td>
      <td className="px-4 py-2.5">
        <span className="flex items-center gap-1.5">
          <StatusMark mark={deliveryMark(d)} /> {deliveryText(d)}
          {d.priority !== 0 && isOpen(d) && (
            <span className="text-ink-2">, {d.priority > 0 ? 'high priority' : 'low priority'}</span>
          )}
        </span>
      </td>
      <td className="px-4 py-2.5">
        {hasZip(d) && (
          <a
            href={`/api/deliveries/${d.id}/zip`}
            download
            onClick={(e) => e.stopPropagation()}
            className={buttonClass()}
          >
            {isOpen(d) ? 'Download as it comes' : 'Download'}{' '}
            <span className="measure">{bytesText(d.bytes)}</span>
          </a>
        )}
      </td>
    </tr>
  );
}
