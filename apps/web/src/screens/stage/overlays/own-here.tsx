import { createContext, useContext, type ReactNode } from 'react';
import type { ShotElement } from '@scenograph/core/elements/index';
import { makeBase, ownValues, resetFit } from '@scenograph/core/shot/edit';
import type { ResolvedShot } from '@scenograph/core/shot/resolve';
import { useStage } from '../store';
import { msg } from '../../../language/language';

/** What the slot that is shown has of its own of the chosen element, and the two ways to end that. */
export interface OwnHere {
  /** Keys of the element. */
  keys: ReadonlySet<string>;
  follow(key: string): void;
  intoBase(key: string): void;
}

/** What a slot has of its own of an element. */
export function ownHere(
  slotKey: string,
  base: ShotElement,
  difference: Partial<ShotElement>,
  resolved: ResolvedShot,
): OwnHere {
  const { edit } = useStage.getState();
  return {
    keys: new Set(ownValues(base, difference)),
    follow: (key) => edit(msg('Reset a difference'), (s) => resetFit(s, slotKey, base.id, key)),
    intoBase: (key) =>
      edit(msg('Make a difference the base'), (s) => makeBase(s, resolved, slotKey, base.id, key)),
  };
}

/** Null where the base is shown. */
export const OwnHereContext = createContext<OwnHere | null>(null);

/** A field with a mark where its value is this slot's own, and one click either way. */
export function Marked({ label, path, children }: { label: string; path: string; children: ReactNode }) {
  const own = useContext(OwnHereContext);
  const [key] = path.split('.');
  if (!own?.keys.has(key)) return children;
  return (
    <div
      role="group"
      aria-label={msg("{label}, this slot's own", { label })}
      className="border-spruce border-l-2 pl-2"
    >
      {children}
      <p className="text-ink-2 mt-0.5 flex flex-wrap gap-x-2 text-[11.5px]">
        {msg('This slot’s own.')}
        <button type="button" className="hover:text-ink underline" onClick={() => own.follow(key)}>
          {msg('Follow the base')}
        </button>
        <button type="button" className="hover:text-ink underline" onClick={() => own.intoBase(key)}>
          {msg('Make it the base')}
        </button>
      </p>
    </div>
  );
}
