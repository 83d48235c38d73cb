import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { data } from '@scenograph/core/shot/one-of-each.fixture';
import type { ProductElement } from '@scenograph/core/elements/product/model';
import { basePoint } from '@scenograph/core/stage/stand';
import { EMPTY_KIT } from '@scenograph/core/brand/kit';
import { cellFitKey, resolveBase, resolveForSlot } from '@scenograph/core/shot/resolve';
import type { CheckResult } from '@scenograph/core/spec/checks/check';
import { act, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { MemoryRouter } from 'react-router';
import { answering } from '../../../test/answering';
import { MOMENT, OCHRE, product, SHEET, uuid, variant } from '../../../test/listing';
import { boxOf, onStage, stage, STAGED, stepsBack } from '../../../test/stage';
import { checksSummary } from './checks-section';
import { Desk } from './desk';
import { DepthStrip } from './depth-strip';
import { moveDepth, patchElement, type SlotTarget } from './editing';
import { useStage } from './store';
import { useEditing } from './use-editing';

beforeEach(() => {
  answering({
    'PUT /api/shots/:id': { revision: 2, updatedAt: MOMENT },
    'GET /api/brand': { kit: EMPTY_KIT, revision: 1, history: { past: [], future: [] } },
    'GET /api/effects': [],
    'GET /api/scenes': [],
    'GET /api/pictures': [],
    'GET /api/fonts': [],
  });
});
const FED = { key: 'harbour/front', slot: SHEET.slots[0], marketplace: 'Harbour Market' };
const TROWEL = product(uuid(30), 'Trowel', [variant(OCHRE, 'Ochre')]);
const onSwap = jest.fn();
afterEach(() => void onSwap.mockClear());

/** The desk as the stage shows it. */
function Shown({
  slot,
  results,
  cell = false,
}: {
  slot: boolean;
  results: CheckResult[] | null;
  cell?: boolean;
}) {
  const shot = useStage((s) => s.document)!;
  const [open, setOpen] = useState(['place', 'fit', 'checks']);
  const [own, setOwn] = useState(false);
  const key = own ? cellFitKey(FED.key, 'v') : FED.key;
  const active = slot ? { ...FED, key } : null;
  const target: SlotTarget | null = active;
  const resolved = active ? resolveForSlot(shot, FED.key, FED.slot, data) : resolveBase(shot, data);
  const editing = useEditing(resolved, target, data, () => undefined);
  return (
    <MemoryRouter>
      <Desk
        shot={shot}
        resolved={resolved}
        active={active}
        cell={cell ? { title: 'Teal', on: own, onChange: setOwn } : null}
        fed={[FED]}
        results={results}
        editing={editing}
        open={open}
        onOpen={setOpen}
        onAddText={() => undefined}
        onSwap={onSwap}
      />
    </MemoryRouter>
  );
}
function desk(
  selected: string | null,
  props: Partial<Parameters<typeof Shown>[0]> = {},
  also: string[] = [],
) {
  stage(selected, also);
  render(<Shown slot={false} results={null} {...props} />);
  return userEvent.setup();
}
const field = (name: string) => screen.getByRole('textbox', { name });
const type = async (user: ReturnType<typeof userEvent.setup>, name: string, text: string) => {
  await user.clear(field(name));
  await user.type(field(name), `${text}{Enter}`);
};

test('numbers that are typed are taken, each as one step with its name', async () => {
  const user = desk('left');
  await type(user, 'Left', '40');
  await type(user, 'Top', '2*35');
  await type(user, 'Rotation', '-15');
  expect(boxOf('left')).toMatchObject({ x: 40, y: 70, rotation: -15 });
  expect(stepsBack()).toEqual(['Move left', 'Move left', 'Rotate left']);
});

test('a width keeps the shape and the middle of the lower edge; a product stays on its base', async () => {
  const user = desk('left');
  await type(user, 'Width', '100');
  expect(boxOf('left')).toEqual({ x: 150, y: 150, width: 100, height: 50, rotation: 0 });
  act(() => {
    useStage.getState().undo();
    useStage.getState().select('product');
  });
  const before = boxOf('product');
  const stood = basePoint(onStage('product') as ProductElement);
  await type(user, 'Height', String(before.height / 2));
  const after = boxOf('product');
  expect(after.width / after.height).toBeCloseTo(before.width / before.height, 2);
  const base = basePoint(onStage('product') as ProductElement);
  expect([base.x, base.y]).toEqual([expect.closeTo(stood.x, 0), expect.closeTo(stood.y, 0)]);
});

test('a typed size leaves the point in place that is told to stay, and the shape where the lock is on', async () => {
  const user = desk('text');
  const lock = screen.getByRole('button', { name: 'Keep proportions' });
  expect(lock).toHaveAttribute('aria-pressed', 'true');
  await user.click(screen.getByRole('radio', { name: 'top left' }));
  await type(user, 'Width', '200');
  expect(boxOf('text')).toMatchObject({ x: 300, y: 700, width: 200, height: 40 });
  await user.click(lock);
  await user.click(screen.getByRole('radio', { name: 'right' }));
  await type(user, 'Width', '100');
  expect(boxOf('text')).toMatchObject({ x: 400, y: 700, width: 100, height: 40 });
  await type(user, 'Height', '60');
  expect(boxOf('text')).toMatchObject({ x: 400, y: 690, width: 100, height: 60 });
  expect(stepsBack()).toEqual(['Scale Text', 'Resize Text', 'Resize Text']);
  await user.click(lock);
  await user.click(screen.getByRole('radio', { name: 'bottom' }));
});

test('what keeps its shape has no lock to open, and a product no point to choose', () => {
  desk('left');
  expect(screen.getByRole('button', { name: 'Keep proportions' })).toBeDisabled();
  act(() => useStage.getState().select('product'));
  expect(screen.queryByRole('radio', { name: 'top left' })).toBeNull();
  expect(screen.getByText('Sized on its base')).toBeVisible();
});

test('what was typed for one element is not taken for another that is chosen meanwhile', async () => {
  const user = desk('left');
  await user.clear(field('Rotation'));
  await user.type(field('Rotation'), '45');
  act(() => useStage.getState().select('right'));
  await user.tab();
  expect([boxOf('left').rotation, boxOf('right').rotation]).toEqual([0, 0]);
  expect(field('Rotation')).toHaveValue('0');
});

test('what is locked cannot be placed by number or removed, and is unlocked here', async () => {
  const user = desk('left');
  await user.click(screen.getByRole('button', { name: 'Lock' }));
  for (const name of ['Left', 'Top', 'Width', 'Height', 'Rotation']) expect(field(name)).toBeDisabled();
  expect(screen.getByRole('button', { name: 'Remove' })).toBeDisabled();
  await user.click(screen.getByRole('button', { name: 'Unlock' }));
  expect(field('Left')).toBeEnabled();
});

test('the ground has no place of its own', () => {
  desk('backdrop');
  expect(screen.queryByRole('textbox', { name: 'Left' })).toBeNull();
  expect(screen.queryByRole('button', { name: 'Duplicate' })).toBeNull();
});

test('several that are chosen can be aligned; two cannot be spread', async () => {
  const user = desk('left', {}, ['right']);
  const box = within(screen.getByRole('group', { name: '2 chosen' }));
  expect(box.getByRole('button', { name: 'Distribute across' })).toBeDisabled();
  await user.click(box.getByRole('button', { name: 'Left' }));
  expect(boxOf('right').x).toBe(boxOf('left').x);
});

test('a product can be swapped for another', async () => {
  answering({ 'GET /api/products': { brand: null, total: 1, products: [TROWEL] } });
  const user = desk('product');
  await user.click(screen.getByRole('button', { name: 'Swap for another product' }));
  const search = within(screen.getByRole('dialog', { name: 'Swap Planter for' }));
  await user.click(await search.findByRole('option', { name: /Trowel/ }));
  expect(onSwap).toHaveBeenCalledWith(expect.objectContaining({ id: OCHRE, title: 'Trowel' }));
  expect(screen.queryByRole('dialog')).toBeNull();
});

test('in a slot the desk says so, and what is typed stays there or in one cell', async () => {
  const user = desk('left', { slot: true, cell: true });
  expect(screen.getByText(/Changes stay in this slot/)).toHaveTextContent(
    'You are on Front, Harbour Market.',
  );
  await type(user, 'Left', '44');
  expect(boxOf('left')).toEqual(STAGED.elements[2].box);
  expect(Object.keys(useStage.getState().document!.fits)).toEqual([FED.key]);
  await user.click(screen.getByRole('checkbox', { name: 'For Teal only' }));
  await type(user, 'Top', '55');
  expect(Object.keys(useStage.getState().document!.fits)).toEqual([FED.key, cellFitKey(FED.key, 'v')]);
});

const check = (over: Partial<CheckResult>): CheckResult => ({
  check: 'contrast',
  title: 'Contrast',
  verdict: 'look',
  measured: '3.1',
  limit: 'at least 4.5',
  sentence: 'The words are hard to read.',
  ...over,
});

test('each value that a slot has of its own says so, and follows the base or becomes it with one click', async () => {
  const fits = {
    [FED.key]: {
      frame: { width: FED.slot.width, height: FED.slot.height },
      elements: { text: { text: 'Only here', opacity: 0.5 } },
    },
  };
  stage('text', [], { ...STAGED, fits });
  render(<Shown slot results={null} />);
  const user = userEvent.setup();
  const own = () => Object.keys(useStage.getState().document!.fits[FED.key]?.elements.text ?? {});
  await user.click(screen.getByRole('button', { name: /Overlays/ }));
  const words = screen.getByRole('group', { name: "Words, this slot's own" });
  expect(within(words).getByRole('textbox')).toHaveValue('Only here');
  await user.click(within(words).getByRole('button', { name: 'Make it the base' }));
  expect(onStage('text')).toMatchObject({ text: 'Only here', opacity: 1 });
  expect(own()).toEqual(['opacity']);
  expect(screen.queryByRole('group', { name: "Words, this slot's own" })).toBeNull();
  act(() => useStage.getState().undo());
  const list = screen.getByRole('list', { name: 'What this slot changes of Text' });
  await user.click(within(list).getByRole('button', { name: 'Text, words: follow the base' }));
  expect(own()).toEqual(['opacity']);
  expect(onStage('text')).not.toMatchObject({ text: 'Only here' });
});

test('checks are summed up in words, and what one is about is chosen', async () => {
  expect(checksSummary(null)).toEqual({ words: 'measuring' });
  expect(checksSummary([])).toEqual({ words: 'all pass' });
  expect(checksSummary([check({}), check({}), check({ verdict: 'stop' })]).words).toBe(
    '1 failed, 2 warnings',
  );
  const about = { id: 'text', name: 'Words' } as CheckResult['about'];
  const user = desk('left', { results: [check({ about })] });
  await user.click(screen.getByRole('button', { name: 'Choose it' }));
  expect(useStage.getState().selected).toBe('text');
});

test('overlays are put into the order in which they are kept', async () => {
  const user = desk('left');
  const order = () =>
    within(screen.getByRole('list', { name: 'Importance of overlays' }))
      .getAllByRole('listitem')
      .map((li) => li.textContent.replace(/\d/g, ''));
  const [first] = order();
  await user.click(screen.getByRole('button', { name: `Less important: ${first}` }));
  expect(order()[1]).toBe(first);
  expect(stepsBack()).toEqual(['Change importance']);
  expect(screen.getByRole('button', { name: `More important: ${order()[0]}` })).toBeDisabled();
});

/** The strip over the shot that is on the stage. */
function Strip() {
  const { document: shot, selected, also, select, choose, edit } = useStage();
  return (
    <DepthStrip
      elements={shot!.elements}
      looks={shot!.elements}
      selected={selected}
      also={also}
      onSelect={select}
      onChoose={choose}
      onMove={(id, to) => edit('Change depth', (s) => moveDepth(s, id, to))}
      onHide={(id, hidden) => edit('Hide', (s) => patchElement(s, id, { hidden }, null))}
      onLock={(id, locked) => edit('Lock', (s) => patchElement(s, id, { locked }, null))}
      onRename={(id, name) => edit('Rename', (s) => patchElement(s, id, { name }, null))}
      casts={new Map([['product', ['left']]])}
    >
      <span />
    </DepthStrip>
  );
}
function strip(selected = 'left') {
  stage(selected);
  render(<Strip />);
  return userEvent.setup();
}
const slats = () =>
  screen.getAllByRole('button').flatMap((b) => (b.dataset.slat ? [b.getAttribute('aria-label')] : []));
const slat = (name: RegExp) => screen.getAllByRole('button', { name }).find((b) => b.dataset.slat)!;

test('slats stand from back to front and say what is special about them', () => {
  strip();
  expect(slats()).toEqual([
    'Backdrop',
    'Planter, casts on left',
    'left',
    'right',
    expect.stringMatching(/^\w+/),
  ]);
  expect(slat(/^left/)).toHaveAttribute('aria-pressed', 'true');
});

test('by keyboard slats are gone through, chosen, moved and renamed', async () => {
  const user = strip();
  slat(/^left/).focus();
  await user.keyboard('{ArrowRight}');
  expect(slat(/^right/)).toHaveFocus();
  await user.keyboard('{Alt>}{ArrowLeft}{/Alt}');
  expect(slats().slice(2, 4)).toEqual(['right', 'left']);
  await user.keyboard('{F2}');
  await user.clear(screen.getByRole('textbox', { name: 'New name' }));
  await user.keyboard('Tag{Enter}');
  expect(onStage('right').name).toBe('Tag');
  expect(stepsBack()).toEqual(['Change depth', 'Rename']);
});

test('Escape keeps the old name, and the same name is no step', async () => {
  const user = strip();
  for (const keys of ['Other{Escape}', '{Enter}']) {
    await user.dblClick(slat(/^left/));
    await user.type(screen.getByRole('textbox', { name: 'New name' }), keys);
  }
  expect(onStage('left').name).toBe('left');
  expect(stepsBack()).toEqual([]);
});

test('with Shift another is chosen too; hidden and locked are said and taken back', async () => {
  const user = strip();
  await user.keyboard('{Shift>}');
  await user.click(slat(/^right/));
  await user.keyboard('{/Shift}');
  expect(useStage.getState()).toMatchObject({ selected: 'left', also: ['right'] });
  await user.click(screen.getByRole('button', { name: 'Hide left' }));
  await user.click(screen.getByRole('button', { name: 'Lock left' }));
  expect(slat(/^left/)).toHaveAccessibleName('left, hidden, locked');
  await user.click(screen.getByRole('button', { name: 'Show left' }));
  await user.click(screen.getByRole('button', { name: 'Unlock left' }));
  expect(slat(/^left/)).toHaveAccessibleName('left');
});
