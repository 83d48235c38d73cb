import { expect, test } from '@jest/globals';
import { refusalOf } from './refusals';

test('a sentence of ours is told; what the language says of a fault of ours is not', () => {
  expect(refusalOf(new Error('An element has no name.'), 'The shot').message).toBe('An element has no name.');
  const faults = [
    () => (undefined as unknown as { elements: [] }).elements,
    () => (3 as unknown as { map(): void }).map(),
    () => new Array(-1),
    () => JSON.parse('{'),
  ];
  for (const fault of faults) {
    let thrown: unknown;
    try {
      fault();
    } catch (error) {
      thrown = error;
    }
    expect(refusalOf(thrown, 'The shot').message).toBe(
      'The shot cannot be read: a part of it is not what it should be.',
    );
  }
});
