import { useMemo, useState } from 'react';
import { LOOKS_RIGHT } from '@scenograph/core/cutout/confidence';
import { call, useRoute, type Photo } from '../../api/client';
import { useActions, type Action } from '../../ui/actions';
import { Button, Segmented } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { ProgressBar } from '../../ui/status';
import { TopBar } from '../../ui/top-bar';
import { tried } from '../../ui/tried';
import { VirtualGrid } from '../../ui/virtual-grid';
import { ReviewCard } from './review-card';
import { sureness } from './review-state';
import { msg, rich } from '../../language/language';

type Which = 'open' | 'accepted' | 'all';
const WHICH: Record<Which, string> = { open: msg('To look at'), accepted: msg('Accepted'), all: msg('All') };
const GROUNDS = { white: '#ffffff', black: '#000000', grey: '#bdbdbd' } as const;
type Ground = keyof typeof GROUNDS;

/** Accepts cutouts as they are, or takes that back. */
async function accept(photos: readonly Photo[], accepted: boolean): Promise<void> {
  const body = { ids: photos.map((p) => p.id), revisions: photos.map((p) => p.revision), accepted };
  const done = await tried(call('POST /api/photos/accepted', { body }), '/api/photos');
  if (!done) return;
  const [{ name }] = photos;
  if (photos.length > 1) say('pass', msg('{changed} accepted.', { changed: done.changed }));
  else
    say(
      'pass',
      accepted ? msg('{name} is accepted.', { name }) : msg('{name} is to be looked at again.', { name }),
    );
}

async function cutAllAgain(photos: readonly Photo[]): Promise<void> {
  const body = { ids: photos.map((p) => p.id) };
  const done = await tried(call('POST /api/photos/cutouts', { body }), '/api/photos');
  if (done)
    say(
      'pass',
      msg('{queued, plural, one {# photo is} other {# photos are}} queued.', { queued: done.queued }),
    );
}

async function cancelRest(): Promise<void> {
  const done = await tried(call('POST /api/photos/cutouts/cancel'), '/api/photos');
  if (done)
    say(
      'pass',
      msg('{cancelled, plural, one {# cutout is} other {# cutouts are}} not made; what there was stays.', {
        cancelled: done.cancelled,
      }),
    );
}

/** A whole shoot's cutouts on white, the least sure first: accept, or open the desk. */
export function ReviewScreen() {
  const { data, error } = useRoute('GET /api/photos');
  const [which, setWhich] = useState<Which>('open');
  const [ground, setGround] = useState<Ground>('white');
  const open = data?.filter((p) => !p.accepted) ?? [];
  const sure = open.filter((p) => sureness(p) >= LOOKS_RIGHT);
  const list = useMemo(
    () =>
      (data ?? [])
        .filter((p) => which === 'all' || p.accepted === (which === 'accepted'))
        .sort((a, b) => sureness(a) - sureness(b) || a.name.localeCompare(b.name)),
    [data, which],
  );
  const actions = useMemo<Action[]>(
    () => [
      {
        id: 'all-again',
        title: msg('Cut out every photo again'),
        group: msg('Review wall'),
        run: () => void cutAllAgain(data ?? []),
      },
    ],
    [data],
  );
  useActions('review', actions);
  return (
    <>
      <TopBar />
      <main tabIndex={0} className="grow overflow-y-auto px-5 pt-4 pb-10">
        <div className="flex flex-wrap items-center gap-x-5 gap-y-2">
          <h1 className="font-display text-[22px] font-bold">{msg('Review wall')}</h1>
          <p className="text-ink-2 grow basis-60">
            {data
              ? msg('{open} of {data} to look at, the least sure first.', {
                  open: open.length,
                  data: data.length,
                })
              : msg('Every cutout, the least sure first.')}
          </p>
          <Choice label={msg('Seen on')} titles={TITLES} value={ground} onChange={setGround} />
          <Choice label={msg('Which')} titles={WHICH} value={which} onChange={setWhich} />
          <Button tone="main" disabled={!sure.length} onClick={() => void accept(sure, true)}>
            {msg('Accept {sure} that look right', { sure: sure.length })}
          </Button>
        </div>
        {data && <CuttingOut photos={data} />}
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what={msg('the cutouts')} />}
        {data && !list.length && (
          <div className="mt-6">
            <Empty
              title={which === 'open' && data.length ? msg('All cutouts are accepted') : msg('Nothing here')}
            >
              {msg('Import photos, or look at all.')}
            </Empty>
          </div>
        )}
        <VirtualGrid items={list} idOf={(photo) => photo.id} least={210} usual={262} className="mt-4">
          {(photo) => (
            <ReviewCard
              photo={photo}
              ground={GROUNDS[ground]}
              onAccept={(accepted) => void accept([photo], accepted)}
            />
          )}
        </VirtualGrid>
      </main>
    </>
  );
}

const TITLES: Record<Ground, string> = { white: msg('White'), black: msg('Black'), grey: msg('Grey') };

function Choice<T extends string>({
  label,
  titles,
  value,
  onChange,
}: {
  label: string;
  titles: Record<T, string>;
  value: T;
  onChange(value: T): void;
}) {
  const options = (Object.keys(titles) as T[]).map((v) => ({ value: v, title: titles[v] }));
  return <Segmented<T> label={label} value={value} onChange={onChange} options={options} />;
}

/** How far a shoot's cutouts are, and a way to stop; nothing when all are made. */
function CuttingOut({ photos }: { photos: readonly Photo[] }) {
  const busy = photos.filter((p) => p.cutoutState === 'waiting' || p.cutoutState === 'working').length;
  const done = photos.length - busy;
  if (!busy) return null;
  return (
    <div
      role="status"
      className="border-line bg-card mt-4 flex h-11 items-center gap-4 rounded-lg border px-4"
    >
      <span>
        {rich('Cutting out <measure>{done}</measure> of <measure>{photos}</measure>', {
          measure: (inside) => <span className="measure">{inside}</span>,
          done,
          photos: photos.length,
        })}
      </span>
      <div className="w-80">
        <ProgressBar share={done / photos.length} label={msg('Cutouts made')} />
      </div>
      <Button className="ml-auto" onClick={() => void cancelRest()}>
        {msg('Cancel the rest')}
      </Button>
    </div>
  );
}
