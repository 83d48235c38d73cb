import { NO_PICTURE } from '../elements/base';
import { elementKind } from '../elements/index';
import { readShot } from '../shot/document';
import { data } from '../shot/one-of-each.fixture';
import { resolveBase, resolveForSlot } from '../shot/resolve';
import { sceneShot, whiteShot } from '../shot/starters';
import { readSlot } from '../spec/slot';
import { DESIGNS } from './designs';
import { fillTemplate, makeTemplate, openPlaces, suggestedPlace } from './fill';
import { PURPOSES, SEASONS } from './template';

const other = {
  ...data,
  id: 'w',
  title: 'Dish',
  cutout: { picture: 'd'.repeat(64), width: 900, height: 300 },
};
const productsOf = (shot: { elements: readonly { kind: string }[] }) =>
  shot.elements.filter((e) => e.kind === 'product') as unknown as {
    picture: string;
    followsVariant: boolean;
    hidden: boolean;
    box: { x: number; y: number; width: number; height: number };
  }[];

describe.each(DESIGNS.map((d) => [d.title, d] as const))('the design "%s"', (_, design) => {
  test('is a whole document with an id, a purpose and a season of its own list', () => {
    expect(DESIGNS.filter((d) => d.id === design.id)).toHaveLength(1);
    expect(() => readShot(JSON.parse(JSON.stringify(design.document)))).not.toThrow();
    if (design.purpose) expect(PURPOSES).toContain(design.purpose);
    if (design.season) expect(SEASONS).toContain(design.season);
  });

  test('filled, every place for a product holds it inside the place, at its own shape', () => {
    const filled = fillTemplate(design.document, data, 'stand', [other]);
    expect(() => readShot(JSON.parse(JSON.stringify(filled)))).not.toThrow();
    for (const e of filled.elements) {
      if (e.kind !== 'product' || e.place?.expects !== 'product') continue;
      expect(e.picture).not.toBe(NO_PICTURE);
      expect(e.hidden).toBe(false);
      const own = e.picture === data.cutout!.picture ? data.cutout! : other.cutout;
      expect(e.box.width / e.box.height).toBeCloseTo(own.width / own.height, 3);
      const area = e.place.area!;
      expect(e.box.x).toBeGreaterThanOrEqual(area.x - 0.5);
      expect(e.box.x + e.box.width).toBeLessThanOrEqual(area.x + area.width + 0.5);
      expect(e.box.y + e.box.height).toBeLessThanOrEqual(area.y + area.height + 0.5);
    }
  });

  test.each([
    [1600, 1600],
    [1080, 1350],
    [1600, 600],
  ])('fits %i x %i with its words inside the frame', (width, height) => {
    const slot = readSlot({
      id: 's',
      title: 's',
      width,
      height,
      formats: ['jpeg'],
      maxBytes: 1e6,
      background: { kind: 'any' },
    });
    const filled = fillTemplate(design.document, data, 'stand', [other]);
    const { elements } = resolveForSlot(filled, 's/s', slot, data);
    for (const e of elements) {
      // Dimension lines lie along their product, wherever their own box is.
      if (e.hidden || elementKind(e.kind).role !== 'overlay' || e.spread || e.kind === 'measure') continue;
      const [cx, cy] = [e.box.x + e.box.width / 2, e.box.y + e.box.height / 2];
      expect({ name: e.name, inside: cx > 0 && cx < width && cy > 0 && cy < height }).toEqual({
        name: e.name,
        inside: true,
      });
    }
  });
});

describe('templates of one’s own', () => {
  const shot = whiteShot(data, 'stand');
  const product = shot.elements.find((e) => e.kind === 'product')!;

  test('a product that follows the variant becomes a place, and its picture leaves', () => {
    const place = suggestedPlace(product)!;
    const template = makeTemplate(shot, { [product.id]: place });
    expect(JSON.stringify(template)).not.toContain(data.cutout!.picture);
    expect(openPlaces(template).map((e) => e.id)).toEqual([product.id]);
    const filled = fillTemplate(template, other, 'stand');
    expect(openPlaces(filled)).toEqual([]);
    expect(productsOf(filled)[0].picture).toBe(other.cutout.picture);
  });

  test('what is no place stays as it is', () => {
    const template = makeTemplate(shot, {});
    expect(template.elements.map((e) => ({ ...e, place: null }))).toEqual(
      shot.elements.map((e) => ({ ...e, place: null })),
    );
    expect(fillTemplate(template, other, 'stand')).toEqual(template);
  });

  test('further places take further products in turn, or the same again where there is no other', () => {
    const place = suggestedPlace(product)!;
    const three = {
      ...shot,
      elements: [...shot.elements, { ...product, id: 'p2' }, { ...product, id: 'p3' }],
    };
    const template = makeTemplate(three, { [product.id]: place, p2: place, p3: place });
    const pictures = (others: (typeof data)[]) =>
      productsOf(fillTemplate(template, data, 'stand', others)).map((p) => p.picture[0]);
    expect(pictures([other])).toEqual(['c', 'd', 'd']);
    expect(pictures([])).toEqual(['c', 'c', 'c']);
    const filled = productsOf(fillTemplate(template, data, 'stand', [other]));
    expect(filled.map((p) => p.followsVariant)).toEqual([true, false, false]);
  });

  test('a product without a cutout leaves its place open', () => {
    const template = makeTemplate(shot, { [product.id]: suggestedPlace(product)! });
    expect(openPlaces(fillTemplate(template, { ...data, cutout: null }, 'stand'))).toHaveLength(1);
  });
});

test('a first shot stands on white or in its scene, with the product wholly inside', () => {
  const survey = {
    width: 1600,
    height: 1200,
    horizonY: 300,
    plane: null,
    known: null,
    spots: [],
    light: { azimuth: 40, elevation: 50, softness: 0.4, ambient: 0.5 },
    gloss: 0,
    occluder: null,
    areas: [],
    outline: null,
    mends: [],
    mended: null,
  };
  for (const shot of [whiteShot(data, 'stand'), whiteShot(other, 'flat')]) {
    expect(() => readShot(JSON.parse(JSON.stringify(shot)))).not.toThrow();
    const { elements, width, height } = resolveBase(shot, data);
    for (const p of productsOf({ elements })) {
      expect(p.box.x).toBeGreaterThanOrEqual(0);
      expect(p.box.x + p.box.width).toBeLessThanOrEqual(width);
      expect(p.box.y + p.box.height).toBeLessThanOrEqual(height);
    }
  }
  expect(() =>
    sceneShot(data, 'stand', { id: 's', title: 'Sill', picture: 'e'.repeat(64), survey } as never),
  ).not.toThrow();
});
