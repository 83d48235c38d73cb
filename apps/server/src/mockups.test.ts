import sharp from 'sharp';
import { testServer } from './test-server';

const server = testServer();
const { call } = server;

const svg = (body: string, more = 'viewBox="0 0 200 100" width="200" height="100"') =>
  Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" ${more}>${body}</svg>`);
const take = (name: string, bytes: Buffer) =>
  call('POST', `/api/artwork?name=${encodeURIComponent(name)}`, bytes);

test('a design is drawn large, trimmed, and drawn again in other colours', async () => {
  const made = await take('leaf.svg', svg('<rect x="50" y="25" width="100" height="50" fill="green"/>'));
  expect(made.status).toBe(201);
  expect(made.body).toMatchObject({ vector: true, colours: ['#008000'], whiteGround: false });
  expect(made.body.width / made.body.height).toBeCloseTo(2, 1);
  expect(made.body.width).toBeGreaterThan(1900);
  const inked = await call('POST', `/api/artwork/${made.body.id}/inks`, { inks: { '#008000': '#aa2211' } });
  const png = Buffer.from(
    await (await fetch(`${server.base()}/api/blobs/${inked.body.picture}`)).arrayBuffer(),
  );
  const { data } = await sharp(png).raw().toBuffer({ resolveWithObject: true });
  expect([...data.subarray(0, 3)]).toEqual([0xaa, 0x22, 0x11]);
});

test('designs that are unsafe, empty, tiny or no pictures are refused with a sentence', async () => {
  const refusals: [string, Buffer, RegExp][] = [
    ['a.svg', svg('<script>alert(1)</script>'), /holds a <script>/],
    ['b.svg', svg('<image href="https://example.test/x.png"/>'), /outside itself/],
    [
      'c.svg',
      Buffer.from(
        '<?xml version="1.0"?><!DOCTYPE svg [<!ENTITY a "aaaa">]><svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9">&a;</svg>',
      ),
      /entities/,
    ],
    ['d.svg', svg('<rect width="50" height="50" fill="none"/>'), /shows nothing/],
    ['e.svg', svg('<rect width="0" height="0"/>', ''), /cannot be drawn|shows nothing/],
    [
      'f.png',
      await sharp({ create: { width: 1, height: 1, channels: 4, background: '#000000' } })
        .png()
        .toBuffer(),
      /at least 8/,
    ],
    ['g.png', Buffer.from('no picture'), /not a picture/],
  ];
  const before = (await call('GET', '/api/artwork')).body.length;
  for (const [name, bytes, sentence] of refusals) {
    const { status, body } = await take(name, bytes);
    expect([name, status, body.message]).toEqual([name, 422, expect.stringMatching(sentence)]);
  }
  expect((await call('GET', '/api/artwork')).body).toHaveLength(before);
  // Many parts are only slow, not wrong (far from the seconds that a reader is given, whatever the machine).
  const many = svg(
    Array.from({ length: 20_000 }, (_, i) => `<path d="M${i % 200} ${(i / 200) | 0}h1v1z"/>`).join(''),
    'viewBox="0 0 200 100"',
  );
  expect((await take('many.svg', many)).body).toMatchObject({ vector: true, colours: ['#000000'] });
});

interface SceneBody {
  id: string;
  title: string;
  palette: string[];
  season: string | null;
  revision: number;
  survey: {
    width: number;
    height: number;
    outline: string | null;
    areas: { id: string; corners: [number, number][]; bulgeMm: number }[];
  };
}

const mockup = async (title: string): Promise<SceneBody> =>
  ((await call('GET', '/api/scenes')).body as SceneBody[]).find((s) => s.title === title)!;

