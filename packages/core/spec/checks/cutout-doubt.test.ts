import { expect, test } from '@jest/globals';
import { LOOKS_RIGHT } from '../../cutout/confidence';
import { judgeCutout } from './index';

const product = [{ kind: 'text' }, { kind: 'product' }];
const of = (confidence: number | null, severity?: 'stop' | 'look' | 'off', elements = product) =>
  judgeCutout(elements, confidence, severity);

test('a cutout fails below a half and is a warning below what looks right', () => {
  expect(of(0.1)).toMatchObject({ check: 'cutout', verdict: 'stop', measured: 'needs a hand' });
  expect(of(0.49)).toMatchObject({ verdict: 'stop' });
  expect(of(0.5)).toMatchObject({ verdict: 'look', measured: 'look at it' });
  expect(of(LOOKS_RIGHT - 0.001)).toMatchObject({ verdict: 'look' });
  expect(of(LOOKS_RIGHT)).toBeNull();
});

test('a cutout that a person vouches for is not doubted, nor one that the picture does not show', () => {
  expect(of(null)).toBeNull();
  expect(of(0.1, undefined, [{ kind: 'text' }])).toBeNull();
});

test('the slot sets the severity of a doubt, or does not ask', () => {
  expect(of(0.1, 'look')).toMatchObject({ verdict: 'look' });
  expect(of(0.7, 'stop')).toMatchObject({ verdict: 'stop' });
  expect(of(0.1, 'off')).toBeNull();
});
