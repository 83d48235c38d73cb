import { X } from 'lucide-react';
import { useDeferredValue, useMemo, useState } from 'react';
import type { ProductData } from '@scenograph/core/data/product-data';
import type { Shot } from '@scenograph/core/shot/document';
import { resetFit } from '@scenograph/core/shot/edit';
import { resolveForSlot } from '@scenograph/core/shot/resolve';
import { worst } from '@scenograph/core/spec/checks/index';
import { IconButton, Segmented } from '../../ui/controls';
import { StatusMark } from '../../ui/status';
import { checkSummary, useChecks, useThumbnail } from '../listings/cell-picture';
import { useSeen } from '../listings/use-in-view';
import type { FedSlot } from './size-strip';
import { useStage } from './store';
import { msg } from '../../language/language';

/** Every size of the shot on one sheet, live, at its true shape. */
export function SizesBoard({
  shot,
  data,
  slots,
  known,
  onOpen,
  onClose,
}: {
  shot: Shot;
  data: ProductData | null;
  slots: FedSlot[];
  known: ReadonlyMap<string, { width: number; height: number }>;
  onOpen(key: string): void;
  onClose(): void;
}) {
  const [side, setSide] = useState<'150' | '240' | '360'>('240');
  const [safe, setSafe] = useState<'safe' | 'plain'>('plain');
  // Typing goes first: the sheet follows when there is time.
  const later = useDeferredValue(shot);
  return (
    <section
      aria-label={msg('All sizes on one sheet')}
      className="flex min-h-0 grow flex-col"
      style={{ background: 'var(--stage)' }}
    >
      <div className="flex items-center gap-2 px-3 pt-3">
        <span className="measure bg-card/95 rounded-sm px-2 py-1">
          {msg('{slots, plural, one {# size} other {# sizes}}', { slots: slots.length })}
        </span>
        <Segmented
          label={msg('How large they are shown')}
          value={side}
          onChange={(v: '150' | '240' | '360') => setSide(v)}
          options={[
            { value: '150', title: msg('Small') },
            { value: '240', title: msg('Middle') },
            { value: '360', title: msg('Large') },
          ]}
        />
        <Segmented
          label={msg('Safe zones')}
          value={safe}
          onChange={(v: 'safe' | 'plain') => setSafe(v)}
          options={[
            { value: 'plain', title: msg('Plain') },
            { value: 'safe', title: msg('Safe zones') },
          ]}
        />
        <span className="grow" />
        <IconButton label={msg('Back to the stage')} onClick={onClose}>
          <X size={15} aria-hidden />
        </IconButton>
      </div>
      <ul className="flex min-h-0 grow flex-wrap content-start items-end gap-4 overflow-y-auto p-4">
        {slots.map((s) => (
          <SizeCard
            key={s.key}
            shot={later}
            data={data}
            fed={s}
            side={Number(side)}
            safe={safe === 'safe'}
            known={known}
            onOpen={() => onOpen(s.key)}
          />
        ))}
      </ul>
    </section>
  );
}

function SizeCard({
  shot,
  data,
  fed,
  side,
  safe,
  known,
  onOpen,
}: {
  shot: Shot;
  data: ProductData | null;
  fed: FedSlot;
  side: number;
  safe: boolean;
  known: ReadonlyMap<string, { width: number; height: number }>;
  onOpen(): void;
}) {
  const { ref, seen } = useSeen<HTMLLIElement>();
  const { slot, key } = fed;
  const resolved = useMemo(() => resolveForSlot(shot, key, slot, data), [shot, key, slot, data]);
  // Wide and tall ones are given more length, so that all show about as much.
  const long = Math.max(slot.width, slot.height) / Math.min(slot.width, slot.height);
  const room = Math.min(side * Math.sqrt(long), side * 2.4);
  const { canvas, size } = useThumbnail(resolved, room, room, true, seen ? 'seen' : 'unseen');
  const results = useChecks(resolved, slot, key, known, seen);
  const differs = !!shot.fits[key];
  const zone = (slot.safeShare * Math.min(slot.width, slot.height) * size.width) / slot.width;
  return (
    <li ref={ref} className="bg-card rounded-md p-2">
      <button
        type="button"
        onClick={onOpen}
        className="block text-left"
        aria-label={msg('Open {slot} of {marketplace}', { slot: slot.title, marketplace: fed.marketplace })}
      >
        <span className="relative block" style={size}>
          <canvas ref={canvas} style={size} className="block" aria-hidden data-size={key} />
          {safe && (
            <span
              className="border-spruce absolute border border-dashed"
              style={{ inset: zone }}
              aria-hidden
            />
          )}
        </span>
        <span className="mt-1.5 flex items-center gap-1.5 text-[12px]">
          <StatusMark mark={results ? worst(results) : 'working'} /> {slot.title}
          <span className="measure text-ink-2">
            {slot.width} x {slot.height}
          </span>
        </span>
      </button>
      <span className="text-ink-2 flex max-w-60 items-center gap-2 text-[11.5px]">
        <span className="truncate">{checkSummary(results)}</span>
        {differs && (
          <button
            type="button"
            className="text-spruce underline"
            onClick={() => useStage.getState().edit(msg('Reset this slot'), (s) => resetFit(s, key))}
          >
            {msg('Reset')}
          </button>
        )}
      </span>
    </li>
  );
}
