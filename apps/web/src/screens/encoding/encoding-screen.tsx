import { Plus, Trash2 } from 'lucide-react';
import { useEffect, useState } from 'react';
import { PLAIN_ENCODING, type Encoding } from '@scenograph/core/delivery/encoding';
import { FORMATS, type Format } from '@scenograph/core/spec/slot';
import { refresh, call } from '../../api/client';
import { Button, IconButton, Segmented, Select } from '../../ui/controls';
import { say } from '../../ui/notices';
import { SharedView, WHOLE, ZOOMS, zoomValue, type View } from '../../ui/shared-view';
import { Trouble, Waiting } from '../../ui/states';
import { bytesText } from '../../ui/status';
import { TopBar } from '../../ui/top-bar';
import { useSize } from '../../ui/use-size';
import { CellChoice } from '../board/cell-choice';
import { useCell, type OpenCell } from '../board/use-cell';
import { ListingTrail } from '../listings/listing-trail';
import { describe, Options, Outcome, type Result } from './way';

export function EncodingScreen() {
  const { cell, error } = useCell();
  return (
    <>
      <TopBar trail={cell && <ListingTrail listing={cell.detail.listing} title="Encoding desk" />}>
        {cell && <CellChoice cell={cell} />}
      </TopBar>
      {error && <Trouble error={error} />}
      {!cell && !error && <Waiting what="the slot" />}
      {cell && !cell.shot && (
        <p className="p-6">No shot fills this slot yet. Give it one on the board, then come back.</p>
      )}
      {cell?.shot && <Desk key={`${cell.slotKey} ${cell.variant.id}`} cell={cell} />}
    </>
  );
}

/** The database keeps the keys of a document in an order of its own. */
const sameEncoding = (a: Encoding | null, b: Encoding) =>
  a !== null && (Object.keys(b) as (keyof Encoding)[]).every((key) => a[key] === b[key]);

interface Try {
  id: number;
  encoding: Encoding;
  result: Result | null;
}

let next = 1;
const fresh = (change: Partial<Encoding>): Try => ({
  id: next++,
  encoding: { ...PLAIN_ENCODING, ...change },
  result: null,
});

