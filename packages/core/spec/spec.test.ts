import { fromLinear, LINEAR } from '../raster/colour';
import { createPlane, createRgba, type Rgba } from '../raster/pixels';
import { emptyShot, type Shot } from '../shot/document';
import { newBackdrop, newProduct, newText } from '../shot/starters';
import type { Subject } from './checks/check';
import { judgeMeasures, measureAll, withWaivers, worst } from './checks/index';
import { nameClashes } from './checks/name-clash';
import { nearDuplicates } from './checks/near-duplicate';
import { hashDistance, pictureHash } from './checks/picture-hash';
import { feedByRule } from './feed-by-rule';
import { readSlot, expandSlots, type Slot } from './slot';
import { readSpecSheet } from './read-spec-sheet';

const slot = (change: object = {}): Slot =>
  readSlot({
    id: 'main',
    title: 'Main',
    width: 400,
    height: 400,
    formats: ['jpeg'],
    maxBytes: 100_000,
    background: { kind: 'white', tolerance: 2 },
    ...change,
  });

const sheet = (...slots: object[]) => ({ id: 's', marketplace: 'Kestrel', slots });

/** A white picture with a dark product in it, and where the product is. */
function picture(box: { x: number; y: number; width: number; height: number }, spot = 255) {
  const image = createRgba(400, 400);
  image.data.fill(255);
  const products = createPlane(400, 400);
  for (let y = box.y; y < box.y + box.height; y++)
    for (let x = box.x; x < box.x + box.width; x++) {
      products.data[y * 400 + x] = 1;
      image.data.set([60, 90, 80], (y * 400 + x) * 4);
    }
  // A patch of shade in the lower right.
  for (let y = 350; y < 380; y++)
    for (let x = 350; x < 390; x++) image.data.set([spot, spot, spot], (y * 400 + x) * 4);
  return { image, products };
}

const subject = (
  s: Slot,
  { image, products }: ReturnType<typeof picture>,
  more: Partial<Subject> = {},
): Subject => ({
  slot: s,
  slotKey: 's/main',
  width: 400,
  height: 400,
  picture: image,
  products,
  shot: null,
  words: null,
  sources: new Map(),
  ...more,
});

const verdicts = (measures: object, s: Slot) =>
  Object.fromEntries(judgeMeasures(measures as never, s).map((r) => [r.check, r.verdict]));

