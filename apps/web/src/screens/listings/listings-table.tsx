import { allTicked, Checkbox } from '../../ui/controls';
import { Link, useNavigate } from 'react-router';
import { reducedUrl, type ListingSummary } from '../../api/client';
import { StatusMark } from '../../ui/status';
import { msg } from '../../language/language';

/** Listings with how far each is filled; rows lead to their boards, boxes choose several. */
export function ListingsTable({
  listings,
  chosen,
  onChoose,
}: {
  listings: ListingSummary[];
  chosen: string[];
  onChoose(ids: string[]): void;
}) {
  return (
    <table className="border-line bg-card mt-4 w-full border">
      <thead>
        <tr className="border-line text-ink-2 border-b text-left text-[12px]">
          <th className="w-8 py-2 pl-4">
            <Checkbox
              label={msg('Choose all listings')}
              checked={allTicked(chosen.length, listings.length)}
              onChange={(on) => onChoose(on ? listings.map((l) => l.id) : [])}
            />
          </th>
          <th className="px-4 py-2 font-medium">{msg('Listing')}</th>
          <th className="px-4 py-2 font-medium">{msg('Variants')}</th>
          <th className="px-4 py-2 font-medium">{msg('Shots')}</th>
          <th className="px-4 py-2 font-medium">{msg('Slots filled')}</th>
          <th className="px-4 py-2 font-medium">{msg('State')}</th>
        </tr>
      </thead>
      <tbody>
        {listings.map((l) => (
          <ListingRow
            key={l.id}
            listing={l}
            chosen={chosen.includes(l.id)}
            onChoose={(on) => onChoose(on ? [...chosen, l.id] : chosen.filter((x) => x !== l.id))}
          />
        ))}
      </tbody>
    </table>
  );
}

function ListingRow({
  listing: l,
  chosen,
  onChoose,
}: {
  listing: ListingSummary;
  chosen: boolean;
  onChoose(on: boolean): void;
}) {
  const navigate = useNavigate();
  return (
    <tr
      className="border-line hover:bg-spruce-tint/50 cursor-pointer border-b last:border-b-0"
      onClick={() => void navigate(`/listings/${l.id}`)}
    >
      <td className="py-2.5 pl-4" onClick={(e) => e.stopPropagation()}>
        <Checkbox label={msg('Choose {l}', { l: l.title })} checked={chosen} onChange={onChoose} />
      </td>
      <td className="px-4 py-2.5">
        <Link to={`/listings/${l.id}`} className="font-display text-[15px] font-bold hover:underline">
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
              <img src={reducedUrl(picture, 160)} alt="" loading="lazy" className="max-h-full max-w-full" />
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
          {msg('{filled} of {slots}', { filled: l.slots - l.missing, slots: l.slots })}
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
            ? msg('{missing} {missing, plural, one {slot} other {slots}} missing', { missing: l.missing })
            : msg('every slot filled')}
        </span>
      </td>
    </tr>
  );
}
