import {
  createSortedRowModel,
  rowSortingFeature,
  tableFeatures,
  useTable,
  type ColumnDef,
  type Header,
  type SortFn,
} from '@tanstack/react-table';
import { ArrowDown, ArrowUp } from 'lucide-react';
import { useMemo, type ReactNode } from 'react';
import { useNavigate } from 'react-router';
import { msg } from '../language/language';
import { allTicked, Checkbox } from './controls';

/** A column of a table: how a row is shown in it, and what rows are sorted by. */
export interface TableColumn<T> {
  id: string;
  title: ReactNode;
  cell(row: T): ReactNode;
  /** A number, text, or time; left out where sorting by it says nothing. */
  by?(row: T): number | string;
  /** Figures stand one below the other, at the right. */
  figures?: boolean;
  /** For its cells, and for its head. */
  className?: string;
  head?: string;
  /** What a pointer that rests on a cell is told. */
  hint?(row: T): string | undefined;
}

const features = tableFeatures({ rowSortingFeature, sortedRowModel: createSortedRowModel() });

const inOrder: SortFn<typeof features, never> = (a, b, id) => {
  const [x, y] = [a.getValue<number | string>(id), b.getValue<number | string>(id)];
  return typeof x === 'number' && typeof y === 'number' ? x - y : collator.compare(String(x), String(y));
};
const collator = new Intl.Collator(undefined, { numeric: true, sensitivity: 'base' });

/** Room around cells: of a list that is read through, or of figures side by side. */
const ROOM = { wide: 'px-4 py-2.5', narrow: 'px-3 py-1.5' };

interface Choice<T> {
  chosen: readonly string[];
  onChoose(ids: string[]): void;
  /** What a row's box, and the box of all, are called. */
  nameOf(row: T): string;
  all: string;
}

/**
 * Rows by columns. A click on a head sorts by it, a second the other way round, a third as it was; with `to` a row leads
 * somewhere (its first cell should hold the link), with `choice` rows can be chosen.
 */
export function Table<T>({
  label,
  columns,
  rows,
  idOf,
  to,
  choice,
  room = 'wide',
  className = 'w-full',
}: {
  label: string;
  columns: readonly TableColumn<T>[];
  rows: readonly T[];
  idOf(row: T): string;
  to?(row: T): string;
  choice?: Choice<T>;
  room?: keyof typeof ROOM;
  className?: string;
}) {
  const navigate = useNavigate();
  const table = useTable({
    features,
    data: useMemo(() => [...rows] as never[], [rows]),
    columns: useMemo(() => columns.map(definition), [columns]),
    getRowId: (row) => idOf(row as T),
    sortDescFirst: false,
  });
  const pad = ROOM[room];
  return (
    <table aria-label={label} className={`border-line bg-card border ${className}`}>
      <thead>
        {table.getHeaderGroups().map((group) => (
          <tr key={group.id} className="border-line text-ink-2 border-b text-left text-[12px]">
            {choice && (
              <th className="w-8 py-2 pl-4">
                <Checkbox
                  label={choice.all}
                  checked={allTicked(choice.chosen.length, rows.length)}
                  onChange={(on) => choice.onChoose(on ? rows.map(idOf) : [])}
                />
              </th>
            )}
            {group.headers.map((header, i) => (
              <Head key={header.id} header={header} column={columns[i] as TableColumn<never>} room={room} />
            ))}
          </tr>
        ))}
      </thead>
      <tbody>
        {table.getRowModel().rows.map(({ id, original }) => {
          const row = original as T;
          return (
            <tr
              key={id}
              className={`border-line border-b last:border-b-0 ${to ? 'hover:bg-spruce-tint/50 cursor-pointer' : ''}`}
              onClick={to && (() => void navigate(to(row)))}
            >
              {choice && (
                <td className="pl-4" onClick={(e) => e.stopPropagation()}>
                  <Checkbox
                    label={choice.nameOf(row)}
                    checked={choice.chosen.includes(id)}
                    onChange={(on) =>
                      choice.onChoose(on ? [...choice.chosen, id] : choice.chosen.filter((x) => x !== id))
                    }
                  />
                </td>
              )}
              {columns.map((column) => (
                <td
                  key={column.id}
                  className={`${pad} ${column.figures ? 'measure text-right' : ''} ${column.className ?? ''}`}
                  title={column.hint?.(row)}
                >
                  {column.cell(row)}
                </td>
              ))}
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const definition = <T,>({ id, by }: TableColumn<T>): ColumnDef<typeof features, never> => ({
  id,
  header: id,
  accessorFn: by ?? (() => ''),
  enableSorting: !!by,
  sortFn: inOrder,
});

function Head({
  header,
  column,
  room,
}: {
  header: Header<typeof features, never>;
  column: TableColumn<never>;
  room: keyof typeof ROOM;
}) {
  const sorted = header.column.getIsSorted();
  const pad = room === 'wide' ? 'px-4 py-2' : 'px-3 py-1.5';
  const Arrow = sorted === 'desc' ? ArrowDown : ArrowUp;
  return (
    <th
      scope="col"
      aria-sort={sorted ? (sorted === 'desc' ? 'descending' : 'ascending') : undefined}
      className={`${pad} font-medium whitespace-nowrap ${column.figures ? 'text-right' : ''} ${column.head ?? ''}`}
    >
      {column.by ? (
        <button
          type="button"
          title={msg('Sort')}
          className={`hover:text-ink inline-flex items-center gap-1 font-medium ${column.figures ? 'flex-row-reverse' : ''}`}
          onClick={header.column.getToggleSortingHandler()}
        >
          {column.title}
          <Arrow size={12} aria-hidden className={sorted ? '' : 'invisible'} />
        </button>
      ) : (
        column.title
      )}
    </th>
  );
}
