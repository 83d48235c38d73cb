import { Link } from 'react-router';
import { reducedUrl, type Variant } from '../../api/client';
import { NumberField, TextField } from '../../ui/controls';
import { changeVariant } from './changes';
import { Fields } from './fields';
import { msg } from '../../language/language';

/** A variant in one line: its cutout, name, SKU, price and further values. */
export function VariantLine({
  variant: { id, productId, photoId, data },
  product,
}: {
  variant: Variant;
  product: string;
}) {
  const change = (body: Parameters<typeof changeVariant>[2]) => changeVariant(id, productId, body);
  return (
    <li className="border-line flex items-center gap-3 border-b px-4 py-1.5 last:border-b-0">
      <Link
        to={photoId ? `/photos/${photoId}/cutout` : '/photos'}
        aria-label={msg('Cutout of {variant}', { variant: data.variant || product })}
        className="border-line flex h-11 w-11 shrink-0 items-center justify-center border bg-white p-0.5"
      >
        {data.cutout && (
          <img src={reducedUrl(data.cutout.picture, 160)} alt="" className="max-h-full max-w-full" />
        )}
      </Link>
      <div className="w-56">
        <TextField
          hideLabel
          label={msg('Variant')}
          placeholder={msg('the only one')}
          value={data.variant}
          onCommit={(title) => change({ title })}
        />
      </div>
      <div className="w-52">
        <TextField hideLabel mono label={msg('SKU')} value={data.sku} onCommit={(sku) => change({ sku })} />
      </div>
      <div className="w-32">
        <NumberField
          hideLabel
          label={msg('Price of {sku}', { sku: data.sku })}
          unit={data.currency}
          value={data.price}
          digits={2}
          min={0}
          max={10000000}
          onCommit={(price) => change({ price })}
        />
      </div>
      <Fields sku={data.sku} fields={data.fields ?? {}} onChange={(fields) => change({ fields })} />
    </li>
  );
}
