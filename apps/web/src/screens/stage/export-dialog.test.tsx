import { cleanup, render, screen, waitFor } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { beforeEach, expect, jest, test } from '@jest/globals';
import { http, HttpResponse } from 'msw';
import { MOST_ON_PAGE } from '@scenograph/core/delivery/sheets';
import { data } from '@scenograph/core/shot/one-of-each.fixture';
import { resolveBase } from '@scenograph/core/shot/resolve';
import type { Trim } from '@scenograph/core/shot/trim';
import type { ItemOption } from '@scenograph/core/surface/print-item';
import { HASH } from '../../../test/listing';
import { server } from '../../../test/server';
import { STAGED } from '../../../test/stage';
import { answering } from '../../../test/answering';
import { Notices } from '../../ui/notices';
import { ExportDialog, useLastExport } from './export-dialog';
import { ProofDialog } from './proof-dialog';

const resolved = resolveBase(STAGED, data);
const saved: string[] = [];
beforeEach(() => {
  saved.length = 0;
  useLastExport.setState(useLastExport.getInitialState());
  URL.createObjectURL = () => 'blob:file';
  URL.revokeObjectURL = () => undefined;
  HTMLAnchorElement.prototype.click = function (this: HTMLAnchorElement) {
    saved.push(this.download);
  };
});

/** Opens the dialog; gives the queries of files that were asked for. */
function openExport(known = new Map<string, { width: number; height: number }>(), trim: Trim | null = null) {
  const asked: URLSearchParams[] = [];
  server.use(
    http.get('*/api/shots/s1/export', ({ request }) => {
      asked.push(new URL(request.url).searchParams);
      return new HttpResponse('bytes', {
        headers: { 'Content-Disposition': 'attachment; filename="pot.png"' },
      });
    }),
  );
  const before = jest.fn(() => Promise.resolve());
  const onClose = jest.fn();
  render(
    <>
      <ExportDialog
        shotId="s1"
        title="Tea pot"
        trim={trim}
        resolved={resolved}
        slot={null}
        variant="v1"
        known={known}
        before={before}
        onClose={onClose}
      />
      <Notices />
    </>,
  );
  return { asked, before, onClose, user: userEvent.setup() };
}
const size = () => screen.getByTestId('export-size').textContent;

test('a picture is asked for in its own pixels, after the shot is stored, and the dialog closes', async () => {
  const { asked, before, onClose, user } = openExport();
  expect(size()).toMatch(`${resolved.width} x ${resolved.height} px at 72 dpi`);
  await user.click(screen.getByRole('radio', { name: 'PNG' }));
  await user.click(screen.getByRole('button', { name: 'Export' }));
  await waitFor(() => expect(onClose).toHaveBeenCalled());
  expect(before).toHaveBeenCalledTimes(1);
  expect(Object.fromEntries(asked[0])).toEqual({
    width: String(resolved.width),
    density: '72',
    format: 'png',
    area: 'trim',
    variant: 'v1',
  });
  // The server's own name for it.
  expect(saved).toEqual(['pot.png']);
});

test('in millimetres the pixels follow from the density', async () => {
  const { user } = openExport();
  await user.click(screen.getByRole('radio', { name: 'Millimetres' }));
  expect(size()).toMatch(/^1181 x /);
  const width = screen.getByRole('textbox', { name: /Width/ });
  await user.clear(width);
  await user.type(width, '50{Enter}');
  expect(size()).toMatch(/^591 x .* at 300 dpi, 50 mm wide/);
});

test('the next picture begins like the last', async () => {
  const first = openExport();
  await first.user.click(screen.getByRole('radio', { name: 'TIFF' }));
  await first.user.click(screen.getByRole('radio', { name: 'Millimetres' }));
  await first.user.click(screen.getByRole('button', { name: 'Export' }));
  await waitFor(() => expect(first.onClose).toHaveBeenCalled());
  cleanup();
  const second = openExport();
  expect(screen.getByRole('radio', { name: 'TIFF' })).toBeChecked();
  expect(size()).toMatch(/at 300 dpi/);
  await second.user.click(screen.getByRole('button', { name: 'Export' }));
  await waitFor(() => expect(second.asked[0].get('format')).toBe('tiff'));
});

