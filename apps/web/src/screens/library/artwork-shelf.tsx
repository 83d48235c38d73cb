import { Trash2 } from 'lucide-react';
import { ARTWORK_FILES, bringInArtwork } from '../../api/artwork';
import { reducedUrl, call, useRoute } from '../../api/client';
import { IconButton } from '../../ui/controls';
import { FileButton } from '../../ui/file-button';
import { say } from '../../ui/notices';
import { removing } from '../../ui/removing';
import { msg, rich } from '../../language/language';

/** The designs that are printed on mockups. */
export function ArtworkShelf() {
  const { data: artworks } = useRoute('GET /api/artwork');
  const bringIn = async (files: File[]) => {
    for (const made of await bringInArtwork(files))
      say('pass', msg('{made} is in the library.', { made: made.title }));
  };
  return (
    <>
      <div className="mt-6 mb-2 flex items-center justify-between">
        <h2 className="font-semibold">
          {rich('Artwork <measure>{artworks}</measure>', {
            measure: (inside) => <span className="measure text-ink-2">{inside}</span>,
            artworks: artworks?.length ?? '',
          })}
        </h2>
        <FileButton
          title={msg('Import artwork')}
          label={msg('Artwork to import')}
          accept={ARTWORK_FILES}
          multiple
          onFiles={(files) => void bringIn(files)}
        />
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
                  {a.vector
                    ? msg('SVG, {colours, plural, one {# colour} other {# colours}}', {
                        colours: a.colours.length,
                      })
                    : `${a.width} x ${a.height} px`}
                </p>
              </div>
              <IconButton
                label={msg('Remove {a} from the library', { a: a.title })}
                onClick={() =>
                  void removing(
                    call('DELETE /api/artwork/:id', { params: { id: a.id } }),
                    `"${a.title}"`,
                    '/api/artwork',
                    '/api/products',
                  )
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
