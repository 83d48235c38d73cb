import { useMemo, useState } from 'react';
import type { Board, ListingDetail } from '../../api/client';
import { say } from '../../ui/notices';
import { FILTERS } from './cell-state';
import { cellAt, placeOf, type Choice } from './choice';
import { useColumns } from './use-columns';
import { msg } from '../../language/language';

/** Which part of a board is shown, and which of its cells are chosen. What is shown anew is chosen anew. */
export function useShown({ sheets, variants: all }: ListingDetail, board: Board | undefined) {
  const [sheetId, setSheetId] = useState('all');
  const [requiredOnly, setRequiredOnly] = useState(false);
  const [search, setSearch] = useState('');
  const [choice, setChoice] = useState<Choice>(new Set());
  const everySlot = useColumns(sheets);
  const columns = useMemo(
    () =>
      everySlot.filter(
        ({ sheet, slot }) => (sheetId === 'all' || sheet.id === sheetId) && (!requiredOnly || slot.required),
      ),
    [everySlot, sheetId, requiredOnly],
  );
  const variants = useMemo(() => {
    const words = search.trim().toLowerCase();
    return words
      ? all.filter((v) => `${v.data.sku} ${v.data.variant} ${v.data.title}`.toLowerCase().includes(words))
      : all;
  }, [all, search]);
  const rowOf = useMemo(() => new Map(board?.rows.map((r, i) => [r.variantId, i])), [board]);
  const cells = useMemo(
    () =>
      [...choice].flatMap((id) => {
        const [r, c] = placeOf(id);
        return variants[r] && columns[c] ? [{ variantId: variants[r].id, slotKey: columns[c].key }] : [];
      }),
    [choice, variants, columns],
  );
  /** Chooses all shown cells of one state, by the value of a filter. */
  const chooseBy = (value: string) => {
    const filter = FILTERS.find((f) => f.value === value);
    if (!filter || !board) return setChoice(new Set());
    const found = new Set<string>();
    variants.forEach((v, r) => {
      const row = board.rows[rowOf.get(v.id) ?? -1];
      columns.forEach((column, c) => {
        const letter = row?.states[column.index] ?? ' ';
        const differs = row?.differs[column.index] ?? '.';
        if (filter.letters.includes(letter) || filter.differs?.includes(differs)) found.add(cellAt(r, c));
      });
    });
    setChoice(found);
    say(
      'pass',
      msg('{found} {found, plural, one {cell} other {cells}} chosen: {filter}.', {
        found: found.size,
        filter: filter.title.toLowerCase(),
      }),
    );
  };
  const anew =
    <T>(set: (value: T) => void) =>
    (value: T) => {
      set(value);
      setChoice(new Set());
    };
  return {
    ...{ everySlot, columns, variants, rowOf, choice, cells, setChoice, chooseBy },
    ...{ sheetId, setSheetId: anew(setSheetId) },
    ...{ requiredOnly, setRequiredOnly: anew(setRequiredOnly) },
    ...{ search, setSearch: anew(setSearch) },
  };
}
export type Shown = ReturnType<typeof useShown>;