test('rules that contradict each other are named, with the slot and what to do', () => {
  for (const [change, said] of [
    [{ coverage: { min: 0.9, max: 0.5 } }, /"Main": coverage is to be at least 90 % and at most 50 %/],
    [{ marginShare: 0.2, coverage: { min: 0.9 } }, /a margin of 20 % on each side leaves 60 %/],
    [{ limits: { minWidth: 500 } }, /made with a width of 400 px, which the slot itself does not take/],
    [
      { limits: { minAspect: 2, maxAspect: 1 } },
      /the aspect ratio is to be at least 2 and at most 1\. Swap or change them/,
    ],
    [{ background: { kind: 'transparent' } }, /JPEG cannot hold/],
    [{ maxBytes: 1024, width: 4000, height: 4000 }, /too few for 4000 x 4000/],
    [{ fileName: '{sku}/../{slot}' }, /leaves the delivery's folder/],
    [{ fileName: '{colour}' }, /asks for \{colour\}/],
    [{ safeZones: [{ title: 'badge', x: 0.9, y: 0, width: 0.3, height: 0.1 }] }, /reaches out of the frame/],
    [{ density: 300, formats: ['webp'] }, /cannot hold/],
  ] as const)
    expect(() => readSpecSheet(sheet({ ...slot(), ...change }))).toThrow(said);
  expect(() => readSpecSheet(sheet(slot(), slot()))).toThrow(/same id as another slot/);
  expect(readSpecSheet(JSON.parse(JSON.stringify(readSpecSheet(sheet(slot())))))).toEqual(
    readSpecSheet(sheet(slot())),
  );
});

test('a slot that takes several pictures stands once for each, and knows how severe its checks are', () => {
  const apart = expandSlots(
    readSpecSheet({
      ...sheet({ ...slot(), count: 3 }, { ...slot(), id: 'main-2' }),
      severity: { background: 'look' },
    }),
  );
  expect(apart.slots.map((s) => [s.id, s.required])).toEqual([
    ['main', true],
    ['main-2x', false],
    ['main-3', false],
    ['main-2', true],
  ]);
  expect(apart.slots[0].severity).toEqual({ background: 'look' });
});

test('what was measured once is judged by any rule later, without the picture', () => {
  const s = slot({ coverage: { min: 0.5 }, marginShare: 0.05 });
  const measures = JSON.parse(
    JSON.stringify(
      measureAll(
        subject(s, picture({ x: 100, y: 80, width: 200, height: 260 }, 249), {
          alt: '',
          file: { format: 'jpeg', bytes: 50_000, density: null, profile: 'srgb' },
        }),
      ),
    ),
  );
  expect(verdicts(measures, s)).toMatchObject({
    background: 'stop',
    coverage: 'pass',
    margin: 'pass',
    'file-size': 'pass',
    'file-format': 'pass',
    'alt-text': 'look',
  });
  const [found] = judgeMeasures(measures, s).filter((r) => r.check === 'background');
  expect(found.measured).toBe('98.9 %');
  expect(found.where!.x).toBeGreaterThan(0.85);
  expect(found.where!.width).toBeLessThan(0.13);
  // The patch is 6 levels from white: a sheet that tolerates 6 takes the same picture.
  expect(verdicts(measures, slot({ background: { kind: 'white', tolerance: 5 } })).background).toBe('stop');
  expect(verdicts(measures, slot({ background: { kind: 'white', tolerance: 6 } })).background).toBe('pass');
  expect(verdicts(measures, slot({ marginShare: 0.16 })).margin).toBe('stop');
  expect(verdicts(measures, slot({ maxBytes: 40_000 }))['file-size']).toBe('stop');
  expect(verdicts(measures, slot({ colourSpace: 'p3' }))['file-format']).toBe('stop');
  expect(verdicts(measures, slot({ density: 300 }))['file-format']).toBe('stop');
  expect(verdicts(measures, slot({ altText: 'required' }))['alt-text']).toBe('stop');
  expect(verdicts(measures, slot({ width: 500 }))['pixel-size']).toBe('stop');
  expect(
    verdicts(measures, slot({ limits: { minWidth: 300, minHeight: 300, maxAspect: 1.2 } }))['pixel-size'],
  ).toBe('pass');
});

test('a sheet decides how severe a check is, and a reasoned waiver waives a fault in its own cell', () => {
  const measures = measureAll(subject(slot(), picture({ x: 100, y: 100, width: 200, height: 200 }, 200)));
  expect(verdicts(measures, slot({ severity: { background: 'look' } })).background).toBe('look');
  expect(verdicts(measures, slot({ severity: { background: 'off' } }))).not.toHaveProperty('background');
  const results = judgeMeasures(measures, slot()).filter((r) => r.check === 'background');
  const waiver = { slotKey: 's/main', variantId: 'v1', check: 'background', reason: 'agreed' };
  expect(worst(withWaivers(results, [waiver], 's/main', 'v1'))).toBe('pass');
  expect(worst(withWaivers(results, [waiver], 's/main', 'v2'))).toBe('stop');
  expect(worst(withWaivers(results, [{ ...waiver, variantId: null }], 's/main', 'v2'))).toBe('pass');
});

test('a product that is cut off, soft, or of another colour than its cutout is told by how much', () => {
  const s = slot({ background: { kind: 'any' } });
  const sharp = picture({ x: 100, y: 100, width: 200, height: 200 });
  for (let i = 0; i < sharp.products.data.length; i++)
    if (sharp.products.data[i] && (Math.floor((i % 400) / 25) + Math.floor(i / 400 / 25)) % 2)
      sharp.image.data.set([180, 200, 190], i * 4);
  const blur = (image: Rgba, r: number): Rgba => {
    const out = createRgba(400, 400);
    for (let y = 0; y < 400; y++)
      for (let x = 0; x < 400; x++)
        for (let c = 0; c < 4; c++) {
          let sum = 0;
          let n = 0;
          for (let d = -r; d <= r; d++)
            for (let e = -r; e <= r; e++) {
              const [xx, yy] = [x + d, y + e];
              if (xx < 0 || yy < 0 || xx > 399 || yy > 399) continue;
              sum += image.data[(yy * 400 + xx) * 4 + c];
              n++;
            }
          out.data[(y * 400 + x) * 4 + c] = sum / n;
        }
    return out;
  };
  expect(verdicts(measureAll(subject(s, sharp)), s).sharpness).toBe('pass');
  expect(verdicts(measureAll(subject(s, { ...sharp, image: blur(sharp.image, 5) })), s).sharpness).not.toBe(
    'pass',
  );

  const neutral = createRgba(400, 400);
  neutral.data.set(sharp.image.data);
  const drifted = createRgba(400, 400);
  drifted.data.set(sharp.image.data.map((v, i) => (i % 4 === 0 ? v + 60 : v)));
  const drift = (image: Rgba) =>
    verdicts(measureAll(subject(s, { ...sharp, image }, { neutral })), s)['colour-drift'];
  expect([drift(sharp.image), drift(drifted)]).toEqual(['pass', 'stop']);
  // A scene's light may make it darker: its colour is judged in equal light, and so little light that it hides is told.
  const inLight = (share: number) => {
    const image = createRgba(400, 400);
    image.data.set(sharp.image.data.map((v, i) => (i % 4 === 3 ? v : fromLinear(LINEAR[v] * share))));
    const measured = measureAll(subject(s, { ...sharp, image }, { neutral }), undefined);
    return judgeMeasures(measured, s).find((r) => r.check === 'colour-drift')!;
  };
  expect(inLight(0.5)).toMatchObject({
    verdict: 'pass',
    measured: expect.stringMatching(/^delta E [01]\.\d, light (49|50|51) %$/),
  });
  expect(inLight(0.05)).toMatchObject({ verdict: 'look', sentence: expect.stringMatching(/hard to see/) });

  const shot = emptyShot(400, 400);
  const half = {
    ...newProduct(
      'p',
      { title: 'Pot', cutout: { picture: 'a'.repeat(64), width: 200, height: 200 } } as never,
      shot.frame,
      'stand',
    ),
    box: { x: -100, y: 100, width: 200, height: 200, rotation: 0 },
  };
  const cut = (whole: boolean) => {
    const own = slot({ whole, background: { kind: 'any' } });
    const measured = measureAll(
      subject(own, sharp, { shot: { ...shot.frame, elements: [half], missing: [] } }),
      undefined,
    );
    return judgeMeasures(measured, own).find((r) => r.check === 'cut-off');
  };
  expect(cut(true)).toMatchObject({ verdict: 'stop', measured: '50 % outside' });
  expect(cut(false)).toMatchObject({ verdict: 'look' });
});

test('pictures that look alike are found whatever their size; others and clashing names too', () => {
  const view = (shift: number, size: number) => {
    const image = createRgba(size, size);
    for (let y = 0; y < size; y++)
      for (let x = 0; x < size; x++) {
        const [u, v] = [x / size + shift, y / size];
        const light = 128 + 80 * Math.sin(u * 9) * Math.cos(v * 7 + shift * 5) + 40 * Math.sin((u + v) * 14);
        image.data.set([light, light, light, 255], (y * size + x) * 4);
      }
    return pictureHash(image);
  };
  expect(hashDistance(view(0, 400), view(0, 160))).toBeLessThanOrEqual(3);
  expect(hashDistance(view(0, 400), view(0.31, 400))).toBeGreaterThan(12);
  const found = nearDuplicates([
    { key: 'a', title: 'Main', hash: view(0, 400) },
    { key: 'b', title: 'Gallery', hash: view(0.31, 400) },
    { key: 'c', title: 'Detail', hash: view(0, 300) },
  ]);
  expect([...found.keys()]).toEqual(['c']);
  expect(found.get('c')!.sentence).toMatch(/looks like "Main"/);
  const clashes = nameClashes([
    { key: 'a', folder: 'K', name: 'pot' },
    { key: 'b', folder: 'K', name: 'POT' },
    { key: 'c', folder: 'O', name: 'pot' },
  ]);
  expect([...clashes.keys()]).toEqual(['a', 'b']);
});

test('empty slots are filled by their rules: white to white, no words where none are taken, more than one view', () => {
  const shot = (fill: string, overlays: number): Shot => {
    const s = emptyShot(1000, 1000);
    return {
      ...s,
      elements: [
        newBackdrop('b', s.frame, fill),
        ...Array.from({ length: overlays }, (_, i) => newText(`t${i}`, 'x', s.frame)),
      ],
    };
  };
  const shots = [
    { id: 'white', document: shot('#ffffff', 0) },
    { id: 'plain', document: shot('#aabbcc', 0) },
    { id: 'wordy', document: shot('#ccbbaa', 2) },
  ];
  const chosen = feedByRule(
    [
      { key: 'main', slot: slot() },
      { key: 'bare', slot: slot({ background: { kind: 'any' }, overlays: 'forbidden' }) },
      { key: 'free-1', slot: slot({ background: { kind: 'any' } }) },
      { key: 'free-2', slot: slot({ background: { kind: 'any' } }) },
    ],
    shots,
  );
  expect([...chosen.values()]).toEqual(['white', 'plain', 'wordy', 'plain']);
  expect(feedByRule([{ key: 'main', slot: slot() }], shots.slice(1)).size).toBe(0);
});
