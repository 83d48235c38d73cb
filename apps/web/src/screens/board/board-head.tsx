import { Pencil } from 'lucide-react';
import { useState } from 'react';
import { Link } from 'react-router';
import type { ListingDetail } from '../../api/client';
import { Button, buttonClass, IconButton } from '../../ui/controls';
import { CountsRow, type BoardCounts } from './counts';
import { RenameListing } from './rename-listing';
import { msg } from '../../language/language';

/** The listing's name, its counts, and the ways to its other screens. */
export function BoardHead({
  listing,
  counts,
  onDeliver,
}: {
  listing: ListingDetail['listing'];
  counts: BoardCounts | null;
  onDeliver(): void;
}) {
  const [naming, setNaming] = useState(false);
  return (
    <div className="border-line bg-card flex min-h-17 shrink-0 flex-wrap items-center gap-x-6 gap-y-2 border-b px-5 py-2">
      <div className="flex min-w-0 items-center gap-1">
        <h1 className="font-display truncate text-[22px] font-bold">{listing.title}</h1>
        <IconButton label={msg('Rename the listing')} onClick={() => setNaming(true)}>
          <Pencil size={14} aria-hidden />
        </IconButton>
      </div>
      {naming && <RenameListing listing={listing} onClose={() => setNaming(false)} />}
      <CountsRow counts={counts} />
      <div className="ml-auto flex gap-2">
        <Link to={`/products/${listing.productId}`} className={buttonClass()}>
          {msg('Data')}
        </Link>
        <Link to={`/listings/${listing.id}/checks`} className={buttonClass()}>
          {msg('Checks')}
        </Link>
        <Link to={`/listings/${listing.id}/ideas`} className={buttonClass()}>
          {msg('Ideas wall')}
        </Link>
        <Button tone="main" onClick={onDeliver}>
          {msg('Deliver')} {counts && <span className="measure">{counts.filled}</span>}
        </Button>
      </div>
    </div>
  );
}
