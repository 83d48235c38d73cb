import { useState } from 'react';
import type { Place } from '@scenograph/core/elements/base';
import type { Shot } from '@scenograph/core/shot/document';
import { makeTemplate, suggestedPlace } from '@scenograph/core/templates/fill';
import type { Purpose, Season } from '@scenograph/core/templates/template';
import { refresh, call } from '../../api/client';
import { Button, Checkbox, TextField } from '../../ui/controls';
import { Dialog } from '../../ui/dialog';
import { say } from '../../ui/notices';
import { PurposeSeason } from '../templates/purpose-season';
import { msg } from '../../language/language';

/** Keeps the shot's layout: which parts are places, and what each expects. */
export function TemplateDialog({ shot, title, onClose }: { shot: Shot; title: string; onClose(): void }) {
  const [name, setName] = useState(title);
  const [purpose, setPurpose] = useState<Purpose | 'all'>('all');
  const [season, setSeason] = useState<Season | 'all'>('all');
  const parts = shot.elements.flatMap((e) => {
    const suggested = e.place ?? suggestedPlace(e);
    return suggested ? [{ element: e, suggested }] : [];
  });
  const [places, setPlaces] = useState<Record<string, Place | null>>(() =>
    Object.fromEntries(parts.map(({ element, suggested }) => [element.id, suggested])),
  );
  const keep = async () => {
    try {
      await call('POST /api/templates', {
        body: {
          title: name,
          purpose: purpose === 'all' ? null : purpose,
          season: season === 'all' ? null : season,
          document: makeTemplate(shot, places),
        },
      });
      refresh('/api/templates');
      say('pass', msg('“{name}” is among the templates.', { name }));
      onClose();
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  return (
    <Dialog
      open
      onClose={onClose}
      title={msg('Keep as a template')}
      about={msg(
        'All of the layout stays. Only what is marked as a place changes with the product it is used for.',
      )}
      footer={
        <>
          <Button onClick={onClose}>{msg('Cancel')}</Button>
          <Button tone="main" onClick={() => void keep()}>
            {msg('Keep the template')}
          </Button>
        </>
      }
    >
      <div className="grid gap-3">
        <TextField label={msg('Name')} value={name} onCommit={(v) => setName(v.trim() || title)} />
        <div className="grid grid-cols-2 gap-3">
          <PurposeSeason
            purpose={purpose}
            season={season}
            onPurpose={setPurpose}
            onSeason={setSeason}
            any={msg('For no one purpose')}
          />
        </div>
        <ul className="grid gap-1.5">
          {parts.map(({ element, suggested }) => {
            const place = places[element.id];
            return (
              <li key={element.id} className="border-line grid gap-1.5 rounded-md border px-3 py-2">
                <label className="flex items-center gap-2">
                  <Checkbox
                    checked={!!place}
                    onChange={(on) => setPlaces((p) => ({ ...p, [element.id]: on ? suggested : null }))}
                  />
                  <span className="grow font-medium">{element.name}</span>
                  <span className="text-ink-2">
                    {msg('a place for a {expects}', { expects: suggested.expects })}
                  </span>
                </label>
                {place && (
                  <TextField
                    hideLabel
                    label={msg('What {element} expects', { element: element.name })}
                    placeholder={msg('What it expects')}
                    value={place.hint}
                    onCommit={(hint) => setPlaces((p) => ({ ...p, [element.id]: { ...place, hint } }))}
                  />
                )}
              </li>
            );
          })}
        </ul>
        {!parts.length && (
          <p className="text-ink-2">{msg('This shot has no product, text or picture that could change.')}</p>
        )}
      </div>
    </Dialog>
  );
}
