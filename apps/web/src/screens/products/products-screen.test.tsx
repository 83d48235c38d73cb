import { afterEach, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import { MOMENT, PRODUCT, TEAL, variant } from '../../../test/listing';
import { show } from '../../../test/show';
import type { Product } from '../../api/client';
import { useNotices } from '../../ui/notices';
import { ProductsScreen } from './products-screen';

afterEach(() => useNotices.setState({ list: [] }));

const product = (over: Partial<Product> = {}): Product => ({
  id: PRODUCT,
  title: 'Planter',
  widthMm: 120,
  heightMm: null,
  depthMm: null,
  pose: 'stand',
  createdAt: MOMENT,
  count: 1,
  revision: 1,
  variants: [variant(TEAL, 'Teal', { sku: 'MB-1', price: 24, fields: { material: 'clay' } })],
  ...over,
});

async function opened({ total = 1, refuses = '' } = {}) {
  let stored = product();
  const searched: string[] = [];
  const asked = answering({
    'GET /api/products': ({ query }) => {
      searched.push(`${query.search}|${query.limit}`);
      return { brand: null, total, products: query.search === 'zzz' ? [] : [stored] };
    },
    'PATCH /api/products/:id': ({ body }) => {
      if (refuses) return refusal(refuses, 422);
      stored = { ...stored, ...(body as object) };
      return stored;
    },
    'PATCH /api/variants/:id': ({ body }) => (refuses ? refusal(refuses, 422) : (body as never)),
  });
  const shown = show(ProductsScreen, '/products');
  const section = within(await screen.findByRole('region', { name: 'Planter' }));
  return { ...shown, section, searched, asked };
}

test('a product says how many variants it has, and one is not many', async () => {
  const { section } = await opened();
  expect(section.getByRole('link', { name: 'Data of 1 variant' })).toHaveAttribute(
    'href',
    `/products/${PRODUCT}`,
  );
});

test('a size is typed with a thousands separator or a sum, and stored in millimetres', async () => {
  const { user, section, asked } = await opened();
  const height = section.getByLabelText('Planter, height');
  await user.click(height);
  await user.clear(height);
  await user.type(height, '1,200{Enter}');
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0].sent.body).toEqual({ heightMm: 1200 });
  const width = section.getByLabelText('Planter, width');
  await user.clear(width);
  await user.type(width, '100+25{Tab}');
  await waitFor(() => expect(asked).toHaveLength(2));
  expect(asked[1].sent.body).toEqual({ widthMm: 125 });
});

test('a value that is refused is told, and the field shows what is stored', async () => {
  const { user, section } = await opened({ refuses: 'This SKU is taken by another variant.' });
  const sku = section.getByLabelText('SKU');
  await user.clear(sku);
  await user.type(sku, 'MB-2{Enter}');
  expect(await screen.findByText('This SKU is taken by another variant.')).toBeVisible();
  await waitFor(() => expect(section.getByLabelText('SKU')).toHaveValue('MB-1'));
});

test('Escape leaves a value as it was', async () => {
  const { user, section, asked } = await opened();
  const title = section.getByLabelText('Variant');
  await user.clear(title);
  await user.type(title, 'Ochre{Escape}');
  expect(title).toHaveValue('Teal');
  await user.tab();
  expect(asked).toEqual([]);
});

test('further values are added by name, changed and removed', async () => {
  const { user, section, asked } = await opened();
  await user.click(section.getByRole('button', { name: 'Add a value to MB-1' }));
  await user.type(section.getByLabelText('Name of the new value of MB-1'), 'glaze{Enter}');
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0].sent.body).toEqual({ fields: { material: 'clay', glaze: '' } });
  const material = section.getByLabelText('material of MB-1');
  await user.clear(material);
  await user.type(material, 'stoneware{Enter}');
  await waitFor(() => expect(asked).toHaveLength(2));
  expect(asked[1].sent.body).toEqual({ fields: { material: 'stoneware' } });
  await user.click(section.getByRole('button', { name: 'Remove material of MB-1' }));
  await waitFor(() => expect(asked).toHaveLength(3));
  expect(asked[2].sent.body).toEqual({ fields: {} });
});

test('a name that a product has already keeps its value', async () => {
  const { user, section, asked } = await opened();
  await user.click(section.getByRole('button', { name: 'Add a value to MB-1' }));
  await user.type(section.getByLabelText('Name of the new value of MB-1'), 'material{Enter}');
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0].sent.body).toEqual({ fields: { material: 'clay' } });
});

test('products are found by words, and what is not shown is counted', async () => {
  const { user, searched } = await opened({ total: 240 });
  await user.click(screen.getByRole('button', { name: 'Show more of 240' }));
  await waitFor(() => expect(searched.at(-1)).toBe('|200'));
  await user.type(screen.getByRole('searchbox', { name: 'Find products' }), 'zzz');
  expect(await screen.findByText('No product is named so.')).toBeVisible();
  expect(searched.at(-1)).toBe('zzz|200');
});

test('how it was photographed decides how it stands', async () => {
  const { user, section, asked } = await opened();
  await user.click(section.getByRole('radio', { name: 'Laid flat' }));
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0].sent).toMatchObject({ params: { id: PRODUCT }, body: { pose: 'flat' } });
});

test('no products at all is said otherwise than none found', async () => {
  answering({ 'GET /api/products': { brand: null, total: 0, products: [] } });
  show(ProductsScreen, '/products');
  expect(await screen.findByText('No products yet')).toBeVisible();
});
