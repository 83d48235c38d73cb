import type { Photo } from '../../api/client';
import { stopUpload, type Upload } from '../../api/uploads';
import { Button } from '../../ui/controls';
import { ProgressBar, StatusMark, type Mark } from '../../ui/status';
import { cutoutMark, cutoutText } from './cutout-text';
import { msg } from '../../language/language';

function markOf({ state }: Upload, photo: Photo | undefined): Mark {
  if (state === 'stopped') return 'missing';
  if (state === 'refused') return 'stop';
  return state === 'taken' && photo ? cutoutMark(photo) : 'working';
}

/** One file on its way in: how far it has come, and then its cutout. */
export function UploadRow({
  upload,
  photo,
  onStart,
}: {
  upload: Upload;
  photo: Photo | undefined;
  onStart(photos: Photo[]): void;
}) {
  return (
    <li className="border-line flex min-h-9.5 items-center gap-3 border-b px-4 py-1.5 last:border-b-0">
      <StatusMark mark={markOf(upload, photo)} />
      <span className="w-56 shrink-0 truncate font-medium">{upload.name}</span>
      {upload.state === 'sending' || upload.state === 'waiting' ? (
        <>
          <div className="w-48">
            <ProgressBar share={upload.share} label={msg('Sending {upload}', { upload: upload.name })} />
          </div>
          <span className="measure text-ink-2">
            {upload.state === 'waiting'
              ? msg('waits its turn')
              : upload.share < 1
                ? msg('{share} % sent', { share: Math.round(upload.share * 100) })
                : msg('being read')}
          </span>
          <Button tone="quiet" className="ml-auto" onClick={() => stopUpload(upload)}>
            {msg('Stop')}
          </Button>
        </>
      ) : upload.state === 'taken' && photo ? (
        <>
          <span className="text-ink-2">{cutoutText(photo)}</span>
          {photo.cutout && (
            <Button className="ml-auto" onClick={() => onStart([photo])}>
              {msg('Start a listing')}
            </Button>
          )}
        </>
      ) : (
        <span className={upload.state === 'refused' ? 'text-coral-ink' : 'text-ink-2'}>
          {upload.message || msg('Taken in.')}
        </span>
      )}
    </li>
  );
}
