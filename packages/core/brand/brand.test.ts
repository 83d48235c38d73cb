import { NO_EFFECTS } from '../raster/effects';
import { applyBrand, brandKitSchema, EMPTY_KIT, type BrandKit } from './kit';

const HASH = 'a'.repeat(64);
const kit: BrandKit = {
  ...EMPTY_KIT,
  colours: [{ id: 'moss', title: 'Moss', colour: '#345544' }],
  fonts: [{ id: 'head', title: 'Headlines', font: 'fraunces-600' }],
  texts: [{ id: 'claim', title: 'Claim', text: 'Made to last' }],
  logos: [{ id: 'mark', title: 'Mark', light: { picture: HASH, width: 100, height: 50 }, dark: null }],
  effects: [
    {
      id: 'soft',
      title: 'Soft',
      effects: { ...NO_EFFECTS, glow: { size: 3, colour: '#ffffff', opacity: 1 } },
    },
  ],
};
const error = (value: unknown) => brandKitSchema.validate(value).error?.message;

test('an empty kit and a full one are valid; entries need ids of their own', () => {
  expect(error(EMPTY_KIT)).toBeUndefined();
  expect(error(kit)).toBeUndefined();
  expect(error({ ...kit, colours: [...kit.colours, ...kit.colours] })).toContain('duplicate');
  expect(error({ ...kit, colours: [{ id: 'Moss!', title: 'Moss', colour: '#345544' }] })).toContain(
    'colours',
  );
  expect(error({ ...kit, colours: [{ id: 'moss', title: 'Moss', colour: 'green' }] })).toContain('colour');
});

test('a language tag is brought to its canonical form, and a wrong one is refused with examples', () => {
  expect(brandKitSchema.validate({ ...kit, locale: 'de-at' }).value.locale).toBe('de-AT');
  expect(error({ ...kit, locale: 'not a tag' })).toContain('en-GB or de-DE');
});

describe('an element that refers to the kit', () => {
  const element = {
    id: 'e',
    colour: '#000000',
    font: 'hanken-400',
    text: 'old',
    plate: { colour: '#ffffff', opacity: 1 },
    effects: NO_EFFECTS,
    brand: {} as Record<string, string>,
  };
  const branded = (brand: Record<string, string>, by: BrandKit | null = kit) =>
    applyBrand({ ...element, brand }, by);

  test('takes colours, fonts, texts and effects as the kit has them now', () => {
    const taken = branded({ colour: 'moss', font: 'head', text: 'claim', effects: 'soft' });
    expect(taken).toMatchObject({ colour: '#345544', font: 'fraunces-600', text: 'Made to last' });
    expect(taken.effects).toEqual(kit.effects[0].effects);
    const later = { ...kit, colours: [{ id: 'moss', title: 'Moss', colour: '#112211' }] };
    expect(branded({ colour: 'moss' }, later).colour).toBe('#112211');
  });

  test('reaches into its parts, and lets parts that it does not have be', () => {
    expect(branded({ 'plate.colour': 'moss' }).plate).toEqual({ colour: '#345544', opacity: 1 });
    const bare = applyBrand({ ...element, plate: null, brand: { 'plate.colour': 'moss' } }, kit);
    expect(bare.plate).toBeNull();
  });

  test('keeps its own where the kit has no such entry, or there is no kit', () => {
    expect(branded({ colour: 'sea' }).colour).toBe('#000000');
    expect(branded({ colour: 'moss' }, null)).toMatchObject({ colour: '#000000' });
  });

  test('is not changed itself', () => {
    const before = { ...element, brand: { 'plate.colour': 'moss' } };
    const copy = JSON.parse(JSON.stringify(before)) as typeof before;
    applyBrand(before, kit);
    expect(before).toEqual(copy);
  });

  test('takes both pictures of a logo, of which one may be missing', () => {
    const logo = { logo: null, light: null, dark: 'b'.repeat(64), brand: { logo: 'mark' } };
    expect(applyBrand(logo, kit)).toMatchObject({ light: HASH, dark: null });
  });
});
