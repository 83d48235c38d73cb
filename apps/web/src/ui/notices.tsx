import { X } from 'lucide-react';
import { create } from 'zustand';
import { StatusMark, type Mark } from './status';
import { msg } from '../language/language';

interface Notice {
  id: number;
  mark: Mark;
  text: string;
  action?: { title: string; run(): void };
}

interface Notices {
  list: Notice[];
  add(notice: Omit<Notice, 'id'>): void;
  drop(id: number): void;
}

/** So many notices stand at once; those that wait to be read are kept beyond that, up to the second number. */
const MOST = 4;
const MOST_UNREAD = 8;

/** What went wrong, and what can be acted on, stays until it is read and closed. */
const staysUntilRead = ({ mark, action }: Notice) => mark === 'stop' || action !== undefined;

/** The list with room for one more: a notice that goes by itself makes way first. */
function withRoom(list: Notice[]): Notice[] {
  if (list.length < MOST) return list;
  const passing = list.findIndex((n) => !staysUntilRead(n));
  if (passing < 0 && list.length < MOST_UNREAD) return list;
  return list.filter((_, i) => i !== Math.max(0, passing));
}

let next = 1;

export const useNotices = create<Notices>((set) => ({
  list: [],
  add(notice) {
    const id = next++;
    set((s) => ({ list: [...withRoom(s.list), { ...notice, id }] }));
    if (!staysUntilRead({ ...notice, id }))
      setTimeout(() => set((s) => ({ list: s.list.filter((n) => n.id !== id) })), 9000);
  },
  drop: (id) => set((s) => ({ list: s.list.filter((n) => n.id !== id) })),
}));

export function say(mark: Mark, text: string, action?: Notice['action']): void {
  useNotices.getState().add({ mark, text, action });
}

export function Notices() {
  const { list, drop } = useNotices();
  return (
    <div role="status" aria-live="polite" className="fixed right-4 bottom-4 z-[60] flex w-96 flex-col gap-2">
      {list.map((n) => (
        <div
          key={n.id}
          className="bg-ink flex items-start gap-2.5 rounded-lg px-3.5 py-2.5 text-white shadow-[0_8px_28px_rgba(23,27,25,0.3)]"
        >
          <span className="pt-1">
            <StatusMark mark={n.mark} />
          </span>
          <p className="grow">{n.text}</p>
          {n.action && (
            <button
              type="button"
              className="text-limelight font-semibold"
              onClick={() => {
                n.action!.run();
                drop(n.id);
              }}
            >
              {n.action.title}
            </button>
          )}
          <button
            type="button"
            aria-label={msg('Close this notice')}
            className="text-white/70"
            onClick={() => drop(n.id)}
          >
            <X size={14} aria-hidden />
          </button>
        </div>
      ))}
    </div>
  );
}
