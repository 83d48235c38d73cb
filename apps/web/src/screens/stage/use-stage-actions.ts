import { useMemo } from 'react';
import { ALIGNMENTS } from '@scenograph/core/shot/align';
import type { Action } from '../../ui/actions';
import type { Export } from './export-menu';
import { STARTERS } from './kinds/index';
import type { Starter } from './kinds/kind-ui';
import type { FedSlot } from './size-strip';
import { useStage } from './store';
import type { Editing } from './use-editing';

/** What the stage's actions do; kept the same object as long as it does the same, through drags too. */
export interface StageActionHandlers extends Pick<
  Editing,
  'remove' | 'duplicate' | 'depth' | 'align' | 'distribute' | 'sameSize' | 'link' | 'trueSize'
> {
  addOverlay(choice: Starter): void;
  addProduct(): void;
  show(view: 'sizes' | 'thumbnail'): void;
  toggleSafeZone(): void;
  make(what: Export): void;
  deliver(): void;
}

/** Everything that the stage can do, for its keys and the command menu. */
export function useStageActions(hands: StageActionHandlers, slots: readonly FedSlot[]): Action[] {
  return useMemo<Action[]>(
    () => [
      { id: 'undo', title: 'Undo', group: 'Stage', keys: 'Ctrl Z', run: () => useStage.getState().undo() },
      {
        id: 'redo',
        title: 'Redo',
        group: 'Stage',
        keys: 'Ctrl Shift Z',
        run: () => useStage.getState().redo(),
      },
      ...STARTERS.flatMap((g) =>
        g.choices.map((c) => ({
          id: `add-${c.id}`,
          title: c.id === 'text' ? 'Add a text' : `Add to stage: ${c.title}`,
          group: 'Overlays',
          run: () => hands.addOverlay(c),
        })),
      ),
      { id: 'product', title: 'Add the product', group: 'Stage', run: hands.addProduct },
      {
        id: 'duplicate',
        title: 'Duplicate what is chosen',
        group: 'Stage',
        keys: 'Ctrl D',
        run: hands.duplicate,
      },
      { id: 'true-size', title: 'Back to true size', group: 'Stage', run: hands.trueSize },
      {
        id: 'link',
        title: 'Link what is chosen, to move as one',
        group: 'Stage',
        run: () => hands.link(true),
      },
      { id: 'unlink', title: 'Unlink', group: 'Stage', run: () => hands.link(false) },
      ...ALIGNMENTS.map((how) => ({
        id: `align-${how}`,
        title: how === 'bases' ? 'Align the bases of what is chosen' : `Align what is chosen: ${how}`,
        group: 'Stage',
        run: () => hands.align(how),
      })),
      { id: 'across', title: 'Distribute across', group: 'Stage', run: () => hands.distribute('x') },
      {
        id: 'same-width',
        title: 'Same width as the first chosen',
        group: 'Stage',
        run: () => hands.sameSize('width'),
      },
      {
        id: 'same-height',
        title: 'Same height as the first chosen',
        group: 'Stage',
        run: () => hands.sameSize('height'),
      },
      { id: 'down', title: 'Distribute down', group: 'Stage', run: () => hands.distribute('y') },
      { id: 'remove', title: 'Remove what is chosen', group: 'Stage', keys: 'Delete', run: hands.remove },
      { id: 'forward', title: 'Bring forward', group: 'Stage', run: () => hands.depth(1) },
      { id: 'back', title: 'Send back', group: 'Stage', run: () => hands.depth(-1) },
      { id: 'base', title: 'Show the base', group: 'Sizes', run: () => useStage.getState().showSlot(null) },
      {
        id: 'all-sizes',
        title: 'Show all sizes on one sheet',
        group: 'Sizes',
        run: () => hands.show('sizes'),
      },
      { id: 'safe', title: 'Show or hide the safe zone', group: 'Sizes', run: () => hands.toggleSafeZone() },
      {
        id: 'thumbnail',
        title: 'Preview as a search-result thumbnail',
        group: 'Sizes',
        run: () => hands.show('thumbnail'),
      },
      ...slots.map((s) => ({
        id: s.key,
        title: `Show ${s.slot.title} of ${s.marketplace}`,
        group: 'Sizes',
        run: () => useStage.getState().showSlot(s.key),
      })),
      ...[
        ['darker', '#8c8c8c'],
        ['as usual', '#bdbdbd'],
        ['lighter', '#e6e6e6'],
      ].map(([name, value]) => ({
        id: `surround-${name}`,
        title: `Surround of the picture ${name}`,
        group: 'Look',
        run: () => document.documentElement.style.setProperty('--stage', value),
      })),
      { id: 'export', title: 'Export one picture', group: 'Listing', run: () => hands.make('picture') },
      {
        id: 'template',
        title: 'Keep this shot as a template',
        group: 'Listing',
        run: () => hands.make('template'),
      },
      { id: 'proof', title: 'Make a proof sheet', group: 'Listing', run: () => hands.make('proof') },
      {
        id: 'deliver',
        title: 'Deliver pictures of this listing',
        group: 'Listing',
        run: () => hands.deliver(),
      },
    ],
    [hands, slots],
  );
}
