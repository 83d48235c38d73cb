import { useState } from 'react';
import { useDebounce } from 'use-debounce';
import { useProducts } from '../../api/client';
import { Button } from '../../ui/controls';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { ProductCard } from './product-card';
import { msg, rich } from '../../language/language';

/** Products that are shown at once. */
const PAGE = 100;

export function ProductsScreen() {
  const [search, setSearch] = useState('');
  const [limit, setLimit] = useState(PAGE);
  const [words] = useDebounce(search, 200);
  const { data, total, error } = useProducts(limit, words);
  return (
    <>
      <TopBar />
      <main className="grow overflow-y-auto px-5 pt-4 pb-10">
        <div className="flex flex-wrap items-center justify-between gap-2">
          <h1 className="font-display text-[22px] font-bold">{msg('Products')}</h1>
          <input
            type="search"
            aria-label={msg('Find products')}
            placeholder={msg('Find products or SKUs')}
            value={search}
            onChange={(e) => setSearch(e.target.value)}
            className="border-line focus:border-spruce bg-card h-7 w-52 rounded-md border px-2 outline-none"
          />
        </div>
        <p className="text-ink-2">
          {msg('Values typed here are saved at once, and every shot bound to them follows.')}
        </p>
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what={msg('the products')} />}
        {data?.length === 0 && words && <p className="mt-4">{msg('No product is named so.')}</p>}
        {data?.length === 0 && !words && (
          <div className="mt-6">
            <Empty title={msg('No products yet')}>
              {msg('A listing started from photos makes its product.')}
            </Empty>
          </div>
        )}
        {data?.map((product) => (
          <ProductCard key={product.id} product={product} />
        ))}
        {data && total > data.length && (
          <Button className="mt-4" onClick={() => setLimit(limit + PAGE)}>
            {rich('Show more of <measure>{total}</measure>', {
              measure: (inside) => <span className="measure">{inside}</span>,
              total,
            })}
          </Button>
        )}
      </main>
    </>
  );
}
