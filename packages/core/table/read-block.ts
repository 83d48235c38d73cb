import Papa from 'papaparse';

/**
 * Cells of a block copied from a spreadsheet: rows on lines, cells between tabs, values with tabs, line breaks or quotes in
 * quotes (as RFC 4180 has them). Null for a text of a single cell.
 */
export function readBlock(text: string): string[][] | null {
  const block = text.replace(/\r?\n$/, '');
  if (!/[\t\n]/.test(block)) return null;
  const { data, errors } = Papa.parse<string[]>(block, { delimiter: '\t' });
  // A quotation mark that is a value's own, such as 12": what is written is taken.
  return errors.length ? block.split(/\r?\n/).map((line) => line.split('\t')) : data;
}
