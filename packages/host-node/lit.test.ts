import { createHash } from 'node:crypto';
import sharp from 'sharp';
import { airOf, toneOf } from '@scenograph/core/elements/product/lit';
import type { ProductElement } from '@scenograph/core/elements/product/model';
import { emptyShot } from '@scenograph/core/shot/document';
import { resolveBase, type ResolvedShot } from '@scenograph/core/shot/resolve';
import { newProduct, newSceneBackdrop } from '@scenograph/core/shot/starters';
import type { Rgba } from '@scenograph/core/raster/pixels';
import { baseOfCutout } from '@scenograph/core/stage/base';
import { readSceneFile, type SceneFile } from '@scenograph/core/stage/scene-file';
import { movedOnGround } from '@scenograph/core/stage/stand';
import { groundOf } from '@scenograph/core/elements/ground-of';
import { createPainter, type Painter } from './painter';
import { decodePicture } from './read-picture';

const FRAME = { width: 800, height: 600 };
const store = new Map<string, Buffer>();
const keep = (bytes: Buffer) => {
  const hash = createHash('sha256').update(bytes).digest('hex');
  store.set(hash, bytes);
  return hash;
};
const svg = (width: number, height: number, parts: string) =>
  sharp(
    Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}">${parts}</svg>`),
  )
    .png()
    .toBuffer();

/** A warm table before a pale wall, and a can of one paint, evenly lit in its photo, with what else is seen on it. */
async function staged(
  marks: Partial<SceneFile> = {},
  paint = '#8a8a8a',
  on = '',
  scenery = '',
): Promise<{ shot: ResolvedShot; product: ProductElement; painter: Painter }> {
  const wall =
    '<rect width="800" height="260" fill="#e8e6e0"/><rect y="260" width="800" height="340" fill="#b08a60"/>';
  const scene = keep(await svg(800, 600, wall + scenery));
  const can = `<g fill="${paint}"><rect y="16" width="160" height="210"/><ellipse cx="80" cy="16" rx="80" ry="16"/><ellipse cx="80" cy="226" rx="80" ry="20"/></g>${on}`;
  const bytes = await svg(160, 246, can);
  const base = baseOfCutout(await decodePicture(bytes));
  const side = {
    name: 'table',
    title: 'Table',
    widthPx: 800,
    heightPx: 600,
    kind: 'scene',
    plane: {
      corners: [
        [250, 330],
        [550, 330],
        [640, 520],
        [160, 520],
      ],
      widthMm: 400,
      depthMm: 300,
    },
    ...marks,
    light: { azimuthDeg: -80, elevationDeg: 40, softness: 0.2 },
    standSpots: [{ id: 'middle', x: 400, y: 450, pxPerMm: 1 }],
  };
  const { survey } = readSceneFile(JSON.stringify(side));
  const backdrop = newSceneBackdrop('scene', 'Table', scene, survey);
  const data = {
    title: 'Can',
    variant: '',
    sku: 'C',
    price: null,
    currency: 'EUR',
    widthMm: 80,
    heightMm: 120,
    depthMm: 80,
    cutout: { picture: keep(bytes), width: 160, height: 246, base },
  };
  const product = newProduct('can', data, FRAME, 'stand', [backdrop]);
  const shot = resolveBase({ ...emptyShot(FRAME.width, FRAME.height), elements: [backdrop, product] }, data);
  return { shot, product, painter: createPainter(async (hash) => store.get(hash)!) };
}

const withProduct = (shot: ResolvedShot, product: ProductElement): ResolvedShot => ({
  ...shot,
  elements: [shot.elements[0], product],
});

/** Mean brightness of a strip down the product, from 0 at its left to 1 at its right. */
function strip({ data, width }: Rgba, { box }: ProductElement, share: number): number {
  const x = Math.round(box.x + share * box.width);
  let [sum, n] = [0, 0];
  for (let y = Math.round(box.y + box.height * 0.4); y < box.y + box.height * 0.7; y++, n++)
    sum += data[(y * width + x) * 4 + 1];
  return sum / n;
}

test('the scene’s light falls on the side it comes from; at no strength the photo’s stays', async () => {
  const { shot, product, painter } = await staged();
  const painted = async (change: Partial<ProductElement>) =>
    (await painter.paint(withProduct(shot, { ...product, ...change }))).pixels();
  const from = (azimuthDeg: number) =>
    painted({ shadow: { ...product.shadow, light: { azimuthDeg, elevationDeg: 40, softness: 0.2 } } });
  const [left, right] = [await from(-80), await from(80)];
  expect(strip(left, product, 0.15)).toBeGreaterThan(strip(left, product, 0.85) + 40);
  expect(strip(right, product, 0.85)).toBeGreaterThan(strip(right, product, 0.15) + 40);
  const onItsHead = await painted({ box: { ...product.box, rotation: 180 } });
  expect(strip(onItsHead, product, 0.15)).toBeGreaterThan(strip(onItsHead, product, 0.85) + 40);
  const plain = await painted({ relight: 0, tone: { strength: 0, limit: 6 } });
  expect([0.15, 0.5, 0.85].map((s) => Math.round(strip(plain, product, s)))).toEqual([138, 138, 138]);
});

