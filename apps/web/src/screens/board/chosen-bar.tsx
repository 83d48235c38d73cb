import { Toolbar } from 'radix-ui';
import type { ShotRow } from '../../api/client';
import { Button, Select } from '../../ui/controls';
import type { BoardEdits } from './use-board-edits';
import type { Shown } from './use-shown';
import { msg, rich } from '../../language/language';

/** What can be done with the cells that are chosen; nothing while none is. */
export function ChosenBar({
  shown: { cells, setChoice },
  shots,
  edits,
  onDeliver,
}: {
  shown: Shown;
  shots: readonly ShotRow[];
  edits: BoardEdits;
  onDeliver(): void;
}) {
  if (!cells.length) return null;
  return (
    <Toolbar.Root
      aria-label={msg('Chosen cells')}
      className="border-line bg-card flex h-12 shrink-0 items-center gap-2.5 border-t px-4.5"
    >
      <span className="mr-2">
        {rich('<measure>{cells}</measure> {cells, plural, one {cell} other {cells}} chosen', {
          measure: (inside) => <span className="measure">{inside}</span>,
          cells: cells.length,
        })}
      </span>
      <Select
        label={msg('Fill from')}
        value=""
        onChange={(v) => void edits.assign(cells, v === 'none' ? null : v)}
        options={[
          ...shots.map((s) => ({ value: s.id, title: s.title })),
          { value: 'slot', title: msg('as their slot is filled') },
          { value: 'none', title: msg('nothing: leave it missing') },
        ]}
      />
      <Toolbar.Button asChild>
        <Button onClick={onDeliver}>{msg('Deliver these')}</Button>
      </Toolbar.Button>
      <Toolbar.Button asChild>
        <Button tone="quiet" onClick={() => setChoice(new Set())}>
          {msg('Choose none')}
        </Button>
      </Toolbar.Button>
      <span className="text-ink-2 ml-auto text-[12px]">
        {msg('Shift for a range, Ctrl for one more, Enter or a double click opens the stage')}
      </span>
    </Toolbar.Root>
  );
}
