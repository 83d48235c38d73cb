import { expect, jest, test } from '@jest/globals';
import { emptyShot } from '@scenograph/core/shot/document';
import { data, FRAME } from '@scenograph/core/shot/one-of-each.fixture';
import { resolveBase } from '@scenograph/core/shot/resolve';
import { newBackdrop, newProduct, newSceneBackdrop } from '@scenograph/core/shot/starters';
import type { ProductElement } from '@scenograph/core/elements/product/model';
import { render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { HASH } from '../../../../../test/listing';
import { painting } from '../../../../../test/painters';
import { TABLE } from '../../../../../test/scenes';
import { ProductToneDesk } from './light-desk';

/** The tone's desk of a product in a scene, or before a plain backdrop. */
function show(inScene: boolean) {
  const backdrop = inScene
    ? newSceneBackdrop('scene', 'Table', HASH, TABLE)
    : newBackdrop('backdrop', FRAME, '#ffffff');
  const element: ProductElement = newProduct('product', data, FRAME, 'stand', [backdrop]);
  const shot = resolveBase({ ...emptyShot(FRAME.width, FRAME.height), elements: [backdrop, element] }, data);
  const during = jest.fn<(patch: Partial<ProductElement>) => void>();
  const commit = jest.fn<(label: string, patch: Partial<ProductElement>) => void>();
  render(<ProductToneDesk element={element} shot={shot} during={during} commit={commit} />);
  return { element, commit, during };
}

test('the scene’s light is laid on at first, and takes a typed share or the arrow keys', async () => {
  const { element, commit } = show(true);
  expect(element.relight).toBe(1);
  const user = userEvent.setup();
  const field = screen.getByRole('textbox', { name: /Scene’s light/ });
  expect(field).toHaveValue('100');
  await user.clear(field);
  await user.type(field, '40{Enter}');
  expect(commit).toHaveBeenLastCalledWith('Lay the scene’s light on it', { relight: 0.4 });
  screen.getByRole('slider', { name: /Scene’s light/ }).focus();
  await user.keyboard('{Home}');
  expect(commit).toHaveBeenLastCalledWith('Lay the scene’s light on it', { relight: 0 });
});

test('the colour’s drift and the light on the product are told apart, and that a tint was held back', async () => {
  painting.staging = { drift: 5.96, held: true, light: 0.41, gloss: 0, blur: 0, haze: 0, ground: 0.5 };
  show(true);
  expect(await screen.findByTestId('drift')).toHaveTextContent('measuring');
  expect(await screen.findByText('41 %')).toBe(screen.getByTestId('light'));
  expect(screen.getByTestId('drift')).toHaveTextContent('ΔE 6.0, held');
  painting.staging = null;
});

test('gloss is as the photo shows until somebody sets it, and can be given back', async () => {
  painting.staging = { drift: 1, held: false, light: 1, gloss: 1, blur: 2.5, haze: 0.1, ground: 0.5 };
  const { element, commit } = show(true);
  expect(element.gloss).toBeNull();
  const user = userEvent.setup();
  const field = screen.getByRole('textbox', { name: /^Gloss/ });
  // Before it is measured there is nothing to keep.
  expect(screen.getByRole('checkbox', { name: 'Gloss as its photo shows' })).toBeDisabled();
  await waitFor(() => expect(field).toHaveValue('100'));
  await user.clear(field);
  await user.type(field, '30{Enter}');
  expect(commit).toHaveBeenLastCalledWith('Change the gloss', { gloss: 0.3 });
  await user.click(screen.getByRole('checkbox', { name: 'Gloss as its photo shows' }));
  expect(commit).toHaveBeenLastCalledWith('Change the gloss', { gloss: 1 });
  painting.staging = null;
});

test('focus and haze are the scene’s at the product’s depth until somebody sets them, and can be given back', async () => {
  painting.staging = { drift: 1, held: false, light: 1, gloss: 0, blur: 2.5, haze: 0.1, ground: 0.5 };
  const { element, commit } = show(true);
  expect([element.blur, element.haze]).toEqual([null, null]);
  const user = userEvent.setup();
  const blur = screen.getByRole('textbox', { name: /^Out of focus/ });
  await waitFor(() => expect(blur).toHaveValue('2.5'));
  expect(screen.getByRole('textbox', { name: /^Haze/ })).toHaveValue('10');
  await user.clear(blur);
  await user.type(blur, '4.5{Enter}');
  expect(commit).toHaveBeenLastCalledWith('Change the focus', { blur: 4.5 });
  // What was found is kept when the box is taken off, so that nothing jumps.
  await user.click(screen.getByRole('checkbox', { name: 'As sharp as the scene there' }));
  expect(commit).toHaveBeenLastCalledWith('Change the focus', { blur: 2.5 });
  await user.click(screen.getByRole('checkbox', { name: 'As hazy as the scene there' }));
  expect(commit).toHaveBeenLastCalledWith('Change the haze', { haze: 0.1 });
  painting.staging = null;
});

test('where no scene is, there is no light to lay on, and the desk says so', () => {
  const { element } = show(false);
  expect(element.relight).toBe(0);
  expect(screen.queryByRole('slider')).toBeNull();
  expect(screen.getByText(/where a product stands in a scene’s picture/)).toBeVisible();
});
