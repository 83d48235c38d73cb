import { useEffect, type ReactNode } from 'react';
import { Button } from '../ui/controls';
import { Dialog } from '../ui/dialog';
import { UndoRedo } from '../ui/undo-redo';
import type { DocumentState, Saving } from './document-store';
import { msg, writeTime } from '../language/language';

type Of<K extends keyof DocumentState<object>> = Pick<DocumentState<object>, K>;

/** Undo and redo of an open document, named by what they take back. */
export function DocumentUndoRedo({
  of: { past, future, undo, redo },
}: {
  of: Of<'past' | 'future' | 'undo' | 'redo'>;
}) {
  return (
    <UndoRedo
      edits={{ undo: past.at(-1)?.label ?? null, redo: future[0]?.label ?? null }}
      onTurn={(way) => (way === 'undo' ? undo() : redo())}
    />
  );
}

const SAYS: Record<Saving, string> = {
  saved: msg('saved'),
  waiting: msg('saving'),
  saving: msg('saving'),
  offline: msg('not saved yet, trying again'),
  refused: msg('not saved'),
  conflict: msg('changed elsewhere'),
  draft: msg('draft, kept in this browser'),
};

/** Whether a document is stored; where it is not, why, and a way to try again at once. */
export function SavingNote({
  of: { saving, reason, savedAt },
  onTryAgain,
}: {
  of: Of<'saving' | 'reason' | 'savedAt'>;
  onTryAgain(): void;
}) {
  const at = savedAt && writeTime(savedAt);
  const wrong = saving === 'offline' || saving === 'refused' || saving === 'conflict';
  return (
    <span className="flex items-center gap-2 whitespace-nowrap">
      <span
        role="status"
        data-testid="saving"
        title={reason ?? undefined}
        className={`measure ${wrong ? 'text-coral-ink' : 'text-ink-2'}`}
      >
        {saving === 'saved' && at ? msg('saved {at}', { at }) : SAYS[saving]}
        {saving === 'refused' && reason && (
          <span className="inline-block max-w-80 truncate align-bottom">: {reason}</span>
        )}
      </span>
      {(saving === 'offline' || saving === 'refused') && (
        <button type="button" className="text-spruce font-semibold underline" onClick={onTryAgain}>
          {msg('Try again')}
        </button>
      )}
    </span>
  );
}

/** Another window has stored something else: which version is kept. There is no way round the choice. */
export function ConflictDialog({
  of: { conflict, keepMine, takeTheirs },
  word,
  children,
  more,
}: {
  of: Of<'conflict' | 'keepMine' | 'takeTheirs'>;
  word: string;
  children?: ReactNode;
  /** A further way out. */
  more?: ReactNode;
}) {
  if (!conflict) return null;
  return (
    <Dialog
      open
      title={msg('This {word} was changed elsewhere', { word })}
      footer={
        <>
          {more}
          <Button onClick={takeTheirs}>{msg('Take theirs')}</Button>
          <Button tone="main" onClick={keepMine}>
            {msg('Keep mine')}
          </Button>
        </>
      }
    >
      {children ?? <p>{conflict.message}</p>}
    </Dialog>
  );
}

/** Keys of an open document, undo and redo, wherever the focus is but in a field; and a warning before what is only kept here is left behind. */
export function useDocument(now: () => Of<'undo' | 'redo' | 'saving'>, save: () => Promise<boolean>): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.altKey || e.defaultPrevented) return;
      const key = e.key.toLowerCase();
      if (key !== 'z' && key !== 'y') return;
      if ((e.target as HTMLElement).closest?.(ELSEWHERE)) return;
      e.preventDefault();
      if (key === 'y' || e.shiftKey) now().redo();
      else now().undo();
    };
    const onLeave = (e: BeforeUnloadEvent) => {
      const { saving } = now();
      if (saving === 'waiting') void save();
      if (saving === 'offline' || saving === 'refused' || saving === 'conflict') e.preventDefault();
    };
    window.addEventListener('keydown', onKey);
    window.addEventListener('beforeunload', onLeave);
    return () => {
      window.removeEventListener('keydown', onKey);
      window.removeEventListener('beforeunload', onLeave);
    };
  }, [now, save]);
}

/** What has an undo of its own, and what is asked before anything else can be done. */
const ELSEWHERE =
  'input:not([type]), input[type="text"], input[type="search"], input[type="number"], textarea, [contenteditable], [role$="dialog"]';
