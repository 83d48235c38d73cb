import fc from 'fast-check';
import { isGround, type ShotElement } from '../elements/index';
import { clipOf, readClip, withClip } from './clip';
import { emptyShot, readShot, type Shot } from './document';
import { FRAME, ONE_OF_EACH } from './one-of-each.fixture';

const ALL: Shot = { ...emptyShot(FRAME.width, FRAME.height), elements: ONE_OF_EACH };
const NONE = { x: 0, y: 0 };
const side = fc.integer({ min: 16, max: 4000 });
const some = fc.subarray(
  ONE_OF_EACH.map((e) => e.id),
  { minLength: 1 },
);

test('any elements can be put into any shot: what was there stays, what is new has its own id and is valid', () => {
  fc.assert(
    fc.property(some, side, side, fc.boolean(), (ids, width, height, full) => {
      const into = { ...emptyShot(width, height), elements: full ? ONE_OF_EACH : [] };
      const clip = readClip(JSON.stringify(clipOf(ALL, ids)));
      const { shot, ids: made } = withClip(into, clip, { x: 0.06, y: 0.02 });
      expect(readShot(JSON.parse(JSON.stringify(shot)))).toEqual(shot);
      expect(shot.elements.slice(0, into.elements.length)).toEqual(into.elements);
      expect(shot.elements.slice(into.elements.length).map((e) => e.id)).toEqual(made);
      expect(made).toHaveLength(ids.filter((id) => id !== 'backdrop').length);
    }),
    { numRuns: 150 },
  );
});

test('put back into its own shot an element is the same but for its id, its name and its place', () => {
  for (const element of ONE_OF_EACH.filter((e) => !isGround(e))) {
    const { shot } = withClip(ALL, clipOf(ALL, [element.id]), NONE);
    const copy = shot.elements[shot.elements.length - 1];
    expect({ ...copy, id: element.id, name: element.name }).toEqual(element);
    expect(copy.name).toBe(`${element.name}, copy`);
  }
});

test('a name of the greatest length stays within it', () => {
  const named = { ...ALL, elements: ALL.elements.map((e) => ({ ...e, name: 'n'.repeat(120) })) };
  const { shot } = withClip(named, clipOf(named, ['badge']), NONE);
  expect(readShot(shot).elements.at(-1)!.name).toMatch(/n, copy$/);
});

test('copies of a group are a group of their own, and one of them alone is in none', () => {
  const linked = (e: ShotElement) =>
    ['badge', 'stars', 'text'].includes(e.id) ? { ...e, link: 'group' } : e;
  const grouped: Shot = { ...ALL, elements: ALL.elements.map(linked) };
  const links = (ids: string[]) => {
    const { shot, ids: made } = withClip(grouped, clipOf(grouped, ids), NONE);
    return made.map((id) => shot.elements.find((e) => e.id === id)!.link);
  };
  const [badge, stars, logo] = links(['badge', 'stars', 'logo']);
  expect(badge).toBe(stars);
  expect([badge, logo]).toEqual([expect.not.stringMatching(/^group$/), null]);
  expect(links(['badge'])).toEqual([null]);
});

test('a callout points at the copy of its product where that comes along, else where it did', () => {
  const pointing = {
    ...ALL,
    elements: ALL.elements.map((e) => (e.kind === 'callout' ? { ...e, of: 'product' } : e)),
  };
  const of = (ids: string[]) => withClip(pointing, clipOf(pointing, ids), NONE).shot.elements.at(-1);
  expect(of(['product', 'callout'])).toMatchObject({ kind: 'callout', of: 'product-1' });
  expect(of(['callout'])).toMatchObject({ of: 'product' });
});

test('in every slot a copy looks as its original does there, in a slot of another size by its share', () => {
  const box = { x: 100, y: 50, width: 40, height: 20, rotation: 5 };
  const small = {
    frame: { width: 500, height: 250 },
    elements: { badge: { opacity: 0.4, box }, text: { hidden: true } },
  };
  const shot: Shot = { ...ALL, fits: { 'a/b': small } };
  const clip = clipOf(shot, ['badge']);
  expect(Object.keys(clip.fits['a/b'].elements)).toEqual(['badge']);
  const here = withClip(shot, clip, { x: 0.1, y: 0.1 }).shot.fits['a/b'].elements;
  expect(here['badge-1']).toEqual({ opacity: 0.4, box: { ...box, x: 150, y: 75 } });
  expect([here.badge, here.text]).toEqual([small.elements.badge, small.elements.text]);
  const doubled = { 'a/b': { frame: { width: 1000, height: 500 }, elements: {} } };
  const there = withClip({ ...ALL, fits: doubled }, clip, NONE).shot.fits['a/b'];
  expect(there.elements['badge-1'].box).toEqual({ x: 200, y: 100, width: 80, height: 40, rotation: 5 });
});

test('what is no clip is refused with a sentence', () => {
  expect(() => readClip('{')).toThrow('What was copied cannot be read. Copy it again.');
  expect(() => readClip('[]')).toThrow(/JSON object/);
  expect(() => readClip('{"version":999}')).toThrow(/999/);
});
