import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ServerRefusal } from '../api/client';
import { createDocumentStore, type Stored } from './document-store';

interface Doc {
  list: number[];
}
const EMPTY: Stored<Doc> = { document: { list: [] }, history: { past: [], future: [] }, revision: 1 };

/** A store whose server is a value: what was stored, or what it answers instead. */
function made(answer?: () => Promise<{ revision: number }>) {
  const sent: Stored<Doc>[] = [];
  const store = createDocumentStore<Doc, { note: string }>({
    async put(_id, body) {
      sent.push(structuredClone(body));
      return answer ? answer() : { revision: body.revision + 1 };
    },
    theirs: (detail) => detail as Stored<Doc>,
    extra: () => ({ note: '' }),
  });
  store.open('a', EMPTY, { note: 'open' });
  return { store, sent, state: () => store.use.getState() };
}
const push =
  (n: number) =>
  (d: Doc): Doc => ({ list: [...d.list, n] });

/** What a person may do, and the simplest model of it: finished documents with a place among them, and a drag. */
const ACTS = ['edit', 'during', 'finish', 'abandon', 'undo', 'redo'] as const;

test('whatever is done in whatever order, the document is what a list of finished states says', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom(...ACTS), { maxLength: 60 }), (acts) => {
      const { state } = made();
      let states: number[][] = [[]];
      let at = 0;
      let drag: number[] | null = null;
      let n = 0;
      const finish = (next: number[]) => {
        if (next.length !== states[at].length) {
          states = [...states.slice(0, at + 1), next];
          at++;
        }
        drag = null;
      };
      for (const act of acts) {
        n++;
        if (act === 'edit') {
          state().edit('Edit', push(n));
          finish([...states[at], n]);
        } else if (act === 'during') {
          state().during(push(n));
          drag = [...states[at], n];
        } else if (act === 'finish') {
          state().finish('Drag');
          finish(drag ?? states[at]);
        } else if (act === 'abandon') {
          state().abandon();
          drag = null;
        } else if (act === 'undo') {
          state().undo();
          if (at > 0) {
            at--;
            drag = null;
          }
        } else {
          state().redo();
          if (at < states.length - 1) {
            at++;
            drag = null;
          }
        }
        expect(state().document!.list).toEqual(drag ?? states[at]);
        expect([state().past.length, state().future.length]).toEqual([at, states.length - 1 - at]);
      }
    }),
    { numRuns: 300 },
  );
});

test('what is stored is the last finished document, never one in mid-drag', async () => {
  const { store, sent, state } = made();
  state().edit('One', push(1));
  state().during(push(2));
  expect(await store.save()).toBe(true);
  expect(sent.map((s) => s.document.list)).toEqual([[1]]);
  expect(state().document!.list).toEqual([1, 2]);
  state().finish('Two');
  expect(await store.save()).toBe(true);
  expect(sent.at(-1)).toMatchObject({ revision: 2, document: { list: [1, 2] } });
  expect(await store.save()).toBe(true);
  expect(sent).toHaveLength(2);
});

test('what is changed while it is being stored is stored after it, on the new revision', async () => {
  let let_go: (v: { revision: number }) => void = () => undefined;
  let first = true;
  const { store, sent, state } = made(() => {
    if (!first) return Promise.resolve({ revision: 3 });
    first = false;
    return new Promise((resolve) => (let_go = resolve));
  });
  state().edit('One', push(1));
  const saving = store.save();
  state().edit('Two', push(2));
  let_go({ revision: 2 });
  expect(await saving).toBe(true);
  expect(sent.map((s) => [s.revision, s.document.list])).toEqual([
    [1, [1]],
    [2, [1, 2]],
  ]);
});

test('a save that fails loses nothing and says so; the next try stores it', async () => {
  let down = true;
  const { store, sent, state } = made(() =>
    down
      ? Promise.reject(new ServerRefusal('The server cannot be reached.', 0))
      : Promise.resolve({ revision: 2 }),
  );
  state().edit('One', push(1));
  expect(await store.save()).toBe(false);
  expect([state().saving, state().document!.list]).toEqual(['offline', [1]]);
  down = false;
  expect(await store.save()).toBe(true);
  expect([state().saving, sent.length]).toEqual(['saved', 2]);
});

test('a conflict keeps both until a person chooses; then one of them stands', async () => {
  const theirs = { document: { list: [9] }, history: { past: [], future: [] }, revision: 5 };
  const refused = () => Promise.reject(new ServerRefusal('It was changed elsewhere.', 409, theirs));
  const one = made(refused);
  one.state().edit('Mine', push(1));
  expect(await one.store.save()).toBe(false);
  expect(one.state().conflict).toMatchObject({
    message: 'It was changed elsewhere.',
    document: { list: [9] },
  });
  one.state().edit('Still mine', push(2));
  expect(one.state().saving).toBe('conflict');
  one.state().takeTheirs();
  expect([one.state().document!.list, one.state().revision, one.state().saving]).toEqual([[9], 5, 'saved']);

  let answers = 0;
  const two = made(() => (answers++ ? Promise.resolve({ revision: 6 }) : refused()));
  two.state().edit('Mine', push(1));
  await two.store.save();
  two.state().keepMine();
  expect(await two.store.save()).toBe(true);
  expect(two.sent.at(-1)).toMatchObject({ revision: 5, document: { list: [1] } });
});

test('another document that is opened meanwhile is not touched by the answer to the first', async () => {
  let let_go: (v: { revision: number }) => void = () => undefined;
  const { store, state } = made(() => new Promise((resolve) => (let_go = resolve)));
  state().edit('One', push(1));
  const saving = store.save();
  store.open('b', { ...EMPTY, revision: 40 }, { note: 'other' });
  let_go({ revision: 2 });
  await saving;
  expect([state().id, state().revision, state().note]).toEqual(['b', 40, 'other']);
});
