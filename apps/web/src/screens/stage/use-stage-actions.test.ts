import { beforeEach, expect, jest, test } from '@jest/globals';
import { emptyShot } from '@scenograph/core/shot/document';
import type { Slot } from '@scenograph/core/spec/slot';
import { STARTERS } from './kinds/index';
import { useStage } from './store';
import { stageActions, type StageActionHandlers } from './use-stage-actions';

const slot = (title: string) => ({ title, width: 1000, height: 1000 }) as Slot;
const SLOTS = [
  { key: 'kestrel/main', slot: slot('Main'), marketplace: 'Kestrel Market' },
  { key: 'oddment/hero', slot: slot('Hero'), marketplace: 'Oddment Lane' },
];

/** What was done, in words. */
let done: string[];
const told =
  (name: string) =>
  (...values: unknown[]) =>
    void done.push([name, ...values.map((v) => (typeof v === 'object' ? '…' : String(v)))].join(' '));
const HANDS = Object.fromEntries(
  [
    ...['addOverlay', 'addProduct', 'remove', 'duplicate', 'depth', 'align', 'distribute', 'sameSize'],
    ...['link', 'trueSize', 'show', 'toggleSafeZone', 'make', 'deliver'],
  ].map((name) => [name, told(name)]),
) as unknown as StageActionHandlers;

const actions = stageActions(HANDS, SLOTS);
const run = (id: string) => {
  done = [];
  actions.find((a) => a.id === id)!.run();
  return done;
};

beforeEach(() => {
  done = [];
  useStage.setState({ id: 'a', document: emptyShot(10, 10), past: [], future: [], slot: null });
});

test('every action has a name and an id of its own, and no two have the same keys', () => {
  for (const part of [(a: (typeof actions)[number]) => a.id, (a: (typeof actions)[number]) => a.title]) {
    const all = actions.map(part);
    expect(new Set(all).size).toBe(all.length);
  }
  const keys = actions.flatMap((a) => a.keys ?? []);
  expect(new Set(keys).size).toBe(keys.length);
});

test('an action does what its name says', () => {
  expect(run('remove')).toEqual(['remove']);
  expect(run('forward')).toEqual(['depth 1']);
  expect(run('back')).toEqual(['depth -1']);
  expect(run('link')).toEqual(['link true']);
  expect(run('unlink')).toEqual(['link false']);
  expect(run('across')).toEqual(['distribute x']);
  expect(run('down')).toEqual(['distribute y']);
  expect(run('same-width')).toEqual(['sameSize width']);
  expect(run('align-bases')).toEqual(['align bases']);
  expect(run('all-sizes')).toEqual(['show sizes']);
  expect(run('proof')).toEqual(['make proof']);
  expect(run('deliver')).toEqual(['deliver']);
});

test('everything that can be added is an action', () => {
  const choices = STARTERS.flatMap((g) => g.choices);
  expect(choices.length).toBeGreaterThan(10);
  for (const { id } of choices) expect(run(`add-${id}`)).toEqual(['addOverlay …']);
});

test('each slot is shown by its name and marketplace, and the base again', () => {
  expect(actions.find((a) => a.id === 'oddment/hero')!.title).toBe('Show Hero of Oddment Lane');
  run('oddment/hero');
  expect(useStage.getState().slot).toBe('oddment/hero');
  run('base');
  expect(useStage.getState().slot).toBeNull();
});

test('the surround is a grey, darker or lighter than as usual', () => {
  const grey = () => parseInt(document.documentElement.style.getPropertyValue('--stage').slice(1, 3), 16);
  run('surround-darker');
  const darker = grey();
  run('surround-as usual');
  const usual = grey();
  run('surround-lighter');
  expect([darker < usual, usual < grey()]).toEqual([true, true]);
});

test('undo and redo turn the history of the shot', () => {
  const undo = jest.fn();
  const redo = jest.fn();
  const { undo: was, redo: wasRedo } = useStage.getState();
  useStage.setState({ undo, redo });
  run('undo');
  run('redo');
  expect([undo.mock.calls.length, redo.mock.calls.length]).toEqual([1, 1]);
  useStage.setState({ undo: was, redo: wasRedo });
});
