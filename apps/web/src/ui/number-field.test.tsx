import { expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState, type ComponentProps } from 'react';
import { NumberField } from './number-field';

/** A field whose value is kept, as on a desk. */
function shown(props: Partial<ComponentProps<typeof NumberField>> = {}) {
  const onCommit = jest.fn();
  function Kept() {
    const [value, setValue] = useState(props.value === undefined ? 24 : props.value);
    return (
      <NumberField
        label="Width"
        unit="px"
        {...props}
        value={value}
        onCommit={(next) => {
          onCommit(next);
          setValue(next);
        }}
      />
    );
  }
  render(
    <>
      <Kept />
      <button type="button">elsewhere</button>
    </>,
  );
  return { onCommit, field: screen.getByLabelText<HTMLInputElement>('Width') };
}

async function typed(field: HTMLElement, text: string) {
  await userEvent.clear(field);
  await userEvent.type(field, text);
}

test.each([
  ['48', 0, 48],
  ['1,200', 0, 1200],
  ['1.200', 0, 1200],
  ['1.5', 1, 1.5],
  ['1,5', 1, 1.5],
  ['2 * 40 + 4', 0, 84],
  ['12 px', 0, 12],
])('"%s" with %p decimals is committed by Enter as %p', async (text, digits, value) => {
  const { onCommit, field } = shown({ digits });
  await typed(field, `${text}{Enter}`);
  expect(onCommit.mock.calls).toEqual([[value]]);
  expect(field).toHaveValue(String(value));
});

test('Tab and a click elsewhere commit too', async () => {
  const { onCommit, field } = shown();
  await typed(field, '30');
  await userEvent.tab();
  expect(onCommit).toHaveBeenLastCalledWith(30);
  await typed(field, '31');
  await userEvent.click(screen.getByText('elsewhere'));
  expect(onCommit).toHaveBeenLastCalledWith(31);
});

test('Escape restores what was there, and nothing is committed', async () => {
  const { onCommit, field } = shown();
  await typed(field, '99{Escape}');
  expect(field).toHaveValue('24');
  await userEvent.tab();
  expect(onCommit).not.toHaveBeenCalled();
});

test('what cannot be read is marked, can be put right, and is given up on leaving', async () => {
  const { onCommit, field } = shown();
  await typed(field, 'wide{Enter}');
  expect(field).toBeInvalid();
  expect(field).toHaveValue('wide');
  expect(field).toHaveAccessibleDescription(/cannot be read as a number of px\. Write one such as 12\.5/);
  expect(screen.getByRole('alert')).toBeVisible();
  await typed(field, '26{Enter}');
  expect(screen.queryByRole('alert')).toBeNull();
  expect(field).toBeValid();
  expect(onCommit).toHaveBeenLastCalledWith(26);
  await typed(field, '3 kg');
  await userEvent.tab();
  expect(field).toHaveValue('26');
});

test('limits hold, and the field says what counts even where that is the old value', async () => {
  const { onCommit, field } = shown({ min: 1, max: 24 });
  await typed(field, '500{Enter}');
  expect(onCommit).toHaveBeenLastCalledWith(24);
  expect(field).toHaveValue('24');
});

test('arrow keys step, by ten with Shift, from what is typed', async () => {
  const { onCommit, field } = shown();
  await userEvent.click(field);
  await userEvent.keyboard('{ArrowUp}');
  expect(onCommit).toHaveBeenLastCalledWith(25);
  await userEvent.keyboard('{Shift>}{ArrowDown}{/Shift}');
  expect(onCommit).toHaveBeenLastCalledWith(15);
  await typed(field, '100{ArrowUp}');
  expect(onCommit).toHaveBeenLastCalledWith(101);
  await typed(field, '1.200{ArrowUp}');
  expect(onCommit).toHaveBeenLastCalledWith(1201);
});

test('a value that is more exact than it is shown is not rounded by looking at it', async () => {
  const { onCommit, field } = shown({ value: 12.345 });
  expect(field).toHaveValue('12');
  await userEvent.click(field);
  await userEvent.keyboard('{Enter}');
  await userEvent.tab();
  expect(onCommit).not.toHaveBeenCalled();
});

test('lengths are converted to the unit of the field', async () => {
  const { onCommit, field } = shown({ unit: 'mm', digits: 1 });
  await typed(field, '2 in{Enter}');
  expect(onCommit).toHaveBeenLastCalledWith(50.8);
});
