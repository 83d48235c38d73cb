import { Trash2 } from 'lucide-react';
import { useDropzone } from 'react-dropzone';
import { useNavigate } from 'react-router';
import { call, reducedUrl, refresh, type Scene, upload, useRoute } from '../../api/client';
import { Button, buttonClass, IconButton } from '../../ui/controls';
import { say } from '../../ui/notices';
import { removing } from '../../ui/removing';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { ArtworkShelf } from './artwork-shelf';
import { Shelf } from './shelf';
import { msg, rich } from '../../language/language';

async function takePictures(files: readonly File[]): Promise<void> {
  for (const file of files) {
    try {
      await upload('POST /api/pictures', { query: { name: file.name }, file });
      say('pass', msg('{file} is in the library.', { file: file.name }));
    } catch (e) {
      say('stop', (e as Error).message);
    }
  }
  refresh('/api/pictures');
}

/** Takes pictures as scenes and ZIPs of scenes into the library; gives the last picture's scene. */
async function takeScenes(files: readonly File[]): Promise<Scene | null> {
  let last: Scene | null = null;
  for (const file of files) {
    const { name } = file;
    try {
      if (/\.zip$/i.test(name)) {
        const { taken, refused } = await upload('POST /api/scenes/import', { query: { name }, file });
        if (taken)
          say(
            'pass',
            msg('{taken} {taken, plural, one {scene is} other {scenes are}} in the library.', { taken }),
          );
        for (const sentence of refused) say('stop', sentence);
      } else last = await upload('POST /api/scenes', { query: { name }, file });
    } catch (e) {
      say('stop', (e as Error).message);
    }
  }
  refresh('/api/scenes');
  return last;
}

export function LibraryScreen() {
  const navigate = useNavigate();
  const { data: scenes, error } = useRoute('GET /api/scenes');
  const sceneDrop = useDropzone({
    noClick: true,
    onDrop: (files) =>
      void takeScenes(files).then((last) => {
        // One picture alone is surveyed at once.
        if (last && files.length === 1) void navigate(`/library/scenes/${last.id}`);
      }),
    useFsAccessApi: false,
  });
  return (
    <>
      <TopBar />
      <main className="grow overflow-y-auto px-5 pt-4 pb-10">
        <h1 className="font-display text-[22px] font-bold">{msg('Library')}</h1>
        {error && <Trouble error={error} />}
        {!scenes && !error && <Waiting what={msg('the library')} />}
        <div className="mt-3 mb-2 flex flex-wrap items-center gap-2">
          <h2 className="grow font-semibold">
            {rich('Scenes <measure>{scenes}</measure>', {
              measure: (inside) => <span className="measure text-ink-2">{inside}</span>,
              scenes: scenes?.filter((s) => !s.survey.areas.length).length ?? '',
            })}
          </h2>
          <input {...sceneDrop.getInputProps({ 'aria-label': msg('Scenes to import') })} />
          <Button onClick={sceneDrop.open}>{msg('Import a scene, a mockup or a ZIP')}</Button>
          <a className={buttonClass()} href="/api/scenes/export.zip">
            {msg('Export all as ZIP')}
          </a>
        </div>
        <Shelf scenes={scenes?.filter((s) => !s.survey.areas.length) ?? []} />
        <h2 className="mt-6 mb-2 font-semibold">
          {rich('Mockups <measure>{scenes}</measure>', {
            measure: (inside) => <span className="measure text-ink-2">{inside}</span>,
            scenes: scenes?.filter((s) => s.survey.areas.length).length ?? '',
          })}
        </h2>
        <Shelf scenes={scenes?.filter((s) => s.survey.areas.length) ?? []} />
        <ArtworkShelf />
        <LogoShelf />
      </main>
    </>
  );
}

/** Logos and other pictures that are laid over shots. */
function LogoShelf() {
  const { data: pictures } = useRoute('GET /api/pictures');
  const { getInputProps, open } = useDropzone({
    noClick: true,
    onDrop: (files) => void takePictures(files),
    useFsAccessApi: false,
  });
  return (
    <>
      <div className="mt-6 mb-2 flex items-center justify-between">
        <h2 className="font-semibold">
          {rich('Logos and pictures <measure>{pictures}</measure>', {
            measure: (inside) => <span className="measure text-ink-2">{inside}</span>,
            pictures: pictures?.length ?? '',
          })}
        </h2>
        <input {...getInputProps({ 'aria-label': msg('Logos to import') })} />
        <Button onClick={open}>{msg('Import a logo')}</Button>
      </div>
      <ul className="grid grid-cols-[repeat(auto-fill,minmax(230px,1fr))] gap-3.5">
        {pictures?.map((p) => (
          <li key={p.id} className="border-line bg-card overflow-hidden rounded-lg border">
            <div className="flex h-28 items-center justify-center bg-[#bdbdbd] p-5">
              <img src={reducedUrl(p.picture, 640)} alt="" className="max-h-full max-w-full" />
            </div>
            <div className="border-line flex items-center gap-2 border-t px-3 py-2">
              <div className="min-w-0 grow">
                <p className="truncate font-semibold">{p.title}</p>
                <p className="measure text-ink-2">
                  {msg('{width} x {height} px', { width: p.width, height: p.height })}
                </p>
              </div>
              <IconButton
                label={msg('Remove {a} from the library', { a: p.title })}
                onClick={() =>
                  void removing(
                    call('DELETE /api/pictures/:id', { params: { id: p.id } }),
                    `"${p.title}"`,
                    '/api/pictures',
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
