import { Marked } from './own-here';
import type { ShotElement } from '@scenograph/core/elements/index';
import { bringInFonts, FONT_FILES, useFonts, useKit } from '../../../api/brand';
import { ownFontId } from '@scenograph/core/type/catalogue';
import { capitalised } from '../../../ui/capitalised';
import { FileButton } from '../../../ui/file-button';
import { ColourField } from '../../../ui/colour-field';
import { NumberField, Segmented, Select, Slider, Switch, TextField } from '../../../ui/controls';
import { msg } from '../../../language/language';

/** What a field of an overlay's desk is given. */
export interface Field {
  element: ShotElement;
  /** The key it changes, with a dot for a key inside a key. */
  path: string;
  during(patch: Partial<ShotElement>): void;
  commit(label: string, patch: Partial<ShotElement>): void;
}

type Bag = Record<string, unknown>;

function valueAt<T>(element: ShotElement, path: string): T {
  return path.split('.').reduce<unknown>((at, key) => (at as Bag)?.[key], element) as T;
}

/** The change of one key, perhaps inside another. */
export function patchAt(element: ShotElement, path: string, value: unknown): Partial<ShotElement> {
  const [first, second] = path.split('.');
  const whole = element as unknown as Bag;
  return { [first]: second ? { ...(whole[first] as Bag), [second]: value } : value };
}

/** The change of one key together with what of the brand kit it is bound to; null binds it to nothing. */
function boundPatch(
  element: ShotElement,
  path: string,
  value: unknown,
  entry: string | null,
): Partial<ShotElement> {
  const { [path]: _, ...brand } = element.brand;
  return { ...patchAt(element, path, value), brand: entry ? { ...brand, [path]: entry } : brand };
}

/** A colour: of the brand kit, which it then follows, or one of its own. */
export function BrandColour({ label, element, path, during, commit }: Field & { label: string }) {
  const { colours } = useKit();
  const value = valueAt<string>(element, path);
  const bound = element.brand[path];
  return (
    <Marked label={label} path={path}>
      <div>
        <p className="text-ink-2 mb-1 text-[12px]">{label}</p>
        {colours.length > 0 && (
          <div
            role="group"
            aria-label={msg('{label} from the brand kit', { label })}
            className="mb-1.5 flex flex-wrap gap-1"
          >
            {colours.map((c) => (
              <button
                key={c.id}
                type="button"
                aria-label={`${label}: ${c.title}`}
                aria-pressed={bound === c.id}
                title={msg('{c} of the brand kit', { c: c.title })}
                className={`h-6 w-8 rounded-sm border ${bound === c.id ? 'border-spruce outline-spruce outline-2' : 'border-line'}`}
                style={{ background: c.colour }}
                onClick={() =>
                  commit(
                    msg('Colour {label}', { label: label.toLowerCase() }),
                    boundPatch(element, path, c.colour, c.id),
                  )
                }
              />
            ))}
          </div>
        )}
        <ColourField
          label={label}
          value={value}
          onChange={(colour) => during(patchAt(element, path, colour))}
          onCommit={(colour) =>
            colour !== value &&
            commit(
              msg('Colour {label}', { label: label.toLowerCase() }),
              boundPatch(element, path, colour, null),
            )
          }
        />
      </div>
    </Marked>
  );
}

/** A font: the brand kit's for a purpose, one that ships, or a file of one's own. */
export function BrandFont({ label, element, path, commit }: Omit<Field, 'during'> & { label: string }) {
  const { fonts } = useKit();
  const all = useFonts();
  const bound = element.brand[path];
  const value = valueAt<string>(element, path);
  const named = fonts.some((f) => f.id === bound);
  return (
    <Marked label={label} path={path}>
      <div className="grid gap-1.5">
        <Select
          label={label}
          value={named ? `brand:${bound}` : value}
          onChange={(v) => {
            const entry = v.startsWith('brand:') ? v.slice(6) : null;
            const font = entry ? fonts.find((f) => f.id === entry)!.font : v;
            commit(msg('Change font'), boundPatch(element, path, font, entry));
          }}
          options={[
            ...fonts.map((f) => ({ value: `brand:${f.id}`, title: msg('{f} of the brand', { f: f.title }) })),
            ...all,
          ]}
        />
        <FileButton
          title={msg('Use a font file of your own')}
          label={msg('A font file for {label}', { label: label.toLowerCase() })}
          accept={FONT_FILES}
          onFiles={(files) =>
            void bringInFonts(files).then(
              ([font]) =>
                font && commit(msg('Change font'), boundPatch(element, path, ownFontId(font.hash), null)),
            )
          }
        />
      </div>
    </Marked>
  );
}

