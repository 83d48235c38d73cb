import { Link, useNavigate } from 'react-router';
import { reducedUrl, useServer, type ListingSummary } from '../../api/client';
import { buttonClass } from '../../ui/controls';
import { Empty, Trouble, Waiting } from '../../ui/states';
import { StatusMark } from '../../ui/status';
import { TopBar } from '../../ui/top-bar';

export function ListingsScreen() {
  const { data, error } = useServer<ListingSummary[]>('/api/listings');
  const navigate = useNavigate();
  return (
    <>
      <TopBar />
      <main className="grow overflow-y-auto px-5 pt-4 pb-10">
        <div className="flex items-center gap-6">
          <h1 className="font-display text-[22px] font-bold">Listings</h1>
          <p className="text-ink-2 grow">
            A listing is a product with its variants on one side, the slots of its marketplaces on the other,
            and a picture owed for every crossing.
          </p>
          <Link to="/photos" className={buttonClass('main')}>
            New listing from photos
          </Link>
        </div>
        {error && <Trouble error={error} />}
        {!data && !error && <Waiting what="the listings" />}
        {data?.length === 0 && (
          <div className="mt-6">
            <Empty title="No listings yet">Drop a product photo anywhere to begin one.</Empty>
          </div>
        )}
        {!!data?.length && (
          <table className="border-line bg-card mt-4 w-full border">
            <thead>
              <tr className="border-line text-ink-2 border-b text-left text-[12px]">
                <th className="px-4 py-2 font-medium">Listing</th>
                <th className="px-4 py-2 font-medium">Variants</th>
                <th className="px-4 py-2 font-medium">Shots</th>
                <th className="px-4 py-2 font-medium">Slots fed</th>
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
                  <td className="px-4 py-2.5">
                    <Link
                      to={`/listings/${l.id}`}
                      className="font-display text-[15px] font-bold hover:underline"
                    >
                      {l.title}
                    </Link>
                    <p className="text-ink-2 text-[12px]">{l.variants[0]?.data.title}</p>
                  </td>
                  <td className="px-4 py-2.5">
                    <div className="flex items-center gap-1.5">
                      {l.variants.slice(0, 6).map((v) => (
                        <span
                          key={v.id}
                          title={v.data.variant || v.data.title}
                          className="border-line flex h-11 w-11 items-center justify-center rounded-md border bg-white p-1"
                        >
                          {v.data.cutout && (
                            <img
                              src={reducedUrl(v.data.cutout.picture, 160)}
                              alt={v.data.variant}
                              className="max-h-full max-w-full"
                            />
                          )}
                        </span>
                      ))}
                      {l.variants.length > 6 && (
                        <span className="measure text-ink-2">+{l.variants.length - 6}</span>
                      )}
                    </div>
                  </td>
                  <td className="measure px-4 py-2.5">{l.shots}</td>
                  <td className="px-4 py-2.5">
                    <span className="measure">
                      {l.slots - l.owed} of {l.slots}
                    </span>
                    <div className="bg-line mt-1 h-1.5 w-36 overflow-hidden rounded-full">
                      <div
                        className="bg-spruce h-full"
                        style={{ width: `${l.slots ? ((l.slots - l.owed) / l.slots) * 100 : 0}%` }}
                      />
                    </div>
                  </td>
                  <td className="px-4 py-2.5">
                    <span className="flex items-center gap-1.5">
                      <StatusMark mark={l.owed ? 'owed' : 'pass'} />
                      {l.owed ? `${l.owed} slot${l.owed > 1 ? 's' : ''} owed` : 'every slot fed'}
                    </span>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
      </main>
    </>
  );
}
