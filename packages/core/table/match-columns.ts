import { COLUMNS, FIELD_NAME, TAKEN_FIELDS, type ColumnId } from './variant-row';

/** Where a file's column goes: to one of the variant's own, to a field by name, or nowhere. */
export type Target = { to: ColumnId } | { to: 'field'; name: string } | { to: 'nowhere' };

/** Columns matched by their names; what has no match becomes a field of its own name. */
export function matchColumns(columns: readonly string[]): Target[] {
  const used = new Set<string>();
  const plain = (text: string) => text.toLowerCase().replace(/[_-]+/g, ' ').trim();
  return columns.map((column): Target => {
    if (!column) return { to: 'nowhere' };
    const known = COLUMNS.find(
      (c) => !used.has(c.id) && (c.names as readonly string[]).includes(plain(column)),
    );
    if (known) {
      used.add(known.id);
      return { to: known.id };
    }
    const name = fieldName(column);
    if (!name || used.has(`field ${name}`)) return { to: 'nowhere' };
    used.add(`field ${name}`);
    return { to: 'field', name };
  });
}

/** A field's name made of a column's; null where nothing is left of it or the product has that value already. */
export function fieldName(column: string): string | null {
  const name = column
    .replace(/ß/g, 'ss')
    .normalize('NFKD')
    .replace(/[\u0300-\u036f]/g, '')
    .trim()
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '_')
    .replace(/^[_0-9]+|_+$/g, '')
    .slice(0, 40);
  return FIELD_NAME.test(name) && !TAKEN_FIELDS.includes(name) ? name : null;
}
