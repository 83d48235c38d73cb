import { slotKey, type Slot, type SpecSheet } from '@scenograph/core/spec/slot';

/** The slots of some sheets in their order, with the key by which shots fill them. */
export function slotsOf(
  ids: readonly string[],
  sheets: readonly SpecSheet[],
): { key: string; slot: Slot; sheet: SpecSheet }[] {
  return sheets
    .filter((s) => ids.includes(s.id))
    .flatMap((sheet) => sheet.slots.map((slot) => ({ key: slotKey(sheet, slot), slot, sheet })));
}
