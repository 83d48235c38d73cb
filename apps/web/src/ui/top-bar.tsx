import { ImagePlus, Search } from 'lucide-react';
import { Link, NavLink, useLocation } from 'react-router';
import type { ReactNode } from 'react';
import { openActions } from './actions';
import { usePlaces } from './places';
import { Tooltip } from './tooltip';
import { msg } from '../language/language';

export function Emblem() {
  return (
    <NavLink to="/listings" aria-label={msg('Scenograph, to the listings')} className="shrink-0">
      <svg width="20" height="18" viewBox="0 0 20 18" aria-hidden>
        <path fill="var(--color-spruce)" d="M0 0h20v18H0z" />
        <path fill="var(--color-limelight)" d="M6 5h8v8H6z" />
      </svg>
    </NavLink>
  );
}

export function FindAction() {
  return (
    <button
      type="button"
      onClick={openActions}
      aria-label={msg('Find an action')}
      className="border-line hover:border-ink-3 text-ink-2 flex h-7 shrink-0 items-center justify-between gap-2 rounded-md border bg-white px-2 md:w-47 md:px-3"
    >
      <Search size={14} aria-hidden className="md:hidden" />
      <span className="max-md:hidden">{msg('Find an action')}</span>
      <kbd className="measure max-md:hidden">{msg('Ctrl K')}</kbd>
    </button>
  );
}

/** A picture of any size, from any screen; kept in the listing whose screen this is. */
function NewPicture() {
  const { pathname } = useLocation();
  const [, listing] = /^\/listings\/([^/]+)/.exec(pathname) ?? [];
  const label = msg('New picture');
  return (
    <Tooltip text={label}>
      <Link
        to={`/new-picture${listing ? `?listing=${listing}` : ''}`}
        aria-label={label}
        className="border-line hover:border-ink-3 flex h-7 w-7 shrink-0 items-center justify-center rounded-md border bg-white"
      >
        <ImagePlus size={15} aria-hidden />
      </Link>
    </Tooltip>
  );
}

/** The bar of a screen: where one is, and what can be done with it. */
export function TopBar({ trail, children }: { trail?: ReactNode; children?: ReactNode }) {
  const places = usePlaces().filter((p) => p.label);
  return (
    <header className="border-line bg-card flex h-11 shrink-0 items-center gap-4 border-b px-3.5">
      <Emblem />
      {trail ?? (
        <nav aria-label={msg('Places')} className="flex min-w-0 gap-5 overflow-x-auto py-2 whitespace-nowrap">
          {places.map(({ path, label }) => (
            <NavLink
              key={path}
              to={path}
              className={({ isActive }) =>
                isActive ? 'text-ink font-semibold' : 'text-ink-2 hover:text-ink'
              }
            >
              {label}
            </NavLink>
          ))}
        </nav>
      )}
      <div className="ml-auto flex shrink-0 items-center gap-2.5">
        <NewPicture />
        {children ?? <FindAction />}
      </div>
    </header>
  );
}
