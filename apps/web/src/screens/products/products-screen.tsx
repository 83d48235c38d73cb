import { Link } from 'react-router';
import { reducedUrl, refresh, request, useServer, type Product } from '../../api/client';
import { NumberField, Segmented, TextField } from '../../ui/controls';
import { say } from '../../ui/notices';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';

export function ProductsScreen() {
  const { data, error } = useServer<Product[]>('/api/products');
  const change = async (path: string, patch: unknown) => {
    try {
      await request('PATCH', path, patch);
    } catch (e) {
      say('stop', (e as Error).message);
    }
    refresh('/api/products', '/api/listings');
  };
  return (
    <>
      <TopBar />
      <main className="grow overflow-y-auto px-5 pt-4 pb-10">
        <h1 className="font-display text-[22px] font-bold">Products</h1>
        <p className="text-ink-2">
          Values typed here are saved at once, and every shot bound to them follows.
        </p>
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what="the products" />}
        {data?.length === 0 && (
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
                  onCommit={(title) => void change(`/api/products/${product.id}`, { title })}
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
                    onCommit={(v) => void change(`/api/products/${product.id}`, { [key]: v })}
                  />
                </div>
              ))}
              <div className="w-44">
                <p className="text-ink-2 mb-1 text-[12px]">Photographed</p>
                <Segmented
                  label={`${product.title}, photographed`}
                  value={product.pose}
                  onChange={(pose) => void change(`/api/products/${product.id}`, { pose })}
                  options={[
                    { value: 'stand', title: 'Standing' },
                    { value: 'flat', title: 'Laid flat' },
                  ]}
                />
              </div>
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
                      onCommit={(title) => void change(`/api/variants/${v.id}`, { title })}
                    />
                  </div>
                  <div className="w-52">
                    <TextField
                      hideLabel
                      mono
                      label="SKU"
                      value={v.data.sku}
                      onCommit={(sku) => void change(`/api/variants/${v.id}`, { sku })}
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
                      onCommit={(price) => void change(`/api/variants/${v.id}`, { price })}
                    />
                  </div>
                </li>
              ))}
            </ul>
          </section>
        ))}
      </main>
    </>
  );
}
