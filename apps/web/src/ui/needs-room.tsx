import { useState, useSyncExternalStore, type ReactNode } from 'react';
import { Button } from './controls';
import { TopBar } from './top-bar';
import { msg } from '../language/language';

/** CSS pixels that a desk needs across: narrower, its picture has no room beside its values. */
export const LEAST_WIDTH = 760;

const onResize = (told: () => void) => {
  window.addEventListener('resize', told);
  return () => window.removeEventListener('resize', told);
};

/**
 * What is made for a wide window: in a narrower one, a phone's, it says so and what does work there.
 * @param what its name at the beginning of a sentence
 */
export function NeedsRoom({ what, children }: { what: string; children: ReactNode }) {
  const narrow = useSyncExternalStore(onResize, () => window.innerWidth < LEAST_WIDTH);
  const [anyway, setAnyway] = useState(false);
  if (!narrow || anyway) return children;
  return (
    <>
      <TopBar />
      <main className="m-auto grid max-w-sm gap-3 p-6">
        <p className="font-display text-[17px] font-bold">{msg('{what} needs a wider window', { what })}</p>
        <p className="text-ink-2">
          {msg(
            'At least {least} pixels across; this one has {innerWidth}. Turn the device, or go on at a larger screen. Boards, checks, comparing and accepting cutouts work here too.',
            { least: LEAST_WIDTH, innerWidth: window.innerWidth },
          )}
        </p>
        <div>
          <Button onClick={() => setAnyway(true)}>{msg('Open it all the same')}</Button>
        </div>
      </main>
    </>
  );
}
