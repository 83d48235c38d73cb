import { expect, test } from '@jest/globals';
import { parse, TYPE, type MessageFormatElement } from '@formatjs/icu-messageformat-parser';
import { textsOfCore } from '../../test/texts';
import { textsIn } from '../../test/texts-in.mjs';
import german from './de.json';

// Tests run in the project's root.
const texts = [...new Set([...textsIn('apps/web/src'), ...textsOfCore()])];
const catalogue: Readonly<Record<string, string>> = german;

/** What a message is filled with: names of its values and of its marked parts. */
function filledWith(message: string): string[] {
  const names = new Set<string>();
  const visit = (elements: MessageFormatElement[]) => {
    for (const element of elements) {
      if (element.type === TYPE.literal || element.type === TYPE.pound) continue;
      names.add(element.type === TYPE.tag ? `<${element.value}>` : element.value);
      if (element.type === TYPE.tag) visit(element.children);
      if (element.type === TYPE.plural || element.type === TYPE.select)
        for (const option of Object.values(element.options)) visit(option.value);
    }
  };
  visit(parse(message));
  return [...names].sort();
}

test('the sources are read: they have more than a thousand texts', () => {
  expect(texts.length).toBeGreaterThan(1000);
  expect(texts).toContain('Add a shot');
});

test('every text is a message that can be read', () => {
  for (const text of texts) expect(() => parse(text)).not.toThrow();
});

test('every text has its German', () => {
  expect(texts.filter((text) => !catalogue[text])).toEqual([]);
});

test('no German text belongs to none', () => {
  const known = new Set(texts);
  // Names of fixes are built by checks, each with its own slot's numbers: they stand in the core alone.
  const ofFixes = new Set([
    'Bring the product inside',
    'Move inside the margin',
    'Scale to coverage',
    'Hide the watermark here',
    'Hide them in this slot',
    'Keep its own colour here',
  ]);
  expect(Object.keys(catalogue).filter((text) => !known.has(text) && !ofFixes.has(text))).toEqual([]);
});

test('German is filled with the same values as English, and loses no mark', () => {
  const wrong = texts.filter((text) => {
    const [ours, theirs] = [filledWith(text), filledWith(catalogue[text] ?? text)];
    return ours.join() !== theirs.join();
  });
  expect(wrong).toEqual([]);
});

test('the catalogue is sorted, so that two people who add to it seldom meet', () => {
  const keys = Object.keys(catalogue);
  expect(keys).toEqual([...keys].sort((a, b) => (a < b ? -1 : 1)));
});
