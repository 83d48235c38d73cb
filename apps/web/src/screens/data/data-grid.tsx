import { allTicked, Checkbox } from '../../ui/controls';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Trash2 } from 'lucide-react';
import { useEffect, useRef, type ClipboardEvent, type KeyboardEvent } from 'react';
import { reducedUrl, type ProductWithEdits, type Variant } from '../../api/client';
import type { Column } from './columns';
import { msg } from '../../language/language';

const ROW = 36;
/** Width of the column of checkboxes and thumbnails. */
const FIRST = 84;

export interface GridHands {
  onChosen(ids: ReadonlySet<string>): void;
  onRemoveColumn(name: string): void;
  onWrite(column: Column, variant: Variant, text: string): void;
  /** True where the text was a block and was taken. */
  onPaste(text: string, row: number, column: number): boolean;
}

/** Variants by columns, each cell a field; only the rows in view are there. */
export function DataGrid({
  product,
  columns,
  chosen,
  ...hands
}: { product: ProductWithEdits; columns: readonly Column[]; chosen: ReadonlySet<string> } & GridHands) {
  const { variants } = product;
  const scroller = useRef<HTMLElement>(null);
  const rows = useVirtualizer({
    count: variants.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 8,
  });
  const count = useRef(variants.length);
  useEffect(() => {
    // What was added stands at the end.
    if (variants.length > count.current) rows.scrollToIndex(variants.length - 1);
    count.current = variants.length;
  }, [variants.length, rows]);
  const focusCell = (row: number, column: number) => {
    rows.scrollToIndex(row);
    setTimeout(
      () => scroller.current?.querySelector<HTMLInputElement>(`[data-cell="${row}:${column}"]`)?.focus(),
      40,
    );
  };
  return (
    <main ref={scroller} className="min-h-0 grow overflow-auto">
      <div
        role="grid"
        aria-label={msg('Data of {product}', { product: product.title })}
        aria-rowcount={variants.length + 1}
        style={{ width: columns.reduce((sum, c) => sum + c.width, FIRST) }}
      >
        <HeadRow variants={variants} columns={columns} chosen={chosen} {...hands} />
        <div className="relative" style={{ height: rows.getTotalSize() }}>
          {rows.getVirtualItems().map((item) => (
            <div
              key={variants[item.index].id}
              role="row"
              aria-rowindex={item.index + 2}
              className="border-line bg-card absolute top-0 left-0 flex border-b"
              style={{ transform: `translateY(${item.start}px)`, height: ROW }}
            >
              <FirstCell variant={variants[item.index]} chosen={chosen} onChosen={hands.onChosen} />
              {columns.map((c, i) => (
                <Cell
                  key={c.id}
                  column={c}
                  variant={variants[item.index]}
                  place={`${item.index}:${i}`}
                  onWrite={hands.onWrite}
                  onPaste={(e) => {
                    if (hands.onPaste(e.clipboardData.getData('text/plain'), item.index, i))
                      e.preventDefault();
                  }}
                  onMove={(by) => {
                    const to = item.index + by;
                    if (to < 0 || to >= variants.length) return false;
                    focusCell(to, i);
                    return true;
                  }}
                />
              ))}
            </div>
          ))}
        </div>
      </div>
    </main>
  );
}

