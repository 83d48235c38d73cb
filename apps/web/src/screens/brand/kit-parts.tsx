import { Plus, Trash2 } from 'lucide-react';
import type { ReactNode } from 'react';
import type { BrandKit, BrandLogo } from '@scenograph/core/brand/kit';
import { NO_EFFECTS } from '@scenograph/core/raster/effects';
import { bringInFonts, FONT_FILES, useFonts } from '../../api/brand';
import { reducedUrl, refresh, call, upload, useRoute } from '../../api/client';
import { ColourField } from '../../ui/colour-field';
import { Button, IconButton, Select, TextField } from '../../ui/controls';
import { removing } from '../../ui/removing';
import { FileButton } from '../../ui/file-button';
import { say } from '../../ui/notices';
import { EffectFields } from '../stage/effects-desk';
import { msg } from '../../language/language';

/** The parts of a brand kit, each a card with its entries. */
interface Part {
  kit: BrandKit;
  change(next: Partial<BrandKit>): void;
}

function Card({ title, action, children }: { title: string; action?: ReactNode; children: ReactNode }) {
  return (
    <section aria-label={title} className="border-line bg-card rounded-lg border">
      <div className="border-line flex h-10 items-center justify-between border-b px-4">
        <h2 className="font-semibold">{title}</h2>
        {action}
      </div>
      <div className="px-4 py-3">{children}</div>
    </section>
  );
}

/** An id that no entry has yet, from a title. */
function freshId(list: { id: string }[], title: string): string {
  const stem =
    title
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '') || 'entry';
  for (let n = 1; ; n++) {
    const id = n === 1 ? stem : `${stem}-${n}`;
    if (!list.some((e) => e.id === id)) return id;
  }
}

const changed = <T extends { id: string }>(list: T[], id: string, part: Partial<T>) =>
  list.map((e) => (e.id === id ? { ...e, ...part } : e));
const without = <T extends { id: string }>(list: T[], id: string) => list.filter((e) => e.id !== id);

function Remove({ title, onClick }: { title: string; onClick(): void }) {
  return (
    <IconButton label={msg('Remove {title}', { title })} onClick={onClick}>
      <Trash2 size={14} aria-hidden />
    </IconButton>
  );
}

function AddButton({ title, onClick }: { title: string; onClick(): void }) {
  return (
    <Button onClick={onClick}>
      <Plus size={14} aria-hidden /> {title}
    </Button>
  );
}

export function Name({ kit, change }: Part) {
  return (
    <Card title={msg('Name and language')}>
      <div className="grid grid-cols-2 gap-3">
        <TextField
          label={msg("Name, as '{'brand'}' in texts")}
          value={kit.title}
          onCommit={(title) => change({ title })}
        />
        <TextField
          label={msg('Language of prices and numbers')}
          mono
          value={kit.locale}
          onCommit={(locale) => change({ locale })}
        />
      </div>
    </Card>
  );
}

export function Palette({ kit, change }: Part) {
  const { colours } = kit;
  return (
    <Card
      title={msg('Palette')}
      action={
        <AddButton
          title={msg('Add a colour')}
          onClick={() =>
            change({
              colours: [
                ...colours,
                { id: freshId(colours, 'colour'), title: msg('New colour'), colour: '#8a8f86' },
              ],
            })
          }
        />
      }
    >
      <ul className="grid grid-cols-2 gap-x-5 gap-y-2">
        {colours.map((c) => (
          <li key={c.id} className="flex items-center gap-2">
            <div className="min-w-0 grow">
              <TextField
                hideLabel
                label={msg('Name of {c}', { c: c.title })}
                value={c.title}
                onCommit={(title) => change({ colours: changed(colours, c.id, { title }) })}
              />
            </div>
            <div className="w-40 shrink-0">
              <ColourField
                label={c.title}
                value={c.colour}
                onCommit={(colour) => change({ colours: changed(colours, c.id, { colour }) })}
              />
            </div>
            <Remove title={c.title} onClick={() => change({ colours: without(colours, c.id) })} />
          </li>
        ))}
      </ul>
    </Card>
  );
}

const LOGO_FILES = 'image/png,image/webp,.svg,image/svg+xml,image/jpeg';

