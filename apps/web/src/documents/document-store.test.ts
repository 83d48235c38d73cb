import { beforeEach, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { ServerRefusal } from '../api/client';
import { createDocumentStore } from './document-store';
import type { DocumentKind, Stored } from './document';
import { keepUnsent, unsentOf } from './outbox';

interface Doc {
  list: number[];
}
const EMPTY: Stored<Doc> = { document: { list: [] }, history: { past: [], future: [] }, revision: 1 };

/** How the documents of these tests are stored: what was sent is kept, what is answered is given. */
function kindOf(
  answer: (body: Stored<Doc>) => Promise<{ revision: number }> = (body) =>
    Promise.resolve({ revision: body.revision + 1 }),
  more: Partial<DocumentKind<Doc>> = {},
) {
  const sent: Stored<Doc>[] = [];
  const kind: DocumentKind<Doc> = {
    name,
    word: 'list',
    path: (id) => `/lists/${id}`,
    put(_id, body) {
      sent.push(structuredClone(body));
      return answer(body);
    },
    theirs: (detail) => detail as Stored<Doc>,
    ...more,
  };
  return { kind, sent };
}

function made(
  answer?: (body: Stored<Doc>) => Promise<{ revision: number }>,
  more?: Partial<DocumentKind<Doc>>,
) {
  const { kind, sent } = kindOf(answer, more);
  const store = createDocumentStore<Doc, { note: string }>(kind, () => ({ note: '' }));
  void store.open('a', EMPTY, { note: 'open' });
  return { store, sent, state: () => store.use.getState() };
}
/** Each test has its own place in the outbox: stores of earlier ones may still be saving. */
let name = '';
let tests = 0;
beforeEach(() => {
  name = `test-${++tests}`;
});
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
  void store.open('b', { ...EMPTY, revision: 40 }, { note: 'other' });
  let_go({ revision: 2 });
  await saving;
  expect([state().id, state().revision, state().note]).toEqual(['b', 40, 'other']);
});

const offline = () => Promise.reject(new ServerRefusal('The server cannot be reached.', 0));
const kept = async () => (await unsentOf<Doc>(name, 'a'))?.body;

test('what is changed waits in the outbox until the server has it', async () => {
  let down = true;
  const { store, state } = made((body) =>
    down ? offline() : Promise.resolve({ revision: body.revision + 1 }),
  );
  state().edit('One', push(1));
  expect(await kept()).toMatchObject({ revision: 1, document: { list: [1] } });
  await store.save();
  expect([state().saving, state().reason]).toEqual(['offline', 'The server cannot be reached.']);
  expect(await kept()).toMatchObject({ document: { list: [1] } });
  down = false;
  await store.save();
  expect([await kept(), state().reason]).toEqual([undefined, null]);
});

test('a screen left while the server was away takes its changes up again, with their history, and stores them', async () => {
  const first = made(offline);
  first.state().edit('One', push(1));
  await first.store.save();

  const second = made();
  await second.store.open('a', EMPTY);
  expect(second.state().document!.list).toEqual([1]);
  expect(await second.store.save()).toBe(true);
  expect(second.sent).toMatchObject([{ revision: 1, document: { list: [1] } }]);
  second.state().undo();
  expect(second.state().document!.list).toEqual([]);
});

test('unsent changes of an older revision are put to the choice, and neither side is lost', async () => {
  await keepUnsent({ kind: name, id: 'a', changedAt: 0, body: { ...EMPTY, document: { list: [1] } } });
  const { store, sent, state } = made();
  await store.open('a', { ...EMPTY, document: { list: [9] }, revision: 4 });
  expect(state()).toMatchObject({
    saving: 'conflict',
    document: { list: [1] },
    conflict: { document: { list: [9] }, revision: 4 },
  });
  expect(await kept()).toMatchObject({ document: { list: [1] } });
  state().keepMine();
  await store.save();
  expect(sent).toMatchObject([{ revision: 4, document: { list: [1] } }]);
  expect(await kept()).toBeUndefined();
});

test('unsent changes that the server has by now are no conflict', async () => {
  await keepUnsent({ kind: name, id: 'a', changedAt: 0, body: { ...EMPTY, document: { list: [1] } } });
  const { store, state } = made();
  await store.open('a', { ...EMPTY, document: { list: [1] }, revision: 2 });
  expect([state().saving, state().revision, await kept()]).toEqual(['saved', 2, undefined]);
});

test('an answer that was lost on the way is no conflict, whether or not more was changed since', async () => {
  for (const more of [false, true]) {
    let stored: Stored<Doc> = EMPTY;
    let lost = true;
    const { store, state } = made((body) => {
      if (body.revision !== stored.revision)
        return Promise.reject(new ServerRefusal('It was changed elsewhere.', 409, stored));
      stored = { ...structuredClone(body), revision: body.revision + 1 };
      if (!lost) return Promise.resolve({ revision: stored.revision });
      lost = false;
      return offline();
    });
    state().edit('One', push(1));
    expect(await store.save()).toBe(false);
    if (more) state().edit('Two', push(2));
    expect(await store.save()).toBe(true);
    expect([state().conflict, stored.document.list]).toEqual([null, more ? [1, 2] : [1]]);
  }
});

test('what the server refuses is kept, with its reason, until it is changed', async () => {
  const { store, sent, state } = made((body) =>
    body.document.list.includes(13)
      ? Promise.reject(new ServerRefusal('13 is not taken.', 422))
      : Promise.resolve({ revision: body.revision + 1 }),
  );
  state().edit('Thirteen', push(13));
  expect(await store.save()).toBe(false);
  expect([state().saving, state().reason, state().document!.list]).toEqual([
    'refused',
    '13 is not taken.',
    [13],
  ]);
  expect(await kept()).toMatchObject({ document: { list: [13] } });
  state().undo();
  expect(await store.save()).toBe(true);
  expect(sent.at(-1)!.document.list).toEqual([]);
});

test('what another window stores is shown at once, but never over what is not stored here', async () => {
  const { store, state } = made(offline);
  const theirs = (revision: number, ...list: number[]): Stored<Doc> => ({
    ...EMPTY,
    document: { list },
    revision,
  });
  store.arrived('a', theirs(2, 7));
  expect([state().document!.list, state().revision]).toEqual([[7], 2]);
  store.arrived('b', theirs(9, 9));
  store.arrived('a', theirs(1, 1));
  expect(state().document!.list).toEqual([7]);
  state().during(push(8));
  store.arrived('a', theirs(3, 3));
  expect(state().document!.list).toEqual([7, 8]);
  state().finish('Eight');
  store.arrived('a', theirs(3, 3));
  expect(state().document!.list).toEqual([7, 8]);
});

test('a draft is kept here over a reload and stored only when told to', async () => {
  const first = made(undefined, { asMade: false });
  first.state().edit('One', push(1));
  expect(first.state().saving).toBe('draft');
  await new Promise((done) => setTimeout(done, 600));
  expect(first.sent).toEqual([]);

  const second = made(undefined, { asMade: false });
  await second.store.open('a', EMPTY);
  expect([second.state().saving, second.state().document!.list]).toEqual(['draft', [1]]);
  expect(await second.store.save()).toBe(true);
  expect([second.sent.length, await kept()]).toEqual([1, undefined]);
});
