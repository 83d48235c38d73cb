import { Controller, useController, useForm, type Control } from 'react-hook-form';
import type { Place } from '@scenograph/core/elements/base';
import type { Shot } from '@scenograph/core/shot/document';
import { makeTemplate, suggestedPlace } from '@scenograph/core/templates/fill';
import type { Purpose, Season } from '@scenograph/core/templates/template';
import { refresh, call } from '../../api/client';
import { Checkbox, TextField } from '../../ui/controls';
import { FormDialog } from '../../ui/form-dialog';
import { FormField } from '../../ui/form-field';
import { say } from '../../ui/notices';
import { PurposeSeason } from '../templates/purpose-season';
import { msg } from '../../language/language';

interface TemplateForm {
  name: string;
  purpose: Purpose | 'all';
  season: Season | 'all';
  /** What may change with the product, by element; null for what stays. */
  places: Record<string, Place | null>;
}

/** Keeps the shot's layout: which parts are places, and what each expects. */
export function TemplateDialog({ shot, title, onClose }: { shot: Shot; title: string; onClose(): void }) {
  const parts = shot.elements.flatMap((e) => {
    const suggested = e.place ?? suggestedPlace(e);
    return suggested ? [{ id: e.id, name: e.name, suggested }] : [];
  });
  const form = useForm<TemplateForm>({
    defaultValues: {
      name: title,
      purpose: 'all',
      season: 'all',
      places: Object.fromEntries(parts.map(({ id, suggested }) => [id, suggested])),
    },
  });
  const keep = async ({ name, purpose, season, places }: TemplateForm) => {
    const called = name.trim() || title;
    await call('POST /api/templates', {
      body: {
        title: called,
        purpose: purpose === 'all' ? null : purpose,
        season: season === 'all' ? null : season,
        document: makeTemplate(shot, places),
      },
    });
    refresh('/api/templates');
    say('pass', msg('“{name}” is among the templates.', { name: called }));
    onClose();
  };
  return (
    <FormDialog
      form={form}
      onSend={keep}
      send={msg('Keep the template')}
      onClose={onClose}
      title={msg('Keep as a template')}
      about={msg(
        'All of the layout stays. Only what is marked as a place changes with the product it is used for.',
      )}
    >
      <div className="grid gap-3">
        <FormField label={msg('Name')} {...form.register('name')} />
        <UsedFor control={form.control} />
        <Controller
          control={form.control}
          name="places"
          render={({ field }) => <Places parts={parts} places={field.value} onChange={field.onChange} />}
        />
        {!parts.length && (
          <p className="text-ink-2">{msg('This shot has no product, text or picture that could change.')}</p>
        )}
      </div>
    </FormDialog>
  );
}

function UsedFor({ control }: { control: Control<TemplateForm> }) {
  const { field: purpose } = useController({ control, name: 'purpose' });
  const { field: season } = useController({ control, name: 'season' });
  return (
    <div className="grid grid-cols-2 gap-3">
      <PurposeSeason
        purpose={purpose.value}
        season={season.value}
        onPurpose={purpose.onChange}
        onSeason={season.onChange}
        any={msg('For no one purpose')}
      />
    </div>
  );
}

function Places({
  parts,
  places,
  onChange,
}: {
  parts: readonly { id: string; name: string; suggested: Place }[];
  places: TemplateForm['places'];
  onChange(places: TemplateForm['places']): void;
}) {
  return (
    <ul className="grid gap-1.5">
      {parts.map(({ id, name, suggested }) => {
        const place = places[id];
        const put = (value: Place | null) => onChange({ ...places, [id]: value });
        return (
          <li key={id} className="border-line grid gap-1.5 rounded-md border px-3 py-2">
            <label className="flex items-center gap-2">
              <Checkbox checked={!!place} onChange={(on) => put(on ? suggested : null)} />
              <span className="grow font-medium">{name}</span>
              <span className="text-ink-2">
                {msg('a place for a {expects}', { expects: suggested.expects })}
              </span>
            </label>
            {place && (
              <TextField
                hideLabel
                label={msg('What {element} expects', { element: name })}
                placeholder={msg('What it expects')}
                value={place.hint}
                onCommit={(hint) => put({ ...place, hint })}
              />
            )}
          </li>
        );
      })}
    </ul>
  );
}