test('twisted print areas are refused and what was surveyed stays; a mockup goes out and comes back whole', async () => {
  const box = await mockup('Blank gift box');
  const { id, title, palette, season, survey, revision } = box;
  const [a, b, c, d] = survey.areas[0].corners;
  const twisted = {
    ...survey,
    areas: [{ ...survey.areas[0], corners: [a, c, b, d] }, ...survey.areas.slice(1)],
  };
  const refused = await call('PUT', `/api/scenes/${id}`, {
    revision,
    title,
    palette,
    season,
    survey: twisted,
  });
  expect([refused.status, refused.body.message]).toEqual([422, expect.stringMatching(/cross or fold in/)]);
  expect((await call('GET', `/api/scenes/${id}`)).body.survey).toEqual(survey);

  const zip = Buffer.from(
    await (await fetch(`${server.base()}/api/scenes/export.zip?id=${id}`)).arrayBuffer(),
  );
  await call('DELETE', `/api/scenes/${id}`);
  expect((await call('POST', '/api/scenes/import?name=m.zip', zip)).body).toEqual({ taken: 1, refused: [] });
  const back = await mockup('Blank gift box');
  expect(back.survey.areas).toEqual(survey.areas);
  expect(back.survey.outline).toMatch(/^[0-9a-f]{64}$/);
  // What a side-file leaves open is taken from the picture.
  expect((await mockup('Kraft seed packet')).survey.areas[0].bulgeMm).toBeGreaterThan(3);

  const small = await sharp({ create: { width: 20, height: 20, channels: 3, background: '#ffffff' } })
    .png()
    .toBuffer();
  expect((await call('POST', `/api/scenes/${back.id}/mended`, small)).body.message).toMatch(/20 x 20 pixels/);
});

async function printedShot() {
  const list = (await call('GET', '/api/listings')).body as { id: string; title: string }[];
  const { id } = list.find((l) => l.title === 'Printed planter')!;
  const { shots } = (await call('GET', `/api/listings/${id}`)).body as {
    shots: { id: string; title: string }[];
  };
  return shots.find((s) => s.title === 'Band')!.id;
}

const bytesOf = async (response: Response) => Buffer.from(await response.arrayBuffer());

test('options go on one sheet, a proof is a page with its words as words, an export has its size and density', async () => {
  const id = await printedShot();
  const shot = (await call('GET', `/api/shots/${id}`)).body;
  const [ground] = shot.document.elements;
  const { prints } = ground.fill.item;
  ground.fill.item.options = [
    { id: 'option-1', title: 'As it is', winner: false, prints, colour: null },
    { id: 'option-2', title: 'Moss glaze', winner: true, prints, colour: '#2f5d50' },
  ];
  const saved = await call('PUT', `/api/shots/${id}`, {
    revision: shot.revision,
    document: shot.document,
    history: shot.history,
  });
  expect(saved.status).toBe(200);
  const post = (path: string, body: unknown) =>
    fetch(`${server.base()}/api/shots/${id}/${path}`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    });
  const sheet = await sharp(
    await bytesOf(await post('option-sheet', { options: ['option-1', 'option-2'], columns: 2 })),
  ).metadata();
  expect(sheet.width / sheet.height).toBeGreaterThan(1.8);
  const gone = await post('option-sheet', { options: ['option-9'] });
  expect([gone.status, ((await gone.json()) as { message: string }).message]).toEqual([
    404,
    expect.stringMatching(/not kept/),
  ]);

  const words = {
    title: 'Stoneware planter {16} cm',
    options: ['Moss glaze'],
    prices: ['24 pieces £11.40'],
    notes: 'To be agreed.',
    foot: '',
    logo: null,
    show: ['option-2'],
  };
  const pdf = await bytesOf(await post('proof', { ...words, page: 'Letter', format: 'pdf' }));
  const text = pdf.toString('latin1');
  expect(text.startsWith('%PDF-')).toBe(true);
  expect(text).toContain('/MediaBox [0 0 612 792]');
  // Fonts are embedded and used: words are words.
  expect(text).toMatch(/\/FontFile[23]/);
  expect((text.match(/\/Type \/Page\b/g) ?? []).length).toBe(1);
  const png = await sharp(
    await bytesOf(await post('proof', { ...words, page: 'A4', format: 'png' })),
  ).metadata();
  expect([png.width, png.height, Math.round(png.density!)]).toEqual([1653, 2339, 200]);
  const many = await post('proof', { ...words, page: 'A4', format: 'pdf', show: Array(7).fill('option-1') });
  expect(((await many.json()) as { message: string }).message).toMatch(/up to 6 pictures/);

  const out = await fetch(`${server.base()}/api/shots/${id}/export?width=1181&density=300&format=jpeg`);
  const made = await sharp(await bytesOf(out)).metadata();
  expect([made.width, Math.round(made.density!)]).toEqual([1181, 300]);
  const huge = await fetch(`${server.base()}/api/shots/${id}/export?width=20000`);
  expect(((await huge.json()) as { message: string }).message).toMatch(/megapixels/);
});
