import Papa from 'papaparse';
import { guardedText } from './plan-import';
import { COLUMNS, type VariantRow } from './variant-row';

/**
 * Variants as a table that comes back unchanged: RFC 4180 with commas, CRLF and a byte order mark (so that spreadsheets
 * read UTF-8), all columns, then every field in the order of the alphabet.
 */
export function writeTable(rows: readonly VariantRow[]): string {
  const fields = [...new Set(rows.flatMap((r) => Object.keys(r.fields)))].sort();
  const text = (value: string | null) => (value === null ? '' : guardedText(value));
  const data = [
    [...COLUMNS.map((c) => c.id), ...fields],
    ...rows.map((r) => [
      text(r.sku),
      text(r.title),
      r.price === null ? '' : String(r.price),
      r.currency,
      text(r.photo),
      text(r.artwork),
      r.ink ?? '',
      ...fields.map((f) => text(Object.hasOwn(r.fields, f) ? r.fields[f] : '')),
    ]),
  ];
  return `\ufeff${Papa.unparse(data, { newline: '\r\n' })}\r\n`;
}
