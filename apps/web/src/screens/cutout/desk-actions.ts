import { useMemo } from 'react';
import type { Action } from '../../ui/actions';
import { useRecipe } from './recipe-store';
import { SIGHTS, TOOLS, type Sight, type ToolId } from './tools';
import { msg } from '../../language/language';

/** What the desk's actions do; kept the same object as long as it does the same. */
export interface DeskActionHandlers {
  choose(tool: ToolId): void;
  lookAs(sight: Sight): void;
  fit(): void;
  actualPixels(): void;
  toggleEdgeLine(): void;
  toggleDoubts(): void;
  toggleTidying(): void;
  accept(): void;
}

const VIEW_ACTIONS = [
  { id: 'fit', title: msg('Fit the photo to the view'), keys: 'F', does: 'fit' },
  { id: 'actual', title: msg('Actual pixels, 100 %'), keys: 'A', does: 'actualPixels' },
  { id: 'edge', title: msg('Edge line on and off'), keys: 'E', does: 'toggleEdgeLine' },
  { id: 'doubts', title: msg('Places in doubt: show or hide'), keys: 'Q', does: 'toggleDoubts' },
] as const;

const TURNS = [
  { id: 'undo', title: msg('Undo'), keys: msg('Ctrl Z') },
  { id: 'redo', title: msg('Redo'), keys: msg('Ctrl Shift Z') },
] as const;

/** Everything the cutout desk can do, for its keys and the command menu. */
export function useDeskActions(hands: DeskActionHandlers): Action[] {
  return useMemo<Action[]>(
    () => [
      ...TOOLS.map((t) => ({
        id: `tool-${t.id}`,
        title: `${t.title}: ${t.about.toLowerCase()}`,
        group: msg('Cutout tools'),
        keys: t.key.toUpperCase(),
        run: () => hands.choose(t.id),
      })),
      ...SIGHTS.map((s) => ({
        id: `sight-${s.id}`,
        title: msg('Look at it: {s}', { s: s.title.toLowerCase() }),
        group: msg('Cutout view'),
        keys: s.key,
        run: () => hands.lookAs(s.id),
      })),
      ...VIEW_ACTIONS.map((a) => ({ ...a, group: msg('Cutout view'), run: () => hands[a.does]() })),
      { id: 'tidy', title: msg('Adjust the photo'), group: msg('Cutout'), run: () => hands.toggleTidying() },
      {
        id: 'accept',
        title: msg('Accept and go on'),
        group: msg('Cutout'),
        keys: 'N',
        run: () => hands.accept(),
      },
      ...TURNS.map((a) => ({ ...a, group: msg('Cutout'), run: () => useRecipe.getState()[a.id]() })),
    ],
    [hands],
  );
}
