import type { RequestOf } from '@scenograph/contract';
import { address } from '@scenograph/contract/route';
import { useVirtualizer } from '@tanstack/react-virtual';
import { Download, Plus, Trash2, Upload } from 'lucide-react';
import {
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ClipboardEvent,
  type KeyboardEvent,
} from 'react';
import { useParams } from 'react-router';
import {
  type ProductWithEdits,
  reducedUrl,
  refresh,
  type Artwork,
  type Photo,
  type Variant,
  useRoute,
  call,
} from '../../api/client';
import { useActions, type Action } from '../../ui/actions';
import { Button, buttonClass } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { UndoRedo } from '../../ui/undo-redo';
import { columnsOf, type Column, type VariantPatch } from './columns';
import { ImportDialog } from './import-dialog';
import { NameColumn } from './name-column';

const ROW = 36;

export function DataScreen() {
  const { id = '' } = useParams();
  const { data, error } = useRoute('GET /api/products/:id', { params: { id } });
  const { data: photos } = useRoute('GET /api/photos');
  const { data: artworks } = useRoute('GET /api/artwork');
  return (
    <>
      <TopBar />
      {error && <Trouble error={error} />}
      {!error && (!data || !photos || !artworks) && <Waiting what="the data" />}
      {data && photos && artworks && <DataGrid product={data} photos={photos} artworks={artworks} />}
    </>
  );
}

