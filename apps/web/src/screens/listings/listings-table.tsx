import { Trash2 } from 'lucide-react';
import { Link } from 'react-router';
import { call, reducedUrl, type ListingSummary } from '../../api/client';
import { IconButton } from '../../ui/controls';
import { removing } from '../../ui/removing';
import { StatusMark } from '../../ui/status';
import { Table, type TableColumn } from '../../ui/table';
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
    <Table
      label={msg('Listings')}
      className="mt-4 w-full"
      columns={COLUMNS}
      rows={listings}
      idOf={(l) => l.id}
      to={(l) => `/listings/${l.id}`}
      choice={{
        chosen,
        onChoose,
        all: msg('Choose all listings'),
        nameOf: (l) => msg('Choose {l}', { l: l.title }),
      }}
    />
  );
}

const filledShare = (l: ListingSummary) => (l.slots ? (l.slots - l.missing) / l.slots : 0);

const COLUMNS: readonly TableColumn<ListingSummary>[] = [
  {
    id: 'title',
    title: msg('Listing'),
    by: (l) => l.title,
    cell: (l) => (
      <>
        <Link to={`/listings/${l.id}`} className="font-display text-[15px] font-bold hover:underline">
          {l.title}
        </Link>
        <p className="text-ink-2 text-[12px]">{l.product}</p>
      </>
    ),
  },
  { id: 'variants', title: msg('Variants'), by: (l) => l.variants, cell: (l) => <Variants listing={l} /> },
  { id: 'shots', title: msg('Shots'), by: (l) => l.shots, className: 'measure', cell: (l) => l.shots },
  {
    id: 'filled',
    title: msg('Slots filled'),
    by: filledShare,
    cell: (l) => (
      <>
        <span className="measure">
          {msg('{filled} of {slots}', { filled: l.slots - l.missing, slots: l.slots })}
        </span>
        <div className="bg-line mt-1 h-1.5 w-36 overflow-hidden rounded-full">
          <div className="bg-spruce h-full" style={{ width: `${filledShare(l) * 100}%` }} />
        </div>
      </>
    ),
  },
  {
    id: 'state',
    title: msg('State'),
    by: (l) => l.missing,
    cell: (l) => (
      <span className="flex items-center gap-1.5">
        <StatusMark mark={l.missing ? 'missing' : 'pass'} />
        {l.missing
          ? msg('{missing} {missing, plural, one {slot} other {slots}} missing', { missing: l.missing })
          : msg('every slot filled')}
      </span>
    ),
  },
  { id: 'remove', title: '', cell: (l) => <Remove listing={l} /> },
];

/** Product and deliveries stay; the notice brings the listing back. */
function Remove({ listing: { id, title, revision } }: { listing: ListingSummary }) {
  const ask = () => call('DELETE /api/listings/:id', { params: { id } }, { revision });
  return (
    <span onClick={(e) => e.stopPropagation()}>
      <IconButton
        label={msg('Remove {title}', { title })}
        onClick={() => void removing(ask(), `"${title}"`, '/api/listings', '/api/deliveries')}
      >
        <Trash2 size={14} aria-hidden />
      </IconButton>
    </span>
  );
}

function Variants({ listing: { cutouts, variants } }: { listing: ListingSummary }) {
  return (
    <div className="flex items-center gap-1.5">
      {cutouts.map((picture, i) => (
        <span
          key={i}
          className="border-line flex h-11 w-11 items-center justify-center rounded-md border bg-white p-1"
        >
          <img src={reducedUrl(picture, 160)} alt="" loading="lazy" className="max-h-full max-w-full" />
        </span>
      ))}
      {variants > cutouts.length && <span className="measure text-ink-2">+{variants - cutouts.length}</span>}
    </div>
  );
}
