import { afterEach, beforeEach, expect, test } from '@jest/globals';
import { PLAIN_ENCODING, type Encoding } from '@scenograph/core/delivery/encoding';
import { act, screen, waitFor, within } from '@testing-library/react';
import { answering, refusal } from '../../../test/answering';
import { layOut } from '../../../test/lay-out';
import { listing, LISTING, TEAL } from '../../../test/listing';
import { show } from '../../../test/show';
import { useNotices } from '../../ui/notices';
import { EncodingScreen } from './encoding-screen';
import { refusalOf } from './way-card';
import { describe } from './way';

beforeEach(layOut);
afterEach(() => useNotices.setState({ list: [] }));

const encoding = (over: Partial<Encoding>): Encoding => ({ ...PLAIN_ENCODING, ...over });
interface TrialsBody {
  trials: { encoding: Encoding; limited: boolean }[];
}

async function opened({ stored = null as Encoding | null, fails = '', slot = 'harbour/front' } = {}) {
  const detail = listing();
  if (stored) detail.listing.encodings = { 'harbour/front': stored };
  let file = 0;
  const asked = answering({
    'GET /api/listings/:id': () => detail,
    'POST /api/shots/:id/trials': ({ body }) => {
      const { encoding: e } = (body as TrialsBody).trials[0];
      if (fails && e.format === fails) return refusal('This format needs an even width.', 422);
      const size = e.format === 'png' ? 3e6 : 2e5;
      return [
        {
          ok: true as const,
          format: e.format ?? 'jpeg',
          quality: e.quality ?? 88,
          milliseconds: 40,
          ssim: 0.9961,
          file: String(++file),
          size,
        },
      ];
    },
    'PUT /api/listings/:id/encoding': ({ body }) => {
      const sent = body as { slotKey: string; encoding: Encoding | null };
      detail.listing.encodings = sent.encoding ? { [sent.slotKey]: sent.encoding } : {};
      return { ...sent, revision: 2 };
    },
  });
  const path = `/listings/${LISTING}/encoding?slot=${encodeURIComponent(slot)}&variant=${TEAL}`;
  const shown = show(EncodingScreen, '/listings/:id/encoding', path);
  await screen.findByRole('combobox', { name: 'Slot' });
  const trials = () =>
    asked.filter((a) => a.name.endsWith('trials')).map((a) => (a.sent.body as TrialsBody).trials[0].encoding);
  const used = () => asked.filter((a) => a.name.endsWith('encoding')).at(-1)!.sent.body;
  return { ...shown, used, trials };
}
const cards = () =>
  within(screen.getByRole('complementary', { name: 'Ways to write it' })).getAllByRole('listitem');
const card = (n: number) => within(cards()[n]);

test('a way to write a picture is described in a few words', () => {
  expect(describe(encoding({ format: 'jpeg', quality: 82, chroma: '4:2:0', progressive: true }))).toBe(
    'jpeg, q 82, 4:2:0, progressive',
  );
  expect(describe(encoding({ format: 'png', colours: 64 }))).toBe('png, 64 colours');
  expect(describe(encoding({ format: 'png' }))).toBe('png, lossless');
  expect(describe(encoding({ format: 'webp', lossless: true }))).toBe('webp, lossless');
  expect(describe(encoding({ format: 'avif', quality: null }))).toBe('avif, q by limit');
  expect(describe(encoding({ format: null }))).toBe('first format, q by limit');
});

test('why a way cannot be used is a sentence, format before size', () => {
  const { slots } = listing().sheets[0];
  const of = (format: Encoding['format'], result: Parameters<typeof refusalOf>[0]['result']) =>
    refusalOf({ id: 1, encoding: encoding({ format }), result }, slots[0]);
  const ok = { ok: true, file: 'a', format: 'jpeg', quality: 80, milliseconds: 1, ssim: 1 } as const;
  expect(of('jpeg', { ...ok, size: 10 })).toBeNull();
  expect(of(null, { ...ok, size: 10 })).toBeNull();
  expect(of('jpeg', { ...ok, size: 2e6 })).toBe('The file is larger than the slot takes');
  expect(of('png', { ...ok, size: 2e6 })).toBe('The slot does not take this format');
  expect(of('jpeg', null)).toBe('Not written yet');
  expect(of('jpeg', { ok: false, reason: 'Too wide.' })).toBe('Too wide.');
});

test('every format is tried once, one after the other, and what came of it stands beside it', async () => {
  const { trials } = await opened();
  await waitFor(() => expect(trials().map((t) => t.format)).toEqual(['jpeg', 'png', 'webp', 'avif']));
  await waitFor(() => expect(screen.queryByText('Writing and comparing ...')).toBeNull());
  expect(card(0).getByText(/195 KB/)).toBeVisible();
  expect(card(0).getByText('not to be told apart')).toBeVisible();
  expect(card(1).getByText(/2.86 MB/)).toHaveTextContent('too much');
});

