import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { render, screen } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import fc from 'fast-check';
import { NumberField } from '../ui/number-field';
import { textsOf } from './catalogues';
import {
  chosenLanguage,
  currentLanguage,
  decimalComma,
  msg,
  numberText,
  rich,
  speak,
  writeDay,
  writeMoment,
  writeTime,
} from './language';

beforeEach(() => localStorage.clear());
afterEach(() => speak('en'));

const PHOTOS = '{photos, plural, one {# photo} other {# photos}} imported';

test.each([
  [0, '0 photos imported'],
  [1, '1 photo imported'],
  [2, '2 photos imported'],
])('%p photos are counted in the right form', (photos, said) => expect(msg(PHOTOS, { photos })).toBe(said));

test('words without values or marks are themselves, whatever they are', () => {
  fc.assert(
    fc.property(fc.string(), (text) => {
      fc.pre(!/['{}<>#]/.test(text));
      expect(msg(text)).toBe(text);
    }),
  );
});

test('a value is put in as it is, also where it looks like a message', () => {
  fc.assert(
    fc.property(fc.string(), (name) => expect(msg('Remove {name} now', { name })).toBe(`Remove ${name} now`)),
  );
});

test('what React would not show is not shown; nought is', () => {
  expect(msg('a{b}c', { b: false })).toBe('ac');
  expect(msg('a{b}c', { b: null })).toBe('ac');
  expect(msg('a{b}c', { b: undefined })).toBe('ac');
  expect(msg('a{b}c', { b: 0 })).toBe('a0c');
});

test('braces and apostrophes that are meant are written', () => {
  expect(msg("Texts such as '{'title'}' of the product’s data")).toBe(
    'Texts such as {title} of the product’s data',
  );
  expect(msg("The scene's light")).toBe("The scene's light");
});

test('marked parts are drawn where the language has them', () => {
  const values = { n: 3, b: (inside: React.ReactNode[]) => <b>{inside}</b> };
  const { container, rerender } = render(<p>{rich('<b>{n}</b> kept', values)}</p>);
  expect(container.innerHTML).toBe('<p><b>3</b> kept</p>');
  speak('de', { '<b>{n}</b> kept': 'behalten: <b>{n}</b>' });
  rerender(<p>{rich('<b>{n}</b> kept', values)}</p>);
  expect(container.innerHTML).toBe('<p>behalten: <b>3</b></p>');
});

test('a text that the language does not have stays English, in that language’s forms', () => {
  speak('de', { Save: 'Speichern' });
  expect(currentLanguage()).toBe('de');
  expect(document.documentElement.lang).toBe('de');
  expect(msg('Save')).toBe('Speichern');
  expect(msg('Close')).toBe('Close');
  expect(msg(PHOTOS, { photos: 1 })).toBe('1 photo imported');
});

test('days, times and numbers are written as the language writes them', () => {
  const at = '2026-11-03T14:05:09';
  expect(writeDay(at)).toBe('03/11/2026');
  expect(writeTime(at)).toBe('14:05');
  expect(writeMoment(at)).toBe('03/11/2026, 14:05:09');
  expect(numberText(1200.456, 2)).toBe('1200.46');
  expect(numberText(-0.3, 0)).toBe('0');
  expect(msg('{n, number} rows', { n: 12345 })).toBe('12,345 rows');
  speak('de');
  expect(writeDay(at)).toBe('03.11.26');
  expect(numberText(1200.456, 2)).toBe('1200,46');
  expect(msg('{n, number} rows', { n: 12345 })).toBe('12.345 rows');
  expect(decimalComma()).toBe(true);
});

test('only a language that there is can have been chosen', () => {
  expect(chosenLanguage()).toBe('en');
  localStorage.setItem('scenograph-language', 'de');
  expect(chosenLanguage()).toBe('de');
  localStorage.setItem('scenograph-language', 'toString');
  expect(chosenLanguage()).toBe('en');
});

test('English is its own catalogue; German has one', async () => {
  expect(await textsOf('en')).toEqual({});
  expect((await textsOf('de')).Photos).toBe('Fotos');
});

test.each([
  ['2,5', 2.5],
  ['1.200', 1200],
  ['1,250', 1.25],
  ['1.250,5', 1250.5],
  ['2 * 1,5', 3],
])('in German "%s" typed into a field is %p', async (text, value) => {
  speak('de');
  const onCommit = jest.fn();
  render(<NumberField label="Breite" unit="mm" value={0.5} digits={2} onCommit={onCommit} />);
  const field = screen.getByLabelText('Breite');
  expect(field).toHaveValue('0,5');
  await userEvent.clear(field);
  await userEvent.type(field, `${text}{Enter}`);
  expect(onCommit).toHaveBeenCalledWith(value);
});

test('in German a number that a field shows is read back as it is', () => {
  speak('de');
  const onCommit = jest.fn();
  render(<NumberField label="Breite" unit="mm" value={1234.5} digits={1} onCommit={onCommit} />);
  const field = screen.getByLabelText<HTMLInputElement>('Breite');
  expect(field.value).toBe('1234,5');
  field.focus();
  field.blur();
  expect(onCommit).not.toHaveBeenCalled();
});
