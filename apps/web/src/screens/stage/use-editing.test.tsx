import { beforeEach, expect, jest, test } from '@jest/globals';
import { data } from '@scenograph/core/shot/one-of-each.fixture';
import { resolveBase, resolveForSlot } from '@scenograph/core/shot/resolve';
import { act, cleanup, renderHook } from '@testing-library/react';
import fc from 'fast-check';
import { answering } from '../../../test/answering';
import { MOMENT, SHEET } from '../../../test/listing';
import { boxOf, onStage, stage, STAGED, stepsBack } from '../../../test/stage';
import type { SlotTarget } from './editing';
import { useStage } from './store';
import { useEditing } from './use-editing';

beforeEach(() => {
  answering({ 'PUT /api/shots/:id': { revision: 2, updatedAt: MOMENT } });
  stage('left');
});
const SLOT: SlotTarget = { key: 'harbour/front', slot: SHEET.slots[0] };

/** The hook as the stage uses it: with the picture of what is there now. */
function editing(target: SlotTarget | null = null) {
  const onAdded = jest.fn();
  const { result } = renderHook(() => {
    const shot = useStage((s) => s.document)!;
    const seen = target ? resolveForSlot(shot, target.key, target.slot, data) : resolveBase(shot, data);
    return useEditing(seen, target, data, onAdded);
  });
  const undo = () => act(() => useStage.getState().undo());
  return { now: () => result.current, undo, onAdded };
}

test('a drag is one step, from where it began, however it went', () => {
  const { now, undo } = editing();
  for (const [dx, dy] of [[5, 5], [200, -300], [40, 30]]) act(() => now().drag('left', dx, dy, 0, false)); // prettier-ignore
  act(() => now().drag('left', 40, 30, 0, true));
  expect(boxOf('left')).toMatchObject({ x: 140, y: 130, width: 200, height: 100 });
  expect(stepsBack()).toEqual(['Move left']);
  undo();
  expect(boxOf('left')).toEqual(STAGED.elements[2].box);
});

test('near another’s edge a drag is caught and shows a guide; far from it, or when asked not to, it is not', () => {
  const { now } = editing();
  act(() => now().drag('left', 197, 0, 10, false));
  expect(boxOf('left').x + boxOf('left').width).toBe(500);
  expect(now().guides.length).toBeGreaterThan(0);
  act(() => now().drag('left', 197, 0, 0, true));
  expect(boxOf('left').x).toBe(297);
  expect(now().guides).toEqual([]);
});

test('steps of a held arrow key are one step; another element’s are another', () => {
  const { now, undo } = editing();
  for (let i = 0; i < 12; i++) act(() => now().nudge(1, 0));
  act(() => useStage.getState().select('right'));
  act(() => now().nudge(0, 10));
  expect(stepsBack()).toEqual(['Nudge left', 'Nudge right']);
  expect([boxOf('left').x, boxOf('right').y]).toEqual([112, 310]);
  undo();
  undo();
  expect(boxOf('left').x).toBe(100);
});

test('what is locked, and the ground, is neither nudged nor removed', () => {
  const locked = STAGED.elements.map((e) => (e.id === 'left' ? { ...e, locked: true } : e));
  stage('left', [], { ...STAGED, elements: locked });
  const { now } = editing();
  act(() => now().nudge(5, 5));
  act(() => now().remove());
  act(() => useStage.getState().select('backdrop'));
  act(() => now().nudge(5, 5));
  act(() => now().duplicate());
  expect(stepsBack()).toEqual([]);
});

test('what is linked moves together, also by number; scaling leaves the others', () => {
  stage('left', ['right']);
  const { now, undo } = editing();
  act(() => now().link(true));
  act(() => now().drag('left', 10, 20, 0, true));
  expect([boxOf('left').x, boxOf('right').x, boxOf('right').y]).toEqual([110, 510, 320]);
  act(() => now().place('Move', onStage('left'), { ...boxOf('left'), x: 0 }, false));
  expect([boxOf('left').x, boxOf('right').x]).toEqual([0, 400]);
  act(() => now().place('Scale', onStage('left'), { ...boxOf('left'), width: 300, height: 150 }, true));
  expect([boxOf('left').width, boxOf('right').x, boxOf('right').width]).toEqual([300, 400, 100]);
  for (let i = 0; i < 4; i++) undo();
  expect(useStage.getState().document).toEqual(STAGED);
});

test('letting one of a group go lets all of it go', () => {
  stage('left', ['right']);
  const { now } = editing();
  act(() => now().link(true));
  expect(onStage('backdrop').link).toBeNull();
  act(() => useStage.getState().select('right'));
  act(() => now().link(false));
  expect([onStage('left').link, onStage('right').link]).toEqual([null, null]);
});

