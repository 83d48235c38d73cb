import { beforeEach, expect, test } from '@jest/globals';
import { http, HttpResponse } from 'msw';
import { newText } from '@scenograph/core/shot/starters';
import { FRAME } from '@scenograph/core/shot/one-of-each.fixture';
import { server } from '../../../test/server';
import { boxOf, onStage, stage, STAGED, stepsBack } from '../../../test/stage';
import { add, depth, duplicate, link, remove } from './commands';
import { useStage } from './store';

const ids = () => useStage.getState().document!.elements.map((e) => e.id);
const chosen = () => useStage.getState().selected;

beforeEach(() => server.use(http.put('*/api/shots/:id', () => HttpResponse.json({ revision: 9 }))));

test('what is added lies in front and is chosen; undo takes it away again', () => {
  stage('left');
  add(() => newText('new', 'Hello', FRAME));
  expect(ids().at(-1)).toBe('new');
  expect(chosen()).toBe('new');
  useStage.getState().undo();
  expect(ids()).not.toContain('new');
});

test('the chosen element is removed, unless it is locked', () => {
  stage('left', [], {
    ...STAGED,
    elements: STAGED.elements.map((e) => (e.id === 'right' ? { ...e, locked: true } : e)),
  });
  remove();
  expect(ids()).not.toContain('left');
  expect(chosen()).toBeNull();
  useStage.getState().select('right');
  remove();
  expect(ids()).toContain('right');
});

test('a copy lies just before the first, a little aside, free of its lock and its group', () => {
  stage('left', [], {
    ...STAGED,
    elements: STAGED.elements.map((e) => (e.id === 'left' ? { ...e, link: 'pair' } : e)),
  });
  duplicate();
  const copy = chosen()!;
  expect(ids().indexOf(copy)).toBe(ids().indexOf('left') + 1);
  expect(onStage(copy)).toMatchObject({ name: 'left, copy', link: null, locked: false });
  expect(boxOf(copy).x).toBeGreaterThan(boxOf('left').x);
  duplicate();
  expect(new Set(ids()).size).toBe(ids().length);
});

test('a copy looks in every slot as its original does there, and goes with undo', () => {
  const look = { opacity: 0.4, box: { ...STAGED.elements.find((e) => e.id === 'left')!.box, x: 700 } };
  const fit = { frame: { width: 1000, height: 500 }, elements: { left: look, right: { hidden: true } } };
  stage('left', [], { ...STAGED, fits: { 'harbour/main': fit } });
  duplicate();
  const { elements } = useStage.getState().document!.fits['harbour/main'];
  expect(elements[chosen()!]).toMatchObject({
    opacity: 0.4,
    box: { ...look.box, x: 760, y: look.box.y + 10 },
  });
  expect([elements.left, elements.right]).toEqual([look, { hidden: true }]);
  useStage.getState().undo();
  expect(Object.keys(useStage.getState().document!.fits['harbour/main'].elements)).toEqual(['left', 'right']);
});

test('a ground is not copied', () => {
  stage('backdrop');
  duplicate();
  expect(ids()).toHaveLength(STAGED.elements.length);
});

test('depth moves by one place, and never out of the list or under the ground', () => {
  stage('left');
  depth(1);
  expect(ids()).toEqual(['backdrop', 'product', 'right', 'left', 'text']);
  for (let i = 0; i < 8; i++) depth(-1);
  expect(ids()[0]).toBe('backdrop');
  expect(ids()[1]).toBe('left');
  for (let i = 0; i < 8; i++) depth(1);
  expect(ids().at(-1)).toBe('left');
});

test('linked, elements are one group; unlinking any of them lets all go', () => {
  stage('left', ['right']);
  link(true);
  expect(onStage('left').link).toBe(onStage('right').link);
  expect(onStage('left').link).not.toBeNull();
  expect(onStage('text').link).toBeNull();
  stage('right', [], useStage.getState().document!);
  link(false);
  expect(onStage('left').link).toBeNull();
  expect(onStage('right').link).toBeNull();
});

test('every command is one named step', () => {
  stage('left');
  depth(1);
  duplicate();
  remove();
  expect(stepsBack()).toEqual(['Bring forward', 'Duplicate left', 'Remove left, copy']);
});

test('with nothing chosen nothing happens', () => {
  stage(null);
  remove();
  duplicate();
  depth(1);
  link(true);
  expect(stepsBack()).toEqual([]);
});