function DataGrid({
  product,
  photos,
  artworks,
}: {
  product: ProductWithEdits;
  photos: Photo[];
  artworks: Artwork[];
}) {
  const { variants } = product;
  const params = useMemo(() => ({ id: product.id }), [product.id]);
  const [added, setAdded] = useState<string[]>([]);
  const [naming, setNaming] = useState(false);
  const [importing, setImporting] = useState(false);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const scroller = useRef<HTMLDivElement>(null);
  const fields = useMemo(
    () => [...new Set([...variants.flatMap((v) => Object.keys(v.data.fields ?? {})), ...added])].sort(),
    [variants, added],
  );
  const columns = useMemo(() => columnsOf(fields, photos, artworks), [fields, photos, artworks]);
  const rows = useVirtualizer({
    count: variants.length,
    getScrollElement: () => scroller.current,
    estimateSize: () => ROW,
    overscan: 8,
  });

  const change = useCallback(
    async (
      label: string,
      body: Partial<Omit<RequestOf<'POST /api/products/:id/variants/batch'>['body'], 'label'>>,
    ) => {
      try {
        await call('POST /api/products/:id/variants/batch', { params, body: { label, ...body } });
        return true;
      } catch (e) {
        say('stop', (e as Error).message);
        return false;
      } finally {
        refresh('/api/products', '/api/listings');
      }
    },
    [params],
  );
  const turn = useCallback(
    async (way: 'undo' | 'redo') => {
      try {
        const { label } = await call('POST /api/products/:id/turn', { params, body: { way } });
        if (label) say('pass', `${way === 'undo' ? 'Undone' : 'Done again'}: ${label}.`);
      } catch (e) {
        say('stop', (e as Error).message);
      }
      refresh('/api/products', '/api/listings');
    },
    [params],
  );
  useEffect(() => {
    const onKey = (e: globalThis.KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== 'z') return;
      if (e.target instanceof HTMLInputElement && e.target.value !== e.target.defaultValue) return;
      e.preventDefault();
      void turn(e.shiftKey ? 'redo' : 'undo');
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [turn]);

  const add = useCallback(async () => {
    const taken = new Set(variants.map((v) => v.data.sku));
    const stem = variants[0]?.data.sku.replace(/-[^-]*$/, '') || 'ITEM';
    let n = variants.length + 1;
    while (taken.has(`${stem}-${n}`)) n++;
    if (await change('Add a variant', { add: [{ sku: `${stem}-${n}`, title: '' }] }))
      setTimeout(() => rows.scrollToIndex(variants.length), 300);
  }, [variants, change, rows]);
  const actions = useMemo<Action[]>(
    () => [
      { id: 'add-variant', title: 'Add a variant', group: 'Data', run: () => void add() },
      { id: 'import', title: 'Import a table', group: 'Data', run: () => setImporting(true) },
      { id: 'column', title: 'Add a column', group: 'Data', run: () => setNaming(true) },
    ],
    [add],
  );
  useActions('data', actions);

  const write = async (column: Column, variant: Variant, text: string) => {
    const patch = column.read(text, variant);
    if (typeof patch === 'string') return say('stop', patch);
    await change(`${column.title} of ${variant.data.sku}`, { set: [{ id: variant.id, patch }] });
  };
  /** A block copied from a spreadsheet fills the cells from the one it is pasted in; all of it or nothing. */
  const paste = (e: ClipboardEvent, row: number, column: number) => {
    const text = e.clipboardData.getData('text/plain');
    if (!/[\t\n]/.test(text.trimEnd())) return;
    e.preventDefault();
    const block = text
      .replace(/\r?\n$/, '')
      .split(/\r?\n/)
      .map((line) => line.split('\t'));
    const set: { id: string; patch: VariantPatch }[] = [];
    for (const [r, line] of block.entries()) {
      const variant = variants[row + r];
      if (!variant)
        return say(
          'stop',
          `The block has ${block.length} rows; only ${variants.length - row} are left from here.`,
        );
      let patch: VariantPatch = {};
      let fieldsNow = variant;
      for (const [c, cell] of line.entries()) {
        const target = columns[column + c];
        if (!target) return say('stop', 'The block is wider than the columns left from here.');
        const own = target.read(cell, fieldsNow);
        if (typeof own === 'string') return say('stop', `Row ${r + 1} of the block: ${own}`);
        patch = { ...patch, ...own };
        if ('fields' in own)
          fieldsNow = { ...variant, data: { ...variant.data, fields: own.fields as Record<string, string> } };
      }
      set.push({ id: variant.id, patch });
    }
    void change(`Paste ${block.length} x ${block[0].length} values`, { set });
  };
  const move = (e: KeyboardEvent<HTMLInputElement>, row: number, column: number) => {
    const to = (r: number) => {
      e.preventDefault();
      e.currentTarget.blur();
      rows.scrollToIndex(r);
      setTimeout(
        () => scroller.current?.querySelector<HTMLInputElement>(`[data-cell="${r}:${column}"]`)?.focus(),
        40,
      );
    };
    if (e.key === 'Escape') {
      e.currentTarget.value = e.currentTarget.defaultValue;
      e.currentTarget.blur();
    }
    if ((e.key === 'Enter' || e.key === 'ArrowDown') && row + 1 < variants.length) to(row + 1);
    else if (e.key === 'Enter') e.currentTarget.blur();
    if (e.key === 'ArrowUp' && row > 0) to(row - 1);
  };
  const width = columns.reduce((sum, c) => sum + c.width, 0) + 84;
  const removeColumn = (name: string) => {
    setAdded((a) => a.filter((f) => f !== name));
    const set = variants.flatMap((v) => {
      const { [name]: own, ...fields } = v.data.fields ?? {};
      return own === undefined ? [] : [{ id: v.id, patch: { fields } }];
    });
    if (set.length) void change(`Remove column ${name}`, { set });
  };

  return (
    <>
      <div className="border-line bg-card flex h-15 shrink-0 items-center gap-4 border-b px-5">
        <div className="min-w-0">
          <h1 className="font-display truncate text-[20px] leading-tight font-bold">{product.title}</h1>
          <p className="text-ink-2">
            <span className="measure">{variants.length}</span> variant{variants.length === 1 ? '' : 's'};
            every shot bound to a value follows it
          </p>
        </div>
        <div className="ml-auto flex gap-2">
          {chosen.size > 0 && (
            <Button
              tone="danger"
              onClick={() => {
                void change(`Remove ${chosen.size} variant${chosen.size === 1 ? '' : 's'}`, {
                  remove: [...chosen],
                });
                setChosen(new Set());
              }}
            >
              <Trash2 size={14} aria-hidden /> Remove {chosen.size}
            </Button>
          )}
          <UndoRedo edits={product.edits} onTurn={(way) => void turn(way)} />
          <Button onClick={() => setNaming(true)}>
            <Plus size={14} aria-hidden /> Column
          </Button>
          <Button onClick={() => void add()}>
            <Plus size={14} aria-hidden /> Variant
          </Button>
          <a href={address('GET /api/products/:id/table.csv', params)} download className={buttonClass()}>
            <Download size={14} aria-hidden /> Export CSV
          </a>
          <Button tone="main" onClick={() => setImporting(true)}>
            <Upload size={14} aria-hidden /> Import CSV
          </Button>
        </div>
      </div>
      <main ref={scroller} className="min-h-0 grow overflow-auto">
        <div
          role="grid"
          aria-label={`Data of ${product.title}`}
          aria-rowcount={variants.length + 1}
          style={{ width }}
        >
          <div role="row" className="border-line bg-card sticky top-0 z-10 flex border-b">
            <span role="columnheader" className="w-[84px] shrink-0 px-3 py-2">
              <input
                type="checkbox"
                className="accent-spruce"
                aria-label="Choose all variants"
                checked={variants.length > 0 && chosen.size === variants.length}
                onChange={(e) => setChosen(new Set(e.target.checked ? variants.map((v) => v.id) : []))}
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
                    aria-label={`Remove column ${c.title}`}
                    title="Remove this column from all variants"
                    className="text-ink-3 hover:text-ink"
                    onClick={() => removeColumn(c.title)}
                  >
                    <Trash2 size={12} aria-hidden />
                  </button>
                )}
              </span>
            ))}
          </div>
          <div className="relative" style={{ height: rows.getTotalSize() }}>
            {rows.getVirtualItems().map((item) => {
              const variant = variants[item.index];
              return (
                <div
                  key={variant.id}
                  role="row"
                  aria-rowindex={item.index + 2}
                  className="border-line bg-card absolute top-0 left-0 flex border-b"
                  style={{ transform: `translateY(${item.start}px)`, height: ROW }}
                >
                  <span role="gridcell" className="flex w-[84px] shrink-0 items-center gap-2.5 px-3">
                    <input
                      type="checkbox"
                      className="accent-spruce"
                      aria-label={`Choose ${variant.data.sku}`}
                      checked={chosen.has(variant.id)}
                      onChange={(e) => {
                        const next = new Set(chosen);
                        if (e.target.checked) next.add(variant.id);
                        else next.delete(variant.id);
                        setChosen(next);
                      }}
                    />
                    {variant.data.cutout ? (
                      <img
                        src={reducedUrl(variant.data.cutout.picture, 160)}
                        alt=""
                        className="h-7 w-7 shrink-0 object-contain"
                      />
                    ) : (
                      <span className="border-ink-3 block h-7 w-7 border border-dashed" />
                    )}
                  </span>
                  {columns.map((c, i) => {
                    const text = c.text(variant);
                    return (
                      <span
                        key={c.id}
                        role="gridcell"
                        className="border-line flex shrink-0 items-center border-l"
                        style={{ width: c.width }}
                      >
                        {c.id === 'ink' && text && (
                          <span
                            className="border-line ml-2 h-3.5 w-3.5 shrink-0 border"
                            style={{ background: text }}
                          />
                        )}
                        <input
                          key={text}
                          defaultValue={text}
                          data-cell={`${item.index}:${i}`}
                          aria-label={`${c.title} of ${variant.data.sku}`}
                          list={
                            c.id === 'photo'
                              ? 'photo-names'
                              : c.id === 'artwork'
                                ? 'artwork-titles'
                                : undefined
                          }
                          onBlur={(e) => {
                            if (e.target.value !== text) {
                              const written = e.target.value;
                              e.target.value = text;
                              void write(c, variant, written);
                            }
                          }}
                          onKeyDown={(e) => move(e, item.index, i)}
                          onPaste={(e) => paste(e, item.index, i)}
                          className={`focus:outline-spruce h-full w-full min-w-0 bg-transparent px-2 focus:outline-2 focus:-outline-offset-2 ${c.id === 'price' ? 'text-right' : ''} ${['sku', 'price', 'currency', 'ink'].includes(c.id) ? 'measure' : ''}`}
                        />
                      </span>
                    );
                  })}
                </div>
              );
            })}
          </div>
        </div>
      </main>
      <datalist id="photo-names">
        {photos.slice(0, 400).map((p) => (
          <option key={p.id} value={p.name} />
        ))}
      </datalist>
      <datalist id="artwork-titles">
        {artworks.slice(0, 400).map((a) => (
          <option key={a.id} value={a.title} />
        ))}
      </datalist>
      {naming && (
        <NameColumn
          taken={fields}
          onAdd={(name) => {
            setAdded((a) => [...a, name]);
            setNaming(false);
          }}
          onClose={() => setNaming(false)}
        />
      )}
      {importing && (
        <ImportDialog
          product={product}
          photos={photos}
          artworks={artworks}
          onClose={() => setImporting(false)}
        />
      )}
    </>
  );
}
