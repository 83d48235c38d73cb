import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import {
  copyFileSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  readdirSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { verdictOf } from '@scenograph/core/cutout/confidence';
import sharp from 'sharp';
import { readSceneFile } from '@scenograph/core/stage/scene-file';
import { sceneShot } from '@scenograph/core/shot/starters';
import { DESIGNS } from '@scenograph/core/templates/designs';
import { fillTemplate } from '@scenograph/core/templates/fill';

const ROOT = join(__dirname, '../../..');
const folder = mkdtempSync(join(tmpdir(), 'scenograph-cli-'));
const at = (name: string) => join(folder, name);

function scenograph(...args: string[]) {
  const done = spawnSync(join(ROOT, 'node_modules/.bin/scenograph'), args, { cwd: ROOT, encoding: 'utf8' });
  return {
    code: done.status,
    json: done.stdout.startsWith('{') ? JSON.parse(done.stdout) : null,
    error: done.stderr,
  };
}

test('cutout, render and check work one after the other, as JSON', async () => {
  const photo = join(ROOT, 'demo/assets/products/planter-teal.jpg');
  const cut = scenograph('cutout', photo, '-o', at('cut.png'), '--matte', at('matte.png'));
  expect(cut.code).toBe(0);
  const grey = (file: string) => sharp(file).removeAlpha().extractChannel(0).raw().toBuffer();
  const [mine, truth] = await Promise.all([grey(at('matte.png')), grey(photo.replace('.jpg', '.matte.png'))]);
  const squares = mine.reduce((s, v, i) => s + ((v - truth[i]) / 255) ** 2, 0);
  expect(squares / mine.length).toBeLessThan(0.005);
  expect(cut.json.verdict).toBe(verdictOf(cut.json.confidence));
  const matte = await sharp(at('matte.png')).metadata();
  expect([matte.width, matte.height, matte.channels]).toEqual([1800, 1600, 1]);
  const picture = await sharp(at('cut.png')).metadata();
  expect([picture.width, picture.height]).toEqual([cut.json.bounds.width, cut.json.bounds.height]);

  const hash = (file: string) => createHash('sha256').update(readFileSync(file)).digest('hex');
  mkdirSync(at('assets'));
  const sceneFile = join(ROOT, 'demo/assets/scenes/potting-bench.jpg');
  copyFileSync(sceneFile, at('assets/bench.jpg'));
  copyFileSync(at('cut.png'), at(`assets/${hash(at('cut.png'))}.png`));
  const { survey } = readSceneFile(readFileSync(sceneFile.replace('.jpg', '.json'), 'utf8'));
  const data = {
    title: 'Planter',
    variant: '',
    sku: 'P',
    price: null,
    currency: 'GBP',
    widthMm: 162,
    heightMm: 148,
    depthMm: 162,
    cutout: { picture: hash(at('cut.png')), width: picture.width, height: picture.height },
  };
  const shot = sceneShot(data, 'stand', {
    title: 'Bench',
    picture: hash(sceneFile),
    survey,
  });
  writeFileSync(at('shot.json'), JSON.stringify(shot));
  for (const [size, file] of [
    ['1000x750', 'same.jpg'],
    ['500x500', 'square.webp'],
  ]) {
    const made = scenograph(
      'render',
      at('shot.json'),
      '--assets',
      at('assets'),
      '--size',
      size,
      '-o',
      at(file),
    );
    expect(made.code).toBe(0);
    const meta = await sharp(at(file)).metadata();
    expect(`${meta.width}x${meta.height}`).toBe(size);
    expect(made.json.sha256).toBe(hash(at(file)));
  }

  // A template's words, prices and brand come from data; in a strip they are arranged by rule.
  const filled = fillTemplate(DESIGNS.find((d) => d.id === 'sale-half')!.document, data, 'stand');
  writeFileSync(at('sale.json'), JSON.stringify(filled));
  writeFileSync(at('data.json'), JSON.stringify({ ...data, price: 24, fields: { was: '30' } }));
  const sale = (...more: string[]) =>
    scenograph(
      'render',
      at('sale.json'),
      '--assets',
      at('assets'),
      '--size',
      '728x90',
      '-o',
      at('sale.png'),
      ...more,
    );
  expect(sale().json.missing).toEqual(expect.arrayContaining(['title', 'amount', 'was']));
  expect(sale('--data', at('data.json')).json).toMatchObject({ missing: [], dropped: [] });
  writeFileSync(at('odd.json'), JSON.stringify({ ...data, price: 'free' }));
  const odd = sale('--data', at('odd.json'));
  expect([odd.code, odd.error]).toEqual([
    1,
    expect.stringMatching(/not product data: "price" must be a number/),
  ]);

  const slot = JSON.parse(readFileSync(join(ROOT, 'demo/spec-sheets/kestrel-market.json'), 'utf8')).slots[0];
  writeFileSync(at('slot.json'), JSON.stringify(slot));
  const checked = scenograph('check', at('same.jpg'), '--slot', at('slot.json'));
  expect(checked.code).toBe(3);
  const verdict = (id: string) => checked.json.checks.find((c: { check: string }) => c.check === id).verdict;
  expect([verdict('pixel-size'), verdict('background'), verdict('format')]).toEqual(['stop', 'stop', 'pass']);

  const white = await sharp({ create: { width: 2000, height: 2000, channels: 3, background: '#fff' } })
    .composite([{ input: await sharp(at('cut.png')).resize(1780, 1780, { fit: 'inside' }).toBuffer() }])
    .jpeg({ quality: 95 })
    .toBuffer();
  writeFileSync(at('white.jpg'), white);
  const good = scenograph('check', at('white.jpg'), '--slot', at('slot.json'));
  expect(good.json.checks.filter((c: { verdict: string }) => c.verdict === 'stop')).toEqual([]);
  expect(good.code).toBe(0);
});

test('cutout takes corrections, an outline, an edge shift and gives the shadow', () => {
  const photo = join(ROOT, 'demo/assets/products/planter-teal.jpg');
  const plain = scenograph('cutout', photo, '-o', at('p.png'), '--matte', at('p.matte.png')).json;
  const wide = scenograph(
    'cutout',
    photo,
    '-o',
    at('w.png'),
    '--edge-shift',
    '6',
    '--shadow',
    at('s.png'),
  ).json;
  expect(wide.bounds.width - plain.bounds.width).toBeGreaterThanOrEqual(10);
  expect(wide.bounds.width - plain.bounds.width).toBeLessThanOrEqual(14);
  expect(wide.shadowFound).toBe(true);
  const dropped = scenograph(
    'cutout',
    photo,
    '-o',
    at('d.png'),
    '--drop',
    '900,200,640',
    '--keep',
    '900,1300,60',
  );
  expect(dropped.json.bounds.height).toBeLessThan(plain.bounds.height - 100);
  writeFileSync(
    at('half.svg'),
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 180 160"><rect x="90" width="90" height="160"/></svg>',
  );
  const half = scenograph('cutout', photo, '-o', at('h.png'), '--from-outline', at('half.svg')).json;
  expect([half.bounds.x, half.bounds.width]).toEqual([900, 900]);
  expect(scenograph('cutout', photo, '-o', at('x.png'), '--keep', '1,2').error).toMatch(/x,y,radius/);
  expect(scenograph('cutout', photo, '-o', at('x.png'), '--box', '1,2,0,9').error).toMatch(
    /x,y,width,height/,
  );
  expect(scenograph('cutout', photo, '-o', at('x.png'), '--at', 'here').error).toMatch(/x,y in pixels/);
  const boxed = scenograph(
    'cutout',
    photo,
    '-o',
    at('b.png'),
    '--box',
    '300,150,1200,1350',
    '--at',
    '900,800',
  ).json;
  expect(boxed.bounds.width).toBeGreaterThan(600);
});

test('stage stands a cutout true to size on a spot and prints where; what cannot be staged is said', () => {
  const scene = join(ROOT, 'demo/assets/scenes/winter-table.json');
  const made = scenograph(
    'stage',
    scene,
    at('cut.png'),
    '--spot',
    'left',
    '--height-mm',
    '148',
    '-o',
    at('staged.jpg'),
  );
  expect(made.code).toBe(0);
  const { box, base, trueSizeShare, colourDrift, pitch, gloss } = made.json;
  // Its photo shows the windows of the studio on the glaze.
  expect(gloss).toBe(1);
  expect([base.x, base.y]).toEqual([525.27, 1063.94]);
  expect(trueSizeShare).toBeCloseTo(1, 2);
  expect(colourDrift).toBeLessThanOrEqual(6.01);
  expect(Math.abs(pitch.scene - 17.7)).toBeLessThan(0.5);
  const smaller = scenograph(
    'stage',
    scene,
    at('cut.png'),
    '--spot',
    'left',
    '--height-mm',
    '74',
    '--tone',
    '0',
    '--relight',
    '0',
    '--light',
    '40,50,0.2',
    '--gloss',
    '0',
    '-o',
    at('small.png'),
  );
  const half = smaller.json;
  expect(half.box.width / box.width).toBeCloseTo(0.5, 1);
  expect([half.colourDrift, half.light, half.gloss]).toEqual([0, 1, 0]);
  // From behind, the scene's light leaves the near side dark.
  const lit = (azimuth: number) =>
    scenograph(
      'stage',
      scene,
      at('cut.png'),
      ...['--height-mm', '148', '--light', `${azimuth},40,0.2`, '-o', at('lit.png')],
    ).json.light as number;
  expect(lit(180)).toBeLessThan(0.7 * lit(0));
  for (const [args, sentence] of [
    [['--spot', 'roof', '--height-mm', '100'], /no spot "roof"; it has centre, left, right/],
    [['--height-mm', '100', '--light', '0,-5,0.5'], /above the plane/],
    [['--height-mm', '0'], /millimetres above 0/],
    [['--height-mm', '100', '--relight', '1.5'], /0 to 1/],
    [['--height-mm', '100', '--gloss', '2'], /0 to 1/],
  ] as const)
    expect(scenograph('stage', scene, at('cut.png'), ...args, '-o', at('no.jpg')).error).toMatch(sentence);
  writeFileSync(at('broken.json'), '{"name":');
  expect(
    scenograph('stage', at('broken.json'), at('cut.png'), '--height-mm', '90', '-o', at('no.jpg')).error,
  ).toMatch(/"broken.json" is not JSON/);
  expect(existsSync(at('no.jpg'))).toBe(false);
});

test('what cannot be used is said in one sentence, with its exit code, and leaves no file', () => {
  writeFileSync(at('words.jpg'), 'not a picture');
  writeFileSync(at('bad.json'), '{');
  const cases: [string[], number, RegExp][] = [
    [['cutout', at('words.jpg'), '-o', at('x.png')], 1, /not a picture/],
    [['cutout', at('missing.jpg'), '-o', at('x.png')], 1, /no file or folder/],
    [
      ['render', at('bad.json'), '--assets', folder, '--size', '100x100', '-o', at('x.jpg')],
      1,
      /not valid JSON/,
    ],
    [['render', at('bad.json'), '--assets', folder, '--size', 'huge', '-o', at('x.jpg')], 2, /WIDTHxHEIGHT/],
    [['check', at('words.jpg')], 2, /--slot/],
    [['paint'], 2, /unknown command/],
  ];
  for (const [args, code, words] of cases) {
    const done = scenograph(...args);
    expect([args[0], done.code]).toEqual([args[0], code]);
    expect(done.error).toMatch(words);
    expect(done.error).not.toMatch(/\n\s+at /);
  }
  expect(existsSync(at('x.png')) || existsSync(at('x.jpg'))).toBe(false);
  expect(readdirSync(folder).filter((f) => f.endsWith('.part'))).toEqual([]);
  expect(scenograph('--help').code).toBe(0);
});

test('print lays a design on an area in its ink and fills it exactly; fill grows over what a mask marks', async () => {
  const mockup = join(ROOT, 'demo/assets/mockups/planter-band.json');
  writeFileSync(
    at('stripe.svg'),
    '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 200 100" width="200" height="100"><rect width="100" height="100" fill="#c02020"/></svg>',
  );
  const done = scenograph('print', mockup, at('stripe.svg'), '-o', at('printed.png'));
  expect(done.code).toBe(0);
  expect(done.json).toMatchObject({
    area: 'band',
    shape: 'cone',
    lay: 'multiply',
    place: { width: 136.2, height: 70.6 },
  });
  const pixel = async (file: string, left: number, top: number) => [
    ...(await sharp(file).extract({ left, top, width: 1, height: 1 }).removeAlpha().raw().toBuffer()),
  ];
  const blank = mockup.replace('.json', '.jpg');
  // The left half of the band is red, the right half as blank as it was.
  const [r, g] = await pixel(at('printed.png'), 800, 850);
  expect(r).toBeGreaterThan(g * 2);
  expect(await pixel(at('printed.png'), 1150, 850)).toEqual(await pixel(blank, 1150, 850));
  const inked = scenograph(
    'print', mockup, at('stripe.svg'), '--width-mm', '40', '--ink', '#2040c0', '--opacity', '1', '--lay', 'opaque', '-o', at('inked.jpg'),
  ); // prettier-ignore
  expect(inked.json).toMatchObject({
    ink: '#2040c0',
    opacity: 1,
    lay: 'opaque',
    place: { width: 40, height: 20 },
  });
  const wrong = scenograph('print', mockup, at('stripe.svg'), '--area', 'lid', '-o', at('no.png'));
  expect([wrong.code, wrong.error]).toEqual([1, expect.stringMatching(/no print area "lid"; it has band/)]);

  await sharp({ create: { width: 120, height: 90, channels: 3, background: '#b09070' } })
    .composite([
      { input: { create: { width: 16, height: 16, channels: 3, background: '#000000' } }, left: 50, top: 40 },
    ])
    .png()
    .toFile(at('scratch.png'));
  await sharp({ create: { width: 120, height: 90, channels: 3, background: '#000000' } })
    .composite([
      { input: { create: { width: 20, height: 20, channels: 3, background: '#ffffff' } }, left: 48, top: 38 },
    ])
    .png()
    .toFile(at('mark.png'));
  const filled = scenograph('fill', at('scratch.png'), '--mask', at('mark.png'), '-o', at('filled.png'));
  expect(filled.json).toMatchObject({ width: 120, height: 90, filledPixels: 400 });
  expect((await pixel(at('filled.png'), 58, 48))[0]).toBeGreaterThan(160);
  const crisp = scenograph(
    'fill',
    at('scratch.png'),
    '--mask',
    at('mark.png'),
    '--texture',
    '1',
    '-o',
    at('crisp.png'),
  );
  expect([filled.json!.texture, crisp.json!.texture]).toEqual([0, 1]);
  expect(
    scenograph('fill', at('scratch.png'), '--mask', at('mark.png'), '--texture', '2', '-o', at('no.png'))
      .code,
  ).toBe(2);
  const none = scenograph('fill', at('scratch.png'), '--mask', at('scratch.png'), '-o', at('no.png'));
  expect(none.code).toBe(1);
});
