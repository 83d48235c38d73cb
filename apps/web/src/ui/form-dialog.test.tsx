import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { expect, jest, test } from '@jest/globals';
import { useForm } from 'react-hook-form';
import { NumberField } from './controls';
import { FormDialog } from './form-dialog';
import { FormField } from './form-field';

interface Values {
  name: string;
  size: number;
}

function Asks({
  onSend,
  onClose = () => undefined,
  also,
  ready,
}: {
  onSend(values: Values): void | Promise<void>;
  onClose?(): void;
  also?: (values: Values) => void;
  ready?: boolean;
}) {
  const form = useForm<Values>({ defaultValues: { name: '', size: 5 } });
  return (
    <FormDialog
      form={form}
      title="Crate"
      send="Make it"
      onSend={onSend}
      onClose={onClose}
      ready={ready}
      also={also && { send: 'Make two', onSend: also }}
    >
      <FormField
        label="Name"
        error={form.formState.errors.name?.message}
        {...form.register('name', { validate: (v) => !!v.trim() || 'It needs a name.' })}
      />
      <NumberField label="Size" unit="px" value={5} onCommit={(v) => form.setValue('size', v)} />
    </FormDialog>
  );
}

test('Enter in a field sends what was filled in, once', async () => {
  const onSend = jest.fn<(values: Values) => void>();
  render(<Asks onSend={onSend} />);
  const user = userEvent.setup();
  expect(document.activeElement).toBe(screen.getByRole('textbox', { name: 'Name' }));
  await user.keyboard('Reed crate{Enter}');
  await waitFor(() => expect(onSend).toHaveBeenCalledWith({ name: 'Reed crate', size: 5 }));
  expect(onSend).toHaveBeenCalledTimes(1);
});

test('a number that is taken by Enter does not send the form', async () => {
  const onSend = jest.fn<(values: Values) => void>();
  render(<Asks onSend={onSend} />);
  const user = userEvent.setup();
  await user.type(screen.getByRole('textbox', { name: 'Name' }), 'Crate');
  const size = screen.getByRole('textbox', { name: 'Size' });
  await user.clear(size);
  await user.type(size, '12{Enter}');
  expect(onSend).not.toHaveBeenCalled();
  await user.click(screen.getByRole('button', { name: 'Make it' }));
  await waitFor(() => expect(onSend).toHaveBeenCalledWith({ name: 'Crate', size: 12 }));
});

test('what is wrong stands by its field, is read out with it, and goes when it is mended', async () => {
  const onSend = jest.fn<(values: Values) => void>();
  render(<Asks onSend={onSend} />);
  const user = userEvent.setup();
  await user.click(screen.getByRole('button', { name: 'Make it' }));
  const name = await screen.findByRole('textbox', { name: 'Name', description: 'It needs a name.' });
  expect(name.getAttribute('aria-invalid')).toBe('true');
  expect(onSend).not.toHaveBeenCalled();
  await user.type(name, 'Crate');
  await waitFor(() => expect(screen.queryByText('It needs a name.')).toBeNull());
});

test('a refusal is said, nothing filled in is lost, and it can be sent again', async () => {
  let refuse = true;
  const onSend = jest.fn<(values: Values) => Promise<void>>(() =>
    refuse ? Promise.reject(new Error('There is a crate of that name.')) : Promise.resolve(),
  );
  render(<Asks onSend={onSend} />);
  const user = userEvent.setup();
  await user.keyboard('Crate{Enter}');
  expect((await screen.findByRole('alert')).textContent).toBe('There is a crate of that name.');
  expect(screen.getByRole<HTMLInputElement>('textbox', { name: 'Name' }).value).toBe('Crate');
  refuse = false;
  await user.click(screen.getByRole('button', { name: 'Make it' }));
  await waitFor(() => expect(onSend).toHaveBeenCalledTimes(2));
  expect(screen.queryByRole('alert')).toBeNull();
});

test('while it is under way it cannot be sent again', async () => {
  let done = () => undefined as void;
  const onSend = jest.fn<(values: Values) => Promise<void>>(() => new Promise((resolve) => (done = resolve)));
  render(<Asks onSend={onSend} />);
  const user = userEvent.setup();
  await user.keyboard('Crate{Enter}');
  const button = screen.getByRole<HTMLButtonElement>('button', { name: 'Make it' });
  await waitFor(() => expect(button.disabled).toBe(true));
  await user.type(screen.getByRole('textbox', { name: 'Name' }), '{Enter}');
  expect(onSend).toHaveBeenCalledTimes(1);
  done();
  await waitFor(() => expect(button.disabled).toBe(false));
});

test('a second way sends the same values; with nothing to send Enter does nothing; Escape closes', async () => {
  const [onSend, also, onClose] = [jest.fn<(v: Values) => void>(), jest.fn<(v: Values) => void>(), jest.fn()];
  const { rerender } = render(<Asks onSend={onSend} also={also} onClose={onClose} />);
  const user = userEvent.setup();
  await user.keyboard('Pair');
  await user.click(screen.getByRole('button', { name: 'Make two' }));
  await waitFor(() => expect(also).toHaveBeenCalledWith({ name: 'Pair', size: 5 }));
  rerender(<Asks onSend={onSend} also={also} onClose={onClose} ready={false} />);
  await user.type(screen.getByRole('textbox', { name: 'Name' }), '{Enter}');
  expect(onSend).not.toHaveBeenCalled();
  await user.keyboard('{Escape}');
  expect(onClose).toHaveBeenCalledTimes(1);
});