test('several are aligned and spread as one step', () => {
  stage('left', ['right', 'text']);
  const { now, undo } = editing();
  act(() => now().align('left'));
  expect(new Set(['left', 'right', 'text'].map((id) => boxOf(id).x)).size).toBe(1);
  undo();
  act(() => now().distribute('x'));
  expect(stepsBack()).toEqual(['Distribute across']);
  undo();
  expect(useStage.getState().document).toEqual(STAGED);
});

test('a copy lies before what it was made of, is chosen, and is linked with nothing', () => {
  stage('left', ['right']);
  const { now } = editing();
  act(() => now().link(true));
  act(() => useStage.getState().select('left'));
  act(() => now().duplicate());
  const { elements } = useStage.getState().document!;
  const copy = elements[elements.findIndex((e) => e.id === 'left') + 1];
  expect(copy).toMatchObject({ name: 'left, copy', link: null, locked: false });
  expect(useStage.getState().selected).toBe(copy.id);
  expect(new Set(elements.map((e) => e.id)).size).toBe(elements.length);
});

test('what is removed takes its differences in slots with it', () => {
  const { now } = editing(SLOT);
  act(() => now().drag('left', 5, 5, 0, true));
  expect(useStage.getState().document!.fits[SLOT.key].elements.left).toBeDefined();
  act(() => now().remove());
  expect(useStage.getState().document!.fits[SLOT.key]?.elements.left).toBeUndefined();
  expect(useStage.getState().selected).toBeNull();
});

test('in a slot a change stays in the slot: the base is as it was', () => {
  const { now } = editing(SLOT);
  act(() => now().drag('left', 30, 0, 0, true));
  act(() => now().patch('Fade', { opacity: 0.5 }));
  act(() => now().nudge(0, 4));
  expect(useStage.getState().document!.elements).toEqual(STAGED.elements);
  const own = useStage.getState().document!.fits[SLOT.key].elements.left;
  expect(own).toMatchObject({ opacity: 0.5, box: { x: expect.any(Number) } });
});

test('a value that is dragged is one step, and a finished one another', () => {
  const { now, undo } = editing();
  for (const opacity of [0.9, 0.6, 0.3]) act(() => now().during({ opacity }));
  act(() => now().patch('Fade', { opacity: 0.3 }));
  act(() => now().patch('Fade', { opacity: 1 }));
  expect(stepsBack()).toEqual(['Fade', 'Fade']);
  undo();
  expect(onStage('left').opacity).toBe(0.3);
});

test('with nothing chosen nothing happens', () => {
  stage(null);
  const { now } = editing();
  act(() => now().nudge(1, 1));
  act(() => now().remove());
  act(() => now().duplicate());
  act(() => now().depth(1));
  act(() => now().link(true));
  act(() => now().align('left'));
  act(() => now().patch('Fade', { opacity: 0 }));
  expect(stepsBack()).toEqual([]);
});

test('depth stops before the ground and at the front', () => {
  const { now } = editing();
  for (let i = 0; i < 9; i++) act(() => now().depth(1));
  expect(useStage.getState().document!.elements.at(-1)!.id).toBe('left');
  for (let i = 0; i < 9; i++) act(() => now().depth(-1));
  expect(
    useStage
      .getState()
      .document!.elements.slice(0, 2)
      .map((e) => e.id),
  ).toEqual(['backdrop', 'left']);
});

test('whatever is done in whatever order, undoing all of it gives the shot that was opened', () => {
  const acts = fc.array(
    fc.record({
      what: fc.constantFrom('nudge', 'drag', 'scale', 'copy', 'remove', 'depth', 'fade', 'choose'),
      n: fc.integer({ min: -60, max: 60 }),
      in: fc.constantFrom('left', 'right', 'product', 'text'),
    }),
    { maxLength: 14 },
  );
  fc.assert(
    fc.property(acts, fc.boolean(), (list, inSlot) => {
      cleanup();
      stage('left');
      const { now, undo } = editing(inSlot ? SLOT : null);
      for (const { what, n, in: id } of list)
        act(() => {
          const selected = useStage.getState().document!.elements.find((e) => e.id === id);
          if (what === 'choose') useStage.getState().select(selected ? id : null);
          else if (what === 'nudge') now().nudge(n, -n);
          else if (what === 'drag') now().drag(id, n, n, 0, true);
          else if (what === 'scale' && selected)
            now().transform(id, { ...selected.box, width: 200 + n, height: 100 + n / 2 }, true, true);
          else if (what === 'copy') now().duplicate();
          else if (what === 'remove') now().remove();
          else if (what === 'depth') now().depth(Math.sign(n));
          else if (what === 'fade') now().patch('Fade', { opacity: Math.abs(n) / 60 });
        });
      const steps = stepsBack().length;
      for (let i = 0; i < steps; i++) undo();
      expect(useStage.getState().document).toEqual(STAGED);
    }),
    { numRuns: 40 },
  );
});
