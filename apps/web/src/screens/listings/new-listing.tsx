import { Controller, useForm, useWatch } from 'react-hook-form';
import { useNavigate } from 'react-router';
import { refresh, type Photo, call, useRoute } from '../../api/client';
import { READY_SHEET } from '@scenograph/core/spec/ready-sheet';
import { Button, Checkbox } from '../../ui/controls';
import { FormDialog } from '../../ui/form-dialog';
import { FormField } from '../../ui/form-field';
import { PictureList } from '../../ui/picture-list';
import { tried } from '../../ui/tried';
import { msg } from '../../language/language';

interface Start {
  title: string;
  /** The first there is, until one is chosen. */
  scene: string | null;
  /** Spec sheets that are left out. */
  without: string[];
}

/** From photos to a listing: a name, a scene for the lifestyle pictures, the marketplaces. */
export function NewListing({ photos, onClose }: { photos: Photo[]; onClose(): void }) {
  const navigate = useNavigate();
  const { data: scenes } = useRoute('GET /api/scenes');
  const { data: sheets } = useRoute('GET /api/spec-sheets');
  const form = useForm<Start>({
    defaultValues: { title: titleFrom(photos[0].name), scene: null, without: [] },
  });
  const without = useWatch({ control: form.control, name: 'without' });
  const standing = scenes?.filter((s) => !s.survey.areas.length);
  const sceneOf = (scene: string | null) => scene ?? standing?.[0]?.id;
  const chosenSheets = sheets?.map((s) => s.id).filter((id) => !without.includes(id)) ?? [];

  const start = async ({ title, scene }: Start) => {
    const sceneId = sceneOf(scene);
    const made = await call('POST /api/listings', {
      body: {
        photoIds: photos.map((p) => p.id),
        title: title.trim(),
        sheets: chosenSheets,
        ...(sceneId ? { sceneId } : {}),
      },
    });
    refresh('/api/listings', '/api/products');
    void navigate(`/listings/${made.id}`);
  };

  return (
    <FormDialog
      form={form}
      onSend={start}
      send={msg('Start the listing')}
      ready={chosenSheets.length > 0}
      wide
      onClose={onClose}
      title={msg('Start a listing')}
      about={msg(
        'Two first shots are made, one on white and one in a scene, and every slot gets the one that suits its specification. All of it can be changed.',
      )}
    >
      <div className="grid gap-4">
        <FormField
          label={msg('What is it called?')}
          error={form.formState.errors.title?.message}
          {...form.register('title', { validate: (text) => !!text.trim() || msg('It needs a name.') })}
        />
        <fieldset>
          <legend className="text-ink-2 mb-1.5 text-[12px]">{msg('Scene for the lifestyle pictures')}</legend>
          {standing?.length === 0 ? (
            <p className="text-ink-2">
              {msg('There is no scene in the library yet: one first shot is made, on white.')}
            </p>
          ) : (
            <Controller
              control={form.control}
              name="scene"
              render={({ field }) => (
                <PictureList
                  label={msg('Scenes')}
                  look="cards"
                  items={standing}
                  chosen={sceneOf(field.value)}
                  onPick={({ id }) => field.onChange(id)}
                />
              )}
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
                  onChange={(on) =>
                    form.setValue('without', on ? without.filter((x) => x !== s.id) : [...without, s.id])
                  }
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
    </FormDialog>
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