export function Logos({ kit, change }: Part) {
  const { logos } = kit;
  const take = async (logo: BrandLogo, ground: 'light' | 'dark', [file]: File[]) => {
    try {
      const made = await upload('POST /api/pictures', { query: { name: file.name }, file });
      const { picture, width, height } = made;
      refresh('/api/pictures');
      change({ logos: changed(logos, logo.id, { [ground]: { picture, width, height } }) });
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  return (
    <Card
      title={msg('Logos')}
      action={
        <AddButton
          title={msg('Add a logo')}
          onClick={() =>
            change({
              logos: [
                ...logos,
                { id: freshId(logos, 'logo'), title: msg('New logo'), light: null, dark: null },
              ],
            })
          }
        />
      }
    >
      <ul className="grid gap-3">
        {logos.map((l) => (
          <li key={l.id} className="flex items-center gap-3">
            <div className="w-36 shrink-0">
              <TextField
                hideLabel
                label={msg('Name of {l}', { l: l.title })}
                value={l.title}
                onCommit={(title) => change({ logos: changed(logos, l.id, { title }) })}
              />
            </div>
            {(['light', 'dark'] as const).map((ground) => (
              <div key={ground} className="flex grow items-center gap-2">
                <span
                  className="border-line flex h-14 w-32 items-center justify-center rounded-sm border p-2"
                  style={{ background: ground === 'light' ? '#ffffff' : '#2b2f2d' }}
                >
                  {l[ground] ? (
                    <img
                      src={reducedUrl(l[ground].picture, 320)}
                      alt={msg('{l} for {ground} ground', { l: l.title, ground })}
                      className="max-h-full max-w-full"
                    />
                  ) : (
                    <span className={`text-[12px] ${ground === 'light' ? 'text-ink-2' : 'text-white'}`}>
                      {msg('none yet')}
                    </span>
                  )}
                </span>
                <FileButton
                  title={ground === 'light' ? msg('For light ground') : msg('For dark ground')}
                  label={msg('{l} for {ground} ground', { l: l.title, ground })}
                  accept={LOGO_FILES}
                  onFiles={(files) => void take(l, ground, files)}
                />
              </div>
            ))}
            <Remove title={l.title} onClick={() => change({ logos: without(logos, l.id) })} />
          </li>
        ))}
      </ul>
    </Card>
  );
}

export function Fonts({ kit, change }: Part) {
  const { fonts } = kit;
  const all = useFonts();
  const { data: own } = useRoute('GET /api/fonts');
  const remove = (id: string, name: string) =>
    void removing(call('DELETE /api/fonts/:id', { params: { id } }), name, '/api/fonts');
  return (
    <Card
      title={msg('Fonts')}
      action={
        <div className="flex gap-2">
          <FileButton
            title={msg('Import font files')}
            label={msg('Font files of your own')}
            accept={FONT_FILES}
            multiple
            onFiles={(f) => void bringInFonts(f)}
          />
          <AddButton
            title={msg('Add a purpose')}
            onClick={() =>
              change({
                fonts: [
                  ...fonts,
                  { id: freshId(fonts, 'font'), title: msg('New purpose'), font: 'hanken-grotesk-600' },
                ],
              })
            }
          />
        </div>
      }
    >
      <ul className="grid gap-2">
        {fonts.map((f) => (
          <li key={f.id} className="flex items-center gap-3">
            <div className="w-48 shrink-0">
              <TextField
                hideLabel
                label={msg('Name of {f}', { f: f.title })}
                value={f.title}
                onCommit={(title) => change({ fonts: changed(fonts, f.id, { title }) })}
              />
            </div>
            <Select
              label={msg('Font for {f}', { f: f.title })}
              className="grow"
              value={f.font}
              onChange={(font) => change({ fonts: changed(fonts, f.id, { font }) })}
              options={all}
            />
            <Remove title={f.title} onClick={() => change({ fonts: without(fonts, f.id) })} />
          </li>
        ))}
      </ul>
      {own && own.length > 0 && (
        <ul className="mt-3 flex flex-wrap gap-2">
          {own.map((f) => (
            <li
              key={f.id}
              className="border-line flex items-center gap-2 rounded-md border py-0.5 pr-0.5 pl-2.5"
            >
              {f.family} {f.style}
              <Remove
                title={`${f.family} ${f.style}`}
                onClick={() => remove(f.id, `${f.family} ${f.style}`)}
              />
            </li>
          ))}
        </ul>
      )}
    </Card>
  );
}

export function Texts({ kit, change }: Part) {
  const { texts } = kit;
  return (
    <Card
      title={msg('Standing texts')}
      action={
        <AddButton
          title={msg('Add a text')}
          onClick={() =>
            change({ texts: [...texts, { id: freshId(texts, 'text'), title: msg('New text'), text: '' }] })
          }
        />
      }
    >
      <ul className="grid gap-2">
        {texts.map((t) => (
          <li key={t.id} className="flex items-center gap-3">
            <div className="w-48 shrink-0">
              <TextField
                hideLabel
                label={msg('Name of {t}', { t: t.title })}
                value={t.title}
                onCommit={(title) => change({ texts: changed(texts, t.id, { title }) })}
              />
            </div>
            <div className="grow">
              <TextField
                hideLabel
                label={t.title}
                value={t.text}
                onCommit={(text) => change({ texts: changed(texts, t.id, { text }) })}
              />
            </div>
            <Remove title={t.title} onClick={() => change({ texts: without(texts, t.id) })} />
          </li>
        ))}
      </ul>
    </Card>
  );
}

export function DefaultEffects({ kit, change }: Part) {
  const { effects } = kit;
  return (
    <Card
      title={msg('Effects')}
      action={
        <AddButton
          title={msg('Add effects')}
          onClick={() =>
            change({
              effects: [
                ...effects,
                { id: freshId(effects, 'effects'), title: msg('New effects'), effects: NO_EFFECTS },
              ],
            })
          }
        />
      }
    >
      <ul className="grid grid-cols-2 gap-3">
        {effects.map((e) => (
          <li key={e.id} className="border-line rounded-md border p-3">
            <div className="mb-2 flex items-center gap-2">
              <div className="grow">
                <TextField
                  hideLabel
                  label={msg('Name of {e}', { e: e.title })}
                  value={e.title}
                  onCommit={(title) => change({ effects: changed(effects, e.id, { title }) })}
                />
              </div>
              <Remove title={e.title} onClick={() => change({ effects: without(effects, e.id) })} />
            </div>
            <EffectFields
              effects={e.effects}
              during={() => undefined}
              commit={(_, value) => change({ effects: changed(effects, e.id, { effects: value }) })}
            />
          </li>
        ))}
      </ul>
    </Card>
  );
}
