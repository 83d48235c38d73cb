import { expect, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import type { Shot } from '@scenograph/core/shot/document';
import { boxOf, stage, STAGED, stepsBack } from '../../../test/stage';
import { useActionStore } from '../../ui/actions';
import { ChangeSize } from './change-size';
import { useStage } from './store';

async function opened(shot: Shot = STAGED) {
  stage(null, [], shot);
  render(<ChangeSize shot={shot} />);
  const user = userEvent.setup();
  await user.click(screen.getByRole('button', { name: 'Change size' }));
  const type = async (name: string, text: string) => {
    await user.clear(screen.getByRole('textbox', { name }));
    await user.type(screen.getByRole('textbox', { name }), `${text}{Enter}`);
  };
  return {
    user,
    type,
    send: () => user.click(screen.getAllByRole('button', { name: 'Change size' }).at(-1)!),
  };
}
const now = () => useStage.getState().document!;

test('the picture gets another size and its content grows with it, in one step', async () => {
  const { type, send } = await opened();
  await type('Width', '2400');
  await type('Height', '1800');
  await send();
  expect(now()).toMatchObject({ frame: { width: 2400, height: 1800 }, trim: { unit: 'px' } });
  expect(boxOf('left')).toMatchObject({ x: 200, y: 200, width: 400, height: 200 });
  expect(stepsBack()).toEqual(['Size of the picture']);
  expect(screen.queryByRole('dialog')).toBeNull();
});

test('kept, the content stays as large as it is', async () => {
  const { user, type, send } = await opened();
  await type('Width', '1400');
  await user.click(screen.getByRole('radio', { name: 'Keep' }));
  await send();
  expect(boxOf('left')).toMatchObject({ x: 200, y: 100, width: 200, height: 100 });
});

test('on paper a bleed is added round the picture; the size that was given is shown again', async () => {
  const { user, type, send } = await opened({
    ...STAGED,
    frame: { width: 1748, height: 2480 },
    trim: { unit: 'mm', dpi: 300, bleedMm: 0, safeMm: 0 },
  });
  expect(screen.getByRole('textbox', { name: 'Width' })).toHaveValue('148');
  await type('Bleed', '3');
  await user.click(screen.getByRole('radio', { name: 'Keep' }));
  await send();
  expect(now().frame).toEqual({ width: 1818, height: 2550 });
  expect(now().trim).toMatchObject({ bleedMm: 3 });
});

test('a size that cannot be made says why; given up, nothing has changed', async () => {
  const { user, type } = await opened();
  await type('Width', '90000');
  expect(screen.getByRole('alert')).toHaveTextContent(/up to 12000/);
  expect(screen.getAllByRole('button', { name: 'Change size' }).at(-1)).toBeDisabled();
  await user.click(screen.getByRole('button', { name: 'Cancel' }));
  expect(now()).toBe(STAGED);
});

test('the command menu opens it too', () => {
  stage(null);
  render(<ChangeSize shot={STAGED} />);
  expect(useActionStore.getState().sources['change-size'].map((a) => a.title)).toEqual([
    'Change the size of the picture',
  ]);
});
