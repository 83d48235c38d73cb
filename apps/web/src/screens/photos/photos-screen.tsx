import { Plus } from 'lucide-react';
import { useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { Link } from 'react-router';
import { verdictOf } from '@scenograph/core/cutout/confidence';
import { reducedUrl, refresh, type Photo, call, upload, useRoute } from '../../api/client';
import { bringIn, stopUpload, useUploads, type Upload } from '../../api/uploads';
import { Button, buttonClass } from '../../ui/controls';
import { say } from '../../ui/notices';
import { CutoutFiles } from '../../ui/cutout-files';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { ProgressBar, StatusMark, bytesText, type Mark } from '../../ui/status';
import { TopBar } from '../../ui/top-bar';
import { NewListing } from '../listings/new-listing';

export function PhotosScreen() {
  const { data, error } = useRoute('GET /api/photos');
  const { list, clear } = useUploads();
  const [starting, setStarting] = useState<Photo[] | null>(null);
  const [chosen, setChosen] = useState<string[]>([]);
  const { getRootProps, getInputProps, open } = useDropzone({
    onDrop: bringIn,
    noClick: true,
    noKeyboard: true,
    useFsAccessApi: false,
  });
  return (
    <>
      <TopBar />
      <main className="grow overflow-y-auto px-5 pt-4 pb-10" {...getRootProps({ role: 'main' })}>
        <div className="flex items-center gap-6">
          <h1 className="font-display text-[22px] font-bold">Photos</h1>
          <p className="text-ink-2 grow">
            Drop, paste or choose product photos, as many as you like. JPEG, PNG, WebP, TIFF or AVIF, up to 60
            megapixels. The original is never altered.
          </p>
          {chosen.length > 1 && (
            <Button onClick={() => setStarting(data?.filter((p) => chosen.includes(p.id)) ?? null)}>
              Start one listing with {chosen.length} variants
            </Button>
          )}
          {chosen.length > 0 && (
            <>
              <Button onClick={() => void cutAgain(chosen)}>Cut {chosen.length} out again</Button>
              <CutoutFiles ids={chosen} title={`Save ${chosen.length} as`} />
            </>
          )}
          <Link to="/photos/review" className={buttonClass()}>
            Review wall
          </Link>
          <input {...getInputProps({ 'aria-label': 'Photos to import' })} />
          <Button tone="main" onClick={open}>
            <Plus size={15} aria-hidden /> Import photos
          </Button>
        </div>

        {list.length > 0 && (
          <section aria-label="Coming in" className="border-line bg-card mt-4 rounded-lg border">
            <div className="border-line flex items-center justify-between border-b px-4 py-2">
              <h2 className="font-semibold">Coming in</h2>
              <Button tone="quiet" onClick={clear}>
                Clear what is done
              </Button>
            </div>
            <ul className="max-h-64 overflow-y-auto">
              {list.map((u) => (
                <UploadRow
                  key={u.id}
                  upload={u}
                  photo={data?.find((p) => p.id === u.photo?.id)}
                  onStart={setStarting}
                />
              ))}
            </ul>
          </section>
        )}

        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what="the photos" />}
        {data?.length === 0 && (
          <div className="mt-6">
            <Empty title="No photos yet">Drop one here: its cutout is made at once.</Empty>
          </div>
        )}
        <ul className="mt-4 grid grid-cols-[repeat(auto-fill,minmax(196px,1fr))] gap-3.5">
          {data?.map((photo) => (
            <PhotoCard
              key={photo.id}
              photo={photo}
              chosen={chosen.includes(photo.id)}
              onChoose={(on) => setChosen((c) => (on ? [...c, photo.id] : c.filter((id) => id !== photo.id)))}
              onStart={() => setStarting([photo])}
            />
          ))}
        </ul>
      </main>
      {starting && <NewListing photos={starting} onClose={() => setStarting(null)} />}
    </>
  );
}

async function cutAgain(ids: string[]): Promise<void> {
  try {
    await call('POST /api/photos/cutouts', { body: { ids } });
    refresh('/api/photos');
  } catch (error) {
    say('stop', (error as Error).message);
  }
}

function UploadRow({
  upload,
  photo,
  onStart,
}: {
  upload: Upload;
  photo: Photo | undefined;
  onStart(photos: Photo[]): void;
}) {
  const mark: Mark =
    upload.state === 'refused'
      ? 'stop'
      : upload.state === 'taken' && photo?.cutoutState === 'done'
        ? 'pass'
        : 'working';
  return (
    <li className="border-line flex min-h-9.5 items-center gap-3 border-b px-4 py-1.5 last:border-b-0">
      <StatusMark mark={upload.state === 'stopped' ? 'missing' : mark} />
      <span className="w-56 shrink-0 truncate font-medium">{upload.name}</span>
      {upload.state === 'sending' || upload.state === 'waiting' ? (
        <>
          <div className="w-48">
            <ProgressBar share={upload.share} label={`Sending ${upload.name}`} />
          </div>
          <span className="measure text-ink-2">
            {upload.state === 'waiting'
              ? 'waits its turn'
              : upload.share < 1
                ? `${Math.round(upload.share * 100)} % sent`
                : 'being read'}
          </span>
          <Button tone="quiet" className="ml-auto" onClick={() => stopUpload(upload)}>
            Stop
          </Button>
        </>
      ) : upload.state === 'taken' && photo ? (
        <>
          <span className="text-ink-2">{cutoutText(photo)}</span>
          {photo.cutout && (
            <Button className="ml-auto" onClick={() => onStart([photo])}>
              Start a listing
            </Button>
          )}
        </>
      ) : (
        <span className={upload.state === 'refused' ? 'text-coral-ink' : 'text-ink-2'}>
          {upload.message || 'Taken in.'}
        </span>
      )}
    </li>
  );
}

