import { useMemo } from 'react';
import type { Action } from '../../ui/actions';
import { useRecipe } from './recipe-store';
import { SIGHTS, TOOLS, type Sight, type ToolId } from './tools';

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

/** Everything the cutout desk can do, for its keys and the command menu. */
export function useDeskActions(hands: DeskActionHandlers): Action[] {
  return useMemo<Action[]>(
    () => [
      ...TOOLS.map((t) => ({
        id: `tool-${t.id}`,
        title: `${t.title}: ${t.about.toLowerCase()}`,
        group: 'Cutout tools',
        keys: t.key.toUpperCase(),
        run: () => hands.choose(t.id),
      })),
      ...SIGHTS.map((s) => ({
        id: `sight-${s.id}`,
        title: `Look at it: ${s.title.toLowerCase()}`,
        group: 'Cutout view',
        keys: s.key,
        run: () => hands.lookAs(s.id),
      })),
      {
        id: 'fit',
        title: 'Fit the photo to the view',
        group: 'Cutout view',
        keys: 'F',
        run: () => hands.fit(),
      },
      {
        id: 'actual',
        title: 'Actual pixels, 100 %',
        group: 'Cutout view',
        keys: 'A',
        run: () => hands.actualPixels(),
      },
      {
        id: 'edge',
        title: 'Edge line on and off',
        group: 'Cutout view',
        keys: 'E',
        run: () => hands.toggleEdgeLine(),
      },
      {
        id: 'doubts',
        title: 'Places in doubt: show or hide',
        group: 'Cutout view',
        keys: 'Q',
        run: () => hands.toggleDoubts(),
      },
      { id: 'tidy', title: 'Adjust the photo', group: 'Cutout', run: () => hands.toggleTidying() },
      { id: 'accept', title: 'Accept and go on', group: 'Cutout', keys: 'N', run: () => hands.accept() },
      { id: 'undo', title: 'Undo', group: 'Cutout', keys: 'Ctrl Z', run: () => useRecipe.getState().undo() },
      {
        id: 'redo',
        title: 'Redo',
        group: 'Cutout',
        keys: 'Ctrl Shift Z',
        run: () => useRecipe.getState().redo(),
      },
    ],
    [hands],
  );
}