test('moving and zooming while it is written does not begin again', async () => {
  const { user, trials } = await opened();
  for (const zoom of ['100 %', '200 %', '400 %', 'Whole']) {
    await user.click(screen.getByRole('radio', { name: zoom }));
    await new Promise((r) => setTimeout(r, 40));
  }
  await waitFor(() => expect(screen.queryByText('Writing and comparing ...')).toBeNull());
  expect(trials().map((t) => t.format)).toEqual(['jpeg', 'png', 'webp', 'avif']);
});

test('a way is used from now on and told as the one in use; the rules come back', async () => {
  const { user, used } = await opened();
  await waitFor(() => expect(card(0).getByRole('button', { name: 'Use it' })).toBeEnabled());
  expect(card(1).getByRole('button', { name: 'Use it' })).toBeDisabled();
  await user.click(card(0).getByRole('button', { name: 'Use it' }));
  expect(await card(0).findByRole('button', { name: 'In use' })).toBeVisible();
  expect(used()).toMatchObject({ slotKey: 'harbour/front', encoding: { format: 'jpeg' } });
  await user.click(screen.getByRole('button', { name: "Leave it to the slot's rules" }));
  expect(await card(0).findByRole('button', { name: 'Use it' })).toBeVisible();
  expect(used()).toEqual({ slotKey: 'harbour/front', encoding: null });
});

test('the stored way comes first', async () => {
  const { trials } = await opened({ stored: encoding({ format: 'webp', quality: 70 }) });
  await waitFor(() => expect(trials()).toHaveLength(4));
  expect(trials().map((t) => t.format)).toEqual(['webp', 'jpeg', 'png', 'avif']);
  expect(trials()[0].quality).toBe(70);
});

test('a setting that is changed is written anew; the others are kept', async () => {
  const { user, trials } = await opened();
  await waitFor(() => expect(trials()).toHaveLength(4));
  await waitFor(() => expect(screen.queryByText('Writing and comparing ...')).toBeNull());
  await user.click(card(0).getByRole('radio', { name: '4:4:4' }));
  await waitFor(() => expect(trials()).toHaveLength(5));
  expect(trials()[4]).toMatchObject({ format: 'jpeg', chroma: '4:4:4' });
  await user.click(card(0).getByRole('combobox', { name: 'Format' }));
  await user.click(await screen.findByRole('option', { name: 'avif' }));
  await waitFor(() => expect(trials()).toHaveLength(6));
  // What only the other format has is not carried over.
  expect(trials()[5]).toMatchObject({ format: 'avif', chroma: null });
});

test('a format that fails says why, and the others go on', async () => {
  const { trials } = await opened({ fails: 'webp' });
  await waitFor(() => expect(trials()).toHaveLength(4));
  expect(await card(2).findByText('This format needs an even width.')).toBeVisible();
  await waitFor(() => expect(card(3).getByText(/195 KB/)).toBeVisible());
});

test('ways are added and removed; the last one stays', async () => {
  const { user } = await opened();
  await user.click(screen.getByRole('button', { name: 'Another way' }));
  expect(cards()).toHaveLength(5);
  for (let left = 5; left > 1; left--)
    await user.click(card(0).getByRole('button', { name: 'Remove this way' }));
  expect(card(0).getByRole('button', { name: 'Remove this way' })).toBeDisabled();
});

test('a slot that nothing fills says what to do', async () => {
  await opened({ slot: 'kestrel/main' });
  expect(screen.getByText(/No shot fills this slot yet/)).toBeVisible();
  expect(screen.queryByRole('complementary')).toBeNull();
});

test('both pictures are seen through one window', async () => {
  const observed: ResizeObserverCallback[] = [];
  const Before = window.ResizeObserver;
  window.ResizeObserver = class extends Before {
    constructor(tell: ResizeObserverCallback) {
      super(tell);
      observed.push(tell);
    }
  };
  try {
    const { user } = await opened();
    const entry = { contentRect: { width: 900, height: 600 } } as ResizeObserverEntry;
    act(() => observed.forEach((tell) => tell([entry], {} as ResizeObserver)));
    const widths = () =>
      screen.getAllByRole('figure').map((f) => f.querySelector<HTMLElement>('[role=img] > div')!.style.width);
    expect(widths()).toHaveLength(2);
    await user.click(screen.getByRole('radio', { name: '200 %' }));
    expect(new Set(widths())).toEqual(new Set(['2400px']));
  } finally {
    window.ResizeObserver = Before;
  }
});
