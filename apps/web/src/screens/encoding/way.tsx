import { useState } from 'react';
import type { Encoding } from '@scenograph/core/delivery/encoding';
import type { Format } from '@scenograph/core/spec/slot';
import { Segmented, Slider, Switch } from '../../ui/controls';
import { bytesText, StatusMark } from '../../ui/status';
import { msg } from '../../language/language';

/** What came of one way to write a picture. */
export type Result =
  | {
      ok: true;
      file: string;
      size: number;
      format: string;
      quality: number | null;
      milliseconds: number;
      ssim: number;
    }
  | { ok: false; reason: string };

/** How a measured similarity looks to the eye, in a word. */
const looks = (s: number) =>
  s > 0.995
    ? msg('not to be told apart')
    : s > 0.98
      ? msg('hardly to be seen')
      : s > 0.95
        ? msg('seen from near')
        : msg('plain to see');

/** A way to write a picture, in a few words. */
export function describe({ format, quality, lossless, colours, chroma, progressive }: Encoding): string {
  const parts = [
    format ?? msg('first format'),
    format === 'png'
      ? colours
        ? msg('{colours, plural, one {# colour} other {# colours}}', { colours })
        : msg('lossless')
      : lossless
        ? msg('lossless')
        : quality
          ? `q ${quality}`
          : msg('q by limit'),
    chroma,
    progressive && 'progressive',
  ];
  return parts.filter(Boolean).join(', ');
}

/** The settings that a format has. */
export function Options({
  encoding,
  format,
  onChange,
}: {
  encoding: Encoding;
  format: Format;
  onChange(patch: Partial<Encoding>): void;
}) {
  const [held, setHeld] = useState<number | null>(null);
  const lossy = format !== 'png' && !encoding.lossless;
  return (
    <div className="mt-1.5">
      {lossy && (
        <>
          <Switch
            label={msg('Highest quality within the byte limit')}
            on={encoding.quality === null}
            onChange={(on) => onChange({ quality: on ? null : 82 })}
          />
          {encoding.quality !== null && (
            <Slider
              label={msg('Quality')}
              unit=""
              min={1}
              max={100}
              value={held ?? encoding.quality}
              onChange={setHeld}
              onCommit={(quality) => {
                setHeld(null);
                onChange({ quality: Math.round(quality) });
              }}
            />
          )}
        </>
      )}
      {(format === 'webp' || format === 'avif') && (
        <Switch
          label={msg('Without loss')}
          on={encoding.lossless}
          onChange={(lossless) => onChange({ lossless })}
        />
      )}
      {(format === 'jpeg' || (format === 'avif' && !encoding.lossless)) && (
        <Segmented
          label={msg('Chroma resolution')}
          value={encoding.chroma ?? 'usual'}
          onChange={(v) => onChange({ chroma: v === 'usual' ? null : v })}
          options={[
            { value: 'usual', title: msg('By quality') },
            { value: '4:4:4', title: '4:4:4' },
            { value: '4:2:0', title: '4:2:0' },
          ]}
        />
      )}
      {format === 'jpeg' && (
        <Switch
          label={msg('Progressive: coarse first')}
          on={encoding.progressive}
          onChange={(progressive) => onChange({ progressive })}
        />
      )}
      {format === 'png' && (
        <Segmented
          label={msg('Colours')}
          value={String(encoding.colours ?? 'all')}
          onChange={(v) => onChange({ colours: v === 'all' ? null : Number(v) })}
          options={['all', '256', '128', '64', '32'].map((v) => ({ value: v, title: v }))}
        />
      )}
    </div>
  );
}

/** Size, time and likeness of what was written. */
export function Outcome({
  result,
  maxBytes,
  pixels,
}: {
  result: Result | null;
  maxBytes: number;
  pixels: number;
}) {
  if (!result) return <p className="text-ink-2 mt-2 text-[12px]">{msg('Writing and comparing ...')}</p>;
  if (!result.ok)
    return (
      <p className="text-coral-ink mt-2 flex items-start gap-1.5 text-[12px]">
        <StatusMark mark="stop" /> {result.reason}
      </p>
    );
  const over = result.size > maxBytes;
  return (
    <dl className="measure mt-2 grid grid-cols-[auto_1fr] gap-x-3">
      <dt className="text-ink-2">{msg('size')}</dt>
      <dd className={over ? 'text-coral-ink' : ''}>
        {bytesText(result.size)}
        {over && msg(' ({bytesText} too much)', { bytesText: bytesText(result.size - maxBytes) })}
        <span className="text-ink-2">
          {' '}
          {msg('{result} bit a pixel', { result: ((result.size * 8) / pixels).toFixed(2) })}
        </span>
      </dd>
      <dt className="text-ink-2">{msg('time')}</dt>
      <dd>{msg('{milliseconds} ms', { milliseconds: result.milliseconds })}</dd>
      <dt className="text-ink-2">{msg('likeness')}</dt>
      <dd>
        {result.ssim.toFixed(4)} <span className="text-ink-2 font-sans">{looks(result.ssim)}</span>
      </dd>
      {result.quality !== null && (
        <>
          <dt className="text-ink-2">{result.format === 'png' ? msg('colours') : msg('quality')}</dt>
          <dd>{result.quality}</dd>
        </>
      )}
    </dl>
  );
}
