import { Plus } from 'lucide-react';
import { useState } from 'react';
import { useDropzone } from 'react-dropzone';
import { Link } from 'react-router';
import { call, useRoute, type Photo } from '../../api/client';
import { bringIn, useUploads } from '../../api/uploads';
import { Button, buttonClass } from '../../ui/controls';
import { CutoutFiles } from '../../ui/cutout-files';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { tried } from '../../ui/tried';
import { VirtualGrid } from '../../ui/virtual-grid';
import { NewListing } from '../listings/new-listing';
import { PhotoCard } from './photo-card';
import { UploadRow } from './upload-row';
import { msg } from '../../language/language';

export function PhotosScreen() {
  const { data, error } = useRoute('GET /api/photos');
  const [starting, setStarting] = useState<Photo[] | null>(null);
  const [ids, setIds] = useState<string[]>([]);
  // What was removed meanwhile is chosen no longer.
  const chosen = data?.filter((p) => ids.includes(p.id)) ?? [];
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
        <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
          <h1 className="font-display text-[22px] font-bold">{msg('Photos')}</h1>
          <p className="text-ink-2 grow basis-60">
            {msg(
              'Drop, paste or choose product photos, as many as you like. JPEG, PNG, WebP, TIFF or AVIF, up to 60 megapixels. The original is never altered.',
            )}
          </p>
          <ForChosen photos={chosen} onStart={setStarting} />
          <Link to="/photos/review" className={buttonClass()}>
            {msg('Review wall')}
          </Link>
          <input {...getInputProps({ 'aria-label': msg('Photos to import') })} />
          <Button tone="main" onClick={open}>
            <Plus size={15} aria-hidden /> {msg('Import photos')}
          </Button>
        </div>
        <ComingIn photos={data} onStart={setStarting} />
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what={msg('the photos')} />}
        {data?.length === 0 && (
          <div className="mt-6">
            <Empty title={msg('No photos yet')}>{msg('Drop one here: its cutout is made at once.')}</Empty>
          </div>
        )}
        <VirtualGrid items={data ?? []} idOf={(photo) => photo.id} least={196} usual={268} className="mt-4">
          {(photo) => (
            <PhotoCard
              photo={photo}
              chosen={ids.includes(photo.id)}
              onChoose={(on) => setIds((c) => (on ? [...c, photo.id] : c.filter((id) => id !== photo.id)))}
              onStart={() => setStarting([photo])}
            />
          )}
        </VirtualGrid>
      </main>
      {starting && <NewListing photos={starting} onClose={() => setStarting(null)} />}
    </>
  );
}

/** What can be done with several photos at once. */
function ForChosen({ photos, onStart }: { photos: Photo[]; onStart(photos: Photo[]): void }) {
  const ids = photos.map((p) => p.id);
  if (!ids.length) return null;
  return (
    <>
      <StartTogether photos={photos} onStart={onStart} />
      <Button onClick={() => void tried(call('POST /api/photos/cutouts', { body: { ids } }), '/api/photos')}>
        {msg('Cut {ids} out again', { ids: ids.length })}
      </Button>
      <CutoutFiles ids={ids} title={msg('Save {ids} as', { ids: ids.length })} />
    </>
  );
}

/** Several photos as the variants of one listing. */
function StartTogether({ photos, onStart }: { photos: Photo[]; onStart(photos: Photo[]): void }) {
  if (photos.length < 2) return null;
  return (
    <Button onClick={() => onStart(photos)}>
      {msg('Start one listing with {ids, plural, one {# variant} other {# variants}}', {
        ids: photos.length,
      })}
    </Button>
  );
}

/** Files on their way in; nothing while there are none. */
function ComingIn({ photos, onStart }: { photos: Photo[] | undefined; onStart(photos: Photo[]): void }) {
  const { list, clear } = useUploads();
  if (!list.length) return null;
  const rows = list.map((upload) => ({ upload, photo: photos?.find((p) => p.id === upload.photo?.id) }));
  const cutOut = rows.flatMap(({ photo }) => (photo?.cutout ? [photo] : []));
  return (
    <section aria-label={msg('Coming in')} className="border-line bg-card mt-4 rounded-lg border">
      <div className="border-line flex items-center justify-between border-b px-4 py-2">
        <h2 className="font-semibold">{msg('Coming in')}</h2>
        <span className="flex items-center gap-2">
          <StartTogether photos={cutOut} onStart={onStart} />
          <Button tone="quiet" onClick={clear}>
            {msg('Clear what is done')}
          </Button>
        </span>
      </div>
      <ul className="max-h-64 overflow-y-auto">
        {rows.map(({ upload, photo }) => (
          <UploadRow key={upload.id} upload={upload} photo={photo} onStart={onStart} />
        ))}
      </ul>
    </section>
  );
}
