import type { ReactNode } from 'react';
import { Link, useRouteError } from 'react-router';
import { buttonClass } from './controls';
import { tryAgain, useTold } from './failing';
import { TopBar } from './top-bar';
import { msg } from '../language/language';

/** What a screen shows while it has nothing else to show. */
export function Waiting({ what }: { what: string }) {
  return (
    <p role="status" className="text-ink-2 p-6">
      {msg('Fetching {what} ...', { what })}
    </p>
  );
}

/**
 * In place of what could not be fetched: why, and a way to try again.
 * @param onTryAgain what trying again is, where it is not to fetch what the server was asked for
 */
export function Trouble({ error, onTryAgain = tryAgain }: { error: Error; onTryAgain?(): void }) {
  useTold();
  return (
    <div role="alert" className="m-6 max-w-lg">
      <p className="font-display text-[17px] font-bold">{msg('This could not be shown')}</p>
      <p className="text-ink-2 mt-1">{error.message}</p>
      <button type="button" className={buttonClass('main', 'mt-3')} onClick={() => onTryAgain()}>
        {msg('Try again')}
      </button>
    </div>
  );
}

/** In place of a screen that broke or could not be fetched: what is stored is not touched, and it can be tried again. */
export function ScreenTrouble() {
  const error = useRouteError();
  const message = error instanceof Error ? error.message : String(error);
  // What a browser says when a part of the application cannot be fetched.
  const missing = /dynamically imported module|Importing a module script|Loading chunk/i.test(message);
  return (
    <>
      <TopBar />
      <div role="alert" className="m-6 max-w-lg">
        <p className="font-display text-[17px] font-bold">
          {missing ? msg('This screen could not be fetched') : msg('This screen stopped working')}
        </p>
        <p className="text-ink-2 mt-1">
          {missing
            ? msg('The server cannot be reached. Is Scenograph still running?')
            : msg('Everything that was saved is still there. What went wrong: {message}', { message })}
        </p>
        <button
          type="button"
          className={buttonClass('main', 'mt-3')}
          onClick={() => window.location.reload()}
        >
          {msg('Try again')}
        </button>
      </div>
    </>
  );
}

export function Empty({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="border-ink-3 rounded-lg border border-dashed p-8 text-center">
      <p className="font-display text-[16px] font-bold">{title}</p>
      <div className="text-ink-2 mt-1">{children}</div>
    </div>
  );
}

export function NotFound() {
  return (
    <>
      <TopBar />
      <div className="p-6">
        <Empty title={msg('There is nothing at this address')}>
          <Link to="/listings" className={buttonClass('plain', 'mt-3')}>
            {msg('Go to the listings')}
          </Link>
        </Empty>
      </div>
    </>
  );
}
