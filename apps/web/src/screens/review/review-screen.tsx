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
import { ReviewCard } from './review-card';
import { sureness } from './review-state';

type Which = 'open' | 'accepted' | 'all';
const WHICH: Record<Which, string> = { open: 'To look at', accepted: 'Accepted', all: 'All' };
const GROUNDS = { white: '#ffffff', black: '#000000', grey: '#bdbdbd' } as const;
type Ground = keyof typeof GROUNDS;

/** Accepts cutouts as they are, or takes that back. */
async function accept(photos: readonly Photo[], accepted: boolean): Promise<void> {
  const body = { ids: photos.map((p) => p.id), accepted };
  const done = await tried(call('POST /api/photos/accepted', { body }), '/api/photos');
  if (!done) return;
  const [{ name }] = photos;
  if (photos.length > 1) say('pass', `${done.changed} accepted.`);
  else say('pass', accepted ? `${name} is accepted.` : `${name} is to be looked at again.`);
}

async function cutAllAgain(photos: readonly Photo[]): Promise<void> {
  const body = { ids: photos.map((p) => p.id) };
  const done = await tried(call('POST /api/photos/cutouts', { body }), '/api/photos');
  if (done) say('pass', `${done.queued} photos are queued.`);
}

async function cancelRest(): Promise<void> {
  const done = await tried(call('POST /api/photos/cutouts/cancel'), '/api/photos');
  if (done) say('pass', `${done.cancelled} cutouts are not made; what there was stays.`);
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
        title: 'Cut out every photo again',
        group: 'Review wall',
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
          <h1 className="font-display text-[22px] font-bold">Review wall</h1>
          <p className="text-ink-2 grow basis-60">
            {data
              ? `${open.length} of ${data.length} to look at, the least sure first.`
              : 'Every cutout, the least sure first.'}
          </p>
          <Choice label="Seen on" titles={TITLES} value={ground} onChange={setGround} />
          <Choice label="Which" titles={WHICH} value={which} onChange={setWhich} />
          <Button tone="main" disabled={!sure.length} onClick={() => void accept(sure, true)}>
            Accept {sure.length} that look right
          </Button>
        </div>
        {data && <CuttingOut photos={data} />}
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what="the cutouts" />}
        {data && !list.length && (
          <div className="mt-6">
            <Empty title={which === 'open' && data.length ? 'All cutouts are accepted' : 'Nothing here'}>
              Import photos, or look at all.
            </Empty>
          </div>
        )}
        <ul className="mt-4 grid grid-cols-[repeat(auto-fill,minmax(210px,1fr))] gap-3.5">
          {list.map((photo) => (
            <ReviewCard
              key={photo.id}
              photo={photo}
              ground={GROUNDS[ground]}
              onAccept={(accepted) => void accept([photo], accepted)}
            />
          ))}
        </ul>
      </main>
    </>
  );
}

const TITLES: Record<Ground, string> = { white: 'White', black: 'Black', grey: 'Grey' };

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
        Cutting out <span className="measure">{done}</span> of{' '}
        <span className="measure">{photos.length}</span>
      </span>
      <div className="w-80">
        <ProgressBar share={done / photos.length} label="Cutouts made" />
      </div>
      <Button className="ml-auto" onClick={() => void cancelRest()}>
        Cancel the rest
      </Button>
    </div>
  );
}
