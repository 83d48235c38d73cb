import { Trash2 } from 'lucide-react';
import { reducedUrl, refresh, request, sendFile, useServer, type Artwork } from '../../api/client';
import { IconButton } from '../../ui/controls';
import { say } from '../../ui/notices';

/** The designs that are printed on mockups. */
export function ArtworkShelf() {
  const { data: artworks } = useServer<Artwork[]>('/api/artwork');
  const bringIn = async (files: FileList | null) => {
    for (const file of files ?? [])
      try {
        const made = await sendFile<Artwork>(
          `/api/artwork?name=${encodeURIComponent(file.name)}`,
          file,
          () => undefined,
        );
        say('pass', `${made.title} is in the library.`);
        for (const note of made.notes) say('look', `${made.title}: ${note}.`);
      } catch (e) {
        say('stop', (e as Error).message);
      }
    refresh('/api/artwork');
  };
  return (
    <>
      <div className="mt-6 mb-2 flex items-center justify-between">
        <h2 className="font-semibold">
          Artwork <span className="measure text-ink-2">{artworks?.length ?? ''}</span>
        </h2>
        <label className="border-line bg-card hover:border-ink-3 inline-flex h-7 cursor-pointer items-center rounded-md border px-3 font-medium">
          Bring in artwork
          <input
            type="file"
            multiple
            accept=".svg,image/svg+xml,image/png,image/jpeg,image/webp"
            className="sr-only"
            aria-label="Artwork to bring in"
            onChange={(e) => {
              void bringIn(e.target.files);
              e.target.value = '';
            }}
          />
        </label>
      </div>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-3.5">
        {artworks?.map((a) => (
          <li key={a.id} className="border-line bg-card overflow-hidden rounded-lg border">
            <div className="flex h-36 items-center justify-center bg-white p-4">
              <img src={reducedUrl(a.picture, 320)} alt="" className="max-h-full max-w-full" />
            </div>
            <div className="border-line flex items-center gap-2 border-t px-3 py-2">
              <div className="min-w-0 grow">
                <p className="truncate font-semibold">{a.title}</p>
                <p className="measure text-ink-2">
                  {a.vector ? `SVG, ${a.colours.length} colours` : `${a.width} x ${a.height} px`}
                </p>
              </div>
              <IconButton
                label={`Remove ${a.title} from the library`}
                onClick={() =>
                  void request('DELETE', `/api/artwork/${a.id}`)
                    .then(() => refresh('/api/artwork'))
                    .catch((e: Error) => say('stop', e.message))
                }
              >
                <Trash2 size={14} aria-hidden />
              </IconButton>
            </div>
          </li>
        ))}
      </ul>
    </>
  );
}
