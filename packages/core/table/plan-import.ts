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

/**
 * What a table would change, row by row, and everything that is wrong with it, before anything is changed. Rows are
 * variants by their SKU; an empty cell empties the value, a column that goes nowhere leaves it as it is.
 */
export function planImport(table: Table, targets: readonly Target[], context: ImportContext): ImportPlan {
  const problems: ImportProblem[] = table.problems.map((p) => ({ line: p.line, column: '', text: p.text }));
  const at = (to: ColumnId) => targets.findIndex((t) => t.to === to);
  const say = (line: number, column: number, text: string) =>
    problems.push({ line, column: table.columns[column] ?? '', text });
  const sku = at('sku');
  if (sku < 0)
    return {
      changes: [],
      same: 0,
      pictures: [],
      problems: [
        { line: 1, column: '', text: 'No column holds the SKU, by which rows find their variants.' },
      ],
    };
  targets.forEach((t, c) => {
    const twice = targets.findIndex((o) => o.to !== 'nowhere' && JSON.stringify(o) === JSON.stringify(t));
    if (t.to !== 'nowhere' && twice < c)
      say(1, c, `"${table.columns[c]}" goes where "${table.columns[twice]}" goes already.`);
    if (t.to === 'field' && (!FIELD_NAME.test(t.name) || TAKEN_FIELDS.includes(t.name)))
      say(1, c, `"${t.name}" cannot be a field's name: use a letter, then letters, digits or underscores.`);
  });
  const photo = nameFinder([...context.pictures, ...context.photos]);
  const own = nameFinder(context.pictures);
  const artwork = nameFinder(context.artworks);
  const lineOf = new Map<string, number>();
  const changes: ImportChange[] = [];
  const pictures = new Set<string>();
  let same = 0;
  table.rows.forEach((cells, r) => {
    const line = table.lines[r];
    const key = plainText(cells[sku]).trim();
    if (!key) return void say(line, sku, 'The SKU is empty.');
    if (key.length > LIMITS.sku)
      return void say(line, sku, `The SKU is longer than ${LIMITS.sku} characters.`);
    const before = lineOf.get(key);
    if (before !== undefined)
      return void say(
        line,
        sku,
        `The SKU "${key}" stands in line ${before} already. Each row is one variant.`,
      );
    lineOf.set(key, line);
    const present = context.variants.get(key);
    const now = present?.row;
    const set: Partial<VariantRow> = {};
    const fields: Record<string, string> = {};
    targets.forEach((target, c) => {
      const text = plainText(cells[c]);
      const trimmed = text.trim();
      switch (target.to) {
        case 'title':
          if (trimmed.length > LIMITS.title) say(line, c, `Longer than ${LIMITS.title} characters.`);
          set.title = trimmed;
          break;
        case 'price': {
          const amount = trimmed === '' ? null : parseAmount(trimmed);
          if (trimmed !== '' && (amount === null || amount < 0 || amount > 10_000_000))
            say(line, c, `"${trimmed}" is no price. Write a number such as 12.50.`);
          set.price = amount;
          break;
        }
        case 'currency':
          if (trimmed && !/^[A-Za-z]{3}$/.test(trimmed))
            say(line, c, `"${trimmed}" is no currency code. Write three letters such as GBP.`);
          if (trimmed) set.currency = trimmed.toUpperCase();
          break;
        case 'photo': {
          const found = trimmed ? photo(trimmed) : null;
          if (trimmed && !found)
            say(line, c, `There is no picture "${trimmed}". Import it with the table, or before it.`);
          if (found && own(trimmed)) pictures.add(found);
          set.photo = found;
          break;
        }
        case 'artwork': {
          const found = trimmed ? artwork(trimmed) : null;
          if (trimmed && !found) say(line, c, `There is no artwork "${trimmed}" in the library.`);
          set.artwork = found;
          break;
        }
        case 'ink':
          if (trimmed && !HEX_COLOUR.test(trimmed))
            say(line, c, `"${trimmed}" is no ink. Write a colour as #rrggbb.`);
          set.ink = trimmed ? trimmed.toLowerCase() : null;
          break;
        case 'field':
          if (text.length > LIMITS.field) say(line, c, `Longer than ${LIMITS.field} characters.`);
          fields[target.name] = text;
          break;
        default:
          break;
      }
    });
    if (targets.some((t) => t.to === 'field')) set.fields = withFields(now?.fields ?? {}, fields);
    const differs = now ? difference(now, set) : set;
    // A photo that comes with the table is new, though it has the name of another.
    if (now && set.photo && pictures.has(set.photo)) differs.photo = set.photo;
    if (now && !Object.keys(differs).length) same++;
    else changes.push({ line, id: present?.id ?? null, sku: key, set: differs });
  });
  const added = changes.filter((c) => !c.id).length;
  if (context.variants.size + added > LIMITS.variants)
    problems.unshift({
      line: 1,
      column: '',
      text: `With these ${table.rows.length.toLocaleString('en-GB')} rows the product would have ${(context.variants.size + added).toLocaleString('en-GB')} variants; it takes up to ${LIMITS.variants.toLocaleString('en-GB')}. Divide the table among several products.`,
    });
  return {
    changes,
    same,
    problems: problems.sort((a, b) => a.line - b.line),
    pictures: [...pictures],
  };
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