test('a picture made for paper begins at its own size there, as it is cut; with its bleed it is wider', async () => {
  // 1200 pixels at 300 are 101.6 mm, less 3.05 mm on each side.
  const { asked, user } = openExport(undefined, { unit: 'mm', dpi: 300, bleedMm: 3.048, safeMm: 5 });
  expect(size()).toMatch(/^1128 x 828 px at 300 dpi, 96 mm wide/);
  await user.click(screen.getByRole('radio', { name: 'With its bleed' }));
  expect(size()).toMatch(/^1200 x 900 px at 300 dpi, 102 mm wide/);
  await user.click(screen.getByRole('button', { name: 'Export' }));
  await waitFor(() => expect(asked[0].get('area')).toBe('bleed'));
  expect(asked[0].get('width')).toBe('1200');
});

test('a PDF is asked for with its marks and words, and is remembered', async () => {
  const { asked, user, onClose } = openExport();
  expect(screen.queryByRole('switch', { name: 'Crop marks' })).toBeNull();
  await user.click(screen.getByRole('radio', { name: 'PDF' }));
  await user.click(screen.getByRole('switch', { name: 'Crop marks' }));
  await user.click(screen.getByRole('radio', { name: 'Words as outlines' }));
  await user.click(screen.getByRole('button', { name: 'Export' }));
  await waitFor(() => expect(onClose).toHaveBeenCalled());
  expect(Object.fromEntries(asked[0])).toMatchObject({ format: 'pdf', marks: 'crop', words: 'outlines' });
  cleanup();
  openExport();
  expect(screen.getByRole('switch', { name: 'Crop marks' })).toBeChecked();
});

test('what would be enlarged beyond its own pixels is told before it is made, the worst first', () => {
  openExport(new Map([[HASH, { width: 50, height: 25 }]]));
  const told = screen.getAllByText(/percent of its own pixels/).map((p) => p.textContent);
  expect(told).toContainEqual(expect.stringContaining('“left” is enlarged to 400 percent'));
  const factors = told.map((t) => Number(/to (\d+) percent/.exec(t)![1]));
  expect(factors).toEqual([...factors].sort((a, b) => b - a));
});

test('a refused export says why and leaves the dialog open', async () => {
  const { onClose, user } = openExport();
  server.use(
    http.get('*/api/shots/s1/export', () =>
      HttpResponse.json({ message: 'This is too large.' }, { status: 400 }),
    ),
  );
  await user.click(screen.getByRole('button', { name: 'Export' }));
  expect(await screen.findByText('This is too large.')).toBeVisible();
  expect(onClose).not.toHaveBeenCalled();
});

const option = (n: number, winner = false): ItemOption => ({
  id: `o${n}`,
  title: `Option ${n}`,
  winner,
  prints: [],
  colour: null,
});

/** Opens the proof's dialog; gives what was asked for. */
function openProof(options: ItemOption[]) {
  const asked: Record<string, unknown>[] = [];
  answering({ 'GET /api/pictures': [] });
  server.use(
    http.post('*/api/shots/s1/proof', async ({ request }) => {
      asked.push((await request.json()) as Record<string, unknown>);
      return new HttpResponse('bytes');
    }),
  );
  render(
    <ProofDialog
      shotId="s1"
      title="Tea tin"
      options={options}
      price="£12.00"
      before={() => Promise.resolve()}
      onClose={() => undefined}
    />,
  );
  return { asked, user: userEvent.setup() };
}

test('a proof begins with title, price and winners; empty lines are none', async () => {
  const { asked, user } = openProof([option(1), option(2, true)]);
  const lines = screen.getByRole('textbox', { name: 'Options, one a line' });
  await user.type(lines, 'Lid in brass{Enter}{Enter}Lid in steel');
  await user.tab();
  await user.click(screen.getByRole('button', { name: 'PDF' }));
  await waitFor(() => expect(asked).toHaveLength(1));
  expect(asked[0]).toMatchObject({
    format: 'pdf',
    page: 'A4',
    title: 'Tea tin',
    prices: ['1 piece  £12.00'],
    options: ['Lid in brass', 'Lid in steel'],
    show: ['o2'],
    logo: null,
  });
  expect(saved).toHaveLength(1);
});

test('no more pictures can be chosen than a page holds', async () => {
  const many = Array.from({ length: MOST_ON_PAGE + 2 }, (_, i) => option(i, true));
  const { user } = openProof(many);
  const boxes = screen.getAllByRole('checkbox');
  expect(boxes.filter((b) => b.ariaChecked === 'true')).toHaveLength(MOST_ON_PAGE);
  expect(boxes.at(-1)).toBeDisabled();
  await user.click(boxes[0]);
  expect(boxes.at(-1)).toBeEnabled();
});
