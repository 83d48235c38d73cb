import { decodeText, type Decode } from './decode-text';
import { matchColumns } from './match-columns';
import { planImport, type ImportContext } from './plan-import';
import { readTable } from './read-table';
import type { VariantRow } from './variant-row';
import { writeTable } from './write-table';

const decode: Decode = (bytes, encoding, fatal) => new TextDecoder(encoding, { fatal }).decode(bytes);

const row = (change: Partial<VariantRow> = {}): VariantRow => ({
  sku: 'MB-1',
  title: 'Teal',
  price: 24,
  currency: 'GBP',
  photo: 'teal.jpg',
  artwork: null,
  ink: null,
  fields: {},
  ...change,
});

const context = (rows: VariantRow[], change: Partial<ImportContext> = {}): ImportContext => ({
  variants: new Map(rows.map((r, i) => [r.sku, { id: `v${i}`, row: r }])),
  photos: rows.flatMap((r) => (r.photo ? [r.photo] : [])),
  artworks: ['Fern sprig'],
  pictures: [],
  ...change,
});

const plan = (text: string, c: ImportContext) => {
  const table = readTable(text);
  return planImport(table, matchColumns(table.columns), c);
};

test('encodings are found, a wrong one is told, and any delimiter is read', () => {
  const text = 'sku;Größe\nA;12 cm\n';
  const latin = Uint8Array.from(text, (c) => c.charCodeAt(0));
  expect(decodeText(latin, decode)).toEqual({ text, encoding: 'windows-1252' });
  const utf16 = new Uint8Array(new Uint16Array([...`\ufeff${text}`].map((c) => c.charCodeAt(0))).buffer);
  expect(decodeText(utf16, decode)).toEqual({ text, encoding: 'utf-16le' });
  expect(() => decodeText(latin, decode, 'utf-8')).toThrow(/not written in utf-8/);
  for (const d of [',', ';', '\t', '|']) {
    const table = readTable(`sku${d}price\nA${d}3\n"B${d}2"${d}4`);
    expect([table.delimiter, table.rows]).toEqual([
      d,
      [
        ['A', '3'],
        [`B${d}2`, '4'],
      ],
    ]);
  }
});

test('a field named as every object has one is a column like any other', () => {
  const rows = [row({ fields: { constructor: 'oak' } }), row({ sku: 'MB-2' })];
  const text = writeTable(rows);
  expect(text.split('\r\n').map((line) => line.split(',').at(-1))).toEqual(['constructor', 'oak', '', '']);
});

test('what goes out comes back unchanged, formulas, quotes, breaks and apostrophes among it', () => {
  const rows = [
    row({
      fields: { note: '=SUM(A1)', care: 'Wipe "dry",\nnot wet', odd: "'=1", minus: '-5', plus: '+49 30 1' },
    }),
    row({ sku: '00012', title: '@home', price: null, photo: null, artwork: 'Fern sprig', ink: '#12463a' }),
    row({ sku: ' spaced ', title: '', fields: { note: '  kept  ' } }),
  ].map((r) => ({ ...r, sku: r.sku.trim() }));
  const text = writeTable(rows);
  expect(text).not.toMatch(/(^|,)"?[=@]/m);
  const found = plan(text.slice(1), context(rows));
  expect(found).toEqual({ changes: [], same: 3, problems: [], pictures: [] });
  const fresh = plan(text.slice(1), context([], { photos: ['teal.jpg'] }));
  expect(fresh.problems).toEqual([]);
  expect(fresh.changes.map((c) => ({ sku: c.sku, ...c.set }))).toEqual(rows);
});

test('a dry run lists every problem with its line and changes nothing', () => {
  const text = [
    'SKU,Variant,Price,Ink,Photo,Artwork,Currency',
    'MB-1,"Two',
    'lines",24,,teal,,',
    'MB-2,,cheap,red,none.png,Nothing,pounds',
    'MB-1,again,1,,,,',
    ',no sku,1,,,,',
  ].join('\n');
  const { problems, changes } = plan(text, context([row()]));
  expect(problems.map((p) => `${p.line} ${p.column}`)).toEqual([
    '4 Price',
    '4 Ink',
    '4 Photo',
    '4 Artwork',
    '4 Currency',
    '5 SKU',
    '6 SKU',
  ]);
  expect(problems[5].text).toMatch(/stands in line 2 already/);
  expect(changes[0]).toEqual({ line: 2, id: 'v0', sku: 'MB-1', set: { title: 'Two\nlines' } });
});

test('a broken quote, doubled columns and rows that are too long are told, not guessed at', () => {
  expect(readTable('sku,title\nA,"open\nB,x').problems[0].text).toMatch(/opened and not closed/);
  expect(readTable('sku,sku\nA,B').problems[0].text).toMatch(/Two columns are named "sku"/);
  expect(readTable('sku,title\nA,b,c').problems).toEqual([
    { line: 2, text: expect.stringMatching(/3 values, and there are 2 columns/) },
  ]);
  expect(plan('name\nA', context([])).problems[0].text).toMatch(/No column holds the SKU/);
});

test('columns are matched by name, others become fields; pictures by file name whatever their folder or case', () => {
  expect(matchColumns(['Item number', 'Retail price', 'Image', 'Größe (cm)', 'size', ''])).toEqual([
    { to: 'sku' },
    { to: 'price' },
    { to: 'photo' },
    { to: 'field', name: 'grosse_cm' },
    { to: 'nowhere' },
    { to: 'nowhere' },
  ]);
  const { changes, pictures } = plan(
    'sku,photo\nMB-1,TEAL\nMB-9,shots/new.JPG',
    context([row()], { pictures: ['folder/New.jpg'] }),
  );
  expect(changes).toEqual([{ line: 3, id: null, sku: 'MB-9', set: { photo: 'folder/New.jpg' } }]);
  expect(pictures).toEqual(['folder/New.jpg']);
});

test('a hundred thousand rows are read and refused in one sentence', () => {
  const text = `sku,price\n${Array.from({ length: 100_000 }, (_, i) => `S${i},${i}`).join('\n')}`;
  const { problems } = plan(text, context([]));
  expect(problems).toHaveLength(1);
  expect(problems[0].text).toMatch(/100,000 rows .* it takes up to 5,000/);
});
