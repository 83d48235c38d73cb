import { Link, useNavigate } from 'react-router';
import { useRoute, type Delivery } from '../../api/client';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { buttonClass } from '../../ui/controls';
import { ProgressBar, StatusMark, bytesText } from '../../ui/status';
import { deliveryMark, deliveryText, hasZip, isOpen } from './delivery-state';
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
          <table className="border-line bg-card mt-4 w-full border">
            <thead>
              <tr className="border-line text-ink-2 border-b text-left text-[12px]">
                <th className="px-4 py-2 font-medium">{msg('Listing')}</th>
                <th className="px-4 py-2 font-medium">{msg('Ordered')}</th>
                <th className="px-4 py-2 font-medium">{msg('Pictures')}</th>
                <th className="px-4 py-2 font-medium">{msg('State')}</th>
                <th className="px-4 py-2 font-medium">{msg('ZIP')}</th>
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
      <td className="measure text-ink-2 px-4 py-2.5">{writeMoment(d.createdAt)}</td>
      <td className="px-4 py-2.5">
        <span className="measure">{msg('{made} of {total}', { made: d.made, total: d.total })}</span>
        <div className="mt-1 w-40">
          <ProgressBar
            share={d.total ? (d.made + d.failed) / d.total : 0}
            label={msg('{d}, made', { d: d.title })}
          />
        </div>
      </td>
      <td className="px-4 py-2.5">
        <span className="flex items-center gap-1.5">
          <StatusMark mark={deliveryMark(d)} /> {deliveryText(d)}
          {d.priority !== 0 && isOpen(d) && (
            <span className="text-ink-2">
              , {d.priority > 0 ? msg('high priority') : msg('low priority')}
            </span>
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
            {isOpen(d) ? msg('Download as it comes') : msg('Download')}{' '}
            <span className="measure">{bytesText(d.bytes)}</span>
          </a>
        )}
      </td>
    </tr>
  );
}
