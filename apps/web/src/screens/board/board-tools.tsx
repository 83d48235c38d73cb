import type { Board, ListingDetail } from '../../api/client';
import { Button, Checkbox, Select } from '../../ui/controls';
import { UndoRedo } from '../../ui/undo-redo';
import { FILTERS } from './cell-state';
import type { BoardEdits } from './use-board-edits';
import type { Shown } from './use-shown';
import { msg } from '../../language/language';

/** What of the board is shown, cells chosen by their state, and its undo. */
export function BoardTools({
  detail,
  board,
  shown,
  edits,
  showShots,
  onShowShots,
}: {
  detail: ListingDetail;
  board: Board | undefined;
  shown: Shown;
  edits: BoardEdits;
  showShots: boolean;
  onShowShots(show: boolean): void;
}) {
  return (
    <div className="flex shrink-0 flex-wrap items-center gap-2.5 px-4.5 pb-2.5 pt-1">
      <Select
        label={msg('Marketplace')}
        value={shown.sheetId}
        onChange={shown.setSheetId}
        options={[
          { value: 'all', title: msg('All marketplaces') },
          ...detail.sheets.map((s) => ({ value: s.id, title: s.marketplace })),
        ]}
      />
      <input
        type="search"
        aria-label={msg('Find variants')}
        placeholder={msg('Find variants')}
        value={shown.search}
        onChange={(e) => shown.setSearch(e.target.value)}
        className="border-line focus:border-spruce bg-card h-7 w-36 rounded-md border px-2 outline-none"
      />
      <label className="border-line bg-card flex h-7 items-center gap-2 rounded-md border px-2.5">
        <Checkbox checked={shown.requiredOnly} onChange={shown.setRequiredOnly} />
        {msg('Required only')}
      </label>
      <Select
        label={msg('Choose cells')}
        value=""
        onChange={shown.chooseBy}
        options={FILTERS.map(({ value, title }) => ({ value, title }))}
      />
      <Button onClick={() => void edits.fill()}>{msg('Fill empty slots')}</Button>
      <div className="ml-auto flex gap-1.5">
        <Button tone="quiet" onClick={() => onShowShots(!showShots)} aria-pressed={showShots}>
          {showShots ? msg('Hide shots') : msg('Show shots')}
        </Button>
        <UndoRedo edits={board?.edits} onTurn={(way) => void edits.turn(way)} />
      </div>
    </div>
  );
}