export function Share({
  label,
  element,
  path,
  min = 0,
  max = 1,
  during,
  commit,
}: Field & { label: string; min?: number; max?: number }) {
  return (
    <Marked label={label} path={path}>
      <Slider
        label={label}
        unit="%"
        min={min * 100}
        max={max * 100}
        value={Math.round(valueAt<number>(element, path) * 100)}
        onChange={(v) => during(patchAt(element, path, v / 100))}
        onCommit={(v) => commit(label, patchAt(element, path, v / 100))}
      />
    </Marked>
  );
}

export function Amount({
  label,
  unit = 'px',
  element,
  path,
  min = 0,
  max = 2000,
  step = 1,
  digits = 0,
  commit,
}: Omit<Field, 'during'> & {
  label: string;
  unit?: string;
  min?: number;
  max?: number;
  step?: number;
  digits?: number;
}) {
  return (
    <Marked label={label} path={path}>
      <NumberField
        label={label}
        unit={unit}
        min={min}
        max={max}
        step={step}
        digits={digits}
        value={valueAt<number>(element, path)}
        onCommit={(v) => commit(label, patchAt(element, path, v))}
      />
    </Marked>
  );
}

/** Words with their placeholders, and standing texts of the brand kit to put in. */
export function Wording({
  label,
  element,
  path,
  commit,
  placeholders = [],
  multiline = false,
}: Omit<Field, 'during'> & { label: string; placeholders?: string[]; multiline?: boolean }) {
  const { texts } = useKit();
  const written = valueAt<string>(element, path);
  const put = (text: string) => commit(msg('Change words'), boundPatch(element, path, text, null));
  const bound = texts.find((t) => t.id === element.brand[path]);
  return (
    <Marked label={label} path={path}>
      <div className="grid gap-1.5">
        <TextField label={label} multiline={multiline} value={written} onCommit={put} />
        {bound && (
          <p className="text-ink-2 text-[12px]">
            {msg('Follows “{bound}” of the brand kit.', { bound: bound.title })}
          </p>
        )}
        {(placeholders.length > 0 || (multiline && texts.length > 0)) && (
          <div className="flex flex-wrap gap-1">
            {placeholders.map((p) => (
              <button
                key={p}
                type="button"
                title={msg("Add the product's {p}", { p: p.slice(1, -1) })}
                className="measure border-line hover:border-spruce rounded-sm border px-1.5 py-0.5"
                onClick={() => put(written ? `${written} ${p}` : p)}
              >
                {p}
              </button>
            ))}
            {multiline &&
              texts.map((t) => (
                <button
                  key={t.id}
                  type="button"
                  title={t.text}
                  className="border-line hover:border-spruce rounded-sm border px-1.5 py-0.5 text-[11.5px]"
                  onClick={() => commit(msg('Use a standing text'), boundPatch(element, path, t.text, t.id))}
                >
                  {t.title}
                </button>
              ))}
          </div>
        )}
      </div>
    </Marked>
  );
}

/** One of a few values of a key, side by side, or in a list where there are many. `step` names the change for undo. */
export function Choice({
  label,
  step = label,
  element,
  path,
  options,
  list = false,
  commit,
}: Omit<Field, 'during'> & {
  label: string;
  step?: string;
  options: { value: string; title: string; label?: string }[];
  list?: boolean;
}) {
  const Control = list ? Select : Segmented;
  return (
    <Marked label={label} path={path}>
      <Control
        label={label}
        value={valueAt<string>(element, path)}
        onChange={(v: string) => commit(step, patchAt(element, path, v))}
        options={options}
      />
    </Marked>
  );
}

/** A key that is on or off. */
export function Toggle({ label, element, path, commit }: Omit<Field, 'during'> & { label: string }) {
  return (
    <Marked label={label} path={path}>
      <Switch
        label={label}
        on={valueAt<boolean>(element, path)}
        onChange={(on) => commit(label, patchAt(element, path, on))}
      />
    </Marked>
  );
}

/** Values as options whose titles are the values themselves. */
export const named = (values: readonly string[]) =>
  values.map((value) => ({ value, title: msg(capitalised(value.replace('-', ' '))) }));
