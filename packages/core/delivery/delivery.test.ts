import { ByteLimitError, withinBytes } from './byte-budget';
import { fileName, uniqueNames } from '../spec/file-name';

const values = {
  sku: 'MB/PL 160',
  listing: 'Topf',
  marketplace: 'Kestrel',
  slot: 'main',
  variant: 'Ölgrün',
  shot: '',
  n: 3,
};

test('file names follow the pattern and are safe everywhere', () => {
  expect(fileName('{sku}_{slot}.{n}', values)).toBe('MB-PL-160_main.3');
  expect(fileName('{variant}', values)).toBe('Olgrun');
  expect(fileName('{sku}/{slot}', values)).toBe('MB-PL-160/main');
  for (const away of ['../../{slot}', '/{slot}', 'C:\\{slot}', 'a/../{slot}', '..'])
    expect(() => fileName(away, values)).toThrow(/leaves the delivery's folder/);
  expect(() => fileName('{price}', values)).toThrow(/asks for \{price\}/);
  expect(() => fileName('{shot}', values)).toThrow(/empty name/);
});

test('names that would clash are told apart, whatever their case', () => {
  expect(uniqueNames(['a', 'A', 'b', 'a'])).toEqual(['a', 'A-2', 'b', 'a-3']);
});

test('the highest quality within the limit is found, without trying them all', async () => {
  let tries = 0;
  const encode = async (q: number) => {
    tries++;
    return new Uint8Array(1000 + q * q);
  };
  expect((await withinBytes(encode, 1000 + 71 * 71)).quality).toBe(71);
  expect(tries).toBeLessThanOrEqual(8);
  expect((await withinBytes(encode, 1e6)).quality).toBe(92);
  await expect(withinBytes(encode, 1500)).rejects.toThrow(ByteLimitError);
});
