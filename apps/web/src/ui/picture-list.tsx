import { useState, type ReactNode } from 'react';
import { reducedUrl } from '../api/client';
import { msg } from '../language/language';

/** Something that is chosen by its picture. */
export interface PictureItem {
  id: string;
  title: string;
  /** Hash of its picture. */
  picture: string;
  /** A word beside its title, such as "mockup". */
  note?: string;
}

/** From so many on they are searched. */
const MANY = 9;

/** Words as they are compared: without case, accents and what is neither letter nor digit. */
const folded = (text: string) =>
  text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

/** Items of whose title every written word begins a word. */
export function found<T extends PictureItem>(items: readonly T[], search: string): T[] {
  const wanted = folded(search);
  return items.filter(({ title, note = '' }) => {
    const words = folded(`${title} ${note}`);
    return wanted.every((w) => words.some((word) => word.startsWith(w)));
  });
}

/**
 * Pictures to choose from, searched by name where there are many.
 * @param label what is chosen, for those who hear it
 * @param nameOf what a picture's button is called; its title when left out
 */
export function PictureList({
  label,
  items,
  chosen,
  onPick,
  nameOf = ({ title }) => title,
  look = 'tiles',
  first,
}: {
  label: string;
  items: readonly PictureItem[] | undefined;
  chosen?: string | null;
  onPick(item: PictureItem): void;
  nameOf?(item: PictureItem): string;
  /** `tiles` are small, `objects` lie on grey and are seen whole, `cards` have their title beneath. */
  look?: 'tiles' | 'objects' | 'cards';
  /** Something to choose that has no picture, before all others. */
  first?: ReactNode;
}) {
  const [search, setSearch] = useState('');
  const shown = found(items ?? [], search);
  const cards = look === 'cards';
  return (
    <div className="grid gap-2">
      {(items?.length ?? 0) >= MANY && (
        <input
          type="search"
          aria-label={msg('Search {label}', { label: label.toLowerCase() })}
          placeholder={msg('Name')}
          value={search}
          onChange={(e) => setSearch(e.target.value)}
          onKeyDown={(e) => e.key === 'Enter' && e.preventDefault()}
          className="border-line bg-card focus:border-spruce h-7 w-full rounded-md border px-2"
        />
      )}
      {search && shown.length === 0 && (
        <p className="text-ink-2 text-[12px]">{msg('No results for “{search}”.', { search })}</p>
      )}
      <div
        role="group"
        aria-label={label}
        className={`grid grid-cols-4 ${cards ? 'gap-3' : 'max-h-56 gap-1.5 overflow-y-auto p-px'}`}
      >
        {!search && first}
        {shown.map((item) => (
          <button
            key={item.id}
            type="button"
            title={item.title}
            aria-label={nameOf(item)}
            aria-pressed={chosen === undefined ? undefined : chosen === item.id}
            onClick={() => onPick(item)}
            className={`overflow-hidden border text-left ${cards ? 'rounded-md' : 'rounded-sm'} ${
              chosen === item.id ? 'border-spruce ring-spruce ring-1' : 'border-line hover:border-spruce'
            } ${look === 'objects' ? 'flex aspect-square items-center justify-center bg-[#bdbdbd] p-1' : ''}`}
          >
            <img
              src={reducedUrl(item.picture, cards ? 320 : 160)}
              alt=""
              loading="lazy"
              className={look === 'objects' ? 'max-h-full max-w-full' : 'aspect-[4/3] w-full object-cover'}
            />
            {cards && (
              <span className="border-line block truncate border-t px-2 py-1.5">
                {item.title}
                {item.note && <span className="text-ink-2"> {item.note}</span>}
              </span>
            )}
          </button>
        ))}
      </div>
    </div>
  );
}
