import fc from 'fast-check';
import { baseSchema } from '../elements/base';
import { elementKind, elementKinds, scaledElement, type ShotElement } from '../elements/index';
import { emptyShot, readShot, SHOT_VERSION, type Shot } from './document';
import { data, FRAME, ONE_OF_EACH } from './one-of-each.fixture';
import { whiteShot } from './starters';

const shotOf = (elements: ShotElement[]): Shot => ({ ...emptyShot(FRAME.width, FRAME.height), elements });
const copy = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T;

test('there is one of each kind here', () => {
  expect(ONE_OF_EACH.map((e) => e.kind).sort()).toEqual(
    elementKinds()
      .map((k) => k.kind)
      .sort(),
  );
});

test('a shot of every kind is read back as it was written', () => {
  const shot = shotOf(ONE_OF_EACH);
  expect(readShot(copy(shot))).toEqual(shot);
});

describe.each(ONE_OF_EACH.map((e) => [e.kind, e] as const))('%s', (kind, element) => {
  const own = elementKind(kind);

  test('its schema asks for exactly the keys that an element has', () => {
    const asked = Object.keys({ ...baseSchema, ...own.schema }).sort();
    expect(asked).toEqual(Object.keys(element).sort());
  });

  test('without any one of its keys, or with a foreign one, the document is refused with that name', () => {
    for (const key of Object.keys(own.schema)) {
      const { [key as keyof ShotElement]: _, ...less } = copy(element);
      expect(() => readShot(shotOf([less as ShotElement]))).toThrow(key);
    }
    const more = { ...copy(element), sparkle: 1 } as unknown as ShotElement;
    expect(() => readShot(shotOf([more]))).toThrow(/sparkle/);
  });

  test('scaled by 1 it is itself; there and back again is where it was; its box is left alone', () => {
    expect(scaledElement(element, 1)).toEqual(element);
    fc.assert(
      fc.property(fc.double({ min: 0.2, max: 5, noNaN: true }), (factor) => {
        const scaled = scaledElement(element, factor);
        expect(scaled.box).toEqual(element.box);
        const back = scaledElement(scaled, 1 / factor);
        numbersOf(back).forEach((v, i) => expect(v).toBeCloseTo(numbersOf(element)[i], 6));
      }),
      { numRuns: 20 },
    );
  });

  test('what it needs are content hashes and fonts by name', () => {
    const { pictures, fonts } = own.needs(element);
    for (const picture of pictures) expect(picture).toMatch(/^[0-9a-f]{64}$/);
    for (const font of fonts) expect(font).not.toBe('');
  });

  test('bound to data and to none it stays a valid element, and the original is not changed', () => {
    const before = copy(element);
    for (const given of [data, null]) {
      const bound = own.bind?.(element, given, new Set()) ?? element;
      expect(() => readShot(shotOf([copy(bound) as ShotElement]))).not.toThrow();
    }
    expect(element).toEqual(before);
  });
});

/** Every number in a value, in its order. */
function numbersOf(value: unknown): number[] {
  if (typeof value === 'number') return [value];
  return value && typeof value === 'object' ? Object.values(value).flatMap(numbersOf) : [];
}

test('a document that is broken anywhere is refused with a sentence, never with a stack', () => {
  const whole = copy(shotOf(ONE_OF_EACH)) as unknown as Record<string, unknown>;
  const paths = pathsOf(whole);
  const wrong = fc.constantFrom<unknown>(undefined, null, -1, 1e9, 'x'.repeat(300), [], {}, true);
  fc.assert(
    fc.property(fc.constantFrom(...paths), wrong, (path, value) => {
      const broken = copy(whole);
      setAt(broken, path, value);
      try {
        readShot(broken);
      } catch (error) {
        expect((error as Error).message).toMatch(/^(This|The) .+\.$/s);
        expect(error).not.toBeInstanceOf(TypeError);
      }
    }),
    { numRuns: 1500 },
  );
});

function pathsOf(value: unknown, at: string[] = []): string[][] {
  if (!value || typeof value !== 'object') return at.length ? [at] : [];
  const inner = Object.entries(value).flatMap(([key, v]) => pathsOf(v, [...at, key]));
  return at.length ? [at, ...inner] : inner;
}

function setAt(value: unknown, path: string[], to: unknown): void {
  const holder = path.slice(0, -1).reduce((v, key) => (v as Record<string, unknown>)[key], value);
  (holder as Record<string, unknown>)[path[path.length - 1]] = to;
}

test('what is no document at all is refused with a sentence', () => {
  for (const value of [null, undefined, 7, 'shot', [], {}, { version: SHOT_VERSION + 1 }, { version: 'x' }])
    expect(() => readShot(value)).toThrow(/\w+ .+\./);
});

test('two elements of one id, and a difference that makes an element invalid, are refused', () => {
  const shot = whiteShot(data, 'stand');
  const twice = { ...shot, elements: [...shot.elements, shot.elements[1]] };
  expect(() => readShot(copy(twice))).toThrow(/duplicate/);
  const id = shot.elements[1].id;
  const fits = { 'k/main': { frame: FRAME, elements: { [id]: { opacity: 7 } } } };
  expect(() => readShot(copy({ ...shot, fits }))).toThrow(/difference kept for k\/main/);
});
