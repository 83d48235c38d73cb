import { elementKind } from '@scenograph/core/elements/index';
import type { Shot } from '@scenograph/core/shot/document';
import { openPlaces } from '@scenograph/core/templates/fill';
import { Button, Checkbox } from '../../ui/controls';
import type { FedSlot } from './size-strip';
import { useStage } from './store';
import { msg } from '../../language/language';

/** The one variant that changes can be kept to; null where there is no choice. */
export type CellChoice = { title: string; on: boolean; onChange(on: boolean): void } | null;

/** Says that changes stay in the slot that is shown, or in one cell of it. */
export function SlotNote({ active, cell }: { active: FedSlot; cell: CellChoice }) {
  const showSlot = useStage((s) => s.showSlot);
  return (
    <p className="bg-spruce px-3.5 py-1.5 text-[12.5px] text-white">
      {msg('You are on')} <b>{active.slot.title}</b>
      {msg(', {marketplace}. Changes stay in this slot{part}.', {
        marketplace: active.marketplace,
        part: cell?.on ? msg(' of {cell}', { cell: cell.title }) : '',
      })}{' '}
      <button type="button" className="underline" onClick={() => showSlot(null)}>
        {msg('Back to the base')}
      </button>
      {cell && (
        <label className="mt-1 flex items-center gap-2">
          <Checkbox checked={cell.on} onChange={cell.onChange} />
          {msg('For {cell} only', { cell: cell.title })}
        </label>
      )}
    </p>
  );
}

/** Places of a template that nothing fills yet; nothing where all are. */
export function PlacesNote({ shot, onOpen }: { shot: Shot; onOpen(open: string[]): void }) {
  const select = useStage((s) => s.select);
  const places = openPlaces(shot);
  if (!places.length) return null;
  return (
    <div className="border-line bg-spruce-tint border-b px-3.5 py-2 text-[12.5px]">
      <p className="font-medium">{msg('Places of the template still to be filled')}</p>
      <ul className="mt-1 grid gap-1">
        {places.map((e) => (
          <li key={e.id} className="flex items-center justify-between gap-2">
            <span>{e.place?.hint || e.name}</span>
            <Button
              aria-label={msg('Fill {e}', { e: e.name })}
              onClick={() => {
                select(e.id);
                onOpen([elementKind(e.kind).role === 'overlay' ? 'overlays' : 'place']);
              }}
            >
              {msg('Fill it')}
            </Button>
          </li>
        ))}
      </ul>
    </div>
  );
}
