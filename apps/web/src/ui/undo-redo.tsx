import { Redo2, Undo2 } from 'lucide-react';
import type { EditState } from '../api/client';
import { IconButton } from './controls';
import { msg } from '../language/language';

/** Takes the last step back, or does it again; says which. */
export function UndoRedo({
  edits,
  onTurn,
}: {
  edits: EditState | undefined;
  onTurn(way: 'undo' | 'redo'): void;
}) {
  return (
    <>
      <IconButton
        label={edits?.undo ? msg('Undo: {undo}', { undo: edits.undo }) : msg('Nothing to undo')}
        disabled={!edits?.undo}
        onClick={() => onTurn('undo')}
      >
        <Undo2 size={15} aria-hidden />
      </IconButton>
      <IconButton
        label={edits?.redo ? msg('Redo: {redo}', { redo: edits.redo }) : msg('Nothing to redo')}
        disabled={!edits?.redo}
        onClick={() => onTurn('redo')}
      >
        <Redo2 size={15} aria-hidden />
      </IconButton>
    </>
  );
}
