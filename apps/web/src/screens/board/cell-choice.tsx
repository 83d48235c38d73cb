import { slotKey as keyOf } from '@scenograph/core/spec/slot';
import { Select } from '../../ui/controls';
import type { OpenCell } from './use-cell';
import { msg } from '../../language/language';

/** Chooses another cell of the listing. */
export function CellChoice({ cell }: { cell: OpenCell }) {
  const { detail, slotKey, variant, go } = cell;
  return (
    <>
      <Select
        label={msg('Slot')}
        className="max-w-64"
        value={slotKey}
        onChange={(key) => go(key, variant.id)}
        options={detail.sheets.flatMap((sheet) =>
          sheet.slots.map((s) => ({ value: keyOf(sheet, s), title: `${sheet.marketplace}, ${s.title}` })),
        )}
      />
      <Select
        label={msg('Variant')}
        className="max-w-48"
        value={variant.id}
        onChange={(id) => go(slotKey, id)}
        options={detail.variants
          .slice(0, 300)
          .map((v) => ({ value: v.id, title: v.data.variant || v.data.sku }))}
      />
    </>
  );
}
