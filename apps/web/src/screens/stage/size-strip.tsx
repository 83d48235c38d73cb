import { Plus } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import { useMemo } from 'react';
import type { Shot } from '@scenograph/core/shot/document';
import type { ProductData } from '@scenograph/core/data/product-data';
import { resolveBase, resolveForSlot } from '@scenograph/core/shot/resolve';
import { worst } from '@scenograph/core/spec/checks/index';
import type { Slot } from '@scenograph/core/spec/slot';
import { StatusMark } from '../../ui/status';
import { useChecks, useThumbnail } from '../listings/cell-picture';
import { useSeen } from '../listings/use-in-view';
import { ChangeSize } from './change-size';
import { msg } from '../../language/language';

export interface FedSlot {
  key: string;
  slot: Slot;
  marketplace: string;
}

/** Every size the shot comes out at, live; a click puts that slot's fit on the stage. */
export function SizeStrip({
  shot,
  data,
  slots,
  others,
  active,
  known,
  onOpen,
  onFeed,
  onAll,
  paused,
}: {
  shot: Shot;
  data: ProductData | null;
  slots: FedSlot[];
  others: (FedSlot & { fedBy: string | null })[];
  active: string | null;
  known: ReadonlyMap<string, { width: number; height: number }>;
  onOpen(key: string | null): void;
  onFeed(key: string, on: boolean): void;
  onAll(): void;
  /** Another sheet shows the sizes: the strip comes after it. */
  paused: boolean;
}) {
  const base = useMemo(() => resolveBase(shot, data), [shot, data]);
  const { canvas, size } = useThumbnail(base, 120, 62, true);
  return (
    <section
      aria-label={msg('Sizes')}
      className="border-line bg-card flex h-[118px] shrink-0 items-stretch border-t"
    >
      <div className="w-34 shrink-0 px-3.5 py-1.5">
        <h2 className="font-semibold">{msg('Sizes')}</h2>
        <p className="text-ink-2 text-[12px] leading-snug">
          {msg('{slots} {slots, plural, one {slot} other {slots}} filled by this shot', {
            slots: slots.length,
          })}
        </p>
        <ChangeSize shot={shot} />
        {slots.length > 0 && (
          <button type="button" onClick={onAll} className="text-spruce block h-6 text-[12px] underline">
            {msg('All on one sheet')}
          </button>
        )}
      </div>
      <ol className="flex min-w-0 grow items-stretch gap-3.5 overflow-x-auto px-1 py-2">
        <li>
          <Tile
            title={msg('Base')}
            measure={`${shot.frame.width} x ${shot.frame.height}`}
            active={active === null}
            onOpen={() => onOpen(null)}
            mark={null}
          >
            <canvas ref={canvas} style={size} className="border-line border" aria-hidden />
          </Tile>
        </li>
        {slots.map((s) => (
          <li key={s.key}>
            <SlotTile
              shot={shot}
              data={data}
              fed={s}
              active={active === s.key}
              paused={paused}
              known={known}
              onOpen={() => onOpen(s.key)}
            />
          </li>
        ))}
        <li className="flex items-center">
          <FeedMenu {...{ slots, others, onFeed }} />
        </li>
      </ol>
    </section>
  );
}

/** The slots that this shot could fill, ticked where it does. */
function FeedMenu({
  slots,
  others,
  onFeed,
}: {
  slots: FedSlot[];
  others: (FedSlot & { fedBy: string | null })[];
  onFeed(key: string, on: boolean): void;
}) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger
        aria-label={msg('Choose the slots this shot fills')}
        className="border-ink-3 text-ink-2 hover:border-spruce hover:text-ink flex h-[62px] w-16 items-center justify-center rounded-md border border-dashed"
      >
        <Plus size={16} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content
          side="top"
          align="end"
          className="border-line bg-card z-50 max-h-96 w-80 overflow-y-auto rounded-lg border p-1 shadow-[0_8px_28px_rgba(23,27,25,0.14)]"
        >
          {others.map((o) => (
            <DropdownMenu.CheckboxItem
              key={o.key}
              checked={slots.some((s) => s.key === o.key)}
              onCheckedChange={(on) => onFeed(o.key, on)}
              onSelect={(e) => e.preventDefault()}
              className="data-[highlighted]:bg-spruce-tint flex h-8 items-center gap-2 rounded-sm pr-2.5 pl-7 outline-none"
            >
              <DropdownMenu.ItemIndicator className="absolute left-3.5">
                <StatusMark mark="pass" size={9} />
              </DropdownMenu.ItemIndicator>
              {o.slot.title} <span className="text-ink-2">{o.marketplace}</span>
              <span className="text-ink-2 ml-auto text-[11.5px]">
                {o.fedBy ? msg('now {fedBy}', { fedBy: o.fedBy }) : ''}
              </span>
            </DropdownMenu.CheckboxItem>
          ))}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

function SlotTile({
  shot,
  data,
  fed,
  active,
  paused,
  known,
  onOpen,
}: {
  shot: Shot;
  data: ProductData | null;
  fed: FedSlot;
  active: boolean;
  paused: boolean;
  known: ReadonlyMap<string, { width: number; height: number }>;
  onOpen(): void;
}) {
  const resolved = useMemo(() => resolveForSlot(shot, fed.key, fed.slot, data), [shot, fed, data]);
  const { ref, seen } = useSeen<HTMLSpanElement>();
  const { canvas, size } = useThumbnail(resolved, 150, 62, true, seen && !paused ? 'seen' : 'unseen');
  const results = useChecks(resolved, fed.slot, fed.key, known, seen && !paused);
  return (
    <Tile
      title={fed.slot.title}
      measure={`${fed.slot.width} x ${fed.slot.height}`}
      active={active}
      onOpen={onOpen}
      mark={<StatusMark mark={results ? worst(results) : 'working'} />}
      about={fed.marketplace}
      differs={!!shot.fits[fed.key]}
    >
      <span ref={ref} className="block">
        <canvas ref={canvas} style={size} className="border-line border" aria-hidden />
      </span>
    </Tile>
  );
}

function Tile({
  title,
  measure,
  active,
  onOpen,
  mark,
  about,
  differs,
  children,
}: {
  title: string;
  measure: string;
  active: boolean;
  onOpen(): void;
  mark: React.ReactNode;
  about?: string;
  differs?: boolean;
  children: React.ReactNode;
}) {
  return (
    <button
      type="button"
      onClick={onOpen}
      aria-pressed={active}
      title={about ? `${title}, ${about}` : title}
      className="flex h-full flex-col items-start justify-end gap-1 rounded-sm text-left focus-visible:outline-offset-[-1px]"
    >
      <span
        className={`relative block ${active ? 'ring-limelight outline-spruce ring-[3px] outline outline-1 outline-offset-[3px]' : ''}`}
      >
        {children}
        {differs && (
          <span
            title={msg('Has differences of its own')}
            className="border-spruce bg-card absolute -top-1 -right-1 h-2 w-2 border-[1.5px]"
          />
        )}
      </span>
      <span className="flex items-center gap-1.5 text-[12px] leading-tight">
        {mark} <span className="max-w-24 truncate">{title}</span>
      </span>
      <span className="measure text-ink-2 leading-tight whitespace-nowrap">{measure}</span>
    </button>
  );
}
