import { readBlock } from '@scenograph/core/table/read-block';
import type { Variant } from '../../api/client';
import type { Column, VariantPatch } from './columns';
import { msg } from '../../language/language';

export interface PastedBlock {
  label: string;
  set: { id: string; patch: VariantPatch }[];
}

/**
 * A block from a spreadsheet, laid on the grid from one cell on: all of it or nothing.
 * @returns the changes; a sentence where it does not fit or a value cannot be; null where the text is no block
 */
export function pastedBlock(
  text: string,
  variants: readonly Variant[],
  columns: readonly Column[],
  at: { row: number; column: number },
): PastedBlock | string | null {
  const block = readBlock(text);
  if (!block) return null;
  const left = variants.length - at.row;
  if (block.length > left)
    return msg(
      'The block has {block} rows; only {left} {left, plural, one {is} other {are}} left from here.',
      { block: block.length, left },
    );
  const set: PastedBlock['set'] = [];
  for (const [r, line] of block.entries()) {
    if (at.column + line.length > columns.length)
      return msg('The block is wider than the columns left from here.');
    const patch = patchOf(line, variants[at.row + r], columns.slice(at.column));
    if (typeof patch === 'string') return msg('Row {r} of the block: {patch}', { r: r + 1, patch });
    set.push({ id: variants[at.row + r].id, patch });
  }
  return {
    label: msg('Paste {rows} x {columns} values', { rows: block.length, columns: block[0].length }),
    set,
  };
}

/** What one line of the block changes; several own fields of a variant are changed together. */
function patchOf(
  line: readonly string[],
  variant: Variant,
  columns: readonly Column[],
): VariantPatch | string {
  let patch: VariantPatch = {};
  let now = variant;
  for (const [c, cell] of line.entries()) {
    const own = columns[c].read(cell, now);
    if (typeof own === 'string') return own;
    patch = { ...patch, ...own };
    if ('fields' in own)
      now = { ...variant, data: { ...variant.data, fields: own.fields as Record<string, string> } };
  }
  return patch;
}
