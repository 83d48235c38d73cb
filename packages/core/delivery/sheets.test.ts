import fc from 'fast-check';
import { manifestRows, type Manifest } from './manifest';
import {
  MOST_ON_PAGE,
  optionSheet,
  PAGES,
  proofSheet,
  type PageName,
  type ProofContent,
  type SheetPicture,
} from './sheets';

const picture = (i: number, width = 800, height = 600): SheetPicture => ({
  hash: String(i % 10).repeat(64),
  width,
  height,
  label: `Option ${i}`,
});
const boxes = (
  sheet: {
    elements: readonly { id: string; box: { x: number; y: number; width: number; height: number } }[];
  },
  stem: string,
) => sheet.elements.filter((e) => e.id.startsWith(stem)).map((e) => e.box);
const apart = (a: { x: number; y: number; width: number; height: number }, b: typeof a) =>
  a.x + a.width <= b.x + 0.01 ||
  b.x + b.width <= a.x + 0.01 ||
  a.y + a.height <= b.y + 0.01 ||
  b.y + b.height <= a.y + 0.01;

test('options stand in rows of equal cells, each with its label, none over another, all inside', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 1, max: 24 }),
      fc.integer({ min: 1, max: 8 }),
      fc.integer({ min: 200, max: 1500 }),
      (count, columns, height) => {
        const sheet = optionSheet(
          Array.from({ length: count }, (_, i) => picture(i, 1000, height)),
          columns,
        );
        const pictures = boxes(sheet, 'picture-');
        const labels = boxes(sheet, 'label-');
        expect([pictures.length, labels.length]).toEqual([count, count]);
        expect(new Set(pictures.map((b) => `${b.width} ${b.height}`)).size).toBe(1);
        for (const b of [...pictures, ...labels]) {
          expect(b.x).toBeGreaterThanOrEqual(0);
          expect(b.x + b.width).toBeLessThanOrEqual(sheet.width);
          expect(b.y + b.height).toBeLessThanOrEqual(sheet.height);
        }
        const all = [...pictures, ...labels];
        all.forEach((a, i) => all.slice(i + 1).forEach((b) => expect(apart(a, b)).toBe(true)));
      },
    ),
    { numRuns: 60 },
  );
});

describe('a proof', () => {
  const content = (pictures: number, more: Partial<ProofContent> = {}): ProofContent => ({
    title: 'Planter, autumn',
    options: ['Teal', 'Moss'],
    prices: ['100 pieces: £8.40'],
    notes: 'Please sign.',
    foot: 'Mossbank, 28 November 2026',
    logo: null,
    pictures: Array.from({ length: pictures }, (_, i) => picture(i)),
    ...more,
  });

  test.each(Object.keys(PAGES) as PageName[])(
    'on %s keeps everything on the page, pictures apart',
    (page) => {
      for (let n = 1; n <= MOST_ON_PAGE; n++) {
        const sheet = proofSheet(content(n, { logo: picture(9, 400, 100) }), page);
        expect([sheet.width, sheet.height]).toEqual([PAGES[page].width, PAGES[page].height]);
        for (const { box, id } of sheet.elements) {
          if (id === 'ground') continue;
          expect({
            id,
            inside:
              box.x >= 0 &&
              box.y >= 0 &&
              box.x + box.width <= sheet.width + 0.01 &&
              box.y + box.height <= sheet.height + 0.01,
          }).toEqual({ id, inside: true });
        }
        const pictures = boxes(sheet, 'picture-');
        expect(pictures).toHaveLength(n);
        pictures.forEach((a, i) => pictures.slice(i + 1).forEach((b) => expect(apart(a, b)).toBe(true)));
      }
    },
  );

  test('takes no more pictures than can be judged, and leaves out what is not written', () => {
    expect(boxes(proofSheet(content(9), 'A4'), 'picture-')).toHaveLength(MOST_ON_PAGE);
    const bare = proofSheet(content(1, { options: [], prices: [], notes: '' }), 'A4');
    const texts = bare.elements.flatMap((e) => ('text' in e ? [String(e.text)] : []));
    expect(texts).toContain('Planter, autumn');
    expect(texts.join(' ')).not.toContain('sign');
  });

  test('one picture is larger than each of several', () => {
    const [one] = boxes(proofSheet(content(1), 'A4'), 'picture-');
    const [first] = boxes(proofSheet(content(4), 'A4'), 'picture-');
    expect(one.width * one.height).toBeGreaterThan(first.width * first.height);
  });
});

test('a manifest’s table has a line for each picture and as many values as columns', () => {
  const entry = {
    file: 'kestrel/mb-1-front.jpg',
    sku: 'MB-1',
    variant: 'Teal',
    marketplace: 'Kestrel',
    slot: 'main',
    shot: 'On white',
    width: 2000,
    height: 2000,
    format: 'jpeg',
    quality: null,
    bytes: 1234,
    sha256: 'a'.repeat(64),
    alt: '',
    verdict: 'pass',
    inputs: { key: 'k', shot: 's', slot: 't', data: 'd', pictures: ['p', 'q'] },
    checks: [],
  };
  const manifest: Manifest = {
    manifest: 'scenograph-delivery',
    version: 2,
    delivery: 'd',
    listing: 'l',
    made: '2026-11-28',
    pictures: [entry, entry],
    failed: [],
  };
  const [head, ...rows] = manifestRows(manifest);
  expect(rows).toHaveLength(2);
  for (const row of rows) expect(row).toHaveLength(head.length);
  const value = (name: string) => rows[0][head.indexOf(name)];
  expect([value('sku'), value('quality'), value('pictures_sha256'), value('key')]).toEqual([
    'MB-1',
    null,
    'p q',
    'k',
  ]);
});
