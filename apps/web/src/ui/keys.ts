/** Fields, and what asks for an answer before anything else: they take all keys themselves. */
const FIELDS =
  'input:not([type="checkbox"]):not([type="radio"]):not([type="button"]), textarea, select, [contenteditable="true"], [role="dialog"], [role="menu"], [role="listbox"], [role="slider"]';
/** What is pressed or chosen; those with arrows of their own come after. */
const CONTROLS =
  'button, a[href], summary, input, [role="button"], [role="tab"], [role="switch"], [role="checkbox"]';
const WITH_ARROWS =
  '[role="radiogroup"], [role="tablist"], [role="toolbar"], [role="grid"], [role="combobox"], [data-radix-collection-item], [data-slat], input[type="radio"]';

/**
 * Whose a key is, by where the focus is: a field's, a control's, one's with arrows of its own, or nobody's, so that it is
 * the screen's.
 */
export function ownerOfKeys(target: EventTarget | null): 'field' | 'arrows' | 'control' | 'screen' {
  if (!(target instanceof Element)) return 'screen';
  if (target.closest(FIELDS)) return 'field';
  if (target.closest(WITH_ARROWS)) return 'arrows';
  return target.closest(CONTROLS) ? 'control' : 'screen';
}
