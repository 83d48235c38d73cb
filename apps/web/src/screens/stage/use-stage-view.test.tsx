import { beforeEach, expect, test } from '@jest/globals';
import { fireEvent, render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useRef } from 'react';
import { dragWith } from '../../../test/desk';
import { CommandMenu } from '../../ui/actions';
import { useStageView } from './use-stage-view';
import { ZoomBar } from './zoom-bar';

const ROOM = { width: 800, height: 600 };
const BOX = { x: 100, y: 100, width: 100, height: 100, rotation: 0 };

function Stage({ frame = { width: 2000, height: 1000 }, box = BOX as typeof BOX | null }) {
  const room = useRef<HTMLDivElement>(null);
  const { view, left, top, hands, pan } = useStageView(room, ROOM, frame, box);
  return (
    <>
      <div ref={room} data-testid="room" {...pan.handlers}>
        <output>{[view.zoom, left, top].map((v) => v.toFixed(3)).join(' ')}</output>
        <ZoomBar frame={frame} zoom={view.zoom} hands={hands} anyChosen={box !== null} />
      </div>
      <input aria-label="Left" />
      <CommandMenu />
    </>
  );
}
const numbers = () => screen.getByRole('status').textContent.split(' ').map(Number);
const zoom = () => numbers()[0];
const FITTED = 0.364;

beforeEach(() => {
  Element.prototype.setPointerCapture = () => undefined;
});

test('keys, buttons and menu zoom; F fits again', async () => {
  render(<Stage />);
  const user = userEvent.setup();
  expect(zoom()).toBe(FITTED);
  await user.keyboard('a');
  expect(zoom()).toBe(1);
  await user.keyboard('+');
  expect(zoom()).toBe(1.5);
  await user.click(screen.getByRole('button', { name: 'Zoom out' }));
  await user.click(screen.getByRole('button', { name: 'Zoom out' }));
  expect(zoom()).toBe(0.667);
  expect(screen.getByRole('button', { name: /67 %/ })).toBeTruthy();
  await user.keyboard('F');
  expect(zoom()).toBe(5.28);
  await user.keyboard('f');
  expect(zoom()).toBe(FITTED);
  await user.keyboard('{Control>}k{/Control}');
  await user.click(await screen.findByText('Actual pixels, 100 %'));
  expect(zoom()).toBe(1);
});

test('in a field the keys write', async () => {
  render(<Stage />);
  await userEvent.type(screen.getByLabelText('Left'), '1+a-f');
  expect(zoom()).toBe(FITTED);
});

test('the wheel zooms to the pointer', () => {
  render(<Stage />);
  const [, left] = numbers();
  fireEvent.wheel(screen.getByTestId('room'), { deltaY: -500, clientX: 0, clientY: 300 });
  const [after, nowLeft] = numbers();
  expect(after).toBeGreaterThan(FITTED);
  // What was at the left rim of the room is there still.
  expect(-nowLeft / after).toBeCloseTo(-left / FITTED, 0);
});

test('the middle button, or Space and drag, moves the view', async () => {
  render(<Stage />);
  const room = screen.getByTestId('room');
  const drag = (button: number) => dragWith(button, room, [100, 100], [130, 90]);
  const before = numbers();
  drag(0);
  expect(numbers()).toEqual(before);
  const user = userEvent.setup();
  await user.keyboard('a{ >}');
  const near = numbers();
  drag(0);
  const moved = numbers();
  expect([moved[1] - near[1], moved[2] - near[2]]).toEqual([30, -10]);
  await user.keyboard('{/ }');
  drag(0);
  expect(numbers()).toEqual(moved);
  drag(1);
  expect(numbers()[1] - moved[1]).toBe(30);
});

test('a frame of another size is fitted anew; with nothing chosen there is nothing to fit', async () => {
  const { rerender } = render(<Stage />);
  await userEvent.keyboard('a');
  rerender(<Stage frame={{ width: 1000, height: 1000 }} box={null} />);
  expect(zoom()).toBe(0.528);
  expect(screen.getByRole('button', { name: 'Fit what is chosen' })).toBeDisabled();
  await userEvent.keyboard('F');
  expect(zoom()).toBe(0.528);
});
