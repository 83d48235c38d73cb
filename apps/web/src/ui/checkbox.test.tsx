import { expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import { allTicked, Checkbox } from './controls';

function Several({ onChange }: { onChange(chosen: string[]): void }) {
  const all = ['Teal', 'Ochre', 'Oxblood'];
  const [chosen, setChosen] = useState(['Teal']);
  const set = (next: string[]) => {
    setChosen(next);
    onChange(next);
  };
  return (
    <>
      <Checkbox
        label="All"
        checked={allTicked(chosen.length, all.length)}
        onChange={(on) => set(on ? all : [])}
      />
      {all.map((name) => (
        <label key={name}>
          <Checkbox
            checked={chosen.includes(name)}
            disabled={name === 'Oxblood' && !chosen.includes(name)}
            onChange={(on) => set(on ? [...chosen, name] : chosen.filter((c) => c !== name))}
          />
          {name}
        </label>
      ))}
    </>
  );
}
const box = (name: string) => screen.getByRole('checkbox', { name });

test('a box is named by its label, ticked by mouse, words and keyboard, and one that is off stays', async () => {
  const changed = jest.fn();
  render(<Several onChange={changed} />);
  const user = userEvent.setup();
  expect(box('Teal')).toBeChecked();
  await user.click(screen.getByText('Ochre'));
  expect(changed).toHaveBeenLastCalledWith(['Teal', 'Ochre']);
  box('Teal').focus();
  await user.keyboard(' ');
  expect(box('Teal')).not.toBeChecked();
  await user.click(box('Oxblood'));
  expect(changed).toHaveBeenLastCalledWith(['Ochre']);
});

test('the box for all says none, some or all; from some it takes all, from all none', async () => {
  const changed = jest.fn();
  render(<Several onChange={changed} />);
  const user = userEvent.setup();
  expect(box('All')).toBePartiallyChecked();
  await user.click(box('All'));
  expect(changed).toHaveBeenLastCalledWith(['Teal', 'Ochre', 'Oxblood']);
  expect(box('All')).toBeChecked();
  await user.click(box('All'));
  expect(changed).toHaveBeenLastCalledWith([]);
  expect(box('All')).not.toBeChecked();
});
