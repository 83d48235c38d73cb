import { useEffect, useMemo, useRef, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { blobUrl, refresh, request, sendFile, useServer, type Photo } from '../../api/client';
import { startCutout } from '../../workers/painters';
import { useActions, type Action } from '../../ui/actions';
import { Button, Segmented, Switch } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { cutoutText } from '../photos/photos-screen';
import { EdgeLoupe } from './edge-loupe';

type Ground = 'clear' | 'white' | 'black' | 'photo' | 'matte';

/** A cutout made in this browser that is not kept yet. */
interface Fresh {
  png: Blob;
  url: string;
  bounds: { x: number; y: number; width: number; height: number };
  confidence: number;
  milliseconds: number;
}

export function CutoutScreen() {
  const { id } = useParams();
  const { data: photo, error } = useServer<Photo>(`/api/photos/${id}`);
  const { data: all } = useServer<Photo[]>('/api/photos');
  if (error || !photo)
    return (
      <>
        <TopBar />
        {error ? <Trouble error={error} /> : <Waiting what="the photo" />}
      </>
    );
  return <Desk key={photo.id} photo={photo} all={all ?? [photo]} />;
}

function Desk({ photo, all }: { photo: Photo; all: Photo[] }) {
  const navigate = useNavigate();
  const [ground, setGround] = useState<Ground>(photo.cutout ? 'clear' : 'photo');
  const [options, setOptions] = useState(photo.cutout?.options ?? { holes: true, shadows: true });
  const [fresh, setFresh] = useState<Fresh | null>(null);
  const [running, setRunning] = useState<{ end(): void } | null>(null);
  const [pointer, setPointer] = useState<{ x: number; y: number } | null>(null);
  const view = useRef<HTMLDivElement>(null);
  const at = all.findIndex((p) => p.id === photo.id);
  const next = all[at + 1];

  useEffect(() => () => running?.end(), [running]);
  useEffect(() => () => void (fresh && URL.revokeObjectURL(fresh.url)), [fresh]);

  const cut = async (wanted = options) => {
    running?.end();
    const { worker, end } = startCutout();
    setRunning({ end });
    try {
      const made = await worker.run(blobUrl(photo.working), wanted);
      setFresh({ ...made, url: URL.createObjectURL(made.png) });
      if (ground === 'photo') setGround('clear');
    } catch (e) {
      say('stop', (e as Error).message);
    } finally {
      end();
      setRunning(null);
    }
  };

  const keep = async () => {
    if (!fresh) return;
    const query = new URLSearchParams({
      x: String(fresh.bounds.x),
      y: String(fresh.bounds.y),
      confidence: String(fresh.confidence),
      holes: String(options.holes),
      shadows: String(options.shadows),
    });
    try {
      await sendFile(`/api/photos/${photo.id}/cutout?${query}`, fresh.png, () => undefined);
      setFresh(null);
      refresh('/api/photos', '/api/products', '/api/listings');
      say('pass', 'The cutout is kept. Every shot that shows it follows.');
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };

  const onServer = async () => {
    try {
      await request('POST', `/api/photos/${photo.id}/cutout`, options);
      setFresh(null);
      refresh('/api/photos');
      say('working', 'A worker cuts it out; this page follows.');
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };

  const actions = useMemo<Action[]>(
    () => [
      ...(['clear', 'white', 'black', 'photo', 'matte'] as const).map((g) => ({
        id: `ground-${g}`,
        title: `Look at it on ${g === 'clear' ? 'transparent' : g === 'matte' ? 'the matte' : g === 'photo' ? 'its photo' : g}`,
        group: 'Cutout',
        run: () => setGround(g),
      })),
      { id: 'again', title: 'Cut out again', group: 'Cutout', run: () => void cut() },
    ],
    [options, photo.id],
  );
  useActions('cutout', actions);

  const cutout = fresh
    ? { url: fresh.url, bounds: fresh.bounds }
    : photo.cutout
      ? { url: blobUrl(photo.cutout.picture), bounds: photo.cutout.bounds }
      : null;
  const confidence = fresh?.confidence ?? photo.cutout?.confidence ?? null;
  const share = (v: number, of: number) => `${(v / of) * 100}%`;
  const backgrounds: Record<Ground, string> = {
    clear: 'clear-ground',
    white: 'bg-white',
    black: 'bg-black',
    photo: '',
    matte: 'bg-black',
  };

  return (
    <>
      <TopBar
        trail={
          <nav aria-label="Where you are" className="flex items-center gap-2">
            <Link to="/photos" className="text-ink-2 hover:text-ink">
              Photos
            </Link>
            <span className="text-ink-3">/</span>
            <span className="text-ink-2 max-w-72 truncate">{photo.name}</span>
            <span className="text-ink-3">/</span>
            <h1 className="font-semibold">Cutout</h1>
            <span className="measure text-ink-2">
              photo {at + 1} of {all.length}
            </span>
          </nav>
        }
      >
        {next && (
          <Button onClick={() => void navigate(`/photos/${next.id}/cutout`)} tone={fresh ? 'plain' : 'main'}>
            Next photo
          </Button>
        )}
        {fresh && (
          <>
            <Button onClick={() => setFresh(null)}>Leave it as it was</Button>
            <Button tone="main" onClick={keep}>
              Keep this cutout
            </Button>
          </>
        )}
      </TopBar>
      <div className="flex min-h-0 grow">
        <main className="flex min-w-0 grow flex-col" style={{ background: 'var(--stage)' }}>
          <div ref={view} className="flex min-h-0 grow items-center justify-center p-6">
            <div
              className={`relative ${backgrounds[ground]}`}
              style={{
                aspectRatio: `${photo.width} / ${photo.height}`,
                maxHeight: '100%',
                width: `min(100%, calc((100vh - 170px) * ${photo.width / photo.height}))`,
              }}
              onPointerMove={(e) => {
                const r = e.currentTarget.getBoundingClientRect();
                setPointer({
                  x: ((e.clientX - r.left) / r.width) * photo.width,
                  y: ((e.clientY - r.top) / r.height) * photo.height,
                });
              }}
            >
              {ground === 'photo' || !cutout ? (
                <img
                  src={blobUrl(photo.working)}
                  alt={`Photo ${photo.name}`}
                  className="absolute inset-0 h-full w-full"
                />
              ) : (
                <img
                  src={cutout.url}
                  alt={`Cutout of ${photo.name}`}
                  className="absolute"
                  style={{
                    left: share(cutout.bounds.x, photo.width),
                    top: share(cutout.bounds.y, photo.height),
                    width: share(cutout.bounds.width, photo.width),
                    height: share(cutout.bounds.height, photo.height),
                    // The matte is the cutout's own transparency, drawn white on black.
                    filter: ground === 'matte' ? 'brightness(0) invert(1)' : undefined,
                  }}
                />
              )}
              {running && (
                <div
                  role="status"
                  className="absolute inset-0 flex flex-col items-center justify-center gap-3 bg-[#ffffffb0]"
                >
                  <p className="font-semibold">Finding the product ...</p>
                  <Button
                    onClick={() => {
                      running.end();
                      setRunning(null);
                    }}
                  >
                    Cancel
                  </Button>
                </div>
              )}
            </div>
          </div>
          <div className="flex justify-center pb-5">
            <div className="w-[460px]">
              <Segmented<Ground>
                label="Seen on"
                value={ground}
                onChange={setGround}
                options={[
                  { value: 'clear', title: 'Transparent' },
                  { value: 'white', title: 'White' },
                  { value: 'black', title: 'Black' },
                  { value: 'matte', title: 'Matte' },
                  { value: 'photo', title: 'Photo' },
                ]}
              />
            </div>
          </div>
        </main>
        <aside
          aria-label="Cutout desk"
          className="border-line bg-card w-76 shrink-0 overflow-y-auto border-l"
        >
          <section className="border-line border-b p-3.5">
            <EdgeLoupe
              source={cutout?.url ?? null}
              bounds={cutout?.bounds ?? null}
              at={
                pointer ??
                (cutout ? { x: cutout.bounds.x + cutout.bounds.width / 2, y: cutout.bounds.y + 12 } : null)
              }
            />
            <p className="text-ink-2 mt-2 text-[12px]">Edge loupe, 600 %, follows the pointer</p>
          </section>
          <section className="border-line border-b p-3.5">
            <h2 className="flex justify-between font-semibold">
              Automatic
              <span className="measure text-ink-2">
                {confidence === null ? '' : `${Math.round(confidence * 100)} % sure`}
              </span>
            </h2>
            <p className="text-ink-2 mt-1 text-[12.5px]">
              {fresh
                ? `Cut out here in ${(fresh.milliseconds / 1000).toFixed(1)} s, not kept yet.`
                : `${cutoutText(photo)}.`}
            </p>
            <div className="mt-2">
              <Switch
                label="Openings inside the product"
                on={options.holes}
                onChange={(holes) => {
                  setOptions({ ...options, holes });
                  void cut({ ...options, holes });
                }}
              />
              <Switch
                label="Soft shadows belong to the background"
                on={options.shadows}
                onChange={(shadows) => {
                  setOptions({ ...options, shadows });
                  void cut({ ...options, shadows });
                }}
              />
            </div>
            <div className="mt-2 flex gap-2">
              <Button onClick={() => void cut()} disabled={!!running}>
                Cut out again
              </Button>
              <Button tone="quiet" onClick={onServer} title="Let a worker do it: for very large photos">
                On the server
              </Button>
            </div>
          </section>
          <section className="p-3.5">
            <h2 className="font-semibold">Photo</h2>
            <dl className="text-ink-2 mt-1 grid grid-cols-[80px_1fr] gap-y-1 text-[12.5px]">
              <dt>Size</dt>
              <dd className="measure">
                {photo.width} x {photo.height} px
              </dd>
              {photo.cutout && (
                <>
                  <dt>Product</dt>
                  <dd className="measure">
                    {photo.cutout.width} x {photo.cutout.height} px
                  </dd>
                </>
              )}
              <dt>Format</dt>
              <dd className="measure">{photo.format}</dd>
            </dl>
            {photo.notes.map((n) => (
              <p key={n} className="text-ink-2 mt-1 text-[12.5px]">
                {n}
              </p>
            ))}
            {cutout && (
              <a
                href={cutout.url}
                download={`${photo.name.replace(/\.[^.]+$/, '')}.cutout.png`}
                className="mt-2 block underline"
              >
                Download the cutout as PNG
              </a>
            )}
          </section>
        </aside>
      </div>
    </>
  );
}
