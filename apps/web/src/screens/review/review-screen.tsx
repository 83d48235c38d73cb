import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { LOOKS_RIGHT, verdictOf } from '@scenograph/core/cutout/confidence';
import { reducedUrl, refresh, type Photo, useRoute, call } from '../../api/client';
import { useActions, type Action } from '../../ui/actions';
import { Button, Segmented, buttonClass } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { ProgressBar, StatusMark } from '../../ui/status';
import { TopBar } from '../../ui/top-bar';

type Which = 'open' | 'accepted' | 'all';

/** A whole shoot's cutouts on white, the least sure first: accept, or open the desk. */
export function ReviewScreen() {
  const { data, error } = useRoute('GET /api/photos');
  const [which, setWhich] = useState<Which>('open');
  const [ground, setGround] = useState<'white' | 'black' | 'grey'>('white');
  const busy = data?.filter((p) => p.cutoutState === 'waiting' || p.cutoutState === 'working') ?? [];
  const done = (data?.length ?? 0) - busy.length;
  const open = data?.filter((p) => !p.accepted) ?? [];
  const list = useMemo(
    () =>
      (data ?? [])
        .filter((p) => which === 'all' || p.accepted === (which === 'accepted'))
        .sort((a, b) => sureness(a) - sureness(b) || a.name.localeCompare(b.name)),
    [data, which],
  );
  const act = async (ask: () => Promise<string>) => {
    try {
      const done = await ask();
      refresh('/api/photos');
      say('pass', done);
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  const acceptSure = () =>
    act(async () => {
      const ids = open.filter((p) => sureness(p) >= LOOKS_RIGHT).map((p) => p.id);
      const { changed } = await call('POST /api/photos/accepted', { body: { ids, accepted: true } });
      return `${changed} accepted.`;
    });
  const sure = open.filter((p) => sureness(p) >= LOOKS_RIGHT).length;
  const actions = useMemo<Action[]>(
    () => [
      {
        id: 'all-again',
        title: 'Cut out every photo again',
        group: 'Review wall',
        run: () =>
          void act(async () => {
            const ids = (data ?? []).map((p) => p.id);
            return `${(await call('POST /api/photos/cutouts', { body: { ids } })).queued} photos are queued.`;
          }),
      },
    ],
    [data],
  );
  useActions('review', actions);
  return (
    <>
      <TopBar />
      <main tabIndex={0} className="grow overflow-y-auto px-5 pt-4 pb-10">
        <div className="flex items-center gap-5">
          <h1 className="font-display text-[22px] font-bold">Review wall</h1>
          <p className="text-ink-2 grow">
            {data
              ? `${open.length} of ${data.length} to look at, the least sure first.`
              : 'Every cutout, the least sure first.'}
          </p>
          <Segmented<'white' | 'black' | 'grey'>
            label="Seen on"
            value={ground}
            onChange={setGround}
            options={[
              { value: 'white', title: 'White' },
              { value: 'black', title: 'Black' },
              { value: 'grey', title: 'Grey' },
            ]}
          />
          <Segmented<Which>
            label="Which"
            value={which}
            onChange={setWhich}
            options={[
              { value: 'open', title: 'To look at' },
              { value: 'accepted', title: 'Accepted' },
              { value: 'all', title: 'All' },
            ]}
          />
          <Button tone="main" disabled={!sure} onClick={() => void acceptSure()}>
            Accept {sure} that look right
          </Button>
        </div>
        {busy.length > 0 && data && (
          <div
            role="status"
            className="border-line bg-card mt-4 flex h-11 items-center gap-4 rounded-lg border px-4"
          >
            <span>
              Cutting out <span className="measure">{done}</span> of{' '}
              <span className="measure">{data.length}</span>
            </span>
            <div className="w-80">
              <ProgressBar share={done / data.length} label="Cutouts made" />
            </div>
            <Button
              className="ml-auto"
              onClick={() =>
                void act(async () => {
                  const { cancelled } = await call('POST /api/photos/cutouts/cancel');
                  return `${cancelled} cutouts are not made; what there was stays.`;
                })
              }
            >
              Cancel the rest
            </Button>
          </div>
        )}
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what="the cutouts" />}
        {data && !list.length && (
          <div className="mt-6">
            <Empty title={which === 'open' ? 'All cutouts are accepted' : 'Nothing here'}>
              Import photos, or look at all.
            </Empty>
          </div>
        )}
        <ul className="mt-4 grid grid-cols-[repeat(auto-fill,minmax(210px,1fr))] gap-3.5">
          {list.map((photo) => (
            <Card
              key={photo.id}
              photo={photo}
              ground={{ white: '#ffffff', black: '#000000', grey: '#bdbdbd' }[ground]}
              onAccept={(accepted) =>
                void act(async () => {
                  await call('POST /api/photos/accepted', { body: { ids: [photo.id], accepted } });
                  return accepted ? `${photo.name} is accepted.` : `${photo.name} is to be looked at again.`;
                })
              }
            />
          ))}
        </ul>
      </main>
    </>
  );
}

/** What could not be cut out comes before everything. */
function sureness(photo: Photo): number {
  if (photo.cutoutState === 'failed') return -1;
  return photo.cutout?.confidence ?? 0;
}

function Card({
  photo,
  ground,
  onAccept,
}: {
  photo: Photo;
  ground: string;
  onAccept(accepted: boolean): void;
}) {
  const state = photo.cutoutState;
  const verdict = verdictOf(sureness(photo));
  return (
    <li className="border-line bg-card overflow-hidden rounded-lg border">
      <Link
        to={`/photos/${photo.id}/cutout`}
        aria-label={`Open ${photo.name} on the cutout desk`}
        className="relative block aspect-[4/3] p-3 focus-visible:outline-offset-[-2px]"
        style={{ background: ground }}
      >
        <img
          src={reducedUrl(photo.cutout?.picture ?? photo.working, 320)}
          alt=""
          loading="lazy"
          className="h-full w-full object-contain"
        />
        {photo.cutout && !photo.accepted && <Doubts cutout={photo.cutout} />}
      </Link>
      <div className="border-line grid gap-1.5 border-t px-3 py-2">
        <p className="flex items-center justify-between gap-2">
          <span className="truncate font-medium" title={photo.name}>
            {photo.name}
          </span>
          {photo.inUse === false && <span className="text-amber-ink text-[12px]">not in use yet</span>}
        </p>
        <p className="text-ink-2 flex items-center gap-1.5 text-[12px]">
          <StatusMark
            size={9}
            mark={
              state === 'failed'
                ? 'stop'
                : state === 'waiting' || state === 'working'
                  ? 'working'
                  : state === 'cancelled'
                    ? 'missing'
                    : photo.accepted || verdict === 'looks right'
                      ? 'pass'
                      : verdict === 'look at it'
                        ? 'look'
                        : 'stop'
            }
          />
          <span className="truncate" title={photo.cutoutError ?? ''}>
            {state === 'failed'
              ? photo.cutoutError
              : state === 'waiting'
                ? 'queued'
                : state === 'working'
                  ? 'being cut out'
                  : state === 'cancelled'
                    ? 'cancelled, not cut out'
                    : photo.accepted
                      ? 'accepted'
                      : verdict}
          </span>
        </p>
        <div className="flex justify-between">
          <Link to={`/photos/${photo.id}/cutout`} className={buttonClass()}>
            Open the desk
          </Link>
          <Button disabled={!photo.cutout} onClick={() => onAccept(!photo.accepted)}>
            {photo.accepted ? 'Look again' : 'Accept'}
          </Button>
        </div>
      </div>
    </li>
  );
}

/** Rings on a cutout's picture where its edge is in doubt. */
function Doubts({ cutout }: { cutout: NonNullable<Photo['cutout']> }) {
  const { bounds, doubts } = cutout;
  if (!doubts?.length) return null;
  return (
    <svg
      aria-hidden
      viewBox={`${bounds.x} ${bounds.y} ${bounds.width} ${bounds.height}`}
      className="pointer-events-none absolute inset-3 h-[calc(100%-1.5rem)] w-[calc(100%-1.5rem)] overflow-visible"
    >
      {doubts.map((d) => {
        const r = Math.max(d.radius, Math.max(bounds.width, bounds.height) * 0.03);
        return (
          <circle
            key={`${d.x}-${d.y}`}
            cx={d.x}
            cy={d.y}
            r={r}
            fill="none"
            stroke="var(--color-amber)"
            strokeWidth="3"
            vectorEffect="non-scaling-stroke"
          />
        );
      })}
    </svg>
  );
}
