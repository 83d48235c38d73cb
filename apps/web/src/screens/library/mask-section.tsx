import { useNavigate } from 'react-router';
import { blobUrl, reducedUrl, refresh, type Scene, call, upload, useRoute } from '../../api/client';
import { Button } from '../../ui/controls';
import { FileButton } from '../../ui/file-button';
import { say } from '../../ui/notices';
import { surveyStore } from './survey-store';
import { msg } from '../../language/language';

/** A mask over a scene's picture, made with the cutout desk or imported as PNG. */
export function MaskSection({
  scene,
  mask,
  title,
  about,
  hint,
  value,
  onTaken,
  onWithout,
}: {
  scene: Scene;
  mask: 'occluder' | 'outline';
  /** What is cut out, as part of its photo's name. */
  title: string;
  about: string;
  hint: string;
  value: string | null;
  /** The server has it already. */
  onTaken(hash: string): void;
  onWithout(): void;
}) {
  const navigate = useNavigate();
  const { data: photos } = useRoute('GET /api/photos');
  const cut = photos?.find((p) => p.name === `${title}.jpg` && p.cutout);
  const cutOut = async () => {
    try {
      const picture = await fetch(blobUrl(scene.picture));
      if (!picture.ok)
        throw new Error(
          msg('The picture of "{scene}" could not be fetched. Try again.', { scene: scene.title }),
        );
      const blob = await picture.blob();
      const photo = await upload('POST /api/photos', { query: { name: `${title}.jpg` }, file: blob });
      refresh('/api/photos');
      say('working', hint);
      void navigate(`/photos/${photo.id}/cutout`);
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  const take = async (send: () => Promise<Scene>) => {
    // The server takes the mask into what it has: that must be what is on the screen.
    if (!(await surveyStore.save()))
      return say(
        'stop',
        msg('The survey could not be stored yet, so no mask was taken. Try again in a moment.'),
      );
    try {
      const row = await send();
      onTaken(row.survey[mask]!);
      refresh('/api/scenes');
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  return (
    <div className="grid gap-2">
      <p className="text-ink-2 text-[12px]">{about}</p>
      {value && (
        <img
          src={reducedUrl(value, 320)}
          alt={msg('The mask: {title}', { title })}
          className="w-full bg-black"
        />
      )}
      <div className="flex flex-wrap gap-2">
        <Button onClick={() => void cutOut()}>{msg('Cut it out')}</Button>
        {cut && (
          <Button
            tone="main"
            onClick={() =>
              void take(() =>
                call(
                  'POST /api/scenes/:id/mask/:mask/:photo',
                  { params: { id: scene.id, mask, photo: cut.id } },
                  { revision: surveyStore.use.getState().revision },
                ),
              )
            }
          >
            {msg('Use the cutout')}
          </Button>
        )}
        <FileButton
          title={msg('Import a PNG')}
          label={msg('{title} mask to import', { title })}
          accept="image/png"
          onFiles={([file]) =>
            void take(() =>
              upload('POST /api/scenes/:id/mask/:mask', {
                params: { id: scene.id, mask },
                query: { name: file.name },
                file,
                revision: surveyStore.use.getState().revision,
              }),
            )
          }
        />
        {value && <Button onClick={onWithout}>{msg('Without')}</Button>}
      </div>
    </div>
  );
}
