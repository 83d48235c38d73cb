import { RefreshCw, Trash2 } from 'lucide-react';
import { Link } from 'react-router';
import { call, reducedUrl, upload, type Photo } from '../../api/client';
import { Button, buttonClass, Checkbox, IconButton } from '../../ui/controls';
import { say } from '../../ui/notices';
import { bytesText, StatusMark } from '../../ui/status';
import { removing } from '../../ui/removing';
import { tried } from '../../ui/tried';
import { cutoutMark, cutoutText } from './cutout-text';
import { msg } from '../../language/language';

/** A photo with its cutout, how that stands, and what can be done with it. */
export function PhotoCard({
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
  const params = { id: photo.id };
  const replace = async (file: File) => {
    const sent = upload('POST /api/photos/:id/replace', {
      params,
      query: { name: file.name },
      file,
      revision: photo.revision,
    });
    if (await tried(sent, '/api/photos', '/api/products', '/api/listings'))
      say(
        'pass',
        msg('{photo} is replaced; its product keeps it, and its steps run again.', { photo: photo.name }),
      );
  };
  const remove = () =>
    void removing(
      call('DELETE /api/photos/:id', { params }, { revision: photo.revision }),
      photo.name,
      '/api/photos',
      '/api/products',
    );
  return (
    <div
      className={`bg-card h-full overflow-hidden rounded-lg border ${chosen ? 'border-spruce ring-spruce ring-1' : 'border-line'}`}
    >
      <Link
        to={`/photos/${photo.id}/cutout`}
        aria-label={msg('Open {photo}', { photo: photo.name })}
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
          <Checkbox
            label={msg('Choose {photo}', { photo: photo.name })}
            checked={chosen}
            disabled={!photo.cutout}
            onChange={onChoose}
          />
          <span className="truncate font-medium" title={photo.name}>
            {photo.name}
          </span>
        </div>
        <Facts photo={photo} />
        <div className="mt-2 flex items-center gap-1.5">
          {photo.cutout ? (
            <Button onClick={onStart}>{msg('Start listing')}</Button>
          ) : (
            <Link to={`/photos/${photo.id}/cutout`} className={buttonClass()}>
              {msg('Open')}
            </Link>
          )}
          <label
            title={msg('Replace {photo} by another photo', { photo: photo.name })}
            className="border-line hover:border-ink-3 focus-within:outline-spruce ml-auto inline-flex h-7 w-8 cursor-pointer items-center justify-center rounded-md border focus-within:outline-2"
          >
            <RefreshCw size={14} aria-hidden />
            <input
              type="file"
              className="sr-only"
              aria-label={msg('Replace {photo} by another photo', { photo: photo.name })}
              onChange={(e) => {
                const [file] = e.target.files ?? [];
                if (file) void replace(file);
                e.target.value = '';
              }}
            />
          </label>
          <IconButton label={msg('Remove {photo}', { photo: photo.name })} onClick={remove}>
            <Trash2 size={14} aria-hidden />
          </IconButton>
        </div>
      </div>
    </div>
  );
}

/** Size, state of the cutout, and what the reader noted. */
function Facts({ photo }: { photo: Photo }) {
  return (
    <>
      <p className="measure text-ink-2 mt-0.5">
        {msg('{width} x {height} px, {bytesText}', {
          width: photo.width,
          height: photo.height,
          bytesText: bytesText(photo.bytes),
        })}
      </p>
      <p className="text-ink-2 mt-0.5 flex items-center gap-1.5 text-[12px]">
        <StatusMark size={9} mark={cutoutMark(photo)} />
        <span className="truncate" title={cutoutText(photo)}>
          {cutoutText(photo)}
        </span>
      </p>
      {photo.notes.length > 0 && <p className="text-ink-2 truncate text-[12px]">{photo.notes.join(', ')}</p>}
    </>
  );
}
