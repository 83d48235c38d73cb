import { useMemo } from 'react';
import { ALIGNMENTS } from '@scenograph/core/shot/align';
import type { ListingDetail } from '../../api/client';
import { useActions, type Action } from '../../ui/actions';
import type { Export } from './export-menu';
import type { View } from './middle';
import { STARTERS } from './kinds/index';
import type { Starter } from './kinds/kind-ui';
import type { FedSlot } from './size-strip';
import { useStage } from './store';
import type { useAdding } from './use-adding';
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

type Variant = ListingDetail['variants'][number];

/** Lets keys and the command menu do everything that the stage can. */
export function useStageCommands(
  editing: Editing,
  { addOverlay, addProduct }: ReturnType<typeof useAdding>,
  variant: Variant | undefined,
  slots: readonly FedSlot[],
  screen: {
    show(view: View): void;
    make(what: Export): void;
    setShowSafe(to: (on: boolean) => boolean): void;
    setDelivering(on: boolean): void;
  },
): void {
  const { remove, depth, duplicate, align, distribute, sameSize, link, trueSize } = editing;
  const { show, make, setShowSafe, setDelivering } = screen;
  const actions = useMemo(() => {
    const handlers: StageActionHandlers = {
      ...{ addOverlay, remove, duplicate, depth, align, distribute, sameSize, link, trueSize, show, make },
      addProduct: () => addProduct(variant),
      toggleSafeZone: () => setShowSafe((on) => !on),
      deliver: () => setDelivering(true),
    };
    return stageActions(handlers, slots);
  }, [
    addOverlay,
    addProduct,
    variant,
    slots,
    remove,
    depth,
    duplicate,
    align,
    distribute,
    sameSize,
    link,
    trueSize,
    show,
    make,
    setShowSafe,
    setDelivering,
  ]);
  useActions('stage', actions);
}

/** Everything that the stage can do, for its keys and the command menu. */
export function stageActions(hands: StageActionHandlers, slots: readonly FedSlot[]): Action[] {
  return [
    ...editActions(hands),
    ...arrangeActions(hands),
    ...sizeActions(hands, slots),
    ...makeActions(hands),
  ];
}

function editActions(hands: StageActionHandlers): Action[] {
  const group = 'Stage';
  return [
    { id: 'undo', title: 'Undo', group, keys: 'Ctrl Z', run: () => useStage.getState().undo() },
    { id: 'redo', title: 'Redo', group, keys: 'Ctrl Shift Z', run: () => useStage.getState().redo() },
    ...STARTERS.flatMap((g) => g.choices).map((c) => ({
      id: `add-${c.id}`,
      title: c.id === 'text' ? 'Add a text' : `Add to stage: ${c.title}`,
      group: 'Overlays',
      run: () => hands.addOverlay(c),
    })),
    { id: 'product', title: 'Add the product', group, run: hands.addProduct },
    { id: 'duplicate', title: 'Duplicate what is chosen', group, keys: 'Ctrl D', run: hands.duplicate },
    { id: 'remove', title: 'Remove what is chosen', group, keys: 'Delete', run: hands.remove },
  ];
}

function arrangeActions(hands: StageActionHandlers): Action[] {
  const actions: [id: string, title: string, run: () => void][] = [
    ['true-size', 'Back to true size', hands.trueSize],
    ['link', 'Link what is chosen, to move as one', () => hands.link(true)],
    ['unlink', 'Unlink', () => hands.link(false)],
    ...ALIGNMENTS.map((how): [string, string, () => void] => [
      `align-${how}`,
      how === 'bases' ? 'Align the bases of what is chosen' : `Align what is chosen: ${how}`,
      () => hands.align(how),
    ]),
    ['across', 'Distribute across', () => hands.distribute('x')],
    ['down', 'Distribute down', () => hands.distribute('y')],
    ['same-width', 'Same width as the first chosen', () => hands.sameSize('width')],
    ['same-height', 'Same height as the first chosen', () => hands.sameSize('height')],
    ['forward', 'Bring forward', () => hands.depth(1)],
    ['back', 'Send back', () => hands.depth(-1)],
  ];
  return actions.map(([id, title, run]) => ({ id, title, group: 'Stage', run }));
}

function sizeActions(hands: StageActionHandlers, slots: readonly FedSlot[]): Action[] {
  const group = 'Sizes';
  const show = (key: string | null) => () => useStage.getState().showSlot(key);
  return [
    { id: 'base', title: 'Show the base', group, run: show(null) },
    { id: 'all-sizes', title: 'Show all sizes on one sheet', group, run: () => hands.show('sizes') },
    { id: 'safe', title: 'Show or hide the safe zone', group, run: () => hands.toggleSafeZone() },
    {
      id: 'thumbnail',
      title: 'Preview as a search-result thumbnail',
      group,
      run: () => hands.show('thumbnail'),
    },
    ...slots.map((s) => ({
      id: s.key,
      title: `Show ${s.slot.title} of ${s.marketplace}`,
      group,
      run: show(s.key),
    })),
  ];
}

/** Greys around the picture, to judge its brightness by. */
const SURROUNDS = [
  ['darker', '#8c8c8c'],
  ['as usual', '#bdbdbd'],
  ['lighter', '#e6e6e6'],
];

function makeActions(hands: StageActionHandlers): Action[] {
  const group = 'Listing';
  return [
    ...SURROUNDS.map(([name, value]) => ({
      id: `surround-${name}`,
      title: `Surround of the picture ${name}`,
      group: 'Look',
      run: () => document.documentElement.style.setProperty('--stage', value),
    })),
    { id: 'export', title: 'Export one picture', group, run: () => hands.make('picture') },
    { id: 'template', title: 'Keep this shot as a template', group, run: () => hands.make('template') },
    { id: 'proof', title: 'Make a proof sheet', group, run: () => hands.make('proof') },
    { id: 'deliver', title: 'Deliver pictures of this listing', group, run: () => hands.deliver() },
  ];
}
