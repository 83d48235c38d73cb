import { useState } from 'react';
import { useNavigate } from 'react-router';
import { refresh, type Photo, call, useRoute } from '../../api/client';
import { READY_SHEET } from '@scenograph/core/spec/ready-sheet';
import { Button, Checkbox, TextField } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { PictureList } from '../../ui/picture-list';
import { tried } from '../../ui/tried';
import { msg } from '../../language/language';

/** From photos to a listing: a name, a scene for the lifestyle pictures, the marketplaces. */
export function NewListing({ photos, onClose }: { photos: Photo[]; onClose(): void }) {
  const navigate = useNavigate();
  const { data: scenes } = useRoute('GET /api/scenes');
  const { data: sheets } = useRoute('GET /api/spec-sheets');
  const [title, setTitle] = useState(titleFrom(photos[0].name));
  const [scene, setScene] = useState<string | null>(null);
  const [without, setWithout] = useState<string[]>([]);
  const [trouble, setTrouble] = useState('');
  const [busy, setBusy] = useState(false);
  const standing = scenes?.filter((s) => !s.survey.areas.length);
  const chosenScene = scene ?? standing?.[0]?.id;
  const chosenSheets = sheets?.map((s) => s.id).filter((id) => !without.includes(id)) ?? [];

  const start = async () => {
    setBusy(true);
    setTrouble('');
    try {
      const made = await call('POST /api/listings', {
        body: {
          photoIds: photos.map((p) => p.id),
          title,
          sheets: chosenSheets,
          ...(chosenScene ? { sceneId: chosenScene } : {}),
        },
      });
      refresh('/api/listings', '/api/products');
      void navigate(`/listings/${made.id}`);
    } catch (error) {
      setTrouble((error as Error).message);
      setBusy(false);
    }
  };

  return (
    <Dialog
      open
      wide
      onClose={onClose}
      title={msg('Start a listing')}
      about={msg(
        'Two first shots are made, one on white and one in a scene, and every slot gets the one that suits its specification. All of it can be changed.',
      )}
      footer={
        <>
          {trouble && (
            <p role="alert" className="text-coral-ink mr-auto">
              {trouble}
            </p>
          )}
          <Button onClick={onClose}>{msg('Cancel')}</Button>
          <Button tone="main" disabled={busy || !title.trim() || !chosenSheets.length} onClick={start}>
            {msg('Start the listing')}
          </Button>
        </>
      }
    >
      <div className="grid gap-4">
        <TextField label={msg('What is it called?')} value={title} onCommit={setTitle} />
        <fieldset>
          <legend className="text-ink-2 mb-1.5 text-[12px]">{msg('Scene for the lifestyle pictures')}</legend>
          {standing?.length === 0 ? (
            <p className="text-ink-2">
              {msg('There is no scene in the library yet: one first shot is made, on white.')}
            </p>
          ) : (
            <PictureList
              label={msg('Scenes')}
              look="cards"
              items={standing}
              chosen={chosenScene}
              onPick={({ id }) => setScene(id)}
            />
          )}
        </fieldset>
        <fieldset>
          <legend className="text-ink-2 mb-1.5 text-[12px]">{msg('Marketplaces')}</legend>
          {sheets?.length === 0 && <NoSheet />}
          <div className="flex flex-wrap gap-x-5 gap-y-1.5">
            {sheets?.map((s) => (
              <label key={s.id} className="flex items-center gap-2">
                <Checkbox
                  checked={!without.includes(s.id)}
                  onChange={(on) => setWithout((w) => (on ? w.filter((x) => x !== s.id) : [...w, s.id]))}
                />
                {s.marketplace}{' '}
                <span className="measure text-ink-2">
                  {msg('{slots, plural, one {# slot} other {# slots}}', { slots: s.slots.length })}
                </span>
              </label>
            ))}
          </div>
        </fieldset>
      </div>
    </Dialog>
  );
}

/** Without a spec sheet a listing has no slots: one of usual sizes can be added at once. */
function NoSheet() {
  return (
    <div className="flex items-center gap-3">
      <p className="text-ink-2 grow">
        {msg('There is no spec sheet yet. It says which pictures a marketplace takes.')}
      </p>
      <Button
        onClick={() => void tried(call('POST /api/spec-sheets', { body: READY_SHEET }), '/api/spec-sheets')}
      >
        {msg('Add one of usual sizes')}
      </Button>
    </div>
  );
}

function titleFrom(file: string): string {
  const words = file
    .replace(/\.[^.]+$/, '')
    .replace(/[-_]+/g, ' ')
    .trim();
  return words ? words[0].toUpperCase() + words.slice(1) : msg('New product');
}
