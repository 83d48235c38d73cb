import { parseAmount } from '../data/product-data';
import type { Target } from './match-columns';
import type { Table } from './read-table';
import { FIELD_NAME, LIMITS, TAKEN_FIELDS, type ColumnId, type VariantRow } from './variant-row';
import { HEX_COLOUR } from '../raster/colour';

export interface ImportProblem {
  line: number;
  column: string;
  text: string;
}

export interface ImportChange {
  line: number;
  /** The variant it changes; null adds one. */
  id: string | null;
  sku: string;
  /** Only what differs. */
  set: Partial<VariantRow>;
}

export interface ImportPlan {
  changes: ImportChange[];
  /** Rows that are as the variants are already. */
  same: number;
  problems: ImportProblem[];
  /** Pictures that rows name and that come with the file. */
  pictures: string[];
}

export interface ImportContext {
  /** The variants that are there, by their SKU. */
  variants: ReadonlyMap<string, { id: string; row: VariantRow }>;
  /** File names of photos and titles of artwork that are there. */
  photos: readonly string[];
  artworks: readonly string[];
  /** File names of pictures that come with the table, from a folder or ZIP. */
  pictures: readonly string[];
}

/** A cell of one of the variant's own columns, and what is told and looked up while it is read. */
interface CellToRead {
  /** Without spaces around it. */
  text: string;
  say(text: string): void;
  photo(name: string): string | null;
  artwork(title: string): string | null;
}

/** What a cell sets, by the column that it goes to; what is wrong with it is said. */
const READ: Record<Exclude<ColumnId, 'sku'>, (cell: CellToRead) => Partial<VariantRow>> = {
  title({ text, say }) {
    if (text.length > LIMITS.title) say(`Longer than ${LIMITS.title} characters.`);
    return { title: text };
  },
  price({ text, say }) {
    const amount = text === '' ? null : parseAmount(text);
    if (text !== '' && (amount === null || amount < 0 || amount > 10_000_000))
      say(`"${text}" is no price. Write a number such as 12.50.`);
    return { price: amount };
  },
  currency({ text, say }) {
    if (text && !/^[A-Za-z]{3}$/.test(text))
      say(`"${text}" is no currency code. Write three letters such as GBP.`);
    return text ? { currency: text.toUpperCase() } : {};
  },
  photo({ text, say, photo }) {
    const found = text ? photo(text) : null;
    if (text && !found) say(`There is no picture "${text}". Import it with the table, or before it.`);
    return { photo: found };
  },
  artwork({ text, say, artwork }) {
    const found = text ? artwork(text) : null;
    if (text && !found) say(`There is no artwork "${text}" in the library.`);
    return { artwork: found };
  },
  ink({ text, say }) {
    if (text && !HEX_COLOUR.test(text)) say(`"${text}" is no ink. Write a colour as #rrggbb.`);
    return { ink: text ? text.toLowerCase() : null };
  },
};

type Say = (line: number, column: number, text: string) => void;

/** Tells of columns that go where another goes already, and of fields whose names cannot be. */
function checkTargets({ columns }: Table, targets: readonly Target[], say: Say): void {
  targets.forEach((t, c) => {
    const twice = targets.findIndex((o) => o.to !== 'nowhere' && JSON.stringify(o) === JSON.stringify(t));
    if (t.to !== 'nowhere' && twice < c)
      say(1, c, `"${columns[c]}" goes where "${columns[twice]}" goes already.`);
    if (t.to === 'field' && (!FIELD_NAME.test(t.name) || TAKEN_FIELDS.includes(t.name)))
      say(1, c, `"${t.name}" cannot be a field's name: use a letter, then letters, digits or underscores.`);
  });
}

/** Gives the SKU of every row in turn; null where it is none, which is said. */
function skuReader(column: number, say: Say): (cells: readonly string[], line: number) => string | null {
  const lineOf = new Map<string, number>();
  return (cells, line) => {
    const key = plainText(cells[column]).trim();
    const before = lineOf.get(key);
    if (!key) say(line, column, 'The SKU is empty.');
    else if (key.length > LIMITS.sku) say(line, column, `The SKU is longer than ${LIMITS.sku} characters.`);
    else if (before !== undefined)
      say(line, column, `The SKU "${key}" stands in line ${before} already. Each row is one variant.`);
    else {
      lineOf.set(key, line);
      return key;
    }
    return null;
  };
}

