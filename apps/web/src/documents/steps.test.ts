import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { stepsOf, type Steps } from './steps';

interface Doc {
  at: number;
  name: string;
}

function opened() {
  let state: Steps<Doc> = { document: { at: 0, name: 'a' }, gestureBase: null, past: [], future: [] };
  let stored = 0;
  const steps = stepsOf<Doc>(
    () => state,
    (value) => (state = { ...state, ...value }),
    () => stored++,
  );
  return {
    ...steps,
    by: (n: number) => (d: Doc) => ({ ...d, at: d.at + n }),
    at: () => state.document!.at,
    labels: () => state.past.map((p) => p.label),
    stored: () => stored,
  };
}
beforeEach(() => void jest.useFakeTimers({ now: 0 }));
afterEach(() => void jest.useRealTimers());

test('what is repeated at once is one step, undone whole and done again whole', () => {
  const d = opened();
  for (let i = 0; i < 30; i++) {
    d.repeat('Nudge', d.by(1));
    jest.advanceTimersByTime(30);
  }
  expect([d.at(), d.labels()]).toEqual([30, ['Nudge']]);
  d.undo();
  expect([d.at(), d.labels()]).toEqual([0, []]);
  d.redo();
  expect(d.at()).toBe(30);
});

test('after a pause, another change or an undo, a repeat is a step of its own', () => {
  const d = opened();
  d.repeat('Nudge', d.by(1));
  jest.advanceTimersByTime(800);
  d.repeat('Nudge', d.by(1));
  d.edit('Rename', (v) => ({ ...v, name: 'b' }));
  d.repeat('Nudge', d.by(1));
  expect(d.labels()).toEqual(['Nudge', 'Nudge', 'Rename', 'Nudge']);
  d.undo();
  d.repeat('Nudge', d.by(1));
  expect(d.labels()).toEqual(['Nudge', 'Nudge', 'Rename', 'Nudge']);
  d.repeat('Turn', d.by(5));
  expect(d.labels()).toHaveLength(5);
});

test('a repeat that comes back to where it began leaves no step', () => {
  const d = opened();
  d.edit('Before', d.by(7));
  d.repeat('Nudge', d.by(1));
  d.repeat('Nudge', d.by(-1));
  expect([d.at(), d.labels()]).toEqual([7, ['Before']]);
  d.undo();
  expect(d.at()).toBe(0);
});

test('what changes nothing is no step and is not stored', () => {
  const d = opened();
  d.edit('Nothing', (v) => ({ ...v }));
  d.finish('Nothing');
  expect([d.labels(), d.stored()]).toEqual([[], 0]);
});

test('a gesture is one step from where it began; given up, it never was', () => {
  const d = opened();
  for (let i = 1; i <= 5; i++) d.during(d.by(i));
  expect([d.at(), d.stored()]).toEqual([5, 0]);
  d.abandon();
  expect(d.at()).toBe(0);
  d.during(d.by(3));
  d.finish('Drag');
  expect([d.at(), d.labels(), d.stored()]).toEqual([3, ['Drag'], 1]);
});

test('undo in the middle of a gesture takes back the step before it, not the gesture', () => {
  const d = opened();
  d.edit('One', d.by(1));
  d.during(d.by(100));
  d.undo();
  expect([d.at(), d.labels()]).toEqual([0, []]);
});

test('what a held key, quick presses of it or the wheel change is one step, through whatever control', () => {
  const d = opened();
  const press = (key: string, then: () => void, more = {}) => {
    const field = document.createElement('input');
    document.body.append(field);
    field.addEventListener('keydown', then);
    field.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, ...more }));
    field.remove();
    jest.advanceTimersByTime(30);
  };
  for (let i = 0; i < 4; i++) press('ArrowUp', () => d.edit('Width', d.by(1)));
  expect(d.labels()).toEqual(['Width']);
  press('ArrowUp', () => {
    d.during(d.by(1));
    d.finish('Width');
  });
  expect(d.labels()).toEqual(['Width']);
  press('ArrowUp', () => d.edit('Height', d.by(1)));
  press('Enter', () => d.edit('Height', d.by(1)));
  press('ArrowUp', () => d.edit('Height', d.by(1)), { ctrlKey: true });
  expect(d.labels()).toEqual(['Width', 'Height', 'Height', 'Height']);
  jest.advanceTimersByTime(2000);
  press('ArrowUp', () => d.edit('Height', d.by(1)));
  expect(d.labels()).toHaveLength(5);
  d.undo();
  d.undo();
  d.undo();
  d.undo();
  expect(d.at()).toBe(5);
  d.undo();
  expect(d.at()).toBe(0);
});
