import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { screen, waitFor, within } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import { listing, LISTING, ON_WHITE, SHEET, shot, storedShot, variant, TEAL } from '../../../test/listing';
import { show } from '../../../test/show';
import type { ListedTemplate, ListingDetail } from '../../api/client';
import { useNotices } from '../../ui/notices';
import { candidatesFor } from './candidates';
import { IdeasScreen } from './ideas-screen';

beforeEach(() => localStorage.clear());
afterEach(() => useNotices.setState({ list: [] }));

const template = (id: string, title: string, over: Partial<ListedTemplate> = {}): ListedTemplate => ({
  id,
  title,
  purpose: 'sale',
  season: 'winter',
  document: shot(ON_WHITE, title).document,
  own: false,
  ...over,
});
const TEMPLATES = [
  template('sale', 'Winter sale'),
  template('note', 'Note', { season: null, purpose: null }),
];

async function opened({
  detail = listing(),
  refuses = '',
}: { detail?: ListingDetail; refuses?: string } = {}) {
  const asked = answering({
    'GET /api/listings/:id': detail,
    'GET /api/scenes': [],
    'GET /api/templates': TEMPLATES,
    'POST /api/listings/:id/shots/of-documents': () =>
      refuses ? refusal(refuses) : [storedShot(ON_WHITE, 'x')],
  });
  const shown = show(IdeasScreen, '/listings/:id/ideas', `/listings/${LISTING}/ideas`);
  return { ...shown, asked };
}
const ideas = () => screen.getAllByRole('button', { name: /^(Keep|Kept): / });

test('candidates differ in kind from the first, and every one has a name of its own', () => {
  const all = candidatesFor(variant(TEAL, 'Teal'), [], [], TEMPLATES, ['#b0482c', '#345544', '#e8e2d4']);
  expect(new Set(all.map((c) => c.id)).size).toBe(all.length);
  expect(new Set(all.map((c) => c.kind))).toEqual(new Set(['backdrop', 'template']));
  expect(new Set(all.slice(0, 3).map((c) => c.kind)).size).toBe(2);
  for (const c of all) expect(c.shot.elements.some((e) => e.kind === 'product')).toBe(true);
});

test('without a palette there are templates as they are, and no colours are made up', () => {
  const all = candidatesFor(variant(TEAL, 'Teal'), [], [], TEMPLATES, []);
  const of = (kind: string) => all.filter((c) => c.kind === kind).map((c) => c.title);
  expect(of('template')).toEqual(['Winter sale', 'Note']);
  expect(of('backdrop').every((title) => title.startsWith('Studio set'))).toBe(true);
});

test('ideas are narrowed by kind and season; none is said', async () => {
  const { user } = await opened();
  await screen.findByRole('button', { name: 'Keep: Winter sale' });
  await user.click(screen.getByRole('combobox', { name: 'Season' }));
  await user.click(await screen.findByRole('option', { name: /winter/i }));
  expect(ideas().every((b) => b.textContent.includes('winter'))).toBe(true);
  await user.click(screen.getByRole('combobox', { name: 'Kind' }));
  await user.click(await screen.findByRole('option', { name: 'Scenes' }));
  expect(await screen.findByText('No idea is for this purpose and season. Widen the filter.')).toBeVisible();
});

test('what is kept stays kept in this browser, and is counted though a filter hides it', async () => {
  const { user } = await opened();
  await user.click(await screen.findByRole('button', { name: 'Keep: Winter sale' }));
  expect(screen.getByText('1 kept')).toBeVisible();
  await user.click(screen.getByRole('combobox', { name: 'Kind' }));
  await user.click(await screen.findByRole('option', { name: 'Backdrops' }));
  expect(screen.getByText('1 kept')).toBeVisible();
  expect(JSON.parse(localStorage.getItem(`ideas-kept-${LISTING}`)!)).toEqual(['template-sale']);
});

test('kept ideas that cannot be read are forgotten, not a broken screen', async () => {
  localStorage.setItem(`ideas-kept-${LISTING}`, '{not json');
  await opened();
  await screen.findByRole('button', { name: 'Keep: Winter sale' });
  expect(screen.getByText('0 kept')).toBeVisible();
});

test('shots are made of what is kept; a slot is chosen once', async () => {
  const { user, asked, address } = await opened();
  await user.click(await screen.findByRole('button', { name: 'Keep: Winter sale' }));
  await user.click(screen.getByRole('button', { name: 'Keep: Note' }));
  await user.click(screen.getByRole('button', { name: 'Make shots of what is kept' }));
  const dialog = within(await screen.findByRole('dialog'));
  await user.click(dialog.getByRole('combobox', { name: 'Slot for Winter sale' }));
  await user.click(await screen.findByRole('option', { name: 'Harbour Market, Front (now On white)' }));
  await user.click(dialog.getByRole('combobox', { name: 'Slot for Note' }));
  expect(screen.queryByRole('option', { name: /Harbour Market, Front/ })).toBeNull();
  await user.click(await screen.findByRole('option', { name: 'no slot yet' }));
  await user.click(dialog.getByRole('button', { name: 'Make 2 shots' }));
  await waitFor(() => expect(address()).toBe(`/listings/${LISTING}`));
  const { shots } = asked[0].sent.body as { shots: { title: string; feeds: string[] }[] };
  expect(shots.map((s) => [s.title, s.feeds])).toEqual([
    ['Winter sale', [`${SHEET.id}/front`]],
    ['Note', []],
  ]);
  expect(JSON.parse(localStorage.getItem(`ideas-kept-${LISTING}`)!)).toEqual([]);
});

test('a refusal keeps what was kept', async () => {
  const { user } = await opened({ refuses: 'The listing was removed.' });
  await user.click(await screen.findByRole('button', { name: 'Keep: Winter sale' }));
  await user.click(screen.getByRole('button', { name: 'Make shots of what is kept' }));
  await user.click(await screen.findByRole('button', { name: 'Make 1 shot' }));
  expect(await screen.findByText('The listing was removed.')).toBeInTheDocument();
  expect(JSON.parse(localStorage.getItem(`ideas-kept-${LISTING}`)!)).toEqual(['template-sale']);
});

test('a listing without cutouts says what to do', async () => {
  await opened({ detail: listing({ variants: [variant(TEAL, 'Teal', { cutout: null })] }) });
  expect(await screen.findByText(/No variant of this listing has a cutout yet/)).toBeVisible();
});
