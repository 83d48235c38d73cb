import { useState } from 'react';
import { Link } from 'react-router';
import { useDebounce } from 'use-debounce';
import { useRoute } from '../../api/client';
import { Button, buttonClass } from '../../ui/controls';
import { DeliverListings } from '../deliveries/deliver-listings';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { TopBar } from '../../ui/top-bar';
import { ListingsTable } from './listings-table';
import { msg } from '../../language/language';

/** Listings that are shown at once. */
const PAGE = 300;

export function ListingsScreen() {
  const [search, setSearch] = useState('');
  const [limit, setLimit] = useState(PAGE);
  const [words] = useDebounce(search, 200);
  const { data, error } = useRoute('GET /api/listings', { query: { limit, search: words } });
  const [ids, setChosen] = useState<string[]>([]);
  // What is not shown is not chosen.
  const chosen = ids.filter((id) => data?.some((l) => l.id === id));
  const [delivering, setDelivering] = useState(false);
  return (
    <>
      <TopBar />
      <main className="grow overflow-y-auto px-5 pt-4 pb-10">
        <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
          <h1 className="font-display text-[22px] font-bold">{msg('Listings')}</h1>
          <p className="text-ink-2 grow basis-60">
            {msg(
              'A listing is a product with its variants on one side, the slots of its marketplaces on the other, and one picture for every crossing.',
            )}
          </p>
          <input
            type="search"
            aria-label={msg('Find listings')}
            placeholder={msg('Find listings')}
            value={search}
            onChange={(e) => setSearch(e.target.value)}
            className="border-line focus:border-spruce bg-card h-7 w-44 rounded-md border px-2 outline-none"
          />
          {chosen.length > 0 && (
            <Button onClick={() => setDelivering(true)}>
              {msg('Deliver {chosen} {chosen, plural, one {listing} other {listings}}', {
                chosen: chosen.length,
              })}
            </Button>
          )}
          <Link to="/photos" className={buttonClass('main')}>
            {msg('New listing from photos')}
          </Link>
        </div>
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what={msg('the listings')} />}
        {data?.length === 0 && words && <p className="mt-4">{msg('No listing is named so.')}</p>}
        {data?.length === 0 && !words && (
          <div className="mt-6">
            <Empty title={msg('No listings yet')}>{msg('Drop a product photo anywhere to begin one.')}</Empty>
          </div>
        )}
        {!!data?.length && <ListingsTable listings={data} chosen={chosen} onChoose={setChosen} />}
        {data && data.length === limit && (
          <Button className="mt-4" onClick={() => setLimit(limit + PAGE)}>
            {msg('Show more')}
          </Button>
        )}
      </main>
      {delivering && <DeliverListings ids={chosen} onClose={() => setDelivering(false)} />}
    </>
  );
}
