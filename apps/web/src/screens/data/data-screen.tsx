import { address } from '@scenograph/contract/route';
import { Download, Plus, Trash2, Upload } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import { type Artwork, type Photo, type ProductWithEdits, type Variant, useRoute } from '../../api/client';
import { useActions, type Action } from '../../ui/actions';
import { Button, buttonClass } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { UndoRedo } from '../../ui/undo-redo';
import { columnsOf, type Column } from './columns';
import { DataGrid } from './data-grid';
import { ImportDialog } from './import-dialog';
import { NameColumn } from './name-column';
import { pastedBlock } from './paste';
import { useDataEdits } from './use-data-edits';
import { msg, rich } from '../../language/language';

export function DataScreen() {
  const { id = '' } = useParams();
  const { data, error } = useRoute('GET /api/products/:id', { params: { id } });
  const { data: photos } = useRoute('GET /api/photos');
  const { data: artworks } = useRoute('GET /api/artwork');
  return (
    <>
      <TopBar />
      {error && <Trouble error={error} />}
      {!error && (!data || !photos || !artworks) && <Waiting what={msg('the data')} />}
      {data && photos && artworks && <ProductDesk product={data} photos={photos} artworks={artworks} />}
    </>
  );
}

interface Library {
  photos: Photo[];
  artworks: Artwork[];
}

function ProductDesk({ product, photos, artworks }: { product: ProductWithEdits } & Library) {
  const { variants } = product;
  const { change, turn, addVariant, removeColumn, removeVariants } = useDataEdits(product);
  const [added, setAdded] = useState<string[]>([]);
  const [asking, setAsking] = useState<'column' | 'table' | null>(null);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const fields = useMemo(
    () => [...new Set([...variants.flatMap((v) => Object.keys(v.data.fields ?? {})), ...added])].sort(),
    [variants, added],
  );
  const columns = useMemo(() => columnsOf(fields, photos, artworks), [fields, photos, artworks]);
  const actions = useMemo<Action[]>(
    () => [
      { id: 'add-variant', title: msg('Add a variant'), group: msg('Data'), run: () => void addVariant() },
      { id: 'import', title: msg('Import a table'), group: msg('Data'), run: () => setAsking('table') },
      { id: 'column', title: msg('Add a column'), group: msg('Data'), run: () => setAsking('column') },
    ],
    [addVariant],
  );
  useActions('data', actions);

  const write = (column: Column, variant: Variant, text: string) => {
    const patch = column.read(text, variant);
    if (typeof patch === 'string') return say('stop', patch);
    void change(msg('{column} of {sku}', { column: column.title, sku: variant.data.sku }), {
      set: [{ id: variant.id, patch }],
    });
  };
  const paste = (text: string, row: number, column: number): boolean => {
    const block = pastedBlock(text, variants, columns, { row, column });
    if (block === null) return false;
    if (typeof block === 'string') say('stop', block);
    else void change(block.label, { set: block.set });
    return true;
  };
  const removeChosen = () => {
    void removeVariants([...chosen]);
    setChosen(new Set());
  };
  return (
    <>
      <DataHeader
        product={product}
        chosen={chosen.size}
        onRemove={removeChosen}
        onTurn={(way) => void turn(way)}
        onAdd={() => void addVariant()}
        onAsk={setAsking}
      />
      <DataGrid
        product={product}
        columns={columns}
        chosen={chosen}
        onChosen={setChosen}
        onRemoveColumn={(name) => {
          setAdded((a) => a.filter((f) => f !== name));
          void removeColumn(name);
        }}
        onWrite={write}
        onPaste={paste}
      />
      <Names id="photo-names" names={photos.map((p) => p.name)} />
      <Names id="artwork-titles" names={artworks.map((a) => a.title)} />
      {asking === 'column' && (
        <NameColumn
          taken={fields}
          onAdd={(name) => {
            setAdded((a) => [...a, name]);
            setAsking(null);
          }}
          onClose={() => setAsking(null)}
        />
      )}
      {asking === 'table' && (
        <ImportDialog product={product} photos={photos} artworks={artworks} onClose={() => setAsking(null)} />
      )}
    </>
  );
}

/** So many names are offered in a field. */
const OFFERED = 400;

function Names({ id, names }: { id: string; names: readonly string[] }) {
  return (
    <datalist id={id}>
      {names.slice(0, OFFERED).map((name, i) => (
        <option key={i} value={name} />
      ))}
    </datalist>
  );
}

function DataHeader({
  product,
  chosen,
  onRemove,
  onTurn,
  onAdd,
  onAsk,
}: {
  product: ProductWithEdits;
  chosen: number;
  onRemove(): void;
  onTurn(way: 'undo' | 'redo'): void;
  onAdd(): void;
  onAsk(what: 'column' | 'table'): void;
}) {
  const { id, title, variants, edits } = product;
  return (
    <div className="border-line bg-card flex min-h-15 shrink-0 flex-wrap items-center gap-x-4 gap-y-2 border-b px-5 py-2">
      <div className="min-w-0">
        <h1 className="font-display truncate text-[20px] leading-tight font-bold">{title}</h1>
        <p className="text-ink-2">
          {rich(
            '<measure>{variants}</measure> {variants, plural, one {variant} other {variants}}; every shot bound to a value follows it',
            { measure: (inside) => <span className="measure">{inside}</span>, variants: variants.length },
          )}
        </p>
      </div>
      <div className="ml-auto flex gap-2">
        {chosen > 0 && (
          <Button tone="danger" onClick={onRemove}>
            <Trash2 size={14} aria-hidden /> {msg('Remove {chosen}', { chosen })}
          </Button>
        )}
        <UndoRedo edits={edits} onTurn={onTurn} />
        <Button onClick={() => onAsk('column')}>
          <Plus size={14} aria-hidden /> {msg('Column')}
        </Button>
        <Button onClick={onAdd}>
          <Plus size={14} aria-hidden /> {msg('Variant')}
        </Button>
        <a href={address('GET /api/products/:id/table.csv', { id })} download className={buttonClass()}>
          <Download size={14} aria-hidden /> {msg('Export CSV')}
        </a>
        <Button tone="main" onClick={() => onAsk('table')}>
          <Upload size={14} aria-hidden /> {msg('Import CSV')}
        </Button>
      </div>
    </div>
  );
}
