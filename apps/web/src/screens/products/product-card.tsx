import { Trash2 } from 'lucide-react';
import { Link } from 'react-router';
import { call, type Product } from '../../api/client';
import { buttonClass, IconButton, Segmented, TextField } from '../../ui/controls';
import { removing } from '../../ui/removing';
import { LengthField } from '../../ui/length-field';
import { changeProduct } from './changes';
import { VariantLine } from './variant-line';
import { msg, rich } from '../../language/language';

const SIZES = { widthMm: msg('Width'), heightMm: msg('Height'), depthMm: msg('Depth') } as const;

/** A product's name, true size and pose, and its variants. */
export function ProductCard({ product }: { product: Product }) {
  const change = (body: Parameters<typeof changeProduct>[1]) => changeProduct(product.id, body);
  const { id, revision } = product;
  const ask = () => call('DELETE /api/products/:id', { params: { id } }, { revision });
  return (
    <section aria-label={product.title} className="border-line bg-card mt-3 rounded-lg border">
      <div className="border-line flex flex-wrap items-end gap-3 border-b px-4 py-2.5">
        <div className="w-72">
          <TextField label={msg('Product')} value={product.title} onCommit={(title) => change({ title })} />
        </div>
        {(Object.keys(SIZES) as (keyof typeof SIZES)[]).map((key) => (
          <div key={key} className="w-28">
            <p className="text-ink-2 mb-1 text-[12px]">{SIZES[key]}</p>
            <LengthField
              hideLabel
              label={`${product.title}, ${key.slice(0, -2)}`}
              value={product[key]}
              min={1}
              max={20000}
              digits={1}
              onCommit={(v) => change({ [key]: v })}
            />
          </div>
        ))}
        <div className="w-44">
          <p className="text-ink-2 mb-1 text-[12px]">{msg('Photographed')}</p>
          <Segmented
            label={msg('{product}, photographed', { product: product.title })}
            value={product.pose === 'flat' ? 'flat' : 'stand'}
            onChange={(pose) => change({ pose })}
            options={[
              { value: 'stand', title: msg('Standing') },
              { value: 'flat', title: msg('Laid flat') },
            ]}
          />
        </div>
        <Link to={`/products/${product.id}`} className={buttonClass('plain', 'ml-auto')}>
          {rich('Data of <measure>{count}</measure> {count, plural, one {variant} other {variants}}', {
            measure: (inside) => <span className="measure">{inside}</span>,
            count: product.count,
          })}
        </Link>
        <IconButton
          label={msg('Remove {product} with its listings', { product: product.title })}
          onClick={() => void removing(ask(), `"${product.title}"`, '/api/products', '/api/listings')}
        >
          <Trash2 size={14} aria-hidden />
        </IconButton>
      </div>
      <ul>
        {product.variants.map((v) => (
          <VariantLine key={v.id} variant={v} product={product.title} />
        ))}
      </ul>
    </section>
  );
}