test('drift and light are told of what is painted; the tint is held under the limit', async () => {
  const { shot, product, painter } = await staged();
  const told = (change: Partial<ProductElement>) => {
    const changed = { ...product, ...change };
    return painter.with(withProduct(shot, changed), (environment) => toneOf(changed, environment));
  };
  const tone = { strength: 0, limit: 1.5 };
  const free = await told({ tone: { ...tone, limit: 30 } });
  expect(free).toMatchObject({ held: false });
  expect(free.drift).toBeGreaterThan(1.5);
  const held = await told({ tone });
  expect(held).toMatchObject({ held: true, light: free.light });
  expect(held.drift).toBeLessThanOrEqual(1.5);
  expect(await told({ relight: 0, tone })).toMatchObject({ drift: 0, held: false, light: 1 });
});

test('a window of the studio goes from a glazed can; a print and a can without one stay', async () => {
  const spot = (fill: string) => `<rect x="52" y="70" width="20" height="14" fill="${fill}"/>`;
  const looked = async (on: string, gloss: number | null) => {
    const { shot, product, painter } = await staged({}, '#0f6f70', on);
    const changed = { ...product, gloss };
    const told = await painter.with(withProduct(shot, changed), (environment) =>
      toneOf(changed, environment),
    );
    const { data, width } = (await painter.paint(withProduct(shot, changed))).pixels();
    const { box } = changed;
    const at = (x: number, y: number) =>
      (Math.round(box.y + (y / 246) * box.height) * width + Math.round(box.x + (x / 160) * box.width)) * 4;
    // The spot's red against that of the paint beside it.
    return { gloss: told.gloss, stands: data[at(62, 77)] - data[at(40, 77)] };
  };
  // The paint's light, and white light on it.
  const window = await looked(spot('#9cbfbf'), null);
  expect(window.gloss).toBe(1);
  expect(window.stands).toBeLessThan(20);
  expect((await looked(spot('#9cbfbf'), 0)).stands).toBeGreaterThan(60);
  const print = await looked(spot('#d9b23a'), null);
  expect(print.gloss).toBe(0);
  expect(print.stands).toBeGreaterThan(60);
  expect((await looked('', null)).gloss).toBe(0);
});

test('while it is dragged a product keeps the light that it last settled in', async () => {
  const { shot, product, painter } = await staged();
  const settled = (await painter.paint(shot)).pixels();
  const ground = groundOf(shot.elements)!;
  const moved = { ...product, box: movedOnGround(product, { x: 520, y: 470 }, ground, FRAME) };
  const dragged = (await painter.paint(withProduct(shot, moved), { draft: true })).pixels();
  for (const share of [0.2, 0.5, 0.8])
    expect(Math.abs(strip(dragged, moved, share) - strip(settled, product, share))).toBeLessThan(4);
});

test.each([
  ['turned', { box: { rotation: 35 } }],
  ['floating', { pose: 'float' as const }],
  ['lying flat', { pose: 'flat' as const }],
])('a product that is %s is lit too, and nothing is painted beyond its outline', async (_, change) => {
  const { shot, product, painter } = await staged();
  const box = { ...product.box, ...('box' in change ? change.box : {}) };
  const posed = { ...product, ...change, box } as ProductElement;
  const shadow = { ...posed.shadow, strength: 0, contact: 0 };
  const lit = (await painter.paint(withProduct(shot, { ...posed, shadow }))).pixels();
  const plain = (await painter.paint(withProduct(shot, { ...posed, shadow, relight: 0 }))).pixels();
  const bare = (await painter.paint(withProduct(shot, { ...posed, shadow, opacity: 0 }))).pixels();
  let [onIt, beyond] = [0, 0];
  for (let i = 0; i < bare.data.length; i += 4) {
    const covered = Math.abs(plain.data[i] - bare.data[i]) + Math.abs(plain.data[i + 2] - bare.data[i + 2]);
    const changed = Math.abs(lit.data[i] - plain.data[i]) + Math.abs(lit.data[i + 2] - plain.data[i + 2]);
    if (covered > 20 && changed > 4) onIt++;
    if (covered === 0 && changed > 24) beyond++;
  }
  expect(onIt).toBeGreaterThan(200);
  expect(beyond).toBeLessThan(onIt * 0.02);
});

