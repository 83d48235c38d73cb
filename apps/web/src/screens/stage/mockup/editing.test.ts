import { expect, test } from '@jest/globals';
import type { Artwork } from '../../../api/client';
import { designOf } from './editing';

const artwork = (over: Partial<Artwork>) =>
  ({
    title: 'Leaf',
    original: 'a'.repeat(64),
    picture: 'b'.repeat(64),
    width: 400,
    height: 300,
    vector: false,
    whiteGround: false,
    covers: false,
    ...over,
  }) as Artwork;

test('white that a design lies on is taken away, and then it covers nothing; a photo covers', () => {
  expect(designOf(artwork({ covers: true, whiteGround: true }))).toMatchObject({
    knockOut: 1,
    covers: false,
  });
  expect(designOf(artwork({ covers: true }))).toMatchObject({ knockOut: 0, covers: true });
  expect(designOf(artwork({}))).toMatchObject({ knockOut: 0, covers: false });
});

test('the colours of a drawing stay apart, those of pixels are not listed', () => {
  expect(designOf(artwork({ vector: true })).drawn).toEqual({ svg: 'a'.repeat(64), inks: {} });
  expect(designOf(artwork({})).drawn).toBeNull();
});