/** What a row sets of its variant; `now` is the variant as it is. */
function readRow(
  cells: readonly string[],
  targets: readonly Target[],
  now: VariantRow | undefined,
  finders: Pick<CellToRead, 'photo' | 'artwork'>,
  say: (column: number, text: string) => void,
): Partial<VariantRow> {
  const set: Partial<VariantRow> = {};
  const fields: Record<string, string> = {};
  targets.forEach((target, c) => {
    if (target.to === 'nowhere' || target.to === 'sku') return;
    const text = plainText(cells[c]);
    if (target.to === 'field') {
      if (text.length > LIMITS.field) say(c, `Longer than ${LIMITS.field} characters.`);
      fields[target.name] = text;
    } else
      Object.assign(set, READ[target.to]({ text: text.trim(), say: (told) => say(c, told), ...finders }));
  });
  if (targets.some((t) => t.to === 'field')) set.fields = withFields(now?.fields ?? {}, fields);
  return set;
}

const grouped = (n: number) => n.toLocaleString('en-GB');

/**
 * What a table would change, row by row, and everything that is wrong with it, before anything is changed. Rows are
 * variants by their SKU; an empty cell empties the value, a column that goes nowhere leaves it as it is.
 */
export function planImport(table: Table, targets: readonly Target[], context: ImportContext): ImportPlan {
  const problems: ImportProblem[] = table.problems.map((p) => ({ line: p.line, column: '', text: p.text }));
  const say: Say = (line, column, text) => problems.push({ line, column: table.columns[column] ?? '', text });
  const sku = targets.findIndex((t) => t.to === 'sku');
  if (sku < 0) {
    const text = 'No column holds the SKU, by which rows find their variants.';
    return { changes: [], same: 0, pictures: [], problems: [{ line: 1, column: '', text }] };
  }
  checkTargets(table, targets, say);
  const photo = nameFinder([...context.pictures, ...context.photos]);
  const own = nameFinder(context.pictures);
  const finders = { photo, artwork: nameFinder(context.artworks) };
  const skuOf = skuReader(sku, say);
  const changes: ImportChange[] = [];
  const pictures = new Set<string>();
  let same = 0;
  table.rows.forEach((cells, r) => {
    const line = table.lines[r];
    const key = skuOf(cells, line);
    if (key === null) return;
    const present = context.variants.get(key);
    const now = present?.row;
    const set = readRow(cells, targets, now, finders, (column, text) => say(line, column, text));
    const brought = set.photo && own(set.photo) ? set.photo : null;
    if (brought) pictures.add(brought);
    const differs = now ? difference(now, set) : set;
    // A photo that comes with the table is new, though it has the name of another.
    if (now && brought) differs.photo = brought;
    if (now && !Object.keys(differs).length) same++;
    else changes.push({ line, id: present?.id ?? null, sku: key, set: differs });
  });
  const total = context.variants.size + changes.filter((c) => !c.id).length;
  if (total > LIMITS.variants)
    problems.unshift({
      line: 1,
      column: '',
      text: `With these ${grouped(table.rows.length)} rows the product would have ${grouped(total)} variants; it takes up to ${grouped(LIMITS.variants)}. Divide the table among several products.`,
    });
  return { changes, same, problems: problems.sort((a, b) => a.line - b.line), pictures: [...pictures] };
}

/** Fields as the table leaves them; an empty cell takes a field away. */
function withFields(now: Record<string, string>, set: Record<string, string>): Record<string, string> {
  const next = { ...now, ...set };
  for (const [name, value] of Object.entries(set)) if (value === '') delete next[name];
  return next;
}

function difference(now: VariantRow, set: Partial<VariantRow>): Partial<VariantRow> {
  const sorted = (v: unknown) =>
    typeof v === 'object' && v ? JSON.stringify(Object.entries(v).sort()) : JSON.stringify(v);
  return Object.fromEntries(
    Object.entries(set).filter(([key, value]) => sorted(now[key as keyof VariantRow]) !== sorted(value)),
  );
}

/** Finds a file by its name, whatever its case, folder and, where that is left out, extension. */
export function nameFinder(names: readonly string[]): (text: string) => string | null {
  const base = (name: string) => name.toLowerCase().split(/[\\/]/).pop()!;
  const whole = new Map<string, string>();
  const stems = new Map<string, string>();
  for (const name of names) {
    const b = base(name);
    if (!whole.has(b)) whole.set(b, name);
    const stem = b.replace(/\.[^.]+$/, '');
    if (!stems.has(stem)) stems.set(stem, name);
  }
  return (text) => whole.get(base(text)) ?? stems.get(base(text)) ?? null;
}

/** Texts that a spreadsheet would take for formulas are written with an apostrophe before them. */
const FORMULA = /^'*[=+\-@\t\r]/;

/** A text as it stands in a file: one apostrophe before it is taken away where it guards a formula. */
export function plainText(cell: string): string {
  return cell.startsWith("'") && FORMULA.test(cell) ? cell.slice(1) : cell;
}

/** A text as it is written in a file, so that no spreadsheet runs it. Numbers stay as they are. */
export function guardedText(text: string): string {
  return FORMULA.test(text) && !/^[+-]?\d+(?:[.,]\d+)*$/.test(text) ? `'${text}` : text;
}