function Desk({ cell }: { cell: OpenCell }) {
  const { slot, slotKey, variant, detail } = cell;
  const shot = cell.shot!;
  const stored = detail.listing.encodings[slotKey] ?? null;
  const [tries, setTries] = useState<Try[]>(() => [
    fresh(stored ?? { format: slot.formats[0] }),
    ...FORMATS.filter((f) => f !== (stored?.format ?? slot.formats[0])).map((format) =>
      fresh({ format, quality: format === 'png' ? null : format === 'avif' ? 60 : 82 }),
    ),
  ]);
  const [sides, setSides] = useState<[number | null, number | null]>([null, tries[0].id]);
  const [view, setView] = useState<View>(WHOLE);
  const pane = useSize();
  const query = `slot=${encodeURIComponent(slotKey)}&variant=${variant.id}`;
  const waiting = tries.filter((t) => !t.result);

  useEffect(() => {
    const [first] = waiting;
    if (!first) return;
    let here = true;
    const timer = setTimeout(() => {
      call('POST /api/shots/:id/trials', {
        params: { id: shot.id },
        body: {
          slot: slotKey,
          variant: variant.id,
          trials: [{ encoding: first.encoding, limited: first.encoding.quality === null }],
        },
      })
        .then(([result]) => {
          if (!here) return;
          setTries((list) =>
            list.map((t) => (t.id === first.id && t.encoding === first.encoding ? { ...t, result } : t)),
          );
        })
        .catch((e: Error) => {
          if (!here) return;
          say('stop', e.message);
          setTries((list) =>
            list.map((t) => (t.id === first.id ? { ...t, result: { ok: false, reason: e.message } } : t)),
          );
        });
    }, 60);
    return () => {
      here = false;
      clearTimeout(timer);
    };
  }, [waiting, shot.id, slotKey, variant.id]);

  const change = (id: number, patch: Partial<Encoding>) =>
    setTries((list) =>
      list.map((t) => (t.id === id ? { ...t, encoding: { ...t.encoding, ...patch }, result: null } : t)),
    );
  const use = async (encoding: Encoding | null) => {
    try {
      await call('PUT /api/listings/:id/encoding', {
        params: { id: detail.listing.id },
        body: { slotKey, encoding },
      });
      refresh('/api/listings');
      say(
        'pass',
        encoding ? `${slot.title} is written so from now on.` : `${slot.title} is left to its rules.`,
      );
    } catch (e) {
      say('stop', (e as Error).message);
    }
  };
  const frame = { width: Math.floor((pane.width - 8) / 2), height: Math.max(120, pane.height) };
  const chosen = (id: number | null) => tries.find((t) => t.id === id) ?? null;

  return (
    <main className="flex min-h-0 grow">
      <div className="flex min-w-0 grow flex-col">
        <div className="border-line bg-card flex h-11 shrink-0 items-center gap-3 border-b px-4">
          <Segmented
            label="Zoom"
            value={zoomValue(view)}
            onChange={(v) => setView({ ...view, zoom: ZOOMS.find((z) => z.value === v)!.zoom })}
            options={ZOOMS}
          />
          <p className="text-ink-2">
            <span className="measure">
              {slot.width} x {slot.height}
            </span>
            , at most <span className="measure">{bytesText(slot.maxBytes)}</span>; takes{' '}
            {slot.formats.join(', ')}
          </p>
          {stored && (
            <Button className="ml-auto" onClick={() => void use(null)}>
              Leave it to the slot's rules
            </Button>
          )}
        </div>
        <div ref={pane.ref} className="grid min-h-0 grow grid-cols-2 gap-2 p-0">
          {pane.width > 0 &&
            sides.map((id, side) => {
              const t = chosen(id);
              const result = t?.result?.ok ? t.result : null;
              return (
                <figure key={side} className="relative min-w-0 overflow-hidden">
                  <SharedView
                    label={t ? describe(t.encoding) : 'As painted, without loss'}
                    width={slot.width}
                    height={slot.height}
                    view={view}
                    onView={setView}
                    frame={frame}
                  >
                    {t ? (
                      result && <img src={`/api/shots/tried/${result.file}`} alt="" draggable={false} />
                    ) : (
                      <img src={`/api/shots/${shot.id}/picture?${query}`} alt="" draggable={false} />
                    )}
                  </SharedView>
                  <figcaption className="bg-card/95 border-line absolute bottom-2 left-2 flex items-center gap-2 rounded-md border px-2 py-1">
                    <Select
                      label={side ? 'Right picture' : 'Left picture'}
                      value={id === null ? 'painted' : String(id)}
                      onChange={(v) =>
                        setSides(
                          (s) =>
                            s.map((old, i) =>
                              i === side ? (v === 'painted' ? null : Number(v)) : old,
                            ) as typeof sides,
                        )
                      }
                      options={[
                        { value: 'painted', title: 'As painted' },
                        ...tries.map((x) => ({ value: String(x.id), title: describe(x.encoding) })),
                      ]}
                    />
                    {result && <span className="measure whitespace-nowrap">{bytesText(result.size)}</span>}
                  </figcaption>
                </figure>
              );
            })}
        </div>
      </div>
      <aside
        aria-label="Ways to write it"
        className="border-line bg-card w-[344px] shrink-0 overflow-y-auto border-l p-4"
      >
        <h2 className="font-display text-[16px] font-bold">Ways to write it</h2>
        <p className="text-ink-2 mb-3 text-[12px]">
          Each is written from the painted picture and compared with it. Likeness is SSIM: 1 is alike.
        </p>
        <ul className="grid gap-3">
          {tries.map((t) => (
            <li
              key={t.id}
              className={`rounded-lg border p-2.5 ${t.id === sides[1] ? 'border-spruce' : 'border-line'}`}
            >
              <div className="flex items-center gap-2">
                <Select<Format>
                  label="Format"
                  className="w-24"
                  value={t.encoding.format ?? slot.formats[0]}
                  onChange={(format) =>
                    change(t.id, {
                      ...PLAIN_ENCODING,
                      format,
                      quality: format === 'png' ? null : t.encoding.quality,
                    })
                  }
                  options={FORMATS.map((f) => ({ value: f, title: f }))}
                />
                <Button onClick={() => setSides([sides[0], t.id])} aria-pressed={t.id === sides[1]}>
                  Look
                </Button>
                <Button
                  tone={sameEncoding(stored, t.encoding) ? 'main' : 'plain'}
                  disabled={
                    !t.result?.ok ||
                    !slot.formats.includes(t.encoding.format ?? slot.formats[0]) ||
                    (t.result.ok && t.result.size > slot.maxBytes)
                  }
                  title={
                    !slot.formats.includes(t.encoding.format ?? slot.formats[0])
                      ? 'The slot does not take this format'
                      : t.result?.ok && t.result.size > slot.maxBytes
                        ? 'The file is larger than the slot takes'
                        : undefined
                  }
                  onClick={() => void use(t.encoding)}
                >
                  {sameEncoding(stored, t.encoding) ? 'In use' : 'Use it'}
                </Button>
                <IconButton
                  label="Take this away"
                  className="ml-auto"
                  disabled={tries.length === 1}
                  onClick={() => setTries((list) => list.filter((x) => x.id !== t.id))}
                >
                  <Trash2 size={14} aria-hidden />
                </IconButton>
              </div>
              <Options
                encoding={t.encoding}
                format={t.encoding.format ?? slot.formats[0]}
                onChange={(p) => change(t.id, p)}
              />
              <Outcome result={t.result} maxBytes={slot.maxBytes} pixels={slot.width * slot.height} />
            </li>
          ))}
        </ul>
        <Button
          className="mt-3 w-full"
          onClick={() => setTries((list) => [...list, fresh({ format: slot.formats[0], quality: 75 })])}
        >
          <Plus size={14} aria-hidden /> Another way
        </Button>
      </aside>
    </main>
  );
}
