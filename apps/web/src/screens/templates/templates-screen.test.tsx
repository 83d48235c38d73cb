import { afterEach, expect, test } from '@jest/globals';
import { fireEvent, screen, waitFor, within } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import {
  listing,
  LISTING,
  MOMENT,
  ON_WHITE,
  product,
  PRODUCT,
  shot,
  storedShot,
  TEAL,
  uuid,
  variant,
} from '../../../test/listing';
import { show } from '../../../test/show';
import type { ListedTemplate, ListingSummary } from '../../api/client';
import { useNotices } from '../../ui/notices';
import { TemplatesScreen } from './templates-screen';

afterEach(() => useNotices.setState({ list: [] }));

const template = (id: string, title: string, over: Partial<ListedTemplate> = {}): ListedTemplate => ({
  id,
  title,
  purpose: null,
  season: null,
  document: shot(ON_WHITE, title).document,
  own: false,
  ...over,
});
const summary: ListingSummary = {
  id: LISTING,
  title: 'Planter, autumn',
  createdAt: MOMENT,
  sheets: [],
  productId: PRODUCT,
  product: 'Planter',
  variants: 1,
  cutouts: ['c'.repeat(64)],
  slots: 3,
  missing: 0,
  shots: 1,
  revision: 1,
};
async function opened({ refuses = '', products = [product(PRODUCT, 'Planter')] } = {}) {
  let templates = [
    template('sale', 'Autumn sale', { purpose: 'sale', season: 'autumn' }),
    template(uuid(91), 'Our frame', { own: true }),
  ];
  const asked = answering({
    'GET /api/templates': () => templates,
    'GET /api/products': { brand: null, total: products.length, products },
    'GET /api/listings': [summary],
    'GET /api/listings/:id': listing(),
    'DELETE /api/templates/:id': ({ params }) => {
      if (refuses) return refusal(refuses);
      templates = templates.filter((t) => t.id !== params.id);
      return { removed: params.id };
    },
    'POST /api/listings/:id/shots/of-documents': () =>
      refuses ? refusal(refuses, 422) : [storedShot(uuid(95), 'Autumn sale')],
  });
  const shown = show(TemplatesScreen, '/templates');
  await screen.findByText('Autumn sale');
  return { ...shown, asked };
}
const card = (title: string) => within(screen.getByText(title).closest('li')!);

test('templates are narrowed by season, and to one’s own', async () => {
  const { user } = await opened();
  expect(card('Autumn sale').getByText('sale, autumn')).toBeVisible();
  expect(card('Our frame').getByText('your own')).toBeVisible();
  await user.click(screen.getByRole('combobox', { name: 'Purpose' }));
  await user.click(await screen.findByRole('option', { name: 'Your own' }));
  expect(screen.queryByText('Autumn sale')).toBeNull();
  expect(screen.getByText('Our frame')).toBeVisible();
});

test('only one’s own can be removed; a refusal leaves it', async () => {
  const { user } = await opened({ refuses: 'It is in use by a recipe.' });
  expect(card('Autumn sale').queryByRole('button', { name: /Remove/ })).toBeNull();
  await user.click(screen.getByRole('button', { name: 'Remove Our frame' }));
  expect(await screen.findByText('It is in use by a recipe.')).toBeVisible();
  expect(screen.getByText('Our frame')).toBeVisible();
});

test('a template is used for a listing, and its new shot opened', async () => {
  const { user, asked, address } = await opened();
  await user.click(card('Autumn sale').getByRole('button', { name: 'Use' }));
  const dialog = within(await screen.findByRole('dialog', { name: 'Use “Autumn sale”' }));
  await user.click(await dialog.findByRole('button', { name: 'Planter, autumn' }));
  await waitFor(() => expect(address()).toBe(`/shots/${uuid(95)}`));
  expect(asked[0].sent.body).toMatchObject({ shots: [{ title: 'Autumn sale' }] });
});

test('a shot that cannot be made is told, and the wall stays', async () => {
  const { user, address } = await opened({ refuses: 'A listing takes 200 shots at most.' });
  await user.click(card('Autumn sale').getByRole('button', { name: 'Use' }));
  await user.click(await screen.findByRole('button', { name: 'Planter, autumn' }));
  expect(await screen.findByText('A listing takes 200 shots at most.')).toBeInTheDocument();
  expect(address()).toBe('/templates');
});

const carried = (id: string) => ({
  types: ['application/x-scenograph-variant'],
  getData: () => id,
  setData: () => undefined,
});

test('a product that is dropped on a template fills it', async () => {
  const { asked, address } = await opened();
  await screen.findByRole('button', { name: 'Show all with Planter, Teal' });
  const on = screen.getByText('Autumn sale').closest('li')!;
  fireEvent.dragOver(on, { dataTransfer: carried(TEAL) });
  fireEvent.drop(on, { dataTransfer: carried(TEAL) });
  await waitFor(() => expect(address()).toBe(`/shots/${uuid(95)}`));
  expect(asked).toHaveLength(1);
});

test('a product in no listing says what to do first', async () => {
  const lone = variant(uuid(77), 'Lone');
  const { asked } = await opened({ products: [product(uuid(78), 'Trowel', [lone])] });
  await screen.findByRole('button', { name: 'Show all with Trowel, Lone' });
  fireEvent.drop(screen.getByText('Autumn sale').closest('li')!, { dataTransfer: carried(uuid(77)) });
  expect(await screen.findByText(/This product is in no listing yet/)).toBeVisible();
  expect(asked).toEqual([]);
});

test('something else that is dropped is left to the browser', async () => {
  const { asked } = await opened();
  const on = screen.getByText('Autumn sale').closest('li')!;
  const files = { types: ['Files'], getData: () => '' };
  expect(fireEvent.dragOver(on, { dataTransfer: files })).toBe(true);
  expect(fireEvent.drop(on, { dataTransfer: files })).toBe(true);
  expect(asked).toEqual([]);
});
