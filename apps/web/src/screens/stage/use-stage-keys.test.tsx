import { beforeEach, expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useStage } from './store';
import { useStageKeys } from './use-stage-keys';

const hands = { nudge: jest.fn(), remove: jest.fn(), duplicate: jest.fn() };
function Stage() {
  useStageKeys(hands);
  return (
    <>
      <button type="button">Hide shots</button>
      <input aria-label="Left" />
      <button type="button" data-slat="badge">
        Badge
      </button>
    </>
  );
}

beforeEach(() => {
  jest.clearAllMocks();
  useStage.setState({ selected: 'product' });
  render(<Stage />);
});

test('with nothing focused keys act on what is selected', async () => {
  await userEvent.keyboard('{ArrowLeft}{Shift>}{ArrowDown}{/Shift}{Control>}d{/Control}{Delete}');
  expect(hands.nudge.mock.calls).toEqual([
    [-1, 0],
    [0, 10],
  ]);
  expect(hands.duplicate).toHaveBeenCalledTimes(1);
  expect(hands.remove).toHaveBeenCalledTimes(1);
});

test('Delete on a button, or in a field, removes nothing', async () => {
  screen.getByText('Hide shots').focus();
  await userEvent.keyboard('{Delete}{Backspace}');
  screen.getByLabelText('Left').focus();
  await userEvent.keyboard('{Delete}{Backspace}{ArrowLeft}{Control>}d{/Control}');
  expect([hands.remove, hands.nudge, hands.duplicate].map((f) => f.mock.calls.length)).toEqual([0, 0, 0]);
  expect(useStage.getState().selected).toBe('product');
});

test('on a slat Delete removes that element, and arrows are the strip’s', async () => {
  screen.getByText('Badge').focus();
  await userEvent.keyboard('{ArrowRight}');
  expect(hands.nudge).not.toHaveBeenCalled();
  await userEvent.keyboard('{Delete}');
  expect(useStage.getState().selected).toBe('badge');
  expect(hands.remove).toHaveBeenCalledTimes(1);
});

test('Escape lets go of the selection', async () => {
  await userEvent.keyboard('{Escape}');
  expect(useStage.getState().selected).toBeNull();
});
