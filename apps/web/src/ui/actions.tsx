import { Command } from 'cmdk';
import { Dialog as RadixDialog } from 'radix-ui';
import { useEffect, useMemo, useState } from 'react';
import { create } from 'zustand';
import type { KeyNotes } from './keys';
import { useReturnFocus } from './return-focus';
import { msg } from '../language/language';

/** Something that can be done now, found by its plain name in the command menu. */
export interface Action {
  id: string;
  title: string;
  group: string;
  keys?: string;
  run(): void;
}

interface ActionState {
  open: boolean;
  sources: Record<string, Action[]>;
  /** Further keys of what is on screen, by where they come from. */
  keys: Record<string, KeyNotes>;
}

export const useActionStore = create<ActionState>(() => ({ open: false, sources: {}, keys: {} }));

export const openActions = () => useActionStore.setState({ open: true });

/** Offers actions while the calling component is on screen. */
export function useActions(source: string, actions: Action[]): void {
  useEffect(() => {
    useActionStore.setState((s) => ({ sources: { ...s.sources, [source]: actions } }));
    return () =>
      useActionStore.setState((s) => {
        const { [source]: _, ...rest } = s.sources;
        return { sources: rest };
      });
  }, [source, actions]);
}

/** Tells of keys that are no action's while the calling component is on screen. */
export function useKeyNotes(source: string, notes: KeyNotes): void {
  useEffect(() => {
    useActionStore.setState((s) => ({ keys: { ...s.keys, [source]: notes } }));
    return () =>
      useActionStore.setState((s) => {
        const { [source]: _, ...keys } = s.keys;
        return { keys };
      });
  }, [source, notes]);
}

/**
 * How well an action is what was typed, 0 to 1: every word must be in it, best at its beginning, well at the beginning of
 * a word. 0 where one is missing.
 */
export function suits(action: string, typed: string): number {
  const text = action.toLowerCase();
  const words = typed.toLowerCase().split(/\s+/).filter(Boolean);
  const scores = words.map((word): number => {
    const at = text.indexOf(word);
    if (at <= 0) return at === 0 ? 1 : 0;
    return [...text.matchAll(/[\p{L}\p{N}]+/gu)].some((m) => m[0].startsWith(word)) ? 0.8 : 0.4;
  });
  return scores.some((s) => s === 0) ? 0 : scores.reduce((sum, s) => sum + s, 0) / Math.max(1, scores.length);
}

export function CommandMenu() {
  const { open, sources } = useActionStore();
  const actions = useMemo(() => Object.values(sources).flat(), [sources]);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 'k') {
        e.preventDefault();
        useActionStore.setState((s) => ({ open: !s.open }));
      }
    };
    window.addEventListener('keydown', onKey);
    return () => {
      window.removeEventListener('keydown', onKey);
      useActionStore.setState({ open: false });
    };
  }, []);
  const returning = useReturnFocus();
  const run = (action: Action) => {
    useActionStore.setState({ open: false });
    action.run();
  };
  return (
    <RadixDialog.Root open={open} onOpenChange={(o) => useActionStore.setState({ open: o })}>
      <RadixDialog.Portal>
        <RadixDialog.Overlay className="fixed inset-0 z-40 bg-[#171b1940]" />
        <RadixDialog.Content
          aria-describedby={undefined}
          {...returning}
          className="border-line bg-card fixed top-[14vh] left-1/2 z-50 w-[560px] -translate-x-1/2 overflow-hidden rounded-lg border shadow-[0_18px_60px_rgba(23,27,25,0.25)]"
        >
          <RadixDialog.Title className="sr-only">{msg('Find an action')}</RadixDialog.Title>
          <Finder actions={actions} onRun={run} />
        </RadixDialog.Content>
      </RadixDialog.Portal>
    </RadixDialog.Root>
  );
}

/** The field and what it finds: all actions by group, or those that suit what was typed, the best first. */
function Finder({ actions, onRun }: { actions: readonly Action[]; onRun(action: Action): void }) {
  const [typed, setTyped] = useState('');
  const groups = useMemo(() => {
    const map = new Map<string, Action[]>();
    for (const action of actions) map.set(action.group, [...(map.get(action.group) ?? []), action]);
    return [...map];
  }, [actions]);
  const found = useMemo(
    () =>
      actions
        .map((action) => ({ action, score: suits(`${action.title} ${action.group}`, typed) }))
        .filter(({ score }) => score > 0)
        .sort((a, b) => b.score - a.score)
        .map(({ action }) => action),
    [actions, typed],
  );
  const item = (a: Action) => (
    <Command.Item
      key={`${a.group} ${a.id}`}
      value={`${a.group} ${a.id}`}
      onSelect={() => onRun(a)}
      className="data-[selected=true]:bg-spruce-tint flex h-8 cursor-pointer items-center justify-between rounded-md px-2.5"
    >
      {a.title}
      {a.keys && <kbd className="measure text-ink-2">{a.keys}</kbd>}
    </Command.Item>
  );
  return (
    <Command label={msg('Find an action')} shouldFilter={false}>
      <Command.Input
        value={typed}
        onValueChange={setTyped}
        placeholder={msg('What do you want to do?')}
        className="border-line h-11 w-full border-b px-4 text-[14px] outline-none"
      />
      <Command.List className="max-h-[48vh] overflow-y-auto p-1.5">
        <Command.Empty className="text-ink-2 px-3 py-6 text-center">{msg('No results.')}</Command.Empty>
        {typed.trim()
          ? found.map(item)
          : groups.map(([title, list]) => (
              <Command.Group
                key={title}
                heading={title}
                className="[&_[cmdk-group-heading]]:text-ink-2 [&_[cmdk-group-heading]]:px-2.5 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:pb-1 [&_[cmdk-group-heading]]:text-[11px]"
              >
                {list.map(item)}
              </Command.Group>
            ))}
      </Command.List>
    </Command>
  );
}