test('shadow and reflection end at the edge of the ground, and what stands on it does not', async () => {
  const { shot, product, painter } = await staged();
  const [backdrop] = shot.elements;
  const edge: [number, number][] = [[330, 300], [790, 300], [790, 590], [330, 590]]; // prettier-ignore
  const ending = (await staged({ groundEdge: edge })).shot;
  const lit = {
    ...product,
    shadow: { ...product.shadow, light: { azimuthDeg: 80, elevationDeg: 30, softness: 0.1 } },
  };
  const painted = async (s: ResolvedShot) =>
    (await painter.paint({ ...s, elements: [s.elements[0], lit] })).pixels();
  const [whole, cut] = [await painted(shot), await painted(ending)];
  const empty = (await painter.paint({ ...shot, elements: [backdrop] })).pixels();
  let [before, left] = [0, 0];
  for (let y = 0; y < 600; y++)
    for (let x = 0; x < 800; x++) {
      const j = (y * 800 + x) * 4 + 1;
      const { box } = product;
      if (x > box.x - 2 && x < box.x + box.width + 2 && y < box.y + box.height + 2) {
        // The product itself is as it was.
        if (x > box.x + 12 && x < box.x + box.width - 12 && y > box.y + 20 && y < box.y + box.height - 40)
          expect(Math.abs(cut.data[j] - whole.data[j])).toBeLessThan(2);
        continue;
      }
      if (x < 328) {
        left = Math.max(left, empty.data[j] - cut.data[j]);
        before = Math.max(before, empty.data[j] - whole.data[j]);
      }
    }
  // To the left of the edge the shadow is gone, where it fell before.
  expect(before).toBeGreaterThan(20);
  expect(left).toBeLessThan(2);
});

/** The red of a place of the frame: 176 on the table, 232 on the wall, 138 on the can. */
const light = ({ data, width }: Rgba, x: number, y: number) =>
  data[(Math.round(y) * width + Math.round(x)) * 4];

test('a shadow climbs a surveyed wall, also where the ground ends before it', async () => {
  const wallFoot: SceneFile['wallFoot'] = [
    [200, 300],
    [600, 300],
  ];
  const groundEdge: SceneFile['groundEdge'] = [
    [0, 300],
    [800, 300],
    [800, 600],
    [0, 600],
  ];
  const over = async (marks: Partial<SceneFile>) => {
    const { shot, product, painter } = await staged(marks);
    const away = { azimuthDeg: -20, elevationDeg: 20, softness: 0 };
    const lit = {
      ...product,
      box: { ...product.box, y: product.box.y - 90 },
      relight: 0,
      tone: { strength: 0, limit: 6 },
    };
    const shaded = { ...lit, shadow: { ...lit.shadow, strength: 0.8, light: away } };
    const painted = (await painter.paint(withProduct(shot, shaded))).pixels();
    const { box } = shaded;
    // Right of the product and above the wall's foot.
    let least = 255;
    for (let x = box.x + box.width + 4; x < box.x + box.width * 2; x++)
      least = Math.min(least, light(painted, x, 285));
    return least;
  };
  const wall = await over({ wallFoot });
  expect(wall).toBeLessThan(110);
  expect(Math.abs((await over({ wallFoot, groundEdge })) - wall)).toBeLessThan(4);
  // Without the wall the ground ends at its edge, and nothing beyond it is shaded.
  expect(await over({ groundEdge })).toBe(176);
});

test('in the scene’s own shade a product is darker and throws no second shadow', async () => {
  const shades: SceneFile['shades'] = [
    [
      [0, 380],
      [800, 380],
      [800, 600],
      [0, 600],
    ],
  ];
  const dark = '<rect y="380" width="800" height="220" fill="#6a5338"/>';
  const painted = async (marks: Partial<SceneFile>) => {
    const { shot, product, painter } = await staged(marks, '#8a8a8a', '', dark);
    const sharp = { ...product, relight: 0, tone: { strength: 0, limit: 6 } };
    const side = { ...sharp, shadow: { ...sharp.shadow, strength: 0.9, contact: 0 } };
    return { pixels: (await painter.paint(withProduct(shot, side))).pixels(), product };
  };
  const [lit, shaded] = [await painted({}), await painted({ shades })];
  const { box } = lit.product;
  const beside = (p: typeof lit) => light(p.pixels, box.x + box.width + 18, box.y + box.height - 12);
  expect(beside(lit)).toBeLessThan(70);
  expect(beside(shaded)).toBe(106);
  expect(strip(shaded.pixels, lit.product, 0.5)).toBeLessThan(strip(lit.pixels, lit.product, 0.5) - 30);
});

