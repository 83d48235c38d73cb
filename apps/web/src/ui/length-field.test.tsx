import { beforeEach, expect, jest, test } from '@jest/globals';
import { act, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { LengthField, LengthSlider, useLengthUnit } from './length-field';

const kept = jest.fn();
const field = () => screen.getByLabelText<HTMLInputElement>('Height');
const show = (value: number | null = 148) => {
  render(<LengthField label="Height" value={value} min={1} max={2000} onCommit={kept} />);
  return userEvent.setup();
};
const type = async (user: ReturnType<typeof userEvent.setup>, text: string) => {
  await user.clear(field());
  await user.type(field(), `${text}{Enter}`);
};

beforeEach(() => {
  kept.mockClear();
  useLengthUnit.setState({ unit: 'mm' });
});

test('in millimetres a length is as it is kept', async () => {
  const user = show();
  expect(field().value).toBe('148');
  await type(user, '150');
  expect(kept).toHaveBeenCalledWith(150);
});

test('in inches it is shown and typed in inches, and kept in millimetres', async () => {
  useLengthUnit.setState({ unit: 'in' });
  const user = show();
  expect(field().value).toBe('5.83');
  await type(user, '6');
  expect(kept.mock.calls[0][0]).toBeCloseTo(152.4, 6);
});

test('another unit may be written, whatever is shown', async () => {
  useLengthUnit.setState({ unit: 'in' });
  const user = show();
  await type(user, '20 cm');
  expect(kept.mock.calls[0][0]).toBeCloseTo(200, 6);
});

test('what was not changed stays as exact as it is', async () => {
  useLengthUnit.setState({ unit: 'in' });
  const user = show(148.37);
  await user.click(field());
  await user.keyboard('{Enter}');
  expect(kept).not.toHaveBeenCalled();
});

test('limits are lengths too, and the unit is changed at once and kept', async () => {
  const user = show();
  act(() => {
    useLengthUnit.setState({ unit: 'in' });
  });
  expect(field().value).toBe('5.83');
  await type(user, '500');
  expect(kept.mock.calls[0][0]).toBeCloseTo(2000, 6);
  expect(JSON.parse(localStorage.getItem('scenograph-length-unit')!)).toMatchObject({
    state: { unit: 'in' },
  });
});

test('a slider steps by a twentieth of an inch', async () => {
  useLengthUnit.setState({ unit: 'in' });
  render(<LengthSlider label="Lift" value={50.8} max={400} onChange={() => undefined} onCommit={kept} />);
  const thumb = screen.getByRole('slider', { name: 'Lift' });
  expect(thumb.getAttribute('aria-valuenow')).toBe('2');
  thumb.focus();
  await userEvent.setup().keyboard('{ArrowRight}');
  expect(kept.mock.calls[0][0]).toBeCloseTo(2.05 * 25.4, 4);
});
