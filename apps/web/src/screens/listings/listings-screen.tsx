import { useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { useDebounce } from 'use-debounce';
import { reducedUrl, useRoute } from '../../api/client';
import { Button, buttonClass } from '../../ui/controls';
import { DeliverListings } from '../deliveries/deliver-listings';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { StatusMark } from '../../ui/status';
import { TopBar } from '../../ui/top-bar';

/** Listings that are shown at once. */
const PAGE = 300;

export function ListingsScreen() {
  const [search, setSearch] = useState('');
  const [limit, setLimit] = useState(PAGE);
  const [words] = useDebounce(search, 200);
  const { data, error } = useRoute('GET /api/listings', { query: { limit, search: words } });
  const navigate = useNavigate();
  const [chosen, setChosen] = useState<string[]>([]);
  const [delivering, setDelivering] = useState(false);
  return (
    <>
      <TopBar />
      <main className="grow overflow-y-auto px-5 pt-4 pb-10">
        <div className="flex items-center gap-6">
          <h1 className="font-display text-[22px] font-bold">Listings</h1>
          <p className="text-ink-2 grow">
            A listing is a product with its variants on one side, the slots of its marketplaces on the other,
            and one picture for every crossing.
          </p>
          <input
            type="search"
            aria-label="Find listings"
            placeholder="Find listings"
            value={search}
            onChange={(e) => setSearch(e.target.value)}
            className="border-line focus:border-spruce bg-card h-7 w-44 rounded-md border px-2 outline-none"
          />
          {chosen.length > 0 && (
            <Button onClick={() => setDelivering(true)}>
              Deliver {chosen.length} listing{chosen.length === 1 ? '' : 's'}
            </Button>
          )}
          <Link to="/photos" className={buttonClass('main')}>
            New listing from photos
          </Link>
        </div>
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what="the listings" />}
        {data?.length === 0 && words && <p className="mt-4">No listing is named so.</p>}
        {data?.length === 0 && !words && (
          <div className="mt-6">
            <Empty title="No listings yet">Drop a product photo anywhere to begin one.</Empty>
          </div>
        )}
        {!!data?.length && (
          <table className="border-line bg-card mt-4 w-full border">
            <thead>
              <tr className="border-line text-ink-2 border-b text-left text-[12px]">
                <th className="w-8 py-2 pl-4">
                  <input
                    type="checkbox"
                    className="accent-spruce"
                    aria-label="Choose all listings"
                    checked={chosen.length === data.length}
                    onChange={(e) => setChosen(e.target.checked ? data.map((l) => l.id) : [])}
                  />
                </th>
                <th className="px-4 py-2 font-medium">Listing</th>
                <th className="px-4 py-2 font-medium">Variants</th>
                <th className="px-4 py-2 font-medium">Shots</th>
                <th className="px-4 py-2 font-medium">Slots filled</th>
                <th className="px-4 py-2 font-medium">State</th>
              </tr>
            </thead>
            <tbody>
              {data.map((l) => (
                <tr
                  key={l.id}
                  className="border-line hover:bg-spruce-tint/50 cursor-pointer border-b last:border-b-0"
                  onClick={() => void navigate(`/listings/${l.id}`)}
                >
                  <td className="py-2.5 pl-4" onClick={(e) => e.stopPropagation()}>
                    <input
                      type="checkbox"
                      className="accent-spruce"
                      aria-label={`Choose ${l.title}`}
                      checked={chosen.includes(l.id)}
                      onChange={(e) =>
                        setChosen((c) => (e.target.checked ? [...c, l.id] : c.filter((x) => x !== l.id)))
                      }
                    />
                  </td>
                  <td className="px-4 py-2.5">
                    <Link
                      to={`/listings/${l.id}`}
                      className="font-display text-[15px] font-bold hover:underline"
                    >
                      {l.title}
                    </Link>
                    <p className="text-ink-2 text-[12px]">{l.product}</p>
                  </td>
                  <td className="px-4 py-2.5">
                    <div className="flex items-center gap-1.5">
                      {l.cutouts.map((picture, i) => (
                        <span
                          key={i}
                          className="border-line flex h-11 w-11 items-center justify-center rounded-md border bg-white p-1"
                        >
                          <img
                            src={reducedUrl(picture, 160)}
                            alt=""
                            loading="lazy"
                            className="max-h-full max-w-full"
                          />
                        </span>
                      ))}
                      {l.variants > l.cutouts.length && (
                        <span className="measure text-ink-2">+{l.variants - l.cutouts.length}</span>
                      )}
                    </div>
                  </td>
                  <td className="measure px-4 py-2.5">{l.shots}</td>
                  <td className="px-4 py-2.5">
                    <span className="measure">
                      {l.slots - l.missing} of {l.slots}
                    </span>
                    <div className="bg-line mt-1 h-1.5 w-36 overflow-hidden rounded-full">
                      <div
                        className="bg-spruce h-full"
                        style={{ width: `${l.slots ? ((l.slots - l.missing) / l.slots) * 100 : 0}%` }}
                      />
                    </div>
                  </td>
                  <td className="px-4 py-2.5">
                    <span className="flex items-center gap-1.5">
                      <StatusMark mark={l.missing ? 'missing' : 'pass'} />
                      {l.missing
                        ? `${l.missing} slot${l.missing > 1 ? 's' : ''} missing`
                        : 'every slot filled'}
                    </span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        {data && data.length === limit && (
          <Button className="mt-4" onClick={() => setLimit(limit + PAGE)}>
            Show more
          </Button>
        )}
      </main>
      {delivering && <DeliverListings ids={chosen} onClose={() => setDelivering(false)} />}
    </>
  );
}
