import type { AnswerOf } from '@scenograph/contract';
import { useEffect, useState } from 'react';
import { Link, useLocation } from 'react-router';
import { msg } from '../language/language';
import { StatusMark } from './status';

export type Ready = AnswerOf<'GET /api/health/ready'>;

/** Milliseconds between two looks. */
const EVERY = 20_000;

/** What the server needs and has not, in sentences. */
export function missingOf({ database, queue, workers }: Ready): string[] {
  if (!database) return [msg('The database cannot be reached: nothing can be opened or stored for now.')];
  return [
    ...(queue ? [] : [msg('The list of jobs cannot be read: no cutout or recipe is begun.')]),
    ...(workers
      ? []
      : [msg('No worker is running: cutouts, recipes and deliveries wait until one is started.')]),
  ];
}

/** How the server is, looked at now and then; null while it is not known or the server is not reached at all. */
export function useReady(every = EVERY): Ready | null {
  const [ready, setReady] = useState<Ready | null>(null);
  useEffect(() => {
    let gone = false;
    const look = async () => {
      try {
        // 503 is an answer here: it says what is missing.
        const answer = (await (await fetch('/api/health/ready')).json()) as Ready;
        if (!gone) setReady('workers' in answer ? answer : null);
      } catch {
        if (!gone) setReady(null);
      }
    };
    void look();
    const looking = setInterval(() => document.visibilityState === 'visible' && void look(), every);
    return () => {
      gone = true;
      clearInterval(looking);
    };
  }, [every]);
  return ready;
}

/** A line over the screen while a part of the server is missing, with what that means. */
export function MissingBar() {
  const ready = useReady();
  const { pathname } = useLocation();
  const missing = ready ? missingOf(ready) : [];
  if (!missing.length || pathname === '/server') return null;
  return (
    <div role="status" className="border-line bg-card flex items-center gap-2.5 border-b px-5 py-1.5">
      <StatusMark mark="look" size={10} />
      <p className="min-w-0 truncate">{missing.join(' ')}</p>
      <Link to="/server" className="text-spruce font-semibold underline">
        {msg('Look at the server')}
      </Link>
    </div>
  );
}