export function cutoutText(photo: Photo): string {
  if (photo.cutoutState === 'waiting') return 'Queued for its cutout';
  if (photo.cutoutState === 'working') return 'Being cut out ...';
  if (photo.cutoutState === 'cancelled') return 'Cancelled; open it to cut it out';
  if (photo.cutoutState === 'failed') return photo.cutoutError ?? 'Could not be cut out.';
  if (photo.inUse === false) return 'Corrected, not in use yet';
  if (photo.accepted) return 'Cut out, accepted';
  return `Cut out, ${verdictOf(photo.cutout?.confidence ?? 0)}`;
}

function PhotoCard({
  photo,
  chosen,
  onChoose,
  onStart,
}: {
  photo: Photo;
  chosen: boolean;
  onChoose(on: boolean): void;
  onStart(): void;
}) {
  const replace = async (file: File) => {
    try {
      await upload('POST /api/photos/:id/replace', {
        params: { id: photo.id },
        query: { name: file.name },
        file,
      });
      refresh('/api/photos', '/api/products', '/api/listings');
      say('pass', `${photo.name} is replaced; its product keeps it, and its steps run again.`);
    } catch (error) {
      say('stop', (error as Error).message);
    }
  };
  const remove = async () => {
    try {
      await call('DELETE /api/photos/:id', { params: { id: photo.id } });
      refresh('/api/photos', '/api/products');
    } catch (error) {
      say('stop', (error as Error).message);
    }
  };
  return (
    <li
      className={`bg-card overflow-hidden rounded-lg border ${chosen ? 'border-spruce ring-spruce ring-1' : 'border-line'}`}
    >
      <Link
        to={`/photos/${photo.id}/cutout`}
        aria-label={`Open ${photo.name}`}
        className="relative block aspect-[4/3] focus-visible:outline-offset-[-2px]"
      >
        <div className={`absolute inset-0 ${photo.cutout ? 'clear-ground' : 'bg-[#e9e9e8]'}`}>
          <img
            src={reducedUrl(photo.cutout?.picture ?? photo.working, 320)}
            alt=""
            loading="lazy"
            className="h-full w-full object-contain p-3"
          />
        </div>
      </Link>
      <div className="border-line border-t px-3 py-2">
        <div className="flex items-center gap-2">
          <input
            type="checkbox"
            aria-label={`Choose ${photo.name}`}
            checked={chosen}
            disabled={!photo.cutout}
            onChange={(e) => onChoose(e.target.checked)}
            className="accent-spruce"
          />
          <span className="truncate font-medium" title={photo.name}>
            {photo.name}
          </span>
        </div>
        <p className="measure text-ink-2 mt-0.5">
          {photo.width} x {photo.height} px, {bytesText(photo.bytes)}
        </p>
        <p className="text-ink-2 mt-0.5 flex items-center gap-1.5 text-[12px]">
          <StatusMark
            size={9}
            mark={photo.cutoutState === 'done' ? 'pass' : photo.cutoutState === 'failed' ? 'stop' : 'working'}
          />
          <span className="truncate" title={cutoutText(photo)}>
            {cutoutText(photo)}
          </span>
        </p>
        {photo.notes.length > 0 && (
          <p className="text-ink-2 truncate text-[12px]">{photo.notes.join(', ')}</p>
        )}
        <div className="mt-2 flex justify-between">
          {photo.cutout ? (
            <Button onClick={onStart}>Start listing</Button>
          ) : (
            <Link to={`/photos/${photo.id}/cutout`} className={buttonClass()}>
              Open
            </Link>
          )}
          <label className="text-ink-2 hover:text-ink focus-within:outline-spruce cursor-pointer rounded-sm px-1 py-1 focus-within:outline-2">
            Replace
            <input
              type="file"
              className="sr-only"
              aria-label={`Replace ${photo.name} by another photo`}
              onChange={(e) => {
                const [file] = e.target.files ?? [];
                if (file) void replace(file);
                e.target.value = '';
              }}
            />
          </label>
          <Button tone="quiet" onClick={remove} aria-label={`Remove ${photo.name}`}>
            Remove
          </Button>
        </div>
      </div>
    </li>
  );
}
