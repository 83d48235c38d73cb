import { expect, jest, test } from '@jest/globals';
import type { Light } from '@scenograph/core/stage/light';
import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { dragOver } from '../../../test/desk';
import { LightDome } from './light-dome';
import { DOME, isBehind } from './light-on-dome';

const LIGHT = { azimuthDeg: -40, elevationDeg: 50, softness: 0.4 };

function opened(light = LIGHT) {
  const onChange = jest.fn<(light: Light) => void>();
  const onCommit = jest.fn<(light: Light) => void>();
  const { container } = render(<LightDome light={light} onChange={onChange} onCommit={onCommit} />);
  const dome = container.querySelector('svg')!;
  // Drawn one to one: places on the dome are places on the screen.
  dome.getBoundingClientRect = () => ({ left: 0, top: 0, width: DOME.width, height: DOME.height }) as DOMRect;
  dome.setPointerCapture = () => undefined;
  return { onChange, onCommit, dome };
}
const knob = () => screen.getByRole('slider', { name: 'Light' });
const last = (f: ReturnType<typeof jest.fn<(light: Light) => void>>) =>
  f.mock.calls[f.mock.calls.length - 1][0];

test('where the light stands is said in degrees', () => {
  opened();
  expect(knob()).toHaveAttribute('aria-valuetext', '-40 degrees round, 50 degrees up');
  expect(screen.getByRole('radio', { name: 'Before the product' })).toBeChecked();
});

test.each([
  ['ArrowLeft', false, -2, 0],
  ['ArrowRight', false, 2, 0],
  ['ArrowUp', false, 0, 2],
  ['ArrowDown', true, 0, -10],
  ['ArrowRight', true, 10, 0],
])('%s (Shift: %p) turns it by %p and raises it by %p degrees', (key, shiftKey, round, up) => {
  const { onCommit } = opened();
  fireEvent.keyDown(knob(), { key, shiftKey });
  expect(last(onCommit)).toMatchObject({ azimuthDeg: -40 + round, elevationDeg: 50 + up, softness: 0.4 });
});

test('other keys do nothing to it', () => {
  const { onCommit } = opened();
  for (const key of ['Enter', 'a', 'PageUp']) fireEvent.keyDown(knob(), { key });
  expect(onCommit).not.toHaveBeenCalled();
});

test('dragged on the dome it is shown on the way and kept at the end', () => {
  const { dome, onChange, onCommit } = opened();
  dragOver(dome, [DOME.cx, DOME.base - 40], [DOME.cx + 30, DOME.base - 45], [DOME.cx + 50, DOME.base - 40]);
  expect(onChange.mock.calls.length).toBeGreaterThan(1);
  expect(onCommit).toHaveBeenCalledTimes(1);
  expect(last(onCommit).azimuthDeg).toBeGreaterThan(0);
  expect(last(onCommit).softness).toBe(0.4);
});

test('moving over it without a button pressed changes nothing', () => {
  const { dome, onChange } = opened();
  fireEvent(dome, new MouseEvent('pointermove', { bubbles: true, clientX: DOME.cx, clientY: 10 }));
  expect(onChange).not.toHaveBeenCalled();
});

test.each([
  ['Direction', '120', { azimuthDeg: 120 }],
  ['Direction', '500', { azimuthDeg: 180 }],
  ['Height', '12.4', { elevationDeg: 12.4 }],
  ['Height', '1', { elevationDeg: 5 }],
])('%s is typed as %s', async (label, text, changed) => {
  const { onCommit } = opened();
  const field = screen.getByRole('textbox', { name: label });
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
  expect(last(onCommit)).toEqual({ ...LIGHT, ...changed });
});

test('it goes behind the product and before it again, at the same height', async () => {
  const { onCommit } = opened();
  await userEvent.click(screen.getByRole('radio', { name: 'Behind it' }));
  expect(isBehind(last(onCommit))).toBe(true);
  expect(last(onCommit).elevationDeg).toBe(50);
});
