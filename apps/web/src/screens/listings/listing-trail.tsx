import type { ReactNode } from 'react';
import { Link } from 'react-router';
import { msg } from '../../language/language';

/** Where one is below a listing: the way back to it, then what is open. */
export function ListingTrail({
  listing,
  title,
  children,
}: {
  listing: { id: string; title: string };
  title: string;
  children?: ReactNode;
}) {
  return (
    <nav aria-label={msg('Where you are')} className="flex min-w-0 items-center gap-2">
      <Link to="/listings" className="text-ink-2 hover:text-ink">
        {msg('Listings')}
      </Link>
      <span className="text-ink-3">/</span>
      <Link to={`/listings/${listing.id}`} className="text-ink-2 hover:text-ink truncate">
        {listing.title}
      </Link>
      <span className="text-ink-3">/</span>
      <h1 className="truncate font-semibold">{title}</h1>
      {children}
    </nav>
  );
}
