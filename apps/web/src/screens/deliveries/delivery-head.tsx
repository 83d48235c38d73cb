import type { RequestOf } from '@scenograph/contract';
import { useState, type ReactNode } from 'react';
import { Link } from 'react-router';
import { call, type DeliveryDetail } from '../../api/client';
import { deliveryOf } from '../../api/revisions';
import { Button, buttonClass, Select } from '../../ui/controls';
import { ProgressBar, StatusMark, bytesText } from '../../ui/status';
import { tried } from '../../ui/tried';
import { deliveryMark, deliveryText, hasZip, isOpen } from './delivery-state';
import { PriorityChoice } from './priority-choice';
import { secondsText } from './seconds-text';
import { msg, rich, writeMoment } from '../../language/language';

/** A delivery's name, how far it is, and what can be done with it. */
export function DeliveryHead({ data, marketplaces }: { data: DeliveryDetail; marketplaces: string[] }) {
  const words = {
    measure: (inside: ReactNode) => <span className="measure">{inside}</span>,
    value: writeMoment(data.createdAt),
  };
  return (
    <div className="border-line bg-card flex min-h-19 shrink-0 items-center gap-7 border-b px-5 py-2">
      <div className="min-w-0">
        <h1 className="font-display truncate text-[22px] leading-tight font-bold">{data.title}</h1>
        <p className="text-ink-2 whitespace-nowrap">
          {data.listingId
            ? rich('Delivery of <measure>{value}</measure>, <link>its listing</link>', {
                ...words,
                link: (inside) => (
                  <Link to={`/listings/${data.listingId}`} className="underline">
                    {inside}
                  </Link>
                ),
              })
            : rich('Delivery of <measure>{value}</measure>; its listing is removed', words)}
        </p>
      </div>
      <Progress data={data} />
      <div className="ml-auto flex flex-wrap justify-end gap-2">
        <Control data={data} />
        {hasZip(data) && <Download data={data} marketplaces={marketplaces} />}
      </div>
    </div>
  );
}

/** Seconds that the rest will take at the pace so far; null while there is none to go by. */
export function secondsLeft(data: DeliveryDetail, now = Date.now()): number | null {
  const left = data.total - data.made - data.failed;
  if (data.state !== 'running' || !data.made || !left) return null;
  return ((now - Date.parse(data.createdAt)) / 1000 / data.made) * left;
}

function Progress({ data }: { data: DeliveryDetail }) {
  const left = secondsLeft(data);
  return (
    <div className="w-72" aria-live="polite">
      <ProgressBar
        share={data.total ? (data.made + data.failed) / data.total : 0}
        label={msg('Pictures made')}
      />
      <p className="mt-1.5 flex items-center gap-1.5">
        <StatusMark mark={deliveryMark(data)} /> {deliveryText(data)}
        {left !== null && (
          <span className="text-ink-2">{msg(', {left} left', { left: secondsText(left) })}</span>
        )}
      </p>
    </div>
  );
}

/** Priority, pause, cancel and retry, as far as they make sense now. */
function Control({ data }: { data: DeliveryDetail }) {
  const change = (body: RequestOf<'POST /api/deliveries/:id/change'>['body']) =>
    void tried(
      call('POST /api/deliveries/:id/change', { params: { id: data.id }, body }, { of: deliveryOf(data.id) }),
      '/api/deliveries',
    );
  if (!isOpen(data))
    return (
      data.failed > 0 && (
        <Button onClick={() => change({ act: 'retry' })}>{msg('Try the failed again')}</Button>
      )
    );
  return (
    <>
      <PriorityChoice value={data.priority} onChange={(priority) => change({ priority })} />
      {data.state === 'paused' ? (
        <Button onClick={() => change({ act: 'go-on' })}>{msg('Go on')}</Button>
      ) : (
        <Button onClick={() => change({ act: 'pause' })}>{msg('Pause')}</Button>
      )}
      <Button tone="danger" onClick={() => change({ act: 'cancel' })}>
        {msg('Cancel')}
      </Button>
    </>
  );
}

/** The ZIP of all of it, of one marketplace or of one listing. */
function Download({ data, marketplaces }: { data: DeliveryDetail; marketplaces: string[] }) {
  const [part, setPart] = useState('all');
  const listings = [...new Set(data.groups.map((g) => g.listing))];
  const choices = (key: string, names: string[]) =>
    names.length > 1
      ? names.map((name) => ({ value: `${key}=${encodeURIComponent(name)}`, title: name }))
      : [];
  const parts = [
    { value: 'all', title: msg('Whole delivery') },
    ...choices('marketplace', marketplaces),
    ...choices('listing', listings),
  ];
  const open = isOpen(data);
  const whole = part === 'all';
  return (
    <>
      {parts.length > 1 && (
        <Select label={msg('What to download')} value={part} onChange={setPart} options={parts} />
      )}
      <a
        href={`/api/deliveries/${data.id}/zip${whole ? '' : `?${part}`}`}
        download
        className={buttonClass(open ? 'plain' : 'main')}
      >
        {open ? msg('Download ZIP as it comes') : msg('Download ZIP')}{' '}
        {whole && <span className="measure">{bytesText(data.bytes)}</span>}
      </a>
    </>
  );
}
