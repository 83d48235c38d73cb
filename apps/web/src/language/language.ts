import type { ReactNode } from 'react';
import { createIntl, createIntlCache, type IntlShape } from 'react-intl';

/**
 * The language of the interface. A text is its own key: `msg('Save')` gives what the catalogue of the chosen language has
 * for it, in English the text itself. Texts are ICU messages, so that plurals and order of words are the language's:
 * `msg('{photos, plural, one {# photo} other {# photos}}', { photos })`. What the core says (checks, refusals) comes in
 * English.
 *
 * The language is there before any screen is loaded (see main.tsx), so a text may stand in a constant of a module;
 * choosing another one loads the page again.
 */
export const LANGUAGES = { en: 'English', de: 'Deutsch' } as const;
export type Language = keyof typeof LANGUAGES;

/** What can be put in a message: `false` and nothing are shown as nothing, as React does. */
export type Value = string | number | boolean | null | undefined;
type Inside = (inside: ReactNode[]) => ReactNode;

/** English of one sort: dates in the order of day, month, year. */
const LOCALES: Record<Language, string> = { en: 'en-GB', de: 'de-DE' };
const STORED = 'scenograph-language';

let language: Language = 'en';
let catalogue: Readonly<Record<string, string>> = {};
let intl = shape();

function shape(): IntlShape {
  const locale = LOCALES[language];
  return createIntl({ locale, defaultLocale: locale, onError: () => undefined }, createIntlCache());
}

/** The language chosen on this browser. */
export function chosenLanguage(): Language {
  const stored = localStorage.getItem(STORED);
  return stored && Object.hasOwn(LANGUAGES, stored) ? (stored as Language) : 'en';
}

/** Keeps the choice and shows the page anew in it. What is being edited is kept by its outbox. */
export function chooseLanguage(next: Language) {
  localStorage.setItem(STORED, next);
  location.reload();
}

/** Puts a language in force: before anything is drawn. */
export function speak(next: Language, texts: Readonly<Record<string, string>> = {}) {
  language = next;
  catalogue = texts;
  intl = shape();
  if (typeof document !== 'undefined') document.documentElement.lang = next;
}

export const currentLanguage = (): Language => language;

const shown = (value: Value): string | number =>
  typeof value === 'number'
    ? value
    : value === null || value === undefined || value === false
      ? ''
      : String(value);

/** @returns a text in the language of the interface, with its values in their places */
export function msg(text: string, values?: Readonly<Record<string, Value>>): string {
  const found = catalogue[text] ?? text;
  if (!values && !/['{<]/.test(found)) return found;
  const put = values && Object.fromEntries(Object.entries(values).map(([k, v]) => [k, shown(v)]));
  return intl.formatMessage({ id: text, defaultMessage: found }, put);
}

/** The same with marked parts: `<b>…</b>` in the text is drawn by `values.b`. */
export function rich(text: string, values: Readonly<Record<string, Value | Inside>>): ReactNode {
  const put = Object.fromEntries(
    Object.entries(values).map(([k, v]) => [k, typeof v === 'function' ? v : shown(v)]),
  );
  return intl.formatMessage({ id: text, defaultMessage: catalogue[text] ?? text }, put);
}

/** @returns "a, b and c" */
export const listText = (items: readonly string[]): string => intl.formatList(items, { type: 'conjunction' });

/** @returns a number as a field shows it, without groups: 1200.5 or 1200,5; never "-0" */
export const numberText = (n: number, digits: number): string =>
  intl.formatNumber(Number(n.toFixed(digits)) + 0, { maximumFractionDigits: digits, useGrouping: false });

/** @returns a number with so many digits after the point, always: 1.50 or 1,50 */
export const decimals = (n: number, digits: number): string =>
  intl.formatNumber(n, { minimumFractionDigits: digits, maximumFractionDigits: digits });

/** How a number that is typed is read. */
export const decimalComma = (): boolean => numberText(0.5, 1).includes(',');

/** @returns a day and its time of day; `at` as ISO 8601 */
export const writeMoment = (at: string): string =>
  intl.formatDate(at, { dateStyle: 'short', timeStyle: 'medium' });

/** @returns hours and minutes */
export const writeTime = (at: Date | string | number): string =>
  intl.formatTime(at, { hour: '2-digit', minute: '2-digit' });

/** @returns a day; `at` as ISO 8601 */
export const writeDay = (at: string): string => intl.formatDate(at, { dateStyle: 'short' });
