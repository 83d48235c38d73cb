import { Plus } from 'lucide-react';
import { useState } from 'react';
import type { Encoding } from '@scenograph/core/delivery/encoding';
import type { Slot } from '@scenograph/core/spec/slot';
import { call } from '../../api/client';
import { boardOf } from '../../api/revisions';
import { Button, Segmented } from '../../ui/controls';
import { say } from '../../ui/notices';
import { WHOLE, ZOOMS, zoomValue, type View } from '../../ui/shared-view';
import { Trouble, Waiting } from '../../ui/states';
import { bytesText } from '../../ui/status';
import { TopBar } from '../../ui/top-bar';
import { tried } from '../../ui/tried';
import { useSize } from '../../ui/use-size';
import { CellChoice } from '../board/cell-choice';
import { useCell, type OpenCell } from '../board/use-cell';
import { ListingTrail } from '../listings/listing-trail';
import { Side } from './side';
import { useTrials } from './use-trials';
import { WayCard } from './way-card';
import { msg, rich } from '../../language/language';

export function EncodingScreen() {
  const { cell, error } = useCell();
  return (
    <>
      <TopBar trail={cell && <ListingTrail listing={cell.detail.listing} title={msg('Encoding desk')} />}>
        {cell && <CellChoice cell={cell} />}
      </TopBar>
      {error && <Trouble error={error} />}
      {!cell && !error && <Waiting what={msg('the slot')} />}
      {cell && !cell.shot && (
        <p className="p-6">{msg('No shot fills this slot yet. Give it one on the board, then come back.')}</p>
      )}
      {cell?.shot && <Desk key={`${cell.slotKey} ${cell.variant.id}`} cell={cell} shotId={cell.shot.id} />}
    </>
  );
}

/** The database keeps the keys of a document in an order of its own. */
const sameEncoding = (a: Encoding | null, b: Encoding) =>
  a !== null && (Object.keys(b) as (keyof Encoding)[]).every((key) => a[key] === b[key]);

function Desk({ cell, shotId }: { cell: OpenCell; shotId: string }) {
  const { slot, slotKey, variant, detail } = cell;
  const stored = detail.listing.encodings[slotKey] ?? null;
  const { trials, change, add, remove } = useTrials({
    shotId,
    slot,
    slotKey,
    variantId: variant.id,
    stored,
  });
  const [sides, setSides] = useState<[number | null, number | null]>([null, trials[0].id]);
  const [view, setView] = useState<View>(WHOLE);
  const pane = useSize();
  const use = async (encoding: Encoding | null) => {
    const { id } = detail.listing;
    const sent = { params: { id }, body: { slotKey, encoding } };
    if (await tried(call('PUT /api/listings/:id/encoding', sent, { of: boardOf(id) }), '/api/listings'))
      say(
        'pass',
        encoding
          ? msg('{slot} is written so from now on.', { slot: slot.title })
          : msg('{slot} is left to its rules.', { slot: slot.title }),
      );
  };
  const frame = { width: Math.floor((pane.width - 8) / 2), height: Math.max(120, pane.height) };
  const painted = `/api/shots/${shotId}/picture?slot=${encodeURIComponent(slotKey)}&variant=${variant.id}`;
  return (
    <main className="flex min-h-0 grow">
      <div className="flex min-w-0 grow flex-col">
        <Tools slot={slot} view={view} onView={setView} onLeave={stored ? () => void use(null) : undefined} />
        <div ref={pane.ref} className="grid min-h-0 grow grid-cols-2 gap-2 p-0">
          {pane.width > 0 &&
            sides.map((id, side) => (
              <Side
                key={side}
                label={side ? msg('Right picture') : msg('Left picture')}
                trial={trials.find((t) => t.id === id) ?? null}
                trials={trials}
                painted={painted}
                size={{ width: slot.width, height: slot.height }}
                view={view}
                onView={setView}
                frame={frame}
                onChoose={(to) => setSides(side ? [sides[0], to] : [to, sides[1]])}
              />
            ))}
        </div>
      </div>
      <aside
        aria-label={msg('Ways to write it')}
        className="border-line bg-card w-[344px] shrink-0 overflow-y-auto border-l p-4"
      >
        <h2 className="font-display text-[16px] font-bold">{msg('Ways to write it')}</h2>
        <p className="text-ink-2 mb-3 text-[12px]">
          {msg(
            'Each is written from the painted picture and compared with it. Likeness is SSIM: 1 is alike.',
          )}
        </p>
        <ul className="grid gap-3">
          {trials.map((t) => (
            <WayCard
              key={t.id}
              trial={t}
              slot={slot}
              inUse={sameEncoding(stored, t.encoding)}
              shown={t.id === sides[1]}
              only={trials.length === 1}
              onChange={(patch) => change(t.id, patch)}
              onLook={() => setSides([sides[0], t.id])}
              onUse={() => void use(t.encoding)}
              onRemove={() => remove(t.id)}
            />
          ))}
        </ul>
        <Button className="mt-3 w-full" onClick={add}>
          <Plus size={14} aria-hidden /> {msg('Another way')}
        </Button>
      </aside>
    </main>
  );
}

/** Zoom, and what the slot asks for. */
function Tools({
  slot,
  view,
  onView,
  onLeave,
}: {
  slot: Slot;
  view: View;
  onView(view: View): void;
  /** Leaves the writing to the slot's rules again; missing where it is. */
  onLeave?: () => void;
}) {
  return (
    <div className="border-line bg-card flex h-11 shrink-0 items-center gap-3 border-b px-4">
      <Segmented
        label={msg('Zoom')}
        value={zoomValue(view)}
        onChange={(v) => onView({ ...view, zoom: ZOOMS.find((z) => z.value === v)!.zoom })}
        options={ZOOMS}
      />
      <p className="text-ink-2">
        {rich(
          '<measure>{width} x {height}</measure>, at most <measure>{bytesText}</measure>; takes {formats}',
          {
            measure: (inside) => <span className="measure">{inside}</span>,
            width: slot.width,
            height: slot.height,
            bytesText: bytesText(slot.maxBytes),
            formats: slot.formats.join(', '),
          },
        )}
      </p>
      {onLeave && (
        <Button className="ml-auto" onClick={onLeave}>
          {msg("Leave it to the slot's rules")}
        </Button>
      )}
    </div>
  );
}