function HeadRow({
  variants,
  columns,
  chosen,
  onChosen,
  onRemoveColumn,
}: { variants: readonly Variant[]; columns: readonly Column[]; chosen: ReadonlySet<string> } & Pick<
  GridHands,
  'onChosen' | 'onRemoveColumn'
>) {
  return (
    <div role="row" className="border-line bg-card sticky top-0 z-10 flex border-b">
      <span role="columnheader" className="shrink-0 px-3 py-2" style={{ width: FIRST }}>
        <Checkbox
          label={msg('Choose all variants')}
          checked={allTicked(chosen.size, variants.length)}
          onChange={(on) => onChosen(new Set(on ? variants.map((v) => v.id) : []))}
        />
      </span>
      {columns.map((c) => (
        <span
          key={c.id}
          role="columnheader"
          className="border-line flex shrink-0 items-center justify-between border-l px-2 py-2 text-[12px] font-medium"
          style={{ width: c.width }}
        >
          <span className={c.field ? 'measure' : ''}>{c.field ? `{${c.title}}` : c.title}</span>
          {c.field && (
            <button
              type="button"
              aria-label={msg('Remove column {c}', { c: c.title })}
              title={msg('Remove this column from all variants')}
              className="text-ink-3 hover:text-ink"
              onClick={() => onRemoveColumn(c.title)}
            >
              <Trash2 size={12} aria-hidden />
            </button>
          )}
        </span>
      ))}
    </div>
  );
}

function FirstCell({
  variant,
  chosen,
  onChosen,
}: {
  variant: Variant;
  chosen: ReadonlySet<string>;
  onChosen(ids: ReadonlySet<string>): void;
}) {
  const { sku, cutout } = variant.data;
  const turn = (on: boolean) => {
    const next = new Set(chosen);
    if (on) next.add(variant.id);
    else next.delete(variant.id);
    onChosen(next);
  };
  return (
    <span role="gridcell" className="flex shrink-0 items-center gap-2.5 px-3" style={{ width: FIRST }}>
      <Checkbox label={msg('Choose {sku}', { sku })} checked={chosen.has(variant.id)} onChange={turn} />
      {cutout ? (
        <img src={reducedUrl(cutout.picture, 160)} alt="" className="h-7 w-7 shrink-0 object-contain" />
      ) : (
        <span className="border-ink-3 block h-7 w-7 border border-dashed" />
      )}
    </span>
  );
}

/** Names that a field offers while it is written in. */
const LISTS: Record<string, string> = { photo: 'photo-names', artwork: 'artwork-titles' };
const MEASURES = new Set(['sku', 'price', 'currency', 'ink']);

function Cell({
  column,
  variant,
  place,
  onWrite,
  onPaste,
  onMove,
}: {
  column: Column;
  variant: Variant;
  /** Row and column, by which it is found. */
  place: string;
  onWrite: GridHands['onWrite'];
  onPaste(e: ClipboardEvent<HTMLInputElement>): void;
  /** Goes so many rows down; false where there is none. */
  onMove(by: number): boolean;
}) {
  const text = column.text(variant);
  const onKeyDown = (e: KeyboardEvent<HTMLInputElement>) => {
    const field = e.currentTarget;
    if (e.key === 'Escape') field.value = field.defaultValue;
    const by = { Enter: 1, ArrowDown: 1, ArrowUp: -1 }[e.key];
    const moved = by !== undefined && onMove(by);
    if (moved) e.preventDefault();
    if (moved || e.key === 'Enter' || e.key === 'Escape') field.blur();
  };
  return (
    <span
      role="gridcell"
      className="border-line flex shrink-0 items-center border-l"
      style={{ width: column.width }}
    >
      {column.id === 'ink' && text && (
        <span className="border-line ml-2 h-3.5 w-3.5 shrink-0 border" style={{ background: text }} />
      )}
      <input
        key={text}
        defaultValue={text}
        data-cell={place}
        aria-label={msg('{column} of {sku}', { column: column.title, sku: variant.data.sku })}
        list={LISTS[column.id]}
        onBlur={(e) => {
          const written = e.target.value;
          // What is stored is shown until what was written is.
          e.target.value = text;
          if (written !== text) onWrite(column, variant, written);
        }}
        onKeyDown={onKeyDown}
        onPaste={onPaste}
        className={`focus:outline-spruce h-full w-full min-w-0 bg-transparent px-2 focus:outline-2 focus:-outline-offset-2 ${column.id === 'price' ? 'text-right' : ''} ${MEASURES.has(column.id) ? 'measure' : ''}`}
      />
    </span>
  );
}
