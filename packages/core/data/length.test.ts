import fc from 'fast-check';
import { fromMillimetres, toMillimetres, writeLength, writeSize } from './length';

test('lengths are written in the unit that is asked for', () => {
  expect(writeLength(148, 'mm')).toBe('148 mm');
  expect(writeLength(148, 'in')).toBe('5.83 in');
  expect(writeLength(25.4, 'in')).toBe('1 in');
  expect(writeLength(70.64, 'mm', 1)).toBe('70.6 mm');
  expect(writeSize(136.2, 70.6, 'mm', 1)).toBe('136.2 x 70.6 mm');
  expect(writeSize(254, 127, 'in')).toBe('10 x 5 in');
});

test('there and back again nothing is lost, and what is written is right to half a millimetre', () => {
  fc.assert(
    fc.property(fc.double({ min: -5000, max: 20000, noNaN: true }), (mm) => {
      expect(toMillimetres(fromMillimetres(mm, 'in'), 'in')).toBeCloseTo(mm, 6);
      expect(toMillimetres(fromMillimetres(mm, 'mm'), 'mm')).toBe(mm);
      for (const unit of ['mm', 'in'] as const)
        expect(Math.abs(toMillimetres(parseFloat(writeLength(mm, unit)), unit) - mm)).toBeLessThanOrEqual(
          0.5 + 1e-9,
        );
    }),
  );
});
