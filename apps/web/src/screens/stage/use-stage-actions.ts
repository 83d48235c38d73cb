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
import { msg } from '../../language/language';

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
  const group = msg('Stage');
  return [
    { id: 'undo', title: msg('Undo'), group, keys: msg('Ctrl Z'), run: () => useStage.getState().undo() },
    {
      id: 'redo',
      title: msg('Redo'),
      group,
      keys: msg('Ctrl Shift Z'),
      run: () => useStage.getState().redo(),
    },
    ...STARTERS.flatMap((g) => g.choices).map((c) => ({
      id: `add-${c.id}`,
      title: c.id === 'text' ? msg('Add a text') : msg('Add to stage: {c}', { c: c.title }),
      group: msg('Overlays'),
      run: () => hands.addOverlay(c),
    })),
    { id: 'product', title: msg('Add the product'), group, run: hands.addProduct },
    {
      id: 'duplicate',
      title: msg('Duplicate what is chosen'),
      group,
      keys: msg('Ctrl D'),
      run: hands.duplicate,
    },
    { id: 'remove', title: msg('Remove what is chosen'), group, keys: 'Delete', run: hands.remove },
  ];
}

function arrangeActions(hands: StageActionHandlers): Action[] {
  const actions: [id: string, title: string, run: () => void][] = [
    ['true-size', msg('Back to true size'), hands.trueSize],
    ['link', msg('Link what is chosen, to move as one'), () => hands.link(true)],
    ['unlink', msg('Unlink'), () => hands.link(false)],
    ...ALIGNMENTS.map((how): [string, string, () => void] => [
      `align-${how}`,
      how === 'bases'
        ? msg('Align the bases of what is chosen')
        : msg('Align what is chosen: {how}', { how }),
      () => hands.align(how),
    ]),
    ['across', msg('Distribute across'), () => hands.distribute('x')],
    ['down', msg('Distribute down'), () => hands.distribute('y')],
    ['same-width', msg('Same width as the first chosen'), () => hands.sameSize('width')],
    ['same-height', msg('Same height as the first chosen'), () => hands.sameSize('height')],
    ['forward', msg('Bring forward'), () => hands.depth(1)],
    ['back', msg('Send back'), () => hands.depth(-1)],
  ];
  return actions.map(([id, title, run]) => ({ id, title, group: msg('Stage'), run }));
}

function sizeActions(hands: StageActionHandlers, slots: readonly FedSlot[]): Action[] {
  const group = msg('Sizes');
  const show = (key: string | null) => () => useStage.getState().showSlot(key);
  return [
    { id: 'base', title: msg('Show the base'), group, run: show(null) },
    { id: 'all-sizes', title: msg('Show all sizes on one sheet'), group, run: () => hands.show('sizes') },
    { id: 'safe', title: msg('Show or hide the safe zone'), group, run: () => hands.toggleSafeZone() },
    {
      id: 'thumbnail',
      title: msg('Preview as a search-result thumbnail'),
      group,
      run: () => hands.show('thumbnail'),
    },
    ...slots.map((s) => ({
      id: s.key,
      title: msg('Show {slot} of {marketplace}', { slot: s.slot.title, marketplace: s.marketplace }),
      group,
      run: show(s.key),
    })),
  ];
}

/** Greys around the picture, to judge its brightness by. */
const SURROUNDS = [
  ['darker', '#8c8c8c'],
  [msg('as usual'), '#bdbdbd'],
  ['lighter', '#e6e6e6'],
];

function makeActions(hands: StageActionHandlers): Action[] {
  const group = msg('Listing');
  return [
    ...SURROUNDS.map(([name, value]) => ({
      id: `surround-${name}`,
      title: msg('Surround of the picture {name}', { name }),
      group: msg('Look'),
      run: () => document.documentElement.style.setProperty('--stage', value),
    })),
    { id: 'export', title: msg('Export one picture'), group, run: () => hands.make('picture') },
    { id: 'template', title: msg('Keep this shot as a template'), group, run: () => hands.make('template') },
    { id: 'proof', title: msg('Make a proof sheet'), group, run: () => hands.make('proof') },
    { id: 'deliver', title: msg('Deliver pictures of this listing'), group, run: () => hands.deliver() },
  ];
}
