import { create } from 'zustand';
import { persist } from 'zustand/middleware';

/** Fields, and what asks for an answer before anything else: they take all keys themselves. */
const FIELDS =
  'input:not([type="checkbox"]):not([type="radio"]):not([type="button"]), textarea, select, [contenteditable="true"], [role$="dialog"], [role="menu"], [role="listbox"], [role="slider"]';
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

/**
 * Whether keys of one letter or sign do something; kept for this browser. Those who dictate, or press keys by accident, switch
 * them off (WCAG 2.2, 2.1.4). What they do is in the command menu too.
 */
export const useLetterKeys = create<{ on: boolean }>()(
  persist((): { on: boolean } => ({ on: true }), { name: 'scenograph-letter-keys' }),
);

/** Whether an event is of a key of one letter or sign, alone, and those are switched off. */
export function isSilenced(e: Pick<KeyboardEvent, 'key' | 'ctrlKey' | 'metaKey' | 'altKey'>): boolean {
  return (
    e.key.length === 1 &&
    e.key !== ' ' &&
    !e.ctrlKey &&
    !e.metaKey &&
    !e.altKey &&
    !useLetterKeys.getState().on
  );
}

/** Keys of a screen that are no action's, with what they do. */
export type KeyNotes = readonly (readonly [keys: string, what: string])[];
