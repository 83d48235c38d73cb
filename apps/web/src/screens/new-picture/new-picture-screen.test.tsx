import { afterEach, expect, test } from '@jest/globals';
import { screen, waitFor } from '@testing-library/react';
import type { Shot } from '@scenograph/core/shot/document';
import { isProduct } from '@scenograph/core/elements/product/model';
import { answering, refusal } from '../../../test/answering';
import {
  listing,
  LISTING,
  OCHRE,
  ON_WHITE,
  product,
  PRODUCT,
  storedShot,
  TEAL,
  variant,
} from '../../../test/listing';
import { show } from '../../../test/show';
import { useNotices } from '../../ui/notices';
import { NewPictureScreen } from './new-picture-screen';

afterEach(() => useNotices.setState({ list: [] }));

function opened({ at = '/new-picture', refuses = '' } = {}) {
  const detail = listing();
  const made = () => storedShot(ON_WHITE, 'made');
  const asked = answering({
    'GET /api/listings': [
      {
        ...{
          id: LISTING,
          title: 'Planters',
          productId: PRODUCT,
          product: 'Planter',
          createdAt: '2026-11-01T10:00:00Z',
        },
        ...{ sheets: [], variants: 2, cutouts: [], slots: 0, missing: 0, shots: 0, revision: 1 },
      },
    ] as never,
    'GET /api/listings/:id': detail,
    'GET /api/products': {
      brand: null,
      products: [
        product(PRODUCT, 'Planter', [variant(TEAL, 'Teal'), variant(OCHRE, 'Ochre', { cutout: null })]),
      ],
    } as never,
    'POST /api/shots': () => (refuses ? refusal(refuses, 422) : made()),
    'POST /api/listings/:id/shots/of-documents': () => [made()],
  });
  return { ...show(NewPictureScreen, '/new-picture', at), asked };
}
const sent = (asked: { sent: { body: unknown } }[]) =>
  asked.at(-1)!.sent.body as { title: string; document: Shot };
const number = (name: RegExp | string) => screen.getByRole('textbox', { name });
const make = () => screen.getByRole('button', { name: 'Make the picture' });

test('a ready-made size is taken, named after itself, and opens on the stage', async () => {
  const { user, asked, address } = opened();
  await user.click(screen.getByRole('button', { name: /^A5/ }));
  expect(screen.getByTestId('picture-size')).toHaveTextContent('1818 x 2550 px, bleed included');
  await user.click(make());
  await waitFor(() => expect(address()).toBe(`/shots/${ON_WHITE}`));
  expect(asked).toHaveLength(1);
  expect(asked[0].name).toBe('POST /api/shots');
  const { title, document } = sent(asked);
  expect(title).toBe('A5');
  expect(document.frame).toEqual({ width: 1818, height: 2550 });
  expect(document.trim).toEqual({ unit: 'mm', dpi: 300, bleedMm: 3, safeMm: 5 });
  expect(document.elements).toHaveLength(1);
});

test('a size is typed in any unit, with a comma too; another unit tells the same picture', async () => {
  const { user, asked } = opened();
  await user.click(screen.getByRole('radio', { name: 'cm' }));
  for (const [name, text] of [
    ['Width', '10,5'],
    ['Height', '21.0'],
    ['Density', '150'],
  ]) {
    await user.clear(number(name));
    await user.type(number(name), `${text}{Enter}`);
  }
  expect(screen.getByTestId('picture-size')).toHaveTextContent('620 x 1240 px');
  await user.click(screen.getByRole('radio', { name: 'in' }));
  expect(number('Width')).toHaveValue('4.134');
  expect(screen.getByTestId('picture-size')).toHaveTextContent('620 x 1240 px');
  await user.click(screen.getByRole('button', { name: 'Swap sides' }));
  await user.click(screen.getByRole('radio', { name: 'Transparent' }));
  await user.type(screen.getByRole('textbox', { name: 'What is it called?' }), 'Leaflet');
  await user.click(make());
  await waitFor(() => expect(asked).toHaveLength(1));
  const { title, document } = sent(asked);
  expect(title).toBe('Leaflet');
  expect(document.frame).toEqual({ width: 1240, height: 620 });
  expect(document.elements[0]).toMatchObject({ kind: 'backdrop', fill: { type: 'transparent' } });
});

test('what cannot be made says why, and nothing is sent', async () => {
  const { user, asked } = opened();
  await user.clear(number('Width'));
  await user.type(number('Width'), '100000{Enter}');
  expect(screen.getByRole('alert')).toHaveTextContent(/up to 12000 on a side/);
  expect(make()).toBeDisabled();
  await user.clear(number('Width'));
  await user.type(number('Width'), '0{Enter}');
  expect(screen.getByRole('alert')).toHaveTextContent(/width and a height/);
  expect(asked).toEqual([]);
  // A ready-made size mends it.
  await user.click(screen.getByRole('button', { name: /^Square/ }));
  expect(make()).toBeEnabled();
});

test('opened from a listing it is kept there, with its first product, which the variants replace', async () => {
  const { user, asked, address } = opened({ at: `/new-picture?listing=${LISTING}` });
  await screen.findByRole('combobox', { name: 'Product' });
  await waitFor(() => expect(screen.getByRole('combobox', { name: 'Product' })).toHaveTextContent('Teal'));
  await user.click(make());
  await waitFor(() => expect(address()).toBe(`/shots/${ON_WHITE}?variant=${TEAL}`));
  expect(asked[0]).toMatchObject({
    name: 'POST /api/listings/:id/shots/of-documents',
    sent: { params: { id: LISTING } },
  });
  const { shots } = asked[0].sent.body as { shots: { title: string; document: Shot }[] };
  expect(shots[0].document.elements.find(isProduct)).toMatchObject({ followsVariant: true });
});

test('on its own it may show any product that is cut out; that stays as it is', async () => {
  const { user, asked } = opened();
  await user.click(await screen.findByRole('combobox', { name: 'Product' }));
  expect((await screen.findAllByRole('option')).map((o) => o.textContent)).toEqual([
    'No product',
    'Planter, Teal',
  ]);
  await user.click(screen.getByRole('option', { name: 'Planter, Teal' }));
  await user.click(make());
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(sent(asked).document.elements.find(isProduct)).toMatchObject({ followsVariant: false });
});

test('where the server refuses, it says why and everything is still there', async () => {
  const { user, address } = opened({ refuses: 'There is no room left.' });
  await user.click(screen.getByRole('button', { name: /^Postcard/ }));
  await user.click(make());
  expect(await screen.findByText('There is no room left.')).toBeVisible();
  expect(address()).toBe('/new-picture');
  expect(number('Width')).toHaveValue('148');
  expect(make()).toBeEnabled();
});
