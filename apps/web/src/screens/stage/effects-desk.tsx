import { useState } from 'react';
import { NO_EFFECTS, type Effects } from '@scenograph/core/raster/effects';
import type { ShotElement } from '@scenograph/core/elements/index';
import { ColourField } from '../../ui/colour-field';
import { Button, Select, Slider, Switch, TextField } from '../../ui/controls';
import { useKit } from '../../api/brand';
import { refresh, call, useRoute } from '../../api/client';
import { say } from '../../ui/notices';
import { msg } from '../../language/language';

/** The effects that were copied last; they stay between shots. */
let copied: Effects | null = null;

const START: { [K in keyof Effects]: NonNullable<Effects[K]> } = {
  outline: { width: 6, colour: '#ffffff', opacity: 1 },
  glow: { size: 60, colour: '#fff2cf', opacity: 0.6 },
  dropShadow: { x: 8, y: 12, blur: 24, colour: '#171b19', opacity: 0.4 },
  innerShadow: { x: 4, y: 6, blur: 18, colour: '#171b19', opacity: 0.35 },
};
const TITLES: Record<keyof Effects, string> = {
  outline: msg('Outline'),
  glow: msg('Glow'),
  dropShadow: msg('Drop shadow'),
  innerShadow: msg('Inner shadow'),
};
const LENGTHS: { key: string; title: string; min: number; max: number }[] = [
  { key: 'width', title: msg('Width'), min: 0, max: 80 },
  { key: 'size', title: msg('Size'), min: 0, max: 300 },
  { key: 'x', title: msg('Across'), min: -120, max: 120 },
  { key: 'y', title: msg('Down'), min: -120, max: 120 },
  { key: 'blur', title: msg('Blur'), min: 0, max: 200 },
];

/** Outline, glow and shadows of any placed element; copied from one to others, kept by name. */
export function EffectsDesk({
  element,
  during,
  commit,
}: {
  element: ShotElement;
  during(value: Partial<ShotElement>): void;
  commit(label: string, value: Partial<ShotElement>): void;
}) {
  const { effects } = element;
  const { data: kept } = useRoute('GET /api/effects');
  const [title, setTitle] = useState('');
  const [, again] = useState(0);
  const keep = async () => {
    try {
      await call('POST /api/effects', {
        body: {
          title: title.trim() || msg('Effects {kept}', { kept: (kept?.length ?? 0) + 1 }),
          effects,
        },
      });
      refresh('/api/effects');
      setTitle('');
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  /** Effects of one's own follow the brand kit no more. */
  const own = (value: Effects, entry: string | null = null): Partial<ShotElement> => {
    const { effects: _, ...brand } = element.brand;
    return { effects: value, brand: entry ? { ...brand, effects: entry } : brand };
  };
  const { effects: standing } = useKit();
  return (
    <div className="grid gap-1">
      <h3 className="mt-4 text-[12px] font-semibold">{msg('Effects')}</h3>
      {standing.length > 0 && (
        <div role="group" aria-label={msg('Effects of the brand kit')} className="flex flex-wrap gap-1">
          {standing.map((e) => (
            <button
              key={e.id}
              type="button"
              aria-pressed={element.brand.effects === e.id}
              className={`rounded-sm border px-2 py-0.5 text-[12px] ${element.brand.effects === e.id ? 'border-spruce bg-spruce-tint text-spruce' : 'border-line hover:border-ink-3'}`}
              onClick={() => commit(msg('Effects "{e}"', { e: e.title }), own(e.effects, e.id))}
            >
              {e.title}
            </button>
          ))}
        </div>
      )}
      <EffectFields
        effects={effects}
        during={(value) => during({ effects: value })}
        commit={(label, value) => commit(label, own(value))}
      />
      <div className="mt-1 flex gap-2">
        <Button
          onClick={() => {
            copied = effects;
            again((n) => n + 1);
          }}
        >
          {msg('Copy effects')}
        </Button>
        <Button disabled={!copied} onClick={() => copied && commit(msg('Paste effects'), own(copied))}>
          {msg('Paste effects')}
        </Button>
        <Button tone="quiet" onClick={() => commit(msg('No effects'), own(NO_EFFECTS))}>
          {msg('None')}
        </Button>
      </div>
      {!!kept?.length && (
        <Select
          label={msg('Use kept effects')}
          value=""
          onChange={(id) => {
            const found = kept.find((k) => k.id === id);
            if (found) commit(msg('Effects "{found}"', { found: found.title }), own(found.effects));
          }}
          options={kept.map((k) => ({ value: k.id, title: k.title }))}
        />
      )}
      <div className="flex items-end gap-2">
        <div className="grow">
          <TextField label={msg('Keep these effects as')} value={title} onCommit={setTitle} />
        </div>
        <Button onClick={() => void keep()}>{msg('Keep')}</Button>
      </div>
    </div>
  );
}

/** Outline, glow and shadows as fields. */
export function EffectFields({
  effects,
  during,
  commit,
}: {
  effects: Effects;
  during(effects: Effects): void;
  commit(label: string, effects: Effects): void;
}) {
  return (
    <>
      {(Object.keys(START) as (keyof Effects)[]).map((key) => {
        const value = effects[key] as Record<string, number | string> | null;
        const set = (more: Record<string, number | string>) => ({ ...effects, [key]: { ...value, ...more } });
        return (
          <fieldset key={key} className="grid gap-0.5">
            <legend className="sr-only">{TITLES[key]}</legend>
            <Switch
              label={TITLES[key]}
              on={value !== null}
              onChange={(on) =>
                commit(on ? TITLES[key] : msg('No {effect}', { effect: TITLES[key].toLowerCase() }), {
                  ...effects,
                  [key]: on ? START[key] : null,
                })
              }
            />
            {value && (
              <>
                {LENGTHS.filter((l) => l.key in value).map((l) => (
                  <Slider
                    key={l.key}
                    label={l.title}
                    unit="px"
                    min={l.min}
                    max={l.max}
                    value={Math.round(value[l.key] as number)}
                    onChange={(v) => during(set({ [l.key]: v }))}
                    onCommit={(v) => commit(TITLES[key], set({ [l.key]: v }))}
                  />
                ))}
                <Slider
                  label={msg('Opacity')}
                  unit="%"
                  value={Math.round((value.opacity as number) * 100)}
                  onChange={(v) => during(set({ opacity: v / 100 }))}
                  onCommit={(v) => commit(TITLES[key], set({ opacity: v / 100 }))}
                />
                <ColourField
                  label={msg('{effect} colour', { effect: TITLES[key] })}
                  value={value.colour as string}
                  onChange={(colour) => during(set({ colour }))}
                  onCommit={(colour) => commit(TITLES[key], set({ colour }))}
                />
              </>
            )}
          </fieldset>
        );
      })}
    </>
  );
}