test('the scene’s shade keeps its light from a product, and nothing from the side that the light does not reach', async () => {
  const shades: SceneFile['shades'] = [
    [
      [0, 262],
      [800, 262],
      [800, 600],
      [0, 600],
    ],
  ];
  const painted = async (marks: Partial<SceneFile>) => {
    const { shot, product, painter } = await staged(marks);
    const bare = { ...product, tone: { strength: 0, limit: 40 }, gloss: 0 };
    return { pixels: (await painter.paint(withProduct(shot, bare))).pixels(), product };
  };
  const [lit, shaded] = [await painted({}), await painted({ shades })];
  const fell = (share: number) =>
    strip(lit.pixels, lit.product, share) - strip(shaded.pixels, lit.product, share);
  // The light comes from the left: there it is taken, on the right was none.
  expect(fell(0.15)).toBeGreaterThan(40);
  expect(Math.abs(fell(0.9))).toBeLessThan(6);
});

test('where the scene runs out of focus a product does too, beyond its edge; by hand it stays sharp', async () => {
  const { shot, product, painter } = await staged({
    focus: { sharp: [400, 590], soft: [400, 450], blurPx: 6 },
  });
  expect(product.blur).toBeNull();
  const ground = groundOf(shot.elements);
  const bare = {
    ...product,
    box: movedOnGround(product, { x: 400, y: 450 }, ground, FRAME),
    relight: 0,
    tone: { strength: 0, limit: 6 },
    shadow: { ...product.shadow, strength: 0, contact: 0 },
  };
  const paint = async (change: Partial<ProductElement>) =>
    (await painter.paint(withProduct(shot, { ...bare, ...change }))).pixels();
  const told = await painter.with(withProduct(shot, bare), (environment) => airOf(bare, environment));
  // Its spot is a little raised, and so a little nearer than the ground that shows there.
  expect(told.blur).toBeGreaterThan(2);
  expect(told.blur).toBeLessThan(6);
  const [soft, sharp] = [await paint({}), await paint({ blur: 0 })];
  const { box } = bare;
  const [edge, middle] = [box.x + box.width, box.y + box.height / 2];
  // The table shows just outside the sharp product, and is darkened by the soft one.
  expect(light(sharp, edge + 2, middle)).toBeGreaterThan(light(soft, edge + 2, middle) + 5);
  expect(light(soft, edge - 2, middle)).toBeGreaterThan(light(sharp, edge - 2, middle) + 5);
  expect(light(soft, box.x + box.width / 2, middle)).toBe(light(sharp, box.x + box.width / 2, middle));
});

test('haze lies over a product as far as it stands away', async () => {
  const marks: Partial<SceneFile> = { haze: { at: [400, 450], share: 0.5, colour: '#ffffff' } };
  const { shot, product, painter } = await staged(marks);
  const plain = { ...product, relight: 0, tone: { strength: 0, limit: 6 } };
  const at = async (change: Partial<ProductElement>) =>
    strip((await painter.paint(withProduct(shot, { ...plain, ...change }))).pixels(), product, 0.5);
  const [hazy, clear] = [await at({}), await at({ haze: 0 })];
  expect(clear).toBeCloseTo(138, 0);
  // Half of linear 0.25 and half of 1, encoded.
  expect(hazy).toBeGreaterThan(195);
  expect(hazy).toBeLessThan(212);
});

test('while it is dragged a product keeps the focus that it last settled in, and takes the new one when it is dropped', async () => {
  const { shot, product, painter } = await staged({
    focus: { sharp: [400, 590], soft: [400, 350], blurPx: 9 },
  });
  const ground = groundOf(shot.elements)!;
  const at = (y: number) => ({ ...product, box: movedOnGround(product, { x: 400, y }, ground, FRAME) });
  const blurOf = async (element: ProductElement, draft: boolean) => {
    const on = withProduct(shot, element);
    if (draft) await painter.paint(on, { draft });
    return (await painter.with(on, (environment) => airOf(element, { ...environment, draft }))).blur;
  };
  const near = await blurOf(at(560), false);
  expect(await blurOf(at(400), true)).toBe(near);
  const far = await blurOf(at(400), false);
  expect(far).toBeGreaterThan(near + 2);
});

test('as far out of focus as can be set a product is a haze of its colour, and nothing breaks', async () => {
  const { shot, product, painter } = await staged();
  const gone = { ...product, blur: 200, relight: 0, shadow: { ...product.shadow, strength: 0, contact: 0 } };
  const painted = (await painter.paint(withProduct(shot, gone))).pixels();
  const { box } = product;
  const middle = light(painted, box.x + box.width / 2, box.y + box.height / 2);
  // Between the can and the table behind it, and no darker than either.
  expect(middle).toBeGreaterThan(138);
  expect(middle).toBeLessThan(232);
});
