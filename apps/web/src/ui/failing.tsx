import { useEffect, type ReactNode } from 'react';
import { mutate, SWRConfig, useSWRConfig } from 'swr';
import { create } from 'zustand';
import { StatusMark } from './status';
import { msg } from '../language/language';

/** What could not be fetched, and what takes long, by its address. */
interface Failing {
  failed: ReadonlyMap<string, Error>;
  slow: ReadonlySet<string>;
  /** Screens that say themselves why they show nothing. */
  told: number;
}

export const useFailing = create<Failing>(() => ({ failed: new Map(), slow: new Set(), told: 0 }));

const settle = (key: string, error: Error | null) =>
  useFailing.setState(({ failed, slow }) => {
    const next = new Map(failed);
    if (error) next.set(key, error);
    else next.delete(key);
    const still = new Set(slow);
    still.delete(key);
    return { failed: next, slow: still };
  });

/** Asks again for everything that failed. */
export function tryAgain(): void {
  const keys = [...useFailing.getState().failed.keys()];
  void Promise.allSettled(keys.map((key) => mutate(key)));
}

/** Milliseconds after which an answer that has not come is said to take long. */
const LONG = 5000;

/** Watches everything that screens fetch: a failed or a slow answer is said in one way everywhere. */
export function FetchWatch({ long = LONG, children }: { long?: number; children: ReactNode }) {
  const { cache } = useSWRConfig();
  useEffect(() => {
    window.addEventListener('online', tryAgain);
    return () => window.removeEventListener('online', tryAgain);
  }, []);
  return (
    <SWRConfig
      value={{
        loadingTimeout: long,
        errorRetryInterval: LONG,
        onError: (error: Error, key) => settle(key, error),
        onSuccess: (_, key) => settle(key, null),
        onLoadingSlow: (key) => {
          // A request that a later one has overtaken is never over for SWR; its answer is here all the same.
          if (cache.get(key)?.data !== undefined) return;
          useFailing.setState(({ slow }) => ({ slow: new Set(slow).add(key) }));
        },
      }}
    >
      {children}
    </SWRConfig>
  );
}

/** A line over the screen while something that it shows could not be fetched, or takes long. */
export function FetchBar() {
  const { failed, slow, told } = useFailing();
  const [reason] = new Set([...failed.values()].map((e) => e.message));
  if (failed.size && !told)
    return (
      <div role="alert" className="border-line bg-card flex items-center gap-2.5 border-b px-5 py-1.5">
        <StatusMark mark="stop" size={10} />
        <p className="min-w-0 truncate">
          {msg('Some of what is shown here could not be fetched and may be missing or old: {reason}', {
            reason,
          })}
        </p>
        <button type="button" className="text-spruce font-semibold underline" onClick={tryAgain}>
          {msg('Try again')}
        </button>
      </div>
    );
  if (slow.size)
    return (
      <div role="status" className="border-line bg-card text-ink-2 border-b px-5 py-1.5">
        {msg('The server takes longer than usual; what is shown may not be complete yet.')}
      </div>
    );
  return null;
}

/** While it is mounted, the screen itself says what is wrong. */
export function useTold(): void {
  useEffect(() => {
    useFailing.setState(({ told }) => ({ told: told + 1 }));
    return () => useFailing.setState(({ told }) => ({ told: told - 1 }));
  }, []);
}
