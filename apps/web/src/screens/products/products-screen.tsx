import { X } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import { useDebounce } from 'use-debounce';
import type { RequestOf } from '@scenograph/contract';
import { call, reducedUrl, refresh, useProducts } from '../../api/client';
import { Button, buttonClass, NumberField, Segmented, TextField } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';

/** Products that are shown at once. */
const PAGE = 100;

export function ProductsScreen() {
  const [search, setSearch] = useState('');
  const [limit, setLimit] = useState(PAGE);
  const [words] = useDebounce(search, 200);
  const { data, total, error } = useProducts(limit, words);
  const change = async <N extends 'PATCH /api/products/:id' | 'PATCH /api/variants/:id'>(
    name: N,
    id: string,
    body: Extract<RequestOf<N>, { body: unknown }>['body'],
  ) => {
    try {
      await call(name, { params: { id }, body } as RequestOf<N>);
    } catch (e) {
      say('stop', (e as Error).message);
    }
    refresh('/api/products', '/api/listings');
  };
  return (
    <>
      <TopBar />
      <main className="grow overflow-y-auto px-5 pt-4 pb-10">
        <div className="flex items-center justify-between">
          <h1 className="font-display text-[22px] font-bold">Products</h1>
          <input
            type="search"
            aria-label="Find products"
            placeholder="Find products or SKUs"
            value={search}
            onChange={(e) => setSearch(e.target.value)}
            className="border-line focus:border-spruce bg-card h-7 w-52 rounded-md border px-2 outline-none"
          />
        </div>
        <p className="text-ink-2">
          Values typed here are saved at once, and every shot bound to them follows.
        </p>
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what="the products" />}
        {data?.length === 0 && words && <p className="mt-4">No product is named so.</p>}
        {data?.length === 0 && !words && (
          <div className="mt-6">
            <Empty title="No products yet">A listing started from photos makes its product.</Empty>
          </div>
        )}
        {data?.map((product) => (
          <section
            key={product.id}
            aria-label={product.title}
            className="border-line bg-card mt-3 rounded-lg border"
          >
            <div className="border-line flex flex-wrap items-end gap-3 border-b px-4 py-2.5">
              <div className="w-72">
                <TextField
                  label="Product"
                  value={product.title}
                  onCommit={(title) => void change('PATCH /api/products/:id', product.id, { title })}
                />
              </div>
              {(['widthMm', 'heightMm', 'depthMm'] as const).map((key) => (
                <div key={key} className="w-28">
                  <p className="text-ink-2 mb-1 text-[12px]">
                    {{ widthMm: 'Width', heightMm: 'Height', depthMm: 'Depth' }[key]}
                  </p>
                  <NumberField
                    hideLabel
                    label={`${product.title}, ${key.slice(0, -2)}`}
                    unit="mm"
                    value={product[key]}
                    min={1}
                    max={20000}
                    digits={1}
                    onCommit={(v) => void change('PATCH /api/products/:id', product.id, { [key]: v })}
                  />
                </div>
              ))}
              <div className="w-44">
                <p className="text-ink-2 mb-1 text-[12px]">Photographed</p>
                <Segmented
                  label={`${product.title}, photographed`}
                  value={product.pose === 'flat' ? 'flat' : 'stand'}
                  onChange={(pose) => void change('PATCH /api/products/:id', product.id, { pose })}
                  options={[
                    { value: 'stand', title: 'Standing' },
                    { value: 'flat', title: 'Laid flat' },
                  ]}
                />
              </div>
              <Link to={`/products/${product.id}`} className={buttonClass('plain', 'ml-auto')}>
                Data of <span className="measure">{product.count}</span> variant
                {product.count === 1 ? '' : 's'}
              </Link>
            </div>
            <ul>
              {product.variants.map((v) => (
                <li
                  key={v.id}
                  className="border-line flex items-center gap-3 border-b px-4 py-1.5 last:border-b-0"
                >
                  <Link
                    to={v.photoId ? `/photos/${v.photoId}/cutout` : '/photos'}
                    aria-label={`Cutout of ${v.data.variant || product.title}`}
                    className="border-line flex h-11 w-11 shrink-0 items-center justify-center border bg-white p-0.5"
                  >
                    {v.data.cutout && (
                      <img
                        src={reducedUrl(v.data.cutout.picture, 160)}
                        alt=""
                        className="max-h-full max-w-full"
                      />
                    )}
                  </Link>
                  <div className="w-56">
                    <TextField
                      hideLabel
                      label="Variant"
                      placeholder="the only one"
                      value={v.data.variant}
                      onCommit={(title) => void change('PATCH /api/variants/:id', v.id, { title })}
                    />
                  </div>
                  <div className="w-52">
                    <TextField
                      hideLabel
                      mono
                      label="SKU"
                      value={v.data.sku}
                      onCommit={(sku) => void change('PATCH /api/variants/:id', v.id, { sku })}
                    />
                  </div>
                  <div className="w-32">
                    <NumberField
                      hideLabel
                      label={`Price of ${v.data.sku}`}
                      unit={v.data.currency}
                      value={v.data.price}
                      digits={2}
                      min={0}
                      max={10000000}
                      onCommit={(price) => void change('PATCH /api/variants/:id', v.id, { price })}
                    />
                  </div>
                  <Fields
                    sku={v.data.sku}
                    fields={v.data.fields ?? {}}
                    onChange={(fields) => void change('PATCH /api/variants/:id', v.id, { fields })}
                  />
                </li>
              ))}
            </ul>
          </section>
        ))}
        {data && total > data.length && (
          <Button className="mt-4" onClick={() => setLimit(limit + PAGE)}>
            Show more of <span className="measure">{total}</span>
          </Button>
        )}
      </main>
    </>
  );
}

/** Further values by name; texts use them as {name}. */
function Fields({
  sku,
  fields,
  onChange,
}: {
  sku: string;
  fields: Record<string, string>;
  onChange(fields: Record<string, string>): void;
}) {
  const [adding, setAdding] = useState(false);
  return (
    <div className="flex min-w-0 flex-wrap items-center gap-1.5">
      {Object.entries(fields).map(([name, value]) => (
        <div key={name} className="border-line flex items-center rounded-md border pl-2">
          <span className="measure text-ink-2">{name}</span>
          <div className="w-24 [&_input]:border-0">
            <TextField
              hideLabel
              label={`${name} of ${sku}`}
              value={value}
              onCommit={(next) => onChange({ ...fields, [name]: next })}
            />
          </div>
          <button
            type="button"
            aria-label={`Remove ${name} of ${sku}`}
            className="text-ink-2 hover:text-ink px-1.5"
            onClick={() => {
              const { [name]: _, ...rest } = fields;
              onChange(rest);
            }}
          >
            <X size={12} aria-hidden />
          </button>
        </div>
      ))}
      {adding ? (
        <div className="w-32">
          <TextField
            hideLabel
            mono
            label={`Name of the new value of ${sku}`}
            placeholder="name, then Enter"
            value=""
            onCommit={(name) => {
              setAdding(false);
              if (name.trim()) onChange({ ...fields, [name.trim()]: fields[name.trim()] ?? '' });
            }}
          />
        </div>
      ) : (
        <Button tone="quiet" aria-label={`Add a value to ${sku}`} onClick={() => setAdding(true)}>
          + value
        </Button>
      )}
    </div>
  );
}
